package aedifex;

import java.io.PrintStream;
import java.lang.reflect.Array;
import java.lang.reflect.Field;
import java.lang.reflect.Modifier;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.StringJoiner;
import java.util.TreeMap;
import java.util.TreeSet;

/** Values and objects as source text that makes them again. */
final class Making {
    private static final int DEPTH = 5;
    private static final int LONG = 1500; // characters of one value
    private static final int OBJECTS = 500; // whose making is remembered
    private static final Map<Object, Birth> births = new IdentityHashMap<>();
    private static final Set<Class<?>> kinds = new HashSet<>();
    private static final Set<String> words = Set.of(("abstract assert boolean break byte case catch char class const continue default do double else enum extends "
        + "final finally float for goto if implements import instanceof int interface long native new package private protected public return short "
        + "static strictfp super switch synchronized this throw throws transient try void volatile while true false null told out").split(" "));

    /** How an object was made: its arguments (null if they cannot be written), and its fields then. */
    private record Birth(String given, boolean told, Map<String, String> fields) { }

    final List<String> lines = new ArrayList<>();
    private final Map<Object, String> names = new IdentityHashMap<>();
    private final Map<String, Object> held = new LinkedHashMap<>(); // name → what a call may change
    private final boolean lasting; // whether there may be lines at all
    private boolean told; // whether something is handed the stream that it tells through

    Making(boolean lasting) {
        this.lasting = lasting;
    }

    static void born(Object object, Object[] given) {
        if (births.size() < OBJECTS) {
            kinds.add(object.getClass());
            Making making = new Making(false);
            String text = making.list(given);
            births.put(object, new Birth(text, making.told, flat(object)));
        }
    }

    /** Make an object as in the run, with its fields as they are now; its name, or null if that cannot be told. */
    String object(Object owner) {
        Birth known = births.get(owner);
        if (names.containsKey(owner) || known == null || known.given() == null || !lasting) {
            return names.get(owner);
        }
        String kind = owner.getClass().getSimpleName();
        Map<String, String> now = flat(owner);
        List<String> changes = new ArrayList<>();
        Set<String> closed = new HashSet<>(closed(owner));
        String name = free(stem(kind));
        for (Map.Entry<String, String> field : now.entrySet()) {
            if (!Objects.equals(field.getValue(), known.fields().get(field.getKey()))) {
                if (field.getValue() == null) {
                    return null;
                }
                String path = field.getKey();
                changes.add(closed.contains(path) ? "set(" + name + ", \"" + path + "\", " + field.getValue() + ");" : name + "." + path + " = " + field.getValue() + ";");
            }
        }
        if (known.told()) {
            stream();
        }
        lines.add(kind + " " + name + " = new " + kind + "(" + known.given() + ");");
        lines.addAll(changes);
        names.put(owner, name);
        return name;
    }

    private static String stem(String kind) {
        String found = Character.toLowerCase(kind.charAt(0)) + kind.substring(1);
        return words.contains(found) || found.equals(kind) ? found + "1" : found;
    }

    private String free(String name) {
        String found = name;
        for (int n = 2; names.containsValue(found) || held.containsKey(found); n++) {
            found = name + n;
        }
        return found;
    }

    /** Arguments as they stand in a call; null if one of them cannot be written. */
    String list(Object[] given) {
        StringJoiner parts = new StringJoiner(", ");
        for (Object value : given) {
            String text = argument(value);
            if (text == null) {
                return null;
            }
            parts.add(text);
        }
        return parts.toString();
    }

    private String argument(Object value) {
        if (value != null && kinds.contains(value.getClass())) {
            return object(value);
        }
        if (value instanceof PrintStream) {
            return stream();
        }
        String text = code(value);
        if (text == null || !lasting || !text.startsWith("new ") || text.contains("<>()")) {
            return text;
        }
        String name = free("given");
        lines.add("var " + name + " = " + text + ";");
        held.put(name, value);
        return name;
    }

    /** A stream whose text a test can read. */
    private String stream() {
        if (lasting && !told) {
            lines.add("ByteArrayOutputStream told = new ByteArrayOutputStream();");
            lines.add("PrintStream out = new PrintStream(told, true, \"UTF-8\");");
        }
        told = true;
        return "out";
    }

    /** What the call left in the lists and tables that it was given. */
    Map<String, String> after() {
        Map<String, String> found = new LinkedHashMap<>();
        held.forEach((name, value) -> found.put(name, code(value)));
        return found;
    }

    /** Path of each field, also of objects that it owns → its source text, null for what has none. */
    static Map<String, String> flat(Object owner) {
        Map<String, String> found = new LinkedHashMap<>();
        walk(owner, "", 0, false, (path, value, field, open) -> found.put(path, code(value)));
        return found;
    }

    /** The paths that a test cannot name, because a field on the way is private. */
    static List<String> hidden(Object owner) {
        List<String> found = new ArrayList<>();
        walk(owner, "", 0, false, (path, value, field, closed) -> {
            if (closed) {
                found.add(path);
            }
        });
        return found;
    }

