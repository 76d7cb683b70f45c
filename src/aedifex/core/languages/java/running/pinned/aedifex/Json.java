package aedifex;

import java.util.Collection;
import java.util.Map;
import java.util.StringJoiner;

/** One JSON object: texts, numbers, lists and tables of them. */
final class Json {
    private final StringJoiner parts = new StringJoiner(", ", "{", "}");

    Json put(String key, Object value) {
        parts.add(text(key) + ": " + told(value));
        return this;
    }

    private static String told(Object value) {
        if (value == null || value instanceof Number) {
            return String.valueOf(value);
        }
        if (value instanceof Collection<?> all) {
            StringJoiner items = new StringJoiner(", ", "[", "]");
            all.forEach(v -> items.add(told(v)));
            return items.toString();
        }
        if (value instanceof Map<?, ?> table) {
            Json inner = new Json();
            table.forEach((k, v) -> inner.put(String.valueOf(k), v));
            return inner.toString();
        }
        return text(String.valueOf(value));
    }

    private static String text(String value) {
        StringBuilder made = new StringBuilder("\"");
        for (char c : value.toCharArray()) {
            if (c == '"' || c == '\\') {
                made.append('\\').append(c);
            } else if (c < ' ' || c > '~') {
                made.append(String.format("\\u%04x", (int) c));
            } else {
                made.append(c);
            }
        }
        return made.append('"').toString();
    }

    @Override
    public String toString() {
        return parts.toString();
    }
}
