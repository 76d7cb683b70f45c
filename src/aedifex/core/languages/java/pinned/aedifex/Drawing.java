package aedifex;

/** The words of a sketch that draw: each is recorded as it was asked for. */
public class Drawing {
    public static final float PI = (float) Math.PI, TWO_PI = 2 * PI, HALF_PI = PI / 2, QUARTER_PI = PI / 4, TAU = TWO_PI;
    public static final int LEFT = 37, UP = 38, RIGHT = 39, DOWN = 40, CODED = 0xFFFF, SHIFT = 16, CONTROL = 17, ALT = 18;
    public static final char ENTER = '\n', RETURN = '\r', ESC = 27, TAB = '\t', BACKSPACE = 8, DELETE = 127;
    public static final int CORNER = 0, CORNERS = 1, RADIUS = 2, CENTER = 3, TOP = 101, BOTTOM = 102, BASELINE = 0, CLOSE = 2, OPEN = 1;
    public static final int RGB = 1, HSB = 3, POINTS = 3, LINES = 5, TRIANGLES = 9, QUADS = 17, PIE = 3, CHORD = 2, ROUND = 2, SQUARE = 1, PROJECT = 4;
    public static final int ARROW = 0, HAND = 12, CROSS = 1, WAIT = 3, BLEND = 1, ADD = 2;
    public static final String P2D = "P2D", P3D = "P3D", JAVA2D = "JAVA2D";

    final Recorder recorder = new Recorder();

    public int color(float grey) {
        return color(grey, grey, grey);
    }

    public int color(float grey, float alpha) {
        return color(grey, grey, grey, alpha);
    }

    public int color(float r, float g, float b) {
        return color(r, g, b, 255);
    }

    public int color(float r, float g, float b, float a) {
        return part(a) << 24 | part(r) << 16 | part(g) << 8 | part(b);
    }

    private static int part(float v) {
        return Math.max(0, Math.min(255, (int) v));
    }

    public float red(int c) {
        return c >> 16 & 255;
    }

    public float green(int c) {
        return c >> 8 & 255;
    }

    public float blue(int c) {
        return c & 255;
    }

    public float alpha(int c) {
        return c >>> 24;
    }

