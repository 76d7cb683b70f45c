package aedifex;

import java.util.Locale;

/** A stand-in for what a sketch runs on: every drawing call is recorded, keys and mouse come from the plan. */
public class PApplet extends Files {
    private boolean looping = true;
    private boolean again;
    private boolean leaving;
    private boolean drawing;

    public int width = 100;
    public int height = 100;
    public int frameCount;
    public float frameRate = 60;
    public int mouseX, mouseY, pmouseX, pmouseY;
    public boolean mousePressed;
    public int mouseButton = LEFT;
    public char key;
    public int keyCode;
    public boolean keyPressed;
    public boolean focused = true, online;
    public int pixelWidth = 100, pixelHeight = 100, pixelDensity = 1;
    public int displayWidth = 1280, displayHeight = 800;
    public int[] pixels = new int[0];

    /** Set up, then draw frame after frame until the plan, or the sketch, ends it. */
    public static void start(PApplet sketch, String[] args) {
        State.follow(sketch);
        sketch.hook("settings");
        sketch.hook("setup");
        sketch.recorder.shot(0);
        int most = Plan.turns > 0 ? Integer.MAX_VALUE : 60;
        for (int frame = 1; frame <= most && !sketch.leaving; frame++) {
            sketch.events();
            if (sketch.leaving) {
                break;
            }
            if (sketch.looping || sketch.again || frame == 1) {
                sketch.frame();
            }
            sketch.recorder.shot(Pin.turn());
            Pin.pass(1000 / 60);
            Pin.over("frame");
            if (!sketch.looping && Plan.turns == 0 && Plan.events.isEmpty()) {
                break;
            }
        }
    }

    private void frame() {
        again = false;
        frameCount++;
        drawing = true;
        hook("draw");
        drawing = false;
        pmouseX = mouseX;
        pmouseY = mouseY;
    }

    /** Call a function of the sketch by its name, if it has it. */
    private void hook(String name) {
        try {
            java.lang.reflect.Method method = getClass().getDeclaredMethod(name);
            method.setAccessible(true);
            method.invoke(this);
        } catch (NoSuchMethodException none) {
            return;
        } catch (java.lang.reflect.InvocationTargetException wrapped) {
            if (wrapped.getCause() instanceof RuntimeException error) {
                throw error;
            }
            if (wrapped.getCause() instanceof Error error) {
                throw error;
            }
            throw new RuntimeException(wrapped.getCause());
        } catch (IllegalAccessException error) {
            throw new IllegalStateException(error);
        }
    }

    // -- events --------------------------------------------------------------------------------

    private void events() {
        while (!Plan.events.isEmpty() && Integer.parseInt(Plan.events.get(0)[0]) <= Pin.turn()) {
            String[] event = Plan.events.remove(0);
            switch (event[1]) {
                case "quit" -> leaving = true;
                case "press" -> press(event[2]);
                case "release" -> release(event[2]);
                case "tap" -> {
                    press(event[2]);
                    hook("keyTyped");
                    release(event[2]);
                }
                case "click" -> click(Integer.parseInt(event[2]), Integer.parseInt(event[3]), event[4]);
                case "move" -> {
                    mouseX = Integer.parseInt(event[2]);
                    mouseY = Integer.parseInt(event[3]);
                    hook(mousePressed ? "mouseDragged" : "mouseMoved");
                }
                default -> Log.note("trouble", "a sketch takes no event '" + event[1] + "'");
            }
        }
    }

    private void press(String name) {
        Integer code = switch (name.toUpperCase(Locale.ROOT)) {
            case "LEFT" -> LEFT;
            case "RIGHT" -> RIGHT;
            case "UP" -> UP;
            case "DOWN" -> DOWN;
            case "SHIFT" -> SHIFT;
            default -> null;
        };
        if (code != null) {
            key = (char) CODED;
            keyCode = code;
        } else {
            key = switch (name.toUpperCase(Locale.ROOT)) {
                case "SPACE" -> ' ';
                case "ENTER", "RETURN" -> ENTER;
                case "ESC", "ESCAPE" -> ESC;
                case "TAB" -> TAB;
                case "BACKSPACE" -> BACKSPACE;
                default -> name.charAt(0);
            };
            keyCode = Character.toUpperCase(key);
        }
        keyPressed = true;
        hook("keyPressed");
    }

