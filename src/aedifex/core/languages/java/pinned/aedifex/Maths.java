package aedifex;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;

/** The words of a sketch that calculate: chance, numbers, texts, colours, vectors. */
public class Maths extends Drawing {
    private Random chance = new Random(20010911);

    public float random(float high) {
        return chance.nextFloat() * high;
    }

    public float random(float low, float high) {
        return low >= high ? low : low + chance.nextFloat() * (high - low);
    }

    public float randomGaussian() {
        return (float) chance.nextGaussian();
    }

    public void randomSeed(long seed) {
        chance = new Random(seed);
    }

    public float noise(float x) {
        return noise(x, 0, 0);
    }

    public float noise(float x, float y) {
        return noise(x, y, 0);
    }

    public float noise(float x, float y, float z) {
        double mixed = Math.sin(Math.floor(x * 4) * 12.9898 + Math.floor(y * 4) * 78.233 + Math.floor(z * 4) * 37.719) * 43758.5453;
        return (float) Math.abs(mixed % 1);
    }

    public void noiseSeed(long seed) {
    }

    public void noiseDetail(int level) {
    }

    public static float map(float v, float a, float b, float c, float d) {
        return c + (d - c) * ((v - a) / (b - a));
    }

    public static float constrain(float v, float a, float b) {
        return v < a ? a : Math.min(v, b);
    }

    public static int constrain(int v, int a, int b) {
        return v < a ? a : Math.min(v, b);
    }

    public static float lerp(float a, float b, float t) {
        return a + (b - a) * t;
    }

    public static float norm(float v, float a, float b) {
        return (v - a) / (b - a);
    }

    public static float dist(float a, float b, float c, float d) {
        return (float) Math.hypot(c - a, d - b);
    }

    public static float mag(float a, float b) {
        return (float) Math.hypot(a, b);
    }

    public static float sq(float v) {
        return v * v;
    }

    public static float abs(float v) {
        return Math.abs(v);
    }

    public static int abs(int v) {
        return Math.abs(v);
    }

    public static float max(float... values) {
        float found = values[0];
        for (float v : values) {
            found = Math.max(found, v);
        }
        return found;
    }

    public static int max(int a, int b) {
        return Math.max(a, b);
    }

    public static float min(float... values) {
        float found = values[0];
        for (float v : values) {
            found = Math.min(found, v);
        }
        return found;
    }

    public static int min(int a, int b) {
        return Math.min(a, b);
    }

    public static int floor(float v) {
        return (int) Math.floor(v);
    }

    public static int ceil(float v) {
        return (int) Math.ceil(v);
    }

    public static int round(float v) {
        return Math.round(v);
    }

    public static float sqrt(float v) {
        return (float) Math.sqrt(v);
    }

    public static float pow(float v, float e) {
        return (float) Math.pow(v, e);
    }

    public static float exp(float v) {
        return (float) Math.exp(v);
    }

    public static float log(float v) {
        return (float) Math.log(v);
    }

    public static float sin(float v) {
        return (float) Math.sin(v);
    }

    public static float cos(float v) {
        return (float) Math.cos(v);
    }

    public static float tan(float v) {
        return (float) Math.tan(v);
    }

    public static float asin(float v) {
        return (float) Math.asin(v);
    }

    public static float acos(float v) {
        return (float) Math.acos(v);
    }

    public static float atan(float v) {
        return (float) Math.atan(v);
    }

    public static float atan2(float y, float x) {
        return (float) Math.atan2(y, x);
    }

    public static float radians(float v) {
        return (float) Math.toRadians(v);
    }

    public static float degrees(float v) {
        return (float) Math.toDegrees(v);
    }

    // -- other types -----------------------------------------------------------------------------

    public static int parseInt(float v) {
        return (int) v;
    }

    public static int parseInt(char v) {
        return v;
    }

    public static int parseInt(boolean v) {
        return v ? 1 : 0;
    }

    public static int parseInt(String v) {
        try {
            return (int) Float.parseFloat(v.trim());
        } catch (NumberFormatException error) {
            return 0;
        }
    }

    public static float parseFloat(float v) {
        return v;
    }

    public static float parseFloat(String v) {
        try {
            return Float.parseFloat(v.trim());
        } catch (NumberFormatException error) {
            return Float.NaN;
        }
    }

    public static boolean parseBoolean(int v) {
        return v != 0;
    }

    public static boolean parseBoolean(String v) {
        return Boolean.parseBoolean(v);
    }

    public static char parseChar(int v) {
        return (char) v;
    }

    public static byte parseByte(int v) {
        return (byte) v;
    }

    public static String str(Object v) {
        return String.valueOf(v);
    }

    public static String nf(int v, int digits) {
        return String.format("%0" + Math.max(1, digits) + "d", v);
    }

    public static String nf(float v, int left, int right) {
        return right == 0 ? nf(Math.round(v), left) : String.format(java.util.Locale.ROOT, "%0" + (left + right + 1) + "." + right + "f", v);
    }

    public static String nfc(int v) {
        return String.format(java.util.Locale.ROOT, "%,d", v);
    }

    public static String join(String[] parts, String between) {
        return String.join(between, parts);
    }

    public static String[] split(String text, String at) {
        return text.split(java.util.regex.Pattern.quote(at), -1);
    }

    public static String[] split(String text, char at) {
        return split(text, String.valueOf(at));
    }

    public static String[] splitTokens(String text, String at) {
        return Arrays.stream(text.split("[" + java.util.regex.Pattern.quote(at) + "]")).filter(p -> !p.isEmpty()).toArray(String[]::new);
    }

    public static String trim(String text) {
        return text.trim();
    }

    public static int[] append(int[] all, int v) {
        int[] made = Arrays.copyOf(all, all.length + 1);
        made[all.length] = v;
        return made;
    }

    public static float[] append(float[] all, float v) {
        float[] made = Arrays.copyOf(all, all.length + 1);
        made[all.length] = v;
        return made;
    }

    public static String[] append(String[] all, String v) {
        String[] made = Arrays.copyOf(all, all.length + 1);
        made[all.length] = v;
        return made;
    }

    public static int[] sort(int[] all) {
        int[] made = all.clone();
        Arrays.sort(made);
        return made;
    }

    public static float[] sort(float[] all) {
        float[] made = all.clone();
        Arrays.sort(made);
        return made;
    }

    // -- console and files -------------------------------------------------------------------------

    public static void println(Object... values) {
        print(values);
        System.out.println();
    }

    public static void print(Object... values) {
        List<String> parts = new ArrayList<>();
        for (Object v : values) {
            parts.add(String.valueOf(v));
        }
        System.out.print(String.join(" ", parts));
    }

    public static void printArray(Object all) {
        System.out.println(State.tell(all, 0));
    }

    public String[] loadStrings(String path) {
        for (String place : new String[] {path, "data/" + path}) {
            try {
                return Files.readAllLines(Path.of(place)).toArray(new String[0]);
            } catch (java.io.IOException error) {
                continue;
            }
        }
        return null;
    }

    public void saveStrings(String path, String[] lines) {
        try {
            Files.write(Path.of(path), Arrays.asList(lines));
        } catch (java.io.IOException error) {
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
