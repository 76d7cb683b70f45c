package aedifex;

import java.util.ArrayList;
import java.util.List;

/** What a sketch draws in one frame, as text. */
final class Recorder {
    private static final int LONG = 4000; // characters of a shot
    private static final int MANY = 20000; // calls of a frame that are kept as text
    private int more; // calls beyond them
    private int rest; // and what they were, as a number
    private final List<String> drawn = new ArrayList<>();

    void call(String name, Object... values) {
        StringBuilder text = new StringBuilder(name).append('(');
        for (int i = 0; i < values.length; i++) {
            text.append(i == 0 ? "" : ", ").append(shown(values[i]));
        }
        text.append(')');
        if (drawn.size() < MANY) {
            drawn.add(text.toString());
        } else {
            more++;
            rest = 31 * rest + text.toString().hashCode();
        }
    }

    /** All that was drawn, as one short word. */
    String told() {
        return drawn.isEmpty() ? "" : " " + Integer.toHexString(31 * drawn.hashCode() + rest);
    }

    private static String shown(Object value) {
        if (value instanceof Float f) {
            return f == Math.rint(f) && Math.abs(f) < 1e9 ? String.valueOf((long) (float) f) : String.valueOf(f);
        }
        return value instanceof String ? '"' + (String) value + '"' : String.valueOf(value);
    }

    void shot(int frame) {
        if (drawn.isEmpty()) {
            return;
        }
        String text = String.join("\n", drawn) + (more > 0 ? "\n... (" + more + " more, " + rest + ")" : "");
        drawn.clear();
        more = 0;
        rest = 0;
        Log.note("shot", "frame " + frame, text.length() <= LONG ? text : text.substring(0, LONG) + "... (" + text.length() + ", " + text.hashCode() + ")");
    }
}
