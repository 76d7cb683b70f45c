package aedifex;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.util.Arrays;

/** Starts a program, and notes what its variables hold when it is over. */
public final class Run {
    public static void main(String[] args) throws Exception {
        Plan.read();
        Pin.begin();
        if (Plan.calls) {
            Calls.begin();
        }
        Runtime.getRuntime().addShutdownHook(new Thread(Pin::finish));
        if (Plan.windows) {
            Windows.begin();
        }
        Class<?> program = Class.forName(args[0]);
        Method main = program.getDeclaredMethod("main", String[].class);
        main.setAccessible(true);
        try {
            main.invoke(null, (Object) Arrays.copyOfRange(args, 1, args.length));
        } catch (InvocationTargetException wrapped) {
            System.out.flush();
            System.err.print("Exception in thread \"main\" ");
            wrapped.getCause().printStackTrace();
            System.exit(1);
        }
    }
}
