package aedifex;

import java.lang.reflect.Array;
import java.util.Arrays;

/** The words of a sketch that work on arrays: each returns a new one. */
public class Lists extends Maths {
    private static Object cut(Object all, int from, int count) {
        Object made = Array.newInstance(all.getClass().getComponentType(), Math.max(0, count));
        System.arraycopy(all, from, made, 0, Math.max(0, count));
        return made;
    }

    private static Object sized(Object all, int count) {
        Object made = Array.newInstance(all.getClass().getComponentType(), count);
        System.arraycopy(all, 0, made, 0, Math.min(count, Array.getLength(all)));
        return made;
    }

    private static Object put(Object all, Object more, int at) {
        int length = Array.getLength(all), added = Array.getLength(more);
        Object made = sized(all, length + added);
        System.arraycopy(all, at, made, at + added, length - at);
        System.arraycopy(more, 0, made, at, added);
        return made;
    }

    private static Object turned(Object all) {
        int length = Array.getLength(all);
        Object made = sized(all, length);
        for (int i = 0; i < length; i++) {
            Array.set(made, i, Array.get(all, length - 1 - i));
        }
        return made;
    }

    private static Object one(Object all, Object v) {
        Object made = Array.newInstance(all.getClass().getComponentType(), 1);
        Array.set(made, 0, v);
        return made;
    }

    public static void arrayCopy(Object from, int start, Object to, int at, int count) {
        System.arraycopy(from, start, to, at, count);
    }

    public static void arrayCopy(Object from, Object to, int count) {
        System.arraycopy(from, 0, to, 0, count);
    }

    public static void arrayCopy(Object from, Object to) {
        System.arraycopy(from, 0, to, 0, Array.getLength(from));
    }

    public static void arraycopy(Object from, int start, Object to, int at, int count) {
        System.arraycopy(from, start, to, at, count);
    }

    public static void arraycopy(Object from, Object to, int count) {
        System.arraycopy(from, 0, to, 0, count);
    }

    public static void arraycopy(Object from, Object to) {
        System.arraycopy(from, 0, to, 0, Array.getLength(from));
    }

    public static int[] append(int[] all, int v) {
        return (int[]) put(all, one(all, v), Array.getLength(all));
    }

    public static int[] expand(int[] all) {
        return (int[]) sized(all, Math.max(1, 2 * Array.getLength(all)));
    }

    public static int[] expand(int[] all, int count) {
        return (int[]) sized(all, count);
    }

    public static int[] shorten(int[] all) {
        return (int[]) sized(all, Array.getLength(all) - 1);
    }

    public static int[] subset(int[] all, int from) {
        return (int[]) cut(all, from, Array.getLength(all) - from);
    }

    public static int[] subset(int[] all, int from, int count) {
        return (int[]) cut(all, from, count);
    }

    public static int[] concat(int[] all, int[] more) {
        return (int[]) put(all, more, Array.getLength(all));
    }

    public static int[] reverse(int[] all) {
        return (int[]) turned(all);
    }

    public static int[] splice(int[] all, int v, int at) {
        return (int[]) put(all, one(all, v), at);
    }

    public static int[] splice(int[] all, int[] more, int at) {
        return (int[]) put(all, more, at);
    }

    public static float[] append(float[] all, float v) {
        return (float[]) put(all, one(all, v), Array.getLength(all));
    }

    public static float[] expand(float[] all) {
        return (float[]) sized(all, Math.max(1, 2 * Array.getLength(all)));
    }

    public static float[] expand(float[] all, int count) {
        return (float[]) sized(all, count);
    }

    public static float[] shorten(float[] all) {
        return (float[]) sized(all, Array.getLength(all) - 1);
    }

    public static float[] subset(float[] all, int from) {
        return (float[]) cut(all, from, Array.getLength(all) - from);
    }

    public static float[] subset(float[] all, int from, int count) {
        return (float[]) cut(all, from, count);
    }

    public static float[] concat(float[] all, float[] more) {
        return (float[]) put(all, more, Array.getLength(all));
    }

    public static float[] reverse(float[] all) {
        return (float[]) turned(all);
    }

    public static float[] splice(float[] all, float v, int at) {
        return (float[]) put(all, one(all, v), at);
    }

    public static float[] splice(float[] all, float[] more, int at) {
        return (float[]) put(all, more, at);
    }

    public static String[] append(String[] all, String v) {
        return (String[]) put(all, one(all, v), Array.getLength(all));
    }

    public static String[] expand(String[] all) {
        return (String[]) sized(all, Math.max(1, 2 * Array.getLength(all)));
    }

    public static String[] expand(String[] all, int count) {
        return (String[]) sized(all, count);
    }

    public static String[] shorten(String[] all) {
        return (String[]) sized(all, Array.getLength(all) - 1);
    }

    public static String[] subset(String[] all, int from) {
        return (String[]) cut(all, from, Array.getLength(all) - from);
    }

    public static String[] subset(String[] all, int from, int count) {
        return (String[]) cut(all, from, count);
    }

    public static String[] concat(String[] all, String[] more) {
        return (String[]) put(all, more, Array.getLength(all));
    }

    public static String[] reverse(String[] all) {
        return (String[]) turned(all);
    }

    public static String[] splice(String[] all, String v, int at) {
        return (String[]) put(all, one(all, v), at);
    }

    public static String[] splice(String[] all, String[] more, int at) {
        return (String[]) put(all, more, at);
    }

    public static boolean[] append(boolean[] all, boolean v) {
        return (boolean[]) put(all, one(all, v), Array.getLength(all));
    }

