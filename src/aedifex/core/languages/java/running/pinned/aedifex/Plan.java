package aedifex;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** What a run is to do: where it ends, which events come, what is watched. A line each, fields between tabs. */
final class Plan {
    static int turns;
    static boolean given;
    static boolean calls; // whether calls are noted
    static boolean windows; // whether the program has windows
    static final List<String[]> events = new ArrayList<>(); // turn, kind, value, more
    static final List<String[]> watched = new ArrayList<>(); // name, class of the file, variable, object, class, members

    static void read() {
        String path = System.getenv("AEDIFEX_PLAN");
        if (path == null || given) {
            return;
        }
        given = true;
        try {
            for (String line : Files.readAllLines(Path.of(path), StandardCharsets.UTF_8)) {
                String[] parts = line.split("\t", -1);
                String[] rest = java.util.Arrays.copyOfRange(parts, 1, parts.length);
                switch (parts[0]) {
                    case "log" -> Log.begin(rest[0]);
                    case "turns" -> turns = Integer.parseInt(rest[0]);
                    case "calls" -> calls = true;
                    case "windows" -> windows = true;
                    case "event" -> events.add(rest);
                    case "watch" -> watched.add(rest);
                    default -> { }
                }
            }
        } catch (IOException error) {
            throw new IllegalStateException(error);
        }
    }
}
