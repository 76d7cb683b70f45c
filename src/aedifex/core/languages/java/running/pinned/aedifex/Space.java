package aedifex;

/** The words of a sketch that turn, light, and work on what is drawn. */
public class Space extends Drawing {
    public PGraphics createGraphics(int w, int h) {
        return new PGraphics(w, h);
    }

    public PGraphics createGraphics(int w, int h, String renderer) {
        return new PGraphics(w, h);
    }

    public PShape loadShape(String name) {
        return new PShape(name);
    }

    public PShape createShape() {
        return new PShape("shape");
    }

    public PShape createShape(int kind, float... v) {
        return new PShape("shape " + kind + java.util.Arrays.toString(v));
    }

    public void shape(PShape shape, float... at) {
        recorder.call("shape " + shape, list(at));
    }

    public void shapeMode(int v) {
        recorder.call("shapeMode", v);
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

    public void rotateX(float... v) {
        recorder.call("rotateX", list(v));
    }

    public void rotateY(float... v) {
        recorder.call("rotateY", list(v));
    }

    public void rotateZ(float... v) {
        recorder.call("rotateZ", list(v));
    }

    public void shearX(float... v) {
        recorder.call("shearX", list(v));
    }

    public void shearY(float... v) {
        recorder.call("shearY", list(v));
    }

    public void applyMatrix(float... v) {
        recorder.call("applyMatrix", list(v));
    }

    public void camera(float... v) {
        recorder.call("camera", list(v));
    }

    public void perspective(float... v) {
        recorder.call("perspective", list(v));
    }

    public void ortho(float... v) {
        recorder.call("ortho", list(v));
    }

    public void frustum(float... v) {
        recorder.call("frustum", list(v));
    }

    public void ambientLight(float... v) {
        recorder.call("ambientLight", list(v));
    }

    public void directionalLight(float... v) {
        recorder.call("directionalLight", list(v));
    }

    public void pointLight(float... v) {
        recorder.call("pointLight", list(v));
    }

    public void spotLight(float... v) {
        recorder.call("spotLight", list(v));
    }

    public void lightSpecular(float... v) {
        recorder.call("lightSpecular", list(v));
    }

    public void lightFalloff(float... v) {
        recorder.call("lightFalloff", list(v));
    }

    public void ambient(float... v) {
        recorder.call("ambient", list(v));
    }

    public void emissive(float... v) {
        recorder.call("emissive", list(v));
    }

    public void specular(float... v) {
        recorder.call("specular", list(v));
    }

    public void shininess(float... v) {
        recorder.call("shininess", list(v));
    }

    public void box(float... v) {
        recorder.call("box", list(v));
    }

    public void sphere(float... v) {
        recorder.call("sphere", list(v));
    }

    public void normal(float... v) {
        recorder.call("normal", list(v));
    }

    public void bezierDetail(float... v) {
        recorder.call("bezierDetail", list(v));
    }

    public void curveDetail(float... v) {
        recorder.call("curveDetail", list(v));
    }

    public void curveTightness(float... v) {
        recorder.call("curveTightness", list(v));
    }

    public void sphereDetail(float... v) {
        recorder.call("sphereDetail", list(v));
    }

    public void clip(float... v) {
        recorder.call("clip", list(v));
    }

    public void hint(float... v) {
        recorder.call("hint", list(v));
    }

    public void lights() {
        recorder.call("lights");
    }

    public void noLights() {
        recorder.call("noLights");
    }

    public void resetMatrix() {
        recorder.call("resetMatrix");
    }

    public void noClip() {
        recorder.call("noClip");
    }

    public void beginContour() {
        recorder.call("beginContour");
    }

    public void endContour() {
        recorder.call("endContour");
    }

    public void beginCamera() {
        recorder.call("beginCamera");
    }

    public void endCamera() {
        recorder.call("endCamera");
    }

    public void flush() {
        recorder.call("flush");
    }

    public void noTexture() {
        recorder.call("noTexture");
    }

    public void textureMode(int v) {
        recorder.call("textureMode", v);
    }

    public void textureWrap(int v) {
        recorder.call("textureWrap", v);
    }

    public void texture(PImage image) {
        recorder.call("texture", image);
    }

    public void filter(int kind, float... v) {
        recorder.call("filter " + kind, list(v));
    }

    public void blend(PImage from, float... v) {
        recorder.call("blend " + from, list(v));
    }

    public void blend(float... v) {
        recorder.call("blend", list(v));
    }

    public void copy(PImage from, float... v) {
        recorder.call("copy " + from, list(v));
    }

    public void copy(float... v) {
        recorder.call("copy", list(v));
    }
}
