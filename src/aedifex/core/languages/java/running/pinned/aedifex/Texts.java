package aedifex;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The words of a sketch that work on texts. */
public class Texts extends Types {
    public static String str(Object v) {
        return String.valueOf(v);
    }

    public static String[] str(int[] all) {
        return Arrays.stream(all).mapToObj(String::valueOf).toArray(String[]::new);
    }

    public static String[] str(float[] all) {
        String[] made = new String[all.length];
        Arrays.setAll(made, i -> String.valueOf(all[i]));
        return made;
    }

    public static String nf(int v) {
        return String.valueOf(v);
    }

    public static String nf(int v, int digits) {
        return (v < 0 ? "-" : "") + String.format("%0" + Math.max(1, digits) + "d", Math.abs((long) v));
    }

    public static String nf(float v) {
        return v == (int) v ? String.valueOf((int) v) : String.valueOf(v);
    }

    public static String nf(float v, int left, int right) {
        if (right == 0) {
            return nf(Math.round(v), left);
        }
        String whole = String.format(Locale.ROOT, "%." + right + "f", Math.abs(v));
        return (v < 0 ? "-" : "") + "0".repeat(Math.max(0, left + right + 1 - whole.length())) + whole;
    }

    public static String[] nf(int[] all, int digits) {
        return Arrays.stream(all).mapToObj(v -> nf(v, digits)).toArray(String[]::new);
    }

    public static String nfp(int v, int digits) {
        return v < 0 ? nf(v, digits) : "+" + nf(v, digits);
    }

    public static String nfp(float v, int left, int right) {
        return v < 0 ? nf(v, left, right) : "+" + nf(v, left, right);
    }

    public static String nfs(int v, int digits) {
        return v < 0 ? nf(v, digits) : " " + nf(v, digits);
    }

    public static String nfs(float v, int left, int right) {
        return v < 0 ? nf(v, left, right) : " " + nf(v, left, right);
    }

    public static String nfc(int v) {
        return String.format(Locale.ROOT, "%,d", v);
    }

    public static String nfc(float v, int right) {
        return String.format(Locale.ROOT, "%,." + right + "f", v);
    }

    public static String join(String[] parts, String between) {
        return String.join(between, parts);
    }

    public static String[] split(String text, String at) {
        return text.split(Pattern.quote(at), -1);
    }

    public static String[] split(String text, char at) {
        return split(text, String.valueOf(at));
    }

    public static String[] splitTokens(String text, String at) {
        return Arrays.stream(text.split("[" + Pattern.quote(at) + "]")).filter(p -> !p.isEmpty()).toArray(String[]::new);
    }

    public static String trim(String text) {
        return text.trim();
    }

    public static String[] splitTokens(String text) {
        return splitTokens(text, WHITESPACE);
    }

    public static String[] trim(String[] all) {
        return Arrays.stream(all).map(String::trim).toArray(String[]::new);
    }

    public static String join(String[] parts, char between) {
        return String.join(String.valueOf(between), parts);
    }

    public static String[] match(String text, String pattern) {
        Matcher found = Pattern.compile(pattern, Pattern.MULTILINE | Pattern.DOTALL).matcher(text);
        return found.find() ? groups(found) : null;
    }

    public static String[][] matchAll(String text, String pattern) {
        Matcher found = Pattern.compile(pattern, Pattern.MULTILINE | Pattern.DOTALL).matcher(text);
        List<String[]> all = new ArrayList<>();
        while (found.find()) {
            all.add(groups(found));
        }
        return all.isEmpty() ? null : all.toArray(new String[0][]);
    }

    private static String[] groups(Matcher found) {
        String[] made = new String[found.groupCount() + 1];
        Arrays.setAll(made, found::group);
        return made;
    }
}
