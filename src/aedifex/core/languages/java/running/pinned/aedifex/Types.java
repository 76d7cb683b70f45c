package aedifex;

import java.util.Arrays;

/** The words of a sketch that make one type of another: {@code int(...)}, {@code float(...)} and the like stand for them. */
public class Types extends Lists {
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

    public static int parseInt(String v, int otherwise) {
        try {
            return Integer.parseInt(v.trim());
        } catch (NumberFormatException error) {
            return otherwise;
        }
    }

    public static int[] parseInt(String[] all) {
        int[] made = new int[all.length];
        Arrays.setAll(made, i -> parseInt(all[i]));
        return made;
    }

    public static int[] parseInt(float[] all) {
        int[] made = new int[all.length];
        Arrays.setAll(made, i -> (int) all[i]);
        return made;
    }

    public static int[] parseInt(char[] all) {
        int[] made = new int[all.length];
        Arrays.setAll(made, i -> all[i]);
        return made;
    }

    public static int[] parseInt(byte[] all) {
        int[] made = new int[all.length];
        Arrays.setAll(made, i -> all[i] & 255);
        return made;
    }

    public static int parseInt(byte v) {
        return v & 255;
    }

    public static float parseFloat(String v, float otherwise) {
        float found = parseFloat(v);
        return Float.isNaN(found) ? otherwise : found;
    }

    public static float[] parseFloat(String[] all) {
        float[] made = new float[all.length];
        for (int i = 0; i < made.length; i++) {
            made[i] = parseFloat(all[i]);
        }
        return made;
    }

    public static float[] parseFloat(int[] all) {
        float[] made = new float[all.length];
        for (int i = 0; i < made.length; i++) {
            made[i] = all[i];
        }
        return made;
    }

    public static byte parseByte(float v) {
        return (byte) v;
    }

    public static byte parseByte(char v) {
        return (byte) v;
    }

    // -- numbers as text ---------------------------------------------------------------------------

    public static String hex(int v) {
        return hex(v, 8);
    }

    public static String hex(int v, int digits) {
        String text = String.format("%08X", v);
        return text.substring(Math.max(0, 8 - digits));
    }

    public static String hex(char v) {
        return hex(v, 4);
    }

    public static String hex(byte v) {
        return hex(v & 255, 2);
    }

    public static int unhex(String text) {
        return (int) Long.parseLong(text, 16);
    }

    public static String binary(int v) {
        return Integer.toBinaryString(v);
    }

    public static String binary(int v, int digits) {
        String text = "0".repeat(32) + Integer.toBinaryString(v);
        return text.substring(text.length() - digits);
    }

    public static String binary(char v) {
        return binary(v, 16);
    }

    public static String binary(byte v) {
        return binary(v & 255, 8);
    }

    public static int unbinary(String text) {
        return (int) Long.parseLong(text, 2);
    }
}
