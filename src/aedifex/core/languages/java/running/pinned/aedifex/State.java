package aedifex;

import java.lang.reflect.Array;
import java.lang.reflect.Field;
import java.lang.reflect.Modifier;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.StringJoiner;

/** What the watched variables hold at each moment, wherever they live by now: a variable, or the field of an object. */
final class State {
    private static final String UNSEEN = "?";
    private static final int DEPTH = 4;
    private static final int MANY = 3000; // moments that are noted one by one; after those every tenth
    private static final Map<String, List<Object>> made = new HashMap<>();
    private static final Map<String, String> last = new HashMap<>();
    private static int moments;
    private static Object sketch;

    static void begin() {
        made.clear();
    }

    static void follow(Object running) {
        sketch = running;
    }

    static synchronized void made(Object object) {
        List<Object> all = made.computeIfAbsent(object.getClass().getSimpleName(), k -> new ArrayList<>());
        if (all.size() < 1000) {
            all.add(object);
        }
    }

    static void moment(String label) {
        moments += 1;
        if (moments > MANY && moments % 10 != 0) {
            return;
        }
        for (String[] row : Plan.watched) {
            String text = look(row);
            if (!text.equals(last.put(row[0], text))) {
                Log.note("state", row[0], label, text);
            }
        }
    }

    private static String look(String[] row) {
        Object home = sketch;
        Class<?> kind = home != null ? home.getClass() : loaded(row[1]);
        Field field = field(kind, row[2]);
        if (field != null) {
            return value(field, home);
        }
        Object object = row[3].isEmpty() ? null : holder(row, kind, home);
        if (object == null) {
            return UNSEEN;
        }
        for (String member : row[5].split(",")) {
            Field held = field(object.getClass(), member);
            if (held != null) {
                return value(held, object);
            }
        }
        return "-";
    }

    private static Object holder(String[] row, Class<?> kind, Object home) {
        List<Object> all = made.getOrDefault(row[4], List.of());
        if (all.size() <= 1) {
            return all.isEmpty() ? null : all.get(0);
        }
        Field named = field(kind, row[3]);
        if (named != null) {
            return get(named, home);
        }
        for (List<Object> others : made.values()) {
            Field owned = others.isEmpty() ? null : field(others.get(0).getClass(), row[3]);
            if (owned != null && get(owned, others.get(0)) != null) {
                return get(owned, others.get(0));
            }
        }
        return null;
    }

    private static Class<?> loaded(String name) {
        try {
            return Class.forName(name, false, State.class.getClassLoader());
        } catch (ClassNotFoundException | LinkageError error) {
            return null;
        }
    }

    private static Field field(Class<?> kind, String name) {
        if (kind == null) {
            return null;
        }
        try {
            Field found = kind.getDeclaredField(name);
            found.setAccessible(true);
            return found;
        } catch (NoSuchFieldException | RuntimeException error) {
            return null;
        }
    }

    private static Object get(Field field, Object object) {
        try {
            return field.get(Modifier.isStatic(field.getModifiers()) ? null : object);
        } catch (IllegalAccessException | LinkageError | RuntimeException error) {
            return null;
        }
    }

    private static String value(Field field, Object object) {
        return tell(get(field, object), 0);
    }

    static String tell(Object value, int depth) {
        if (value == null || value instanceof Number || value instanceof Boolean || value instanceof Character || value instanceof Enum<?>) {
            return String.valueOf(value);
        }
        if (value instanceof CharSequence) {
            String text = value.toString();
            return text.length() <= 300 ? '"' + text + '"' : '"' + text.substring(0, 300) + "\"... (" + text.length() + ", " + text.hashCode() + ")";
        }
        if (depth > DEPTH) {
            return "...";
        }
        if (value.getClass().isArray()) {
            StringJoiner parts = new StringJoiner(", ", "[", "]");
            for (int i = 0; i < Math.min(50, Array.getLength(value)); i++) {
                parts.add(tell(Array.get(value, i), depth + 1));
            }
            return parts + more(Array.getLength(value));
        }
        if (value instanceof Collection<?> all) {
            StringJoiner parts = new StringJoiner(", ", "[", "]");
            all.stream().limit(50).forEach(item -> parts.add(tell(item, depth + 1)));
            return parts + more(all.size());
        }
        if (value instanceof Map<?, ?> all) {
            StringJoiner parts = new StringJoiner(", ", "{", "}");
            all.entrySet().stream().limit(50).forEach(e -> parts.add(tell(e.getKey(), depth + 1) + "=" + tell(e.getValue(), depth + 1)));
            return parts + more(all.size());
        }
        return object(value, depth);
    }

    private static String object(Object value, int depth) {
        String name = value.getClass().getSimpleName();
        if (!made.containsKey(name) && !(value instanceof PVector)) {
            return "<" + (name.contains("$$Lambda") ? "lambda" : name) + ">"; // its name differs from run to run
        }
        StringJoiner parts = new StringJoiner(", ", name + "(", ")");
        for (Field field : value.getClass().getDeclaredFields()) {
            if (!Modifier.isStatic(field.getModifiers()) && !field.isSynthetic()) {
                Field held = field(value.getClass(), field.getName());
                parts.add(field.getName() + "=" + (held == null ? UNSEEN : tell(get(held, value), depth + 1)));
            }
        }
        return parts.toString();
    }

    private static String more(int size) {
        return size > 50 ? " " + size + " in all" : "";
    }
}
