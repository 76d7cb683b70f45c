package aedifex;

/** A letter form, of which only the name and the size are known. */
public class PFont {
    private final String name;
    private final int size;

    PFont(String name, float size) {
        this.name = name;
        this.size = Math.round(size);
    }

    public String getName() {
        return name;
    }

    public int getSize() {
        return size;
    }

    public static String[] list() {
        return new String[] {"Plain"};
    }

    @Override
    public String toString() {
        return name;
    }
}