    private void release(String name) {
        keyPressed = false;
        hook("keyReleased");
    }

    private void click(int x, int y, String button) {
        mouseX = x;
        mouseY = y;
        mouseButton = button.equals("3") ? RIGHT : button.equals("2") ? CENTER : LEFT;
        mousePressed = true;
        hook("mousePressed");
        mousePressed = false;
        hook("mouseReleased");
        hook("mouseClicked");
    }

    // -- the window ----------------------------------------------------------------------------

    public void size(int w, int h) {
        width = pixelWidth = w;
        height = pixelHeight = h;
        recorder.call("size", w, h);
    }

    public void size(int w, int h, String renderer) {
        size(w, h);
    }

    public void fullScreen() {
        size(displayWidth, displayHeight);
    }

    public void frameRate(float rate) {
        frameRate = rate;
    }

    public void noLoop() {
        looping = false;
    }

    public void loop() {
        looping = true;
    }

    public void redraw() {
        again = true;
    }

    public void exit() {
        leaving = true;
        if (!drawing && frameCount == 0) {
            leaving = true;
        }
    }

    public int millis() {
        return (int) Pin.read();
    }

    public void delay(int milliseconds) {
        Pin.pass(milliseconds);
    }

    public void surface() {
    }

    public void cursor() {
    }

    public void cursor(int kind) {
    }

    public void noCursor() {
    }

    public void smooth() {
    }

    public void smooth(int level) {
    }

    public void noSmooth() {
    }

    public void size(float w, float h) {
        size((int) w, (int) h);
    }

    public void size(int w, int h, String renderer, String path) {
        size(w, h);
    }

    public void fullScreen(String renderer) {
        fullScreen();
    }

    public void cursor(PImage image) {
    }

    public void stop() {
        exit();
    }

    public void link(String address) {
        recorder.call("link " + address);
    }

    public void saveFrame() {
        saveFrame("screen-####.tif");
    }

    public void saveFrame(String path) {
        recorder.call("save " + path);
    }

    public void save(String path) {
        recorder.call("save " + path);
    }

    public void beginRecord(String renderer, String path) {
        recorder.call("beginRecord " + path);
    }

    public void endRecord() {
        recorder.call("endRecord");
    }

    public void beginRaw(String renderer, String path) {
        recorder.call("beginRaw " + path);
    }

    public void endRaw() {
        recorder.call("endRaw");
    }

    public void thread(String name) {
        hook(name);
    }

    public void requestFocus() {
    }

    // -- points of the window: what the sketch itself set, since nothing is painted ---------------

    public void loadPixels() {
        pixels = pixels.length == width * height ? pixels : new int[width * height];
    }

    public void updatePixels() {
        recorder.call("updatePixels", java.util.Arrays.hashCode(pixels));
    }

    public int get(int x, int y) {
        loadPixels();
        return x < 0 || y < 0 || x >= width || y >= height ? 0 : pixels[y * width + x];
    }

    public PImage get() {
        return get(0, 0, width, height);
    }

    public PImage get(int x, int y, int w, int h) {
        PImage made = new PImage(w, h);
        for (int i = 0; i < made.pixels.length; i++) {
            made.pixels[i] = get(x + i % w, y + i / w);
        }
        return made;
    }

    public void set(int x, int y, int colour) {
        loadPixels();
        if (x >= 0 && y >= 0 && x < width && y < height) {
            pixels[y * width + x] = colour;
        }
        recorder.call("set", x, y, colour);
    }

    public void set(int x, int y, PImage image) {
        recorder.call("set " + image, x, y);
    }
}