    /** The paths that a test cannot set by name. */
    private static List<String> closed(Object owner) {
        List<String> found = new ArrayList<>();
        walk(owner, "", 0, false, (path, value, field, closed) -> {
            if (closed || Modifier.isFinal(field.getModifiers())) {
                found.add(path);
            }
        });
        return found;
    }

    private interface Visit {
        void field(String path, Object value, Field field, boolean closed);
    }

    private static void walk(Object owner, String before, int depth, boolean closed, Visit visit) {
        for (Field field : owner.getClass().getDeclaredFields()) {
            if (Modifier.isStatic(field.getModifiers()) || field.isSynthetic()) {
                continue;
            }
            boolean shut = closed || Modifier.isPrivate(field.getModifiers());
            try {
                field.setAccessible(true);
                Object value = field.get(owner);
                if (value != null && kinds.contains(value.getClass()) && depth < 3) {
                    walk(value, before + field.getName() + ".", depth + 1, shut, visit);
                } else {
                    visit.field(before + field.getName(), value, field, shut);
                }
            } catch (ReflectiveOperationException | RuntimeException error) {
                visit.field(before + field.getName(), new Object(), field, shut);
            }
        }
    }

    /** Source text of a value; null if there is none. */
    static String code(Object value) {
        return code(value, 0);
    }

    private static String code(Object value, int depth) {
        String text = depth > DEPTH ? null : written(value, depth);
        return text != null && text.length() < LONG ? text : null;
    }

    private static String written(Object value, int depth) {
        if (value == null || value instanceof Boolean || value instanceof Integer) {
            return Integer.valueOf(Integer.MIN_VALUE).equals(value) ? "Integer.MIN_VALUE" : String.valueOf(value);
        }
        if (value instanceof Double d) {
            return Double.isFinite(d) ? String.valueOf(d) : "Double." + (d.isNaN() ? "NaN" : d > 0 ? "POSITIVE_INFINITY" : "NEGATIVE_INFINITY");
        }
        if (value instanceof Float f) {
            return Float.isFinite(f) ? f + "f" : "Float." + (f.isNaN() ? "NaN" : f > 0 ? "POSITIVE_INFINITY" : "NEGATIVE_INFINITY");
        }
        if (value instanceof Long n) {
            return n == Long.MIN_VALUE ? "Long.MIN_VALUE" : n + "L";
        }
        if (value instanceof Short || value instanceof Byte) {
            return "(" + (value instanceof Short ? "short" : "byte") + ") " + value;
        }
        if (value instanceof Character c) {
            return "'" + (c == '\'' ? "\\'" : c == '"' ? "\"" : escaped(String.valueOf(c))) + "'";
        }
        if (value instanceof String s) {
            return "\"" + escaped(s) + "\"";
        }
        if (value instanceof Enum<?> e) {
            return e.getDeclaringClass().getCanonicalName() + "." + e.name();
        }
        return value.getClass().isArray() ? array(value, depth) : gathered(value, depth);
    }

    private static String gathered(Object value, int depth) {
        Class<?> kind = value.getClass();
        if (kind == ArrayList.class || kind == LinkedList.class || kind == HashSet.class || kind == TreeSet.class) {
            String inside = kind == HashSet.class || kind == TreeSet.class ? "Set.of(" : "List.of(";
            String items = items((Collection<?>) value, depth);
            return items == null ? null : "new " + kind.getSimpleName() + "<>(" + (items.isEmpty() ? ")" : inside + items + "))");
        }
        if (kind == HashMap.class || kind == TreeMap.class) {
            List<Object> flat = new ArrayList<>();
            ((Map<?, ?>) value).forEach((k, v) -> flat.addAll(java.util.Arrays.asList(k, v)));
            String items = flat.size() > 20 ? null : items(flat, depth);
            return items == null ? null : "new " + kind.getSimpleName() + "<>(" + (items.isEmpty() ? ")" : "Map.of(" + items + "))");
        }
        return null;
    }

    private static String items(Collection<?> values, int depth) {
        StringJoiner parts = new StringJoiner(", ");
        for (Object value : values) {
            String text = value == null ? null : code(value, depth + 1); // the short ways to make them take no null
            if (text == null) {
                return null;
            }
            parts.add(text);
        }
        return parts.toString();
    }

    private static String array(Object value, int depth) {
        StringJoiner parts = new StringJoiner(", ", "new " + value.getClass().getCanonicalName().replace("java.lang.", "") + " {", "}");
        for (int n = 0; n < Array.getLength(value); n++) {
            String text = code(Array.get(value, n), depth + 1);
            if (text == null) {
                return null;
            }
            parts.add(text);
        }
        return parts.toString();
    }

    private static String escaped(String text) {
        StringBuilder made = new StringBuilder();
        for (char c : text.toCharArray()) {
            int at = "\n\t\r\b\f\"\\".indexOf(c);
            if (at >= 0) {
                made.append('\\').append("ntrbf\"\\".charAt(at));
            } else if (c < ' ' || Character.isSurrogate(c) || (c > '~' && !Character.isLetter(c))) {
                made.append(String.format("\\u%04x", (int) c));
            } else {
                made.append(c);
            }
        }
        return made.toString();
    }
}
