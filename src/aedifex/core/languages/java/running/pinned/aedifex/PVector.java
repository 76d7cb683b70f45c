package aedifex;

/** A vector of three numbers. */
public class PVector {
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

    public PVector set(float x, float y, float z) {
        this.z = z;
        return set(x, y);
    }

    public PVector set(PVector o) {
        return set(o.x, o.y, o.z);
    }

    public PVector set(float[] from) {
        return from.length > 2 ? set(from[0], from[1], from[2]) : set(from[0], from[1]);
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

    public PVector add(float a, float b, float c) {
        z += c;
        return add(a, b);
    }

    public PVector sub(float a, float b) {
        return add(-a, -b);
    }

    public PVector sub(float a, float b, float c) {
        return add(-a, -b, -c);
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

    public static PVector random3D() {
        float turn = (float) (Pin.chance() * 2 * Math.PI), high = (float) (Pin.chance() * 2 - 1), flat = (float) Math.sqrt(1 - high * high);
        return new PVector(flat * (float) Math.cos(turn), flat * (float) Math.sin(turn), high);
    }

    public static PVector lerp(PVector a, PVector b, float t) {
        return a.copy().lerp(b, t);
    }

    public static float angleBetween(PVector a, PVector b) {
        double m = (double) a.mag() * b.mag();
        return m == 0 ? 0 : (float) Math.acos(Math.max(-1, Math.min(1, a.dot(b) / m)));
    }

    public PVector lerp(PVector to, float t) {
        return set(x + (to.x - x) * t, y + (to.y - y) * t, z + (to.z - z) * t);
    }

    public PVector cross(PVector o) {
        return new PVector(y * o.z - o.y * z, z * o.x - o.z * x, x * o.y - o.x * y);
    }

    public float heading2D() {
        return heading();
    }

    public float[] array() {
        return new float[] {x, y, z};
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof PVector o && x == o.x && y == o.y && z == o.z;
    }

    @Override
    public int hashCode() {
        return java.util.Objects.hash(x, y, z);
    }

    @Override
    public String toString() {
        return "[ " + x + ", " + y + ", " + z + " ]";
    }
}
