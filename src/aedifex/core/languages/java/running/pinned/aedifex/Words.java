package aedifex;

/** The constants of a sketch. */
public class Words {
    public static final float PI = (float) Math.PI, TWO_PI = 2 * PI, HALF_PI = PI / 2, THIRD_PI = PI / 3, QUARTER_PI = PI / 4, TAU = TWO_PI;
    public static final float DEG_TO_RAD = PI / 180, RAD_TO_DEG = 180 / PI, EPSILON = 0.0001f;
    public static final float MAX_FLOAT = Float.MAX_VALUE, MIN_FLOAT = -Float.MAX_VALUE;
    public static final int MAX_INT = Integer.MAX_VALUE, MIN_INT = Integer.MIN_VALUE;
    public static final int MAX_CHAR = Character.MAX_VALUE, MAX_BYTE = Byte.MAX_VALUE, MIN_BYTE = Byte.MIN_VALUE;
    public static final int LEFT = 37, UP = 38, RIGHT = 39, DOWN = 40, CODED = 0xFFFF, SHIFT = 16, CONTROL = 17, ALT = 18;
    public static final char ENTER = '\n', RETURN = '\r', ESC = 27, TAB = '\t', BACKSPACE = 8, DELETE = 127;
    public static final int CORNER = 0, CORNERS = 1, RADIUS = 2, CENTER = 3, DIAMETER = 3, CENTER_RADIUS = 2, CENTER_DIAMETER = 3;
    public static final int TOP = 101, BOTTOM = 102, BASELINE = 0, CLOSE = 2, OPEN = 1;
    public static final int RGB = 1, ARGB = 2, HSB = 3, ALPHA = 4, CMYK = 5;
    public static final int POINT = 2, POINTS = 3, LINE = 4, LINES = 5, LINE_STRIP = 50, LINE_LOOP = 51, TRIANGLE = 8, TRIANGLES = 9;
    public static final int TRIANGLE_STRIP = 10, TRIANGLE_FAN = 11, QUAD = 16, QUADS = 17, QUAD_STRIP = 18, POLYGON = 20, PATH = 21;
    public static final int RECT = 30, ELLIPSE = 31, ARC = 32, SPHERE = 40, BOX = 41, GROUP = 0;
    public static final int PIE = 3, CHORD = 2, SQUARE = 1, ROUND = 2, PROJECT = 4, MITER = 8, BEVEL = 32;
    public static final int ARROW = 0, CROSS = 1, TEXT = 2, WAIT = 3, HAND = 12, MOVE = 13;
    public static final int REPLACE = 0, BLEND = 1, ADD = 2, SUBTRACT = 4, LIGHTEST = 8, DARKEST = 16, DIFFERENCE = 32, EXCLUSION = 64;
    public static final int MULTIPLY = 128, SCREEN = 256, OVERLAY = 512, HARD_LIGHT = 1024, SOFT_LIGHT = 2048, DODGE = 4096, BURN = 8192;
    public static final int BLUR = 11, GRAY = 12, INVERT = 13, OPAQUE = 14, POSTERIZE = 15, THRESHOLD = 16, ERODE = 17, DILATE = 18;
    public static final int NORMAL = 1, IMAGE = 2, CLAMP = 0, REPEAT = 1, MODEL = 4, SHAPE = 5, X = 0, Y = 1, Z = 2;
    public static final int DISABLE_DEPTH_TEST = 2, ENABLE_DEPTH_TEST = -2, PORTRAIT = 1, LANDSCAPE = 2, SPAN = 0;
    public static final String P2D = "P2D", P3D = "P3D", JAVA2D = "JAVA2D", OPENGL = "P3D", FX2D = "FX2D", PDF = "PDF", SVG = "SVG", DXF = "DXF";
    public static final String WHITESPACE = " \t\n\r\f\u00A0";
}
