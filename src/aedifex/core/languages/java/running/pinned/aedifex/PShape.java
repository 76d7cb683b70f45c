package aedifex;

import java.util.ArrayList;
import java.util.List;

/** A shape kept for later: what was asked of it, as text. */
public class PShape extends Space {
    private final String name;
    private final List<PShape> children = new ArrayList<>();
    private boolean visible = true;
    public float width = 100, height = 100;

    PShape(String name) {
        this.name = name;
    }

    public void addChild(PShape child) {
        children.add(child);
    }

    public PShape getChild(int index) {
        return children.get(index);
    }

    public PShape getChild(String id) {
        return new PShape(name + "/" + id);
    }

    public int getChildCount() {
        return children.size();
    }

    public void setVisible(boolean shown) {
        visible = shown;
    }

    public boolean isVisible() {
        return visible;
    }

    public void disableStyle() {
        recorder.call("disableStyle");
    }

    public void enableStyle() {
        recorder.call("enableStyle");
    }

    public void setFill(int colour) {
        recorder.call("setFill", colour);
    }

    public void setFill(boolean filled) {
        recorder.call("setFill", filled);
    }

    public void setStroke(int colour) {
        recorder.call("setStroke", colour);
    }

    public void setStroke(boolean drawn) {
        recorder.call("setStroke", drawn);
    }

    public void setStrokeWeight(float weight) {
        recorder.call("setStrokeWeight", weight);
    }

    public void setTexture(PImage image) {
        recorder.call("setTexture", image);
    }

    @Override
    public String toString() {
        StringBuilder text = new StringBuilder(name).append(visible ? "" : " hidden").append(recorder.told());
        for (PShape child : children) {
            text.append(' ').append(child);
        }
        return text.toString();
    }
}