    public static boolean[] expand(boolean[] all) {
        return (boolean[]) sized(all, Math.max(1, 2 * Array.getLength(all)));
    }

    public static boolean[] expand(boolean[] all, int count) {
        return (boolean[]) sized(all, count);
    }

    public static boolean[] shorten(boolean[] all) {
        return (boolean[]) sized(all, Array.getLength(all) - 1);
    }

    public static boolean[] subset(boolean[] all, int from) {
        return (boolean[]) cut(all, from, Array.getLength(all) - from);
    }

    public static boolean[] subset(boolean[] all, int from, int count) {
        return (boolean[]) cut(all, from, count);
    }

    public static boolean[] concat(boolean[] all, boolean[] more) {
        return (boolean[]) put(all, more, Array.getLength(all));
    }

    public static boolean[] reverse(boolean[] all) {
        return (boolean[]) turned(all);
    }

    public static boolean[] splice(boolean[] all, boolean v, int at) {
        return (boolean[]) put(all, one(all, v), at);
    }

    public static boolean[] splice(boolean[] all, boolean[] more, int at) {
        return (boolean[]) put(all, more, at);
    }

    public static byte[] append(byte[] all, byte v) {
        return (byte[]) put(all, one(all, v), Array.getLength(all));
    }

    public static byte[] expand(byte[] all) {
        return (byte[]) sized(all, Math.max(1, 2 * Array.getLength(all)));
    }

    public static byte[] expand(byte[] all, int count) {
        return (byte[]) sized(all, count);
    }

    public static byte[] shorten(byte[] all) {
        return (byte[]) sized(all, Array.getLength(all) - 1);
    }

    public static byte[] subset(byte[] all, int from) {
        return (byte[]) cut(all, from, Array.getLength(all) - from);
    }

    public static byte[] subset(byte[] all, int from, int count) {
        return (byte[]) cut(all, from, count);
    }

    public static byte[] concat(byte[] all, byte[] more) {
        return (byte[]) put(all, more, Array.getLength(all));
    }

    public static byte[] reverse(byte[] all) {
        return (byte[]) turned(all);
    }

    public static byte[] splice(byte[] all, byte v, int at) {
        return (byte[]) put(all, one(all, v), at);
    }

    public static byte[] splice(byte[] all, byte[] more, int at) {
        return (byte[]) put(all, more, at);
    }

    public static char[] append(char[] all, char v) {
        return (char[]) put(all, one(all, v), Array.getLength(all));
    }

    public static char[] expand(char[] all) {
        return (char[]) sized(all, Math.max(1, 2 * Array.getLength(all)));
    }

    public static char[] expand(char[] all, int count) {
        return (char[]) sized(all, count);
    }

    public static char[] shorten(char[] all) {
        return (char[]) sized(all, Array.getLength(all) - 1);
    }

    public static char[] subset(char[] all, int from) {
        return (char[]) cut(all, from, Array.getLength(all) - from);
    }

    public static char[] subset(char[] all, int from, int count) {
        return (char[]) cut(all, from, count);
    }

    public static char[] concat(char[] all, char[] more) {
        return (char[]) put(all, more, Array.getLength(all));
    }

    public static char[] reverse(char[] all) {
        return (char[]) turned(all);
    }

    public static char[] splice(char[] all, char v, int at) {
        return (char[]) put(all, one(all, v), at);
    }

    public static char[] splice(char[] all, char[] more, int at) {
        return (char[]) put(all, more, at);
    }

    public static Object append(Object all, Object v) {
        return put(all, one(all, v), Array.getLength(all));
    }

    public static Object expand(Object all) {
        return sized(all, Math.max(1, 2 * Array.getLength(all)));
    }

    public static Object expand(Object all, int count) {
        return sized(all, count);
    }

    public static Object shorten(Object all) {
        return sized(all, Array.getLength(all) - 1);
    }

    public static Object subset(Object all, int from) {
        return cut(all, from, Array.getLength(all) - from);
    }

    public static Object subset(Object all, int from, int count) {
        return cut(all, from, count);
    }

    public static Object concat(Object all, Object more) {
        return put(all, more, Array.getLength(all));
    }

    public static Object reverse(Object all) {
        return turned(all);
    }

    public static Object splice(Object all, Object v, int at) {
        return put(all, v.getClass().isArray() ? v : one(all, v), at);
    }

    public static int[] sort(int[] all) {
        return sort(all, all.length);
    }

    public static int[] sort(int[] all, int count) {
        int[] made = all.clone();
        Arrays.sort(made, 0, count);
        return made;
    }

    public static float[] sort(float[] all) {
        return sort(all, all.length);
    }

    public static float[] sort(float[] all, int count) {
        float[] made = all.clone();
        Arrays.sort(made, 0, count);
        return made;
    }

    public static String[] sort(String[] all) {
        return sort(all, all.length);
    }

    public static String[] sort(String[] all, int count) {
        String[] made = all.clone();
        Arrays.sort(made, 0, count);
        return made;
    }

    public static byte[] sort(byte[] all) {
        return sort(all, all.length);
    }

    public static byte[] sort(byte[] all, int count) {
        byte[] made = all.clone();
        Arrays.sort(made, 0, count);
        return made;
    }

    public static char[] sort(char[] all) {
        return sort(all, all.length);
    }

    public static char[] sort(char[] all, int count) {
        char[] made = all.clone();
        Arrays.sort(made, 0, count);
        return made;
    }
}
