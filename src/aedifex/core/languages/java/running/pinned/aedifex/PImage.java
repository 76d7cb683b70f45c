package aedifex;

import java.awt.image.BufferedImage;
import java.io.File;
import java.io.IOException;
import java.util.Arrays;
import javax.imageio.ImageIO;

/** A picture: its pixels are what its file holds, where there is one; filters are told, not worked out. */
public class PImage {
    public int width, height, format = Words.RGB, pixelDensity = 1, pixelWidth, pixelHeight;
    public int[] pixels;
    private String name;
    private String done = "";

    public PImage() {
        this("image", 1, 1);
    }

    public PImage(int width, int height) {
        this("image", width, height);
    }

    public PImage(int width, int height, int format) {
        this("image", width, height);
    }

    PImage(String name, int width, int height) {
        this.name = name;
        made(width, height);
    }

    /** The picture in a file beside the sketch or in its folder ``data``; an empty one of a fixed size if there is none. */
    static PImage read(String name) {
        for (String place : new String[] {name, "data/" + name}) {
            try {
                BufferedImage found = new File(place).isFile() ? ImageIO.read(new File(place)) : null;
                if (found != null) {
                    PImage image = new PImage(name, found.getWidth(), found.getHeight());
                    found.getRGB(0, 0, image.width, image.height, image.pixels, 0, image.width);
                    return image;
                }
            } catch (IOException error) {
                continue;
            }
        }
        System.err.println("there is no picture '" + name + "'; an empty one stands for it");
        return new PImage(name, 64, 64);
    }

    private void made(int w, int h) {
        width = pixelWidth = w;
        height = pixelHeight = h;
        pixels = new int[w * h];
    }

    public void resize(int w, int h) {
        int[] old = pixels;
        int wide = width, high = height;
        w = w == 0 ? Math.max(1, wide * h / Math.max(1, high)) : w;
        h = h == 0 ? Math.max(1, high * w / Math.max(1, wide)) : h;
        made(w, h);
        for (int i = 0; i < pixels.length && old.length > 0; i++) {
            pixels[i] = old[i / w * high / h * wide + i % w * wide / w];
        }
    }

    public int get(int x, int y) {
        return x < 0 || y < 0 || x >= width || y >= height ? 0 : pixels[y * width + x];
    }

    public PImage get() {
        return get(0, 0, width, height);
    }

    public PImage get(int x, int y, int w, int h) {
        PImage part = new PImage(name, Math.max(0, w), Math.max(0, h));
        for (int i = 0; i < part.pixels.length; i++) {
            part.pixels[i] = get(x + i % w, y + i / w);
        }
        return part;
    }

    public PImage copy() {
        return get();
    }

    public void set(int x, int y, int c) {
        if (x >= 0 && y >= 0 && x < width && y < height) {
            pixels[y * width + x] = c;
        }
    }

    public void set(int x, int y, PImage image) {
        for (int i = 0; i < image.pixels.length; i++) {
            set(x + i % image.width, y + i / image.width, image.pixels[i]);
        }
    }

    public void copy(int... v) {
        told("copy", v);
    }

    public void copy(PImage from, int... v) {
        told("copy " + from, v);
    }

    public void blend(int... v) {
        told("blend", v);
    }

    public void blend(PImage from, int... v) {
        told("blend " + from, v);
    }

    public void filter(int kind) {
        told("filter", kind);
    }

    public void filter(int kind, float v) {
        told("filter " + v, kind);
    }

    public void mask(PImage by) {
        told("mask " + by);
    }

    public void mask(int[] by) {
        told("mask", by);
    }

    public boolean save(String path) {
        return true;
    }

    public void loadPixels() {
    }

    public void updatePixels() {
    }

    public void updatePixels(int x, int y, int w, int h) {
    }

    private void told(String what, int... v) {
        done = Integer.toHexString((done + what + Arrays.toString(v)).hashCode());
    }

    @Override
    public String toString() {
        return name + " " + width + "x" + height + " " + Integer.toHexString(Arrays.hashCode(pixels)) + (done.isEmpty() ? "" : " " + done);
    }
}