    public int lerpColor(int a, int b, float t) {
        return color(red(a) + (red(b) - red(a)) * t, green(a) + (green(b) - green(a)) * t, blue(a) + (blue(b) - blue(a)) * t);
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

    private static Object[] list(float[] values) {
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

    public void strokeWeight(float v) {
        recorder.call("strokeWeight", v);
    }

    public void strokeCap(int v) {
        recorder.call("strokeCap", v);
    }

    public void strokeJoin(int v) {
        recorder.call("strokeJoin", v);
    }

    public void rect(float... v) {
        recorder.call("rect", list(v));
    }

    public void square(float x, float y, float s) {
        recorder.call("square", x, y, s);
    }

    public void ellipse(float x, float y, float w, float h) {
        recorder.call("ellipse", x, y, w, h);
    }

    public void circle(float x, float y, float d) {
        recorder.call("circle", x, y, d);
    }

    public void line(float... v) {
        recorder.call("line", list(v));
    }

    public void point(float... v) {
        recorder.call("point", list(v));
    }

    public void triangle(float a, float b, float c, float d, float e, float f) {
        recorder.call("triangle", a, b, c, d, e, f);
    }

    public void quad(float... v) {
        recorder.call("quad", list(v));
    }

    public void arc(float... v) {
        recorder.call("arc", list(v));
    }

    public void bezier(float... v) {
        recorder.call("bezier", list(v));
    }

    public void curve(float... v) {
        recorder.call("curve", list(v));
    }

    public void beginShape() {
        recorder.call("beginShape");
    }

    public void beginShape(int kind) {
        recorder.call("beginShape", kind);
    }

    public void vertex(float... v) {
        recorder.call("vertex", list(v));
    }

    public void curveVertex(float x, float y) {
        recorder.call("curveVertex", x, y);
    }

    public void bezierVertex(float... v) {
        recorder.call("bezierVertex", list(v));
    }

    public void endShape() {
        recorder.call("endShape");
    }

    public void endShape(int mode) {
        recorder.call("endShape", mode);
    }

    public void text(String text, float... at) {
        recorder.call("text " + text, list(at));
    }

    public void text(float number, float x, float y) {
        recorder.call("text", number, x, y);
    }

    public void text(int number, float x, float y) {
        recorder.call("text", number, x, y);
    }

    public void text(char letter, float x, float y) {
        recorder.call("text", letter, x, y);
    }

    public void textSize(float v) {
        recorder.call("textSize", v);
    }

    public void textAlign(int v) {
        recorder.call("textAlign", v);
    }

    public void textAlign(int v, int w) {
        recorder.call("textAlign", v, w);
    }

    public void textLeading(float v) {
        recorder.call("textLeading", v);
    }

    public float textWidth(String text) {
        return text.length() * 7f;
    }

    public void textFont(PFont font) {
        recorder.call("textFont", font);
    }

    public void textFont(PFont font, float size) {
        recorder.call("textFont", font, size);
    }

    public PFont createFont(String name, float size) {
        return new PFont(name);
    }

    public PFont loadFont(String name) {
        return new PFont(name);
    }

    public PImage loadImage(String name) {
        return new PImage(name, 32, 32);
    }

    public PImage createImage(int w, int h, int format) {
        return new PImage("image", w, h);
    }

    public void image(PImage image, float... at) {
        recorder.call("image " + image, list(at));
    }

    public void rectMode(int v) {
        recorder.call("rectMode", v);
    }

    public void ellipseMode(int v) {
        recorder.call("ellipseMode", v);
    }

    public void imageMode(int v) {
        recorder.call("imageMode", v);
    }

    public void colorMode(int v, float... more) {
        recorder.call("colorMode", v, more.length > 0 ? more[0] : 255f);
    }

    public void blendMode(int v) {
        recorder.call("blendMode", v);
    }

    public void pushMatrix() {
        recorder.call("pushMatrix");
    }

    public void popMatrix() {
        recorder.call("popMatrix");
    }

    public void pushStyle() {
        recorder.call("pushStyle");
    }

    public void popStyle() {
        recorder.call("popStyle");
    }

    public void push() {
        recorder.call("push");
    }

    public void pop() {
        recorder.call("pop");
    }

    public void translate(float... v) {
        recorder.call("translate", list(v));
    }

    public void rotate(float v) {
        recorder.call("rotate", v);
    }

    public void scale(float... v) {
        recorder.call("scale", list(v));
    }

    public void clear() {
        recorder.call("clear");
    }

    /** A letter form. */
    public static class PFont {
        private final String name;

        PFont(String name) {
            this.name = name;
        }

        @Override
        public String toString() {
            return name;
        }
    }

    /** A picture, of which only the size is known. */
    public static class PImage {
        public int width, height;
        private final String name;

        PImage(String name, int width, int height) {
            this.name = name;
            this.width = width;
            this.height = height;
        }

        public void resize(int w, int h) {
            width = w;
            height = h;
        }

        public int get(int x, int y) {
            return 0;
        }

        public void set(int x, int y, int c) {
        }

        public void loadPixels() {
        }

        public void updatePixels() {
        }

        @Override
        public String toString() {
            return name;
        }
    }

    /** A vector of three numbers. */
    public static class PVector {
        public float x, y, z;

        public PVector() {
        }

        public PVector(float x, float y) {
            this(x, y, 0);
        }

        public PVector(float x, float y, float z) {
            this.x = x;
            this.y = y;
            this.z = z;
        }

        public PVector set(float x, float y) {
            this.x = x;
            this.y = y;
            return this;
        }

        public PVector set(PVector o) {
            return set(o.x, o.y);
        }

        public PVector copy() {
            return new PVector(x, y, z);
        }

        public PVector get() {
            return copy();
        }

        public PVector add(PVector o) {
            x += o.x;
            y += o.y;
            z += o.z;
            return this;
        }

        public PVector add(float a, float b) {
            x += a;
            y += b;
            return this;
        }

        public PVector sub(PVector o) {
            x -= o.x;
            y -= o.y;
            z -= o.z;
            return this;
        }

        public PVector mult(float n) {
            x *= n;
            y *= n;
            z *= n;
            return this;
        }

        public PVector div(float n) {
            return mult(1 / n);
        }

        public float mag() {
            return (float) Math.sqrt(x * x + y * y + z * z);
        }

        public float magSq() {
            return x * x + y * y + z * z;
        }

        public PVector normalize() {
            float m = mag();
            return m == 0 ? this : div(m);
        }

        public PVector setMag(float n) {
            return normalize().mult(n);
        }

        public PVector limit(float n) {
            return mag() > n ? setMag(n) : this;
        }

        public float heading() {
            return (float) Math.atan2(y, x);
        }

        public float dist(PVector o) {
            return (float) Math.sqrt((x - o.x) * (x - o.x) + (y - o.y) * (y - o.y) + (z - o.z) * (z - o.z));
        }

        public float dot(PVector o) {
            return x * o.x + y * o.y + z * o.z;
        }

        public PVector rotate(float a) {
            float old = x;
            x = (float) (x * Math.cos(a) - y * Math.sin(a));
            y = (float) (old * Math.sin(a) + y * Math.cos(a));
            return this;
        }

        public static PVector add(PVector a, PVector b) {
            return a.copy().add(b);
        }

        public static PVector sub(PVector a, PVector b) {
            return a.copy().sub(b);
        }

        public static PVector mult(PVector a, float n) {
            return a.copy().mult(n);
        }

        public static PVector div(PVector a, float n) {
            return a.copy().div(n);
        }

        public static float dist(PVector a, PVector b) {
            return a.dist(b);
        }

        public static PVector fromAngle(float a) {
            return new PVector((float) Math.cos(a), (float) Math.sin(a));
        }

        public static PVector random2D() {
            return fromAngle((float) (Pin.chance() * 2 * Math.PI));
        }
    }
}
