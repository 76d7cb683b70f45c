package aedifex;

/** A picture that is drawn aside: its calls are recorded apart and told where it is shown. */
public class PGraphics extends Space {
    public int width, height;
    public int[] pixels;

    PGraphics(int width, int height) {
        this.width = width;
        this.height = height;
        pixels = new int[width * height];
    }

    public void beginDraw() {
        recorder.call("beginDraw");
    }

    public void endDraw() {
        recorder.call("endDraw");
    }

    public void loadPixels() {
    }

    public void updatePixels() {
        recorder.call("updatePixels", java.util.Arrays.hashCode(pixels));
    }

    public PImage get() {
        PImage made = new PImage(toString(), width, height);
        System.arraycopy(pixels, 0, made.pixels, 0, pixels.length);
        return made;
    }

    public void dispose() {
    }

    public boolean save(String path) {
        recorder.call("save " + path);
        return true;
    }

    @Override
    public String toString() {
        return "graphics " + width + "x" + height + recorder.told();
    }
}
