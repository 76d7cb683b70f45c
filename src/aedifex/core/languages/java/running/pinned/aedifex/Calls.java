package aedifex;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * The calls of the methods of some classes, as source text from which a test can be made.
 *
 * <p>Noted of each call: how its object and arguments are made, the call, and what it gave, printed and changed. A call that asks
 * for chance or the time is left out: no test could give it the same.
 */
public final class Calls {
    private static final int MOST = 400; // different calls of one method
    private static final int ROW = 6000; // characters of what is noted of a call
    private static final Object NOTHING = new Object();
    private static final Map<String, Set<String>> seen = new HashMap<>();
    private static final ByteArrayOutputStream heard = new ByteArrayOutputStream();
    private static Thread watched;
    private static Calls running;

    private final Calls outer;
    private final String name;
    private final Object owner;
    private final Making making = new Making(true);
    private final String target;
    private final String given;
    private final Map<String, String> before;
    private final Set<Integer> places = new TreeSet<>();
    private final long asked;
    private final int said;

    private Calls(String name, Object owner, Object[] given) {
        this.outer = running;
        this.name = name;
        this.owner = owner;
        this.target = making.object(owner);
        this.given = target == null ? null : making.list(given);
        this.before = Making.flat(owner);
        this.asked = Pin.asked();
        this.said = heard.size();
    }

    /** From now on what is printed is heard as well. */
    static void begin() {
        watched = Thread.currentThread();
        PrintStream out = System.out;
        System.setOut(new PrintStream(out, true) {
            @Override
            public void write(byte[] bytes, int from, int length) {
                hear(bytes, from, length);
                super.write(bytes, from, length);
            }

            @Override
            public void write(int one) {
                hear(new byte[] {(byte) one}, 0, 1);
                super.write(one);
            }
        });
    }

    private static void hear(byte[] bytes, int from, int length) {
        if (running != null && heard.size() < 1 << 20) {
            heard.write(bytes, from, length);
        }
    }

    /** A constructor is at its end. */
    public static void born(Object object, Object[] given) {
        if (Thread.currentThread() == watched) {
            Making.born(object, given);
        }
    }

    /** A method begins; null if nobody looks at it. */
    public static Calls enter(String name, Object owner, Object[] given) {
        if (Thread.currentThread() != watched || seen.computeIfAbsent(called(owner, name), k -> new HashSet<>()).size() >= MOST) {
            return null;
        }
        running = new Calls(name, owner, given);
        return running;
    }

    private static String called(Object owner, String name) {
        return owner.getClass().getSimpleName() + "." + name;
    }

    /** A block of the method that runs begins. */
    public static void at(int place) {
        if (running != null && Thread.currentThread() == watched) {
            running.places.add(place);
        }
    }

    /** It is over and gives nothing. */
    public static void left(Calls call) {
        over(call, NOTHING, null);
    }

    /** It is over and gives this. */
    public static void left(Calls call, Object result) {
        over(call, result, null);
    }

    /** It is over with an error. */
    public static void threw(Calls call, Throwable error) {
        over(call, NOTHING, error);
    }

    private static void over(Calls call, Object result, Throwable error) {
        if (call == null) {
            return;
        }
        running = call.outer;
        byte[] all = heard.toByteArray();
        String printed = new String(all, call.said, all.length - call.said, StandardCharsets.UTF_8);
        if (running == null) {
            heard.reset();
        }
        if (call.given != null && Pin.asked() == call.asked) {
            call.note(result, error, printed);
        }
    }

    private void note(Object result, Throwable error, String printed) {
        Map<String, String> after = Making.flat(owner);
        Map<String, String> known = new LinkedHashMap<>(after);
        known.keySet().removeIf(k -> after.get(k) == null || before.get(k) == null);
        Set<String> changed = new HashSet<>(known.keySet());
        changed.removeIf(k -> after.get(k).equals(before.get(k)));
        Json row = new Json().put("class", owner.getClass().getSimpleName()).put("method", name).put("setup", making.lines);
        row.put("target", target).put("call", target + "." + name + "(" + given + ")").put("printed", printed);
        row.put("result", result == NOTHING ? null : Making.code(result));
        row.put("raised", error == null ? null : error.getClass().getCanonicalName());
        row.put("message", error == null ? null : Making.code(error.getMessage()));
        row.put("after", known).put("changed", new TreeSet<>(changed)).put("hidden", Making.hidden(owner));
        row.put("things", making.after()).put("lines", places);
        String key = making.lines + given;
        String text = row.toString();
        if (text.length() <= ROW && seen.get(called(owner, name)).add(key)) {
            Log.note("call", text);
        }
    }
}
