package aedifex;

import java.util.Random;

/** The words of a sketch that calculate: chance, numbers, curves. */
public class Maths extends Space {
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

    public void noiseDetail(int level, float falloff) {
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

    public static float dist(float x, float y, float z, float a, float b, float c) {
        return mag(a - x, b - y, c - z);
    }

    public static float mag(float a, float b, float c) {
        return (float) Math.sqrt(a * a + b * b + c * c);
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

    public static int max(int a, int b, int c) {
        return Math.max(a, Math.max(b, c));
    }

    public static int max(int[] values) {
        return java.util.Arrays.stream(values).max().getAsInt();
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

    public static int min(int a, int b, int c) {
        return Math.min(a, Math.min(b, c));
    }

    public static int min(int[] values) {
        return java.util.Arrays.stream(values).min().getAsInt();
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

    // -- curves ----------------------------------------------------------------------------------

    public static float bezierPoint(float a, float b, float c, float d, float t) {
        float u = 1 - t;
        return a * u * u * u + 3 * b * t * u * u + 3 * c * t * t * u + d * t * t * t;
    }

    public static float bezierTangent(float a, float b, float c, float d, float t) {
        float u = 1 - t;
        return 3 * (b - a) * u * u + 6 * (c - b) * t * u + 3 * (d - c) * t * t;
    }

    public static float curvePoint(float a, float b, float c, float d, float t) {
        return 0.5f * (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t * t + (3 * b - a - 3 * c + d) * t * t * t);
    }

    public static float curveTangent(float a, float b, float c, float d, float t) {
        return 0.5f * (c - a + 2 * (2 * a - 5 * b + 4 * c - d) * t + 3 * (3 * b - a - 3 * c + d) * t * t);
    }
}
