package aedifex;

/** The words of a sketch that speak of colours. */
public class Colours extends Words {
    final Recorder recorder = new Recorder();

    private int mode = RGB;
    private final float[] most = {255, 255, 255, 255}; // what each part of a colour goes up to

    public int color(int grey) {
        return grey > 255 || grey < 0 ? grey : color((float) grey);
    }

    public int color(int grey, int alpha) {
        return grey > 255 || grey < 0 ? grey & 0xFFFFFF | part(alpha, 3) << 24 : color((float) grey, (float) alpha);
    }

    public int color(float grey) {
        return color(grey, most[3]);
    }

    public int color(float grey, float alpha) {
        int g = part(grey, 2);
        return part(alpha, 3) << 24 | g << 16 | g << 8 | g;
    }

    public int color(float r, float g, float b) {
        return color(r, g, b, most[3]);
    }

    public int color(float r, float g, float b, float a) {
        if (mode == HSB) {
            return part(a, 3) << 24 | java.awt.Color.HSBtoRGB(part(r, 0) / 255f, part(g, 1) / 255f, part(b, 2) / 255f) & 0xFFFFFF;
        }
        return part(a, 3) << 24 | part(r, 0) << 16 | part(g, 1) << 8 | part(b, 2);
    }

    private int part(float v, int which) {
        return Math.max(0, Math.min(255, (int) (v * 255 / most[which])));
    }

    public float red(int c) {
        return (c >> 16 & 255) * most[0] / 255;
    }

    public float green(int c) {
        return (c >> 8 & 255) * most[1] / 255;
    }

    public float blue(int c) {
        return (c & 255) * most[2] / 255;
    }

    public float alpha(int c) {
        return (c >>> 24) * most[3] / 255;
    }

    public float hue(int c) {
        return hsb(c)[0] * most[0];
    }

    public float saturation(int c) {
        return hsb(c)[1] * most[1];
    }

    public float brightness(int c) {
        return hsb(c)[2] * most[2];
    }

    private static float[] hsb(int c) {
        return java.awt.Color.RGBtoHSB(c >> 16 & 255, c >> 8 & 255, c & 255, null);
    }

    public void colorMode(int v, float... more) {
        mode = v;
        for (int i = 0; i < more.length && i < 4 || more.length == 1 && i < 4; i++) {
            most[i] = more[more.length == 1 ? 0 : i];
        }
        recorder.call("colorMode", v, more.length > 0 ? more[0] : 255f);
    }

    public int blendColor(int a, int b, int how) {
        return lerpColor(a, b, (how & 7) / 8f);
    }

    public int lerpColor(int a, int b, float t, int how) {
        return lerpColor(a, b, t);
    }

    public int lerpColor(int a, int b, float t) {
        int made = 0;
        for (int shift = 0; shift < 32; shift += 8) {
            int from = a >>> shift & 255, to = b >>> shift & 255;
            made |= Math.round(from + (to - from) * Math.max(0, Math.min(1, t))) << shift;
        }
        return made;
    }

    public void background(float... v) {
        recorder.call("background", list(v));
    }

    public void background(int v) {
        recorder.call("background", v);
    }

    public void fill(float... v) {
        recorder.call("fill", list(v));
    }

    public void fill(int v) {
        recorder.call("fill", v);
    }

    public void fill(int v, float alpha) {
        recorder.call("fill", v, alpha);
    }

    public void stroke(float... v) {
        recorder.call("stroke", list(v));
    }

    public void stroke(int v) {
        recorder.call("stroke", v);
    }

    public void tint(float... v) {
        recorder.call("tint", list(v));
    }

    static Object[] list(float[] values) {
        Object[] made = new Object[values.length];
        for (int i = 0; i < made.length; i++) {
            made[i] = values[i];
        }
        return made;
    }

    public void noFill() {
        recorder.call("noFill");
    }

    public void noStroke() {
        recorder.call("noStroke");
    }

    public void noTint() {
        recorder.call("noTint");
    }

    public void background(PImage image) {
        recorder.call("background " + image);
    }

    public void tint(int v, float alpha) {
        recorder.call("tint", v, alpha);
    }

    public void tint(int v) {
        recorder.call("tint", v);
    }

    public void stroke(int v, float alpha) {
        recorder.call("stroke", v, alpha);
    }

    public void background(int v, float alpha) {
        recorder.call("background", v, alpha);
    }
}
