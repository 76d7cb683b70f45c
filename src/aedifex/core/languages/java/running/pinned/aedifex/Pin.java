package aedifex;

import java.io.FilterInputStream;
import java.io.IOException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.Collections;
import java.util.Date;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;

/** Chance and clock of a checked run: a fixed seed, and a clock that moves only when it is asked or waited for. */
public final class Pin {
    private static final long START = 1_700_000_000_000L; // milliseconds; an arbitrary instant
    private static final Random CHANCE = new Random(20010911);
    private static final Map<String, Set<Integer>> calls = new TreeMap<>(); // by file, where coverage is asked for
    private static final Map<String, Set<Integer>> lines = new TreeMap<>();
    private static long now;
    private static int turn = 1;
    private static boolean over;
    private static boolean starved;
    private static long asked; // how often for chance or the time

    static void begin() {
        State.begin();
        System.setIn(new FilterInputStream(System.in) {
            @Override
            public int read() throws IOException {
                return ended(super.read());
            }

            @Override
            public int read(byte[] bytes, int from, int length) throws IOException {
                return ended(super.read(bytes, from, length));
            }
        });
    }

    /** More is asked for than there is to read: that is told once. */
    private static int ended(int read) {
        if (read < 0 && !starved) {
            starved = true;
            Log.note("starved", "the input");
        }
        return read;
    }

    public static synchronized long read() {
        asked += 1;
        now += 1;
        return now;
    }

    private static Random luck() {
        asked += 1;
        return CHANCE;
    }

    static long asked() {
        return asked;
    }

    static synchronized void pass(long milliseconds) {
        now += milliseconds;
    }

    public static long millis() {
        return START + read();
    }

    public static long nanos() {
        return read() * 1_000_000L;
    }

    public static double chance() {
        return luck().nextDouble();
    }

    public static Random random() {
        return new Random(luck().nextLong());
    }

    public static Date date() {
        return new Date(millis());
    }

    public static Instant instant() {
        return Instant.ofEpochMilli(millis());
    }

    public static LocalDateTime now() {
        return LocalDateTime.ofInstant(instant(), ZoneOffset.UTC);
    }

    public static LocalDate today() {
        return now().toLocalDate();
    }

    public static LocalTime time() {
        return now().toLocalTime();
    }

    public static UUID uuid() {
        return new UUID(luck().nextLong(), luck().nextLong());
    }

    public static void shuffle(List<?> list) {
        Collections.shuffle(list, luck());
    }

    public static void shuffle(List<?> list, Random chance) {
        Collections.shuffle(list, chance);
    }

    /** A wait ends a turn and takes no time. */
    public static void sleep(long milliseconds) throws InterruptedException {
        pass(milliseconds);
        if (Thread.interrupted()) {
            throw new InterruptedException("sleep interrupted");
        }
        if (Thread.currentThread().getName().equals("main")) {
            over("sleep");
        } else {
            Thread.sleep(Math.min(milliseconds, 2));
        }
    }

    public static void sleep(long milliseconds, int nanos) throws InterruptedException {
        sleep(milliseconds);
    }

    /** An object of one of the program's classes is being made. */
    public static void made(Object object) {
        State.made(object);
    }

    /** A function of the program begins. */
    public static synchronized void called(String file, int line) {
        calls.computeIfAbsent(file, k -> new TreeSet<>()).add(line);
    }

    /** A statement of the program is about to run. */
    public static synchronized void reached(String file, int line) {
        lines.computeIfAbsent(file, k -> new TreeSet<>()).add(line);
    }

    private static void tellCoverage() {
        calls.forEach((file, found) -> found.forEach(line -> Log.note("cover", file, String.valueOf(line))));
        lines.forEach((file, found) -> Log.note("reach", file, found.toString().replaceAll("[^0-9 ]", "")));
    }

    static int turn() {
        return turn;
    }

    static void over(String kind) {
        State.moment(kind + " " + turn);
        turn += 1;
        if (Plan.turns > 0 && turn > Plan.turns) {
            end("ended after " + Plan.turns + " turns");
        }
    }

    static void end(String reason) {
        Log.note("end", reason);
        System.out.flush();
        finish();
        Runtime.getRuntime().halt(0);
    }

    static synchronized void finish() {
        if (over) {
            return;
        }
        over = true;
        State.moment("the end");
        Log.note("turns", String.valueOf(turn - 1));
        tellCoverage();
        Log.flush();
    }
}
