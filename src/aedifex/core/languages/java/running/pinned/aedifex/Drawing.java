package aedifex;

/** The words of a sketch that draw: each is recorded as it was asked for. */
public class Drawing extends Colours {
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

    public void text(char[] text, float... at) {
        text(new String(text), at);
    }

    public void text(float number, float... at) {
        text(String.valueOf(number), at);
    }

    public void text(int number, float... at) {
        text(String.valueOf(number), at);
    }

    public void text(char letter, float... at) {
        text(String.valueOf(letter), at);
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

    public float textWidth(char letter) {
        return 7f;
    }

    public float textAscent() {
        return 9f;
    }

    public float textDescent() {
        return 3f;
    }

    public void textMode(int v) {
        recorder.call("textMode", v);
    }

    public void textFont(PFont font) {
        recorder.call("textFont", font);
    }

    public void textFont(PFont font, float size) {
        recorder.call("textFont", font, size);
    }

    public PFont createFont(String name, float size) {
        return new PFont(name, size);
    }

    public PFont createFont(String name, float size, boolean smooth) {
        return new PFont(name, size);
    }

    public PFont createFont(String name, float size, boolean smooth, char[] letters) {
        return new PFont(name, size);
    }

    public PFont loadFont(String name) {
        return new PFont(name, 12);
    }

    public PImage loadImage(String name) {
        return PImage.read(name);
    }

    public PImage loadImage(String name, String kind) {
        return PImage.read(name);
    }

    public PImage requestImage(String name) {
        return PImage.read(name);
    }

    public PImage createImage(int w, int h, int format) {
        return new PImage("image", w, h);
    }

    public void image(PImage image, float... at) {
        recorder.call("image " + image, list(at));
    }

    public void image(PGraphics image, float... at) {
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

    public void curveVertex(float... v) {
        recorder.call("curveVertex", list(v));
    }

    public void quadraticVertex(float... v) {
        recorder.call("quadraticVertex", list(v));
    }
}
