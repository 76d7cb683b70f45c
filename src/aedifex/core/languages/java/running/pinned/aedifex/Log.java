package aedifex;

import java.io.FileOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;

/** The log of a checked run: a line each, fields between tabs. */
final class Log {
    private static final int MOST = 24 << 20; // characters
    private static StringBuilder lines = new StringBuilder();
    private static String path;
    private static int size;

    static void begin(String to) {
        path = to;
    }

    static synchronized void note(String kind, String... fields) {
        if (path == null || size > MOST) {
            return;
        }
        int before = lines.length();
        lines.append(kind);
        for (String field : fields) {
            lines.append('\t').append(escaped(field));
        }
        lines.append('\n');
        size += lines.length() - before;
        if (lines.length() > 1 << 16) {
            flush();
        }
    }

    private static String escaped(String text) {
        return text.replace("\\", "\\\\").replace("\n", "\\n").replace("\t", "\\t").replace("\r", "\\r");
    }

    static synchronized void flush() {
        if (path == null || lines.length() == 0) {
            return;
        }
        try (OutputStream out = new FileOutputStream(path, true)) {
            out.write(lines.toString().getBytes(StandardCharsets.UTF_8));
        } catch (IOException error) {
            path = null;
        }
        lines = new StringBuilder();
    }
}
