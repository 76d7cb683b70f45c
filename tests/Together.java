import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.lang.reflect.InvocationTargetException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.Permission;
import java.util.Base64;

/** Runs one compiled program after another in one engine: a request a line (log, support, classes, main class; tabs between), an answer each. */
@SuppressWarnings("removal")
public final class Together {
    /** The status that the program itself asked for; what catches it on its way may ask for another. */
    private static volatile Integer asked;

    static final class Ended extends SecurityException {
        Ended(int status) {
            super("status " + status);
        }
    }

    public static void main(String[] args) throws Exception {
        System.setSecurityManager(new SecurityManager() {
            @Override
            public void checkExit(int status) {
                if (asked == null) asked = status;
                throw new Ended(status);
            }

            @Override
            public void checkPermission(Permission permission) { }
        });
        PrintStream answers = System.out;
        BufferedReader in = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        for (String line = in.readLine(); line != null; line = in.readLine()) {
            String[] parts = line.split("\t");
            Files.deleteIfExists(Path.of(parts[0]));
            ByteArrayOutputStream said = new ByteArrayOutputStream();
            System.setOut(new PrintStream(said, true, StandardCharsets.UTF_8));
            System.setErr(System.out);
            System.setIn(new ByteArrayInputStream(new byte[0]));
            asked = null;
            String[] end = {"still running"};
            URL[] places = {Path.of(parts[1]).toUri().toURL(), Path.of(parts[2]).toUri().toURL()};
            URLClassLoader loader = new URLClassLoader(places, ClassLoader.getPlatformClassLoader());
            Thread run = new Thread(() -> end[0] = ran(loader, parts[3]));
            run.setContextClassLoader(loader);
            run.setDaemon(true);
            run.start();
            run.join(20_000);
            Path log = Path.of(parts[0]);
            String noted = Files.exists(log) ? Files.readString(log) : "";
            byte[] whole = ((asked == null ? end[0] : "status " + asked) + "\n" + said.toString(StandardCharsets.UTF_8) + "\n" + noted).getBytes(StandardCharsets.UTF_8);
            answers.println(Base64.getEncoder().encodeToString(whole));
            answers.flush();
        }
        System.setSecurityManager(null);
        Runtime.getRuntime().halt(0);
    }

    private static String ran(ClassLoader loader, String name) {
        try {
            Class<?> start = loader.loadClass("aedifex.Run");
            start.getMethod("main", String[].class).invoke(null, (Object) new String[] {name});
            loader.loadClass("aedifex.Pin");
            return "done";
        } catch (InvocationTargetException wrapped) {
            return String.valueOf(wrapped.getCause());
        } catch (ReflectiveOperationException | Error error) {
            return String.valueOf(error);
        }
    }
}
