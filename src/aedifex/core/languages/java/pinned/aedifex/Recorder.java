package aedifex;

import java.util.ArrayList;
import java.util.List;

/** What a sketch draws in one frame, as text. */
final class Recorder {
    private static final int LONG = 4000; // characters of a shot
    private final List<String> drawn = new ArrayList<>();

    void call(String name, Object... values) {
        if (drawn.size() > 20000) {
            return;
        }
        StringBuilder text = new StringBuilder(name).append('(');
        for (int i = 0; i < values.length; i++) {
            text.append(i == 0 ? "" : ", ").append(shown(values[i]));
        }
        drawn.add(text.append(')').toString());
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
        String text = String.join("\n", drawn);
        drawn.clear();
        Log.note("shot", "frame " + frame, text.length() <= LONG ? text : text.substring(0, LONG) + "... (" + text.length() + ", " + text.hashCode() + ")");
    }
}
