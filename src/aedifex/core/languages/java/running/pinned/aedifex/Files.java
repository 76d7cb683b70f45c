package aedifex;

import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.lang.reflect.Array;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** The words of a sketch that speak to the console, to files and to the clock. */
public class Files extends Texts {
    public static void println(Object... values) {
        if (values != null && values.length == 1 && values[0] != null && values[0].getClass().isArray()) {
            printArray(values[0]);
            return;
        }
        print(values);
        System.out.println();
    }

    public static void println(String[] values) {
        printArray(values);
    }

    public static void print(Object... values) {
        List<String> parts = new ArrayList<>();
        for (Object v : values == null ? new Object[] {null} : values) {
            parts.add(String.valueOf(v));
        }
        System.out.print(String.join(" ", parts));
    }

    /** An element a line, with its place in front. */
    public static void printArray(Object all) {
        if (all == null || !all.getClass().isArray()) {
            System.out.println(all);
            return;
        }
        for (int i = 0; i < Array.getLength(all); i++) {
            Object v = Array.get(all, i);
            String shown = v instanceof String ? '"' + (String) v + '"' : v instanceof Character ? "'" + v + "'" : String.valueOf(v);
            System.out.println("[" + i + "] " + shown);
        }
    }

    private static File found(String path) {
        File beside = new File(path);
        return beside.isFile() || beside.isAbsolute() ? beside : new File("data", path);
    }

    public String dataPath(String name) {
        return new File("data", name).getPath();
    }

    public String sketchPath(String name) {
        return name;
    }

    public String[] loadStrings(String path) {
        try {
            return java.nio.file.Files.readAllLines(found(path).toPath()).toArray(new String[0]);
        } catch (IOException error) {
            System.err.println("there is no file '" + path + "'");
            return null;
        }
    }

    public byte[] loadBytes(String path) {
        try {
            return java.nio.file.Files.readAllBytes(found(path).toPath());
        } catch (IOException error) {
            System.err.println("there is no file '" + path + "'");
            return null;
        }
    }

    public BufferedReader createReader(String path) {
        try {
            return java.nio.file.Files.newBufferedReader(found(path).toPath());
        } catch (IOException error) {
            System.err.println("there is no file '" + path + "'");
            return null;
        }
    }

    public InputStream createInput(String path) {
        try {
            return java.nio.file.Files.newInputStream(found(path).toPath());
        } catch (IOException error) {
            return null;
        }
    }

    public PrintWriter createWriter(String path) {
        try {
            Path parent = Path.of(path).toAbsolutePath().getParent();
            java.nio.file.Files.createDirectories(parent);
            return new PrintWriter(java.nio.file.Files.newBufferedWriter(Path.of(path)));
        } catch (IOException error) {
            throw new IllegalStateException(error);
        }
    }

    public void saveStrings(String path, String[] lines) {
        try {
            java.nio.file.Files.write(Path.of(path), Arrays.asList(lines));
        } catch (IOException error) {
            System.err.println(error.getMessage());
        }
    }

    public void saveBytes(String path, byte[] all) {
        try {
            java.nio.file.Files.write(Path.of(path), all);
        } catch (IOException error) {
            System.err.println(error.getMessage());
        }
    }

    public static int hour() {
        return Pin.now().getHour();
    }

    public static int minute() {
        return Pin.now().getMinute();
    }

    public static int second() {
        return Pin.now().getSecond();
    }

    public static int day() {
        return Pin.now().getDayOfMonth();
    }

    public static int month() {
        return Pin.now().getMonthValue();
    }

    public static int year() {
        return Pin.now().getYear();
    }
}
