package aedifex;

import java.awt.Component;
import java.awt.Container;
import java.awt.Frame;
import java.awt.Point;
import java.awt.Toolkit;
import java.awt.Window;
import java.awt.event.KeyEvent;
import java.awt.event.MouseEvent;
import java.awt.event.WindowEvent;
import java.awt.image.BufferedImage;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.StringJoiner;
import javax.swing.AbstractButton;
import javax.swing.JComboBox;
import javax.swing.JComponent;
import javax.swing.JDialog;
import javax.swing.JLabel;
import javax.swing.JList;
import javax.swing.JMenu;
import javax.swing.JProgressBar;
import javax.swing.JSlider;
import javax.swing.JSpinner;
import javax.swing.JTextField;
import javax.swing.RepaintManager;
import javax.swing.SwingUtilities;
import javax.swing.UIManager;
import javax.swing.text.JTextComponent;

/**
 * Windows of a checked run. A turn is a timer that is due, the events of the turn, and all that comes of them; what the controls
 * display is noted as text, so that fonts do not matter, and what a component of the program draws as a checksum.
 */
final class Windows implements Runnable {
    private static final int PATIENCE = 4000; // times that are looked for a window
    private static final String[] TEXTS = {"TextField", "FormattedTextField", "PasswordField", "TextArea", "TextPane", "EditorPane"};
    private static final int BUSY = 400; // times that are waited for a thread which is still at work
    private static final int ROUNDS = 400; // turns that nothing ends

    private static final Map<Component, String> drawings = new IdentityHashMap<>();
    private static volatile boolean touched; // whether anything is to be painted again since the last note

    /** The toolkit is made ready by this thread alone: two that do so at once can wait for each other for ever. */
    static void begin() throws ReflectiveOperationException, InterruptedException {
        Toolkit.getDefaultToolkit();
        for (String kind : TEXTS) {
            UIManager.put(kind + ".caretBlinkRate", 0); // else there is always something to come
        }
        new JLabel("").getPreferredSize();
        Class.forName("javax.swing.JFrame");
        Window.getWindows();
        SwingUtilities.invokeAndWait(() -> { });
        RepaintManager.setCurrentManager(new RepaintManager() {
            @Override
            public void addDirtyRegion(JComponent one, int x, int y, int width, int height) {
                touched = true;
                super.addDirtyRegion(one, x, y, width, height);
            }
        });
        new Thread(new Windows(), "aedifex").start();
    }

    @Override
    public void run() {
        try {
            for (int n = 0; showing().isEmpty() && n < PATIENCE; n++) {
                Thread.sleep(5);
                if (n % 20 == 19 && over()) {
                    return;
                }
            }
            started();
            for (int round = 0; !gone(); round++) {
                settle();
                Ticker due = round > 0 ? Ticker.next() : null;
                if (due != null) {
                    SwingUtilities.invokeLater(due::fire);
                    settle();
                }
                for (String[] event : due()) {
                    SwingUtilities.invokeLater(() -> give(event));
                    settle();
                }
                if (gone()) {
                    break;
                }
                boolean[] told = {false};
                for (int n = 0; n < 20 && !told[0]; n++) {
                    int left = 19 - n;
                    SwingUtilities.invokeAndWait(() -> told[0] = note(left == 0));
                    Thread.sleep(told[0] ? 0 : 5);
                }
                boolean later = later();
                Pin.over("frame");
                for (int n = 0; n < BUSY && due == null && !Ticker.any() && !later && working(true); n++) {
                    Thread.sleep(5); // what shows the window may not have come to its timers
                }
                if (due == null && !Ticker.any() && !later) {
                    Pin.end("ended when no more events came");
                } else if (round > ROUNDS && !later) {
                    Pin.end("ended after " + ROUNDS + " turns of its window");
                }
            }
        } catch (ReflectiveOperationException | InterruptedException error) {
            throw new IllegalStateException(error);
        }
    }

    /** Until what started the program has returned, or waits for something: it may fill its window after it shows it. */
    private static void started() throws InterruptedException, java.lang.reflect.InvocationTargetException {
        for (int n = 0, calm = 0; n < BUSY && calm < 3; n++) {
            boolean busy = Thread.getAllStackTraces().keySet().stream().anyMatch(t -> t.getName().equals("main") && t.isAlive()
                && t.getState() != Thread.State.WAITING && t.getState() != Thread.State.TIMED_WAITING);
            calm = busy ? 0 : calm + 1;
            Thread.sleep(5);
        }
        settle();
    }

    /** Whether the program has come to its end without a window: nothing of it runs, or is to run. */
    private static boolean over() throws InterruptedException, java.lang.reflect.InvocationTargetException {
        settle();
        return !working(false) && !Ticker.any() && showing().isEmpty();
    }

    /** Whether a thread of the program's own is alive; {@code busy}: and does something, or waits to go on. */
    private static boolean working(boolean busy) {
        for (Thread t : Thread.getAllStackTraces().keySet()) {
            boolean ours = t == Thread.currentThread() || t.getName().startsWith("AWT-") || t.getName().equals("DestroyJavaVM");
            boolean waits = t.getState() == Thread.State.WAITING || t.getState() == Thread.State.TIMED_WAITING;
            if (t.isAlive() && !t.isDaemon() && !ours && !(busy && waits)) {
                return true;
            }
        }
        return false;
    }

    /** Let all that is pending happen. */
    private static void settle() throws InterruptedException, java.lang.reflect.InvocationTargetException {
        for (int n = 0; n < 4; n++) {
            SwingUtilities.invokeAndWait(() -> { });
        }
    }

    /** Whether no window is left. A window that is just being shown can look as if it were not: what is seen once says nothing. */
    private static boolean gone() throws InterruptedException {
        for (int n = 0; n < 20 && showing().isEmpty(); n++) {
            Thread.sleep(5);
        }
        return showing().isEmpty();
    }

    private static List<Window> showing() {
        List<Window> found = new ArrayList<>(Arrays.asList(Window.getWindows()));
        found.removeIf(w -> !w.isShowing() || !w.isDisplayable()); // one that is still being made says that it shows
        return found;
    }

    private static List<String[]> due() {
        List<String[]> found = new ArrayList<>(Plan.events);
        found.removeIf(e -> Integer.parseInt(e[0]) != Pin.turn());
        return found;
    }

    private static boolean later() {
        return Plan.events.stream().anyMatch(e -> Integer.parseInt(e[0]) > Pin.turn());
    }

    // -- events --------------------------------------------------------------------------------

    private static void give(String[] event) {
        Window window = showing().get(showing().size() - 1);
        switch (event[1]) {
            case "quit" -> window.dispatchEvent(new WindowEvent(window, WindowEvent.WINDOW_CLOSING));
            case "control" -> control(event[2], event.length > 3 ? event[3] : null);
            case "text" -> event[2].chars().forEach(c -> key(window, String.valueOf((char) c), "tap"));
            case "press", "release", "tap" -> key(window, event[2], event[1]);
            case "click", "move" -> mouse(window, event);
            default -> { }
        }
    }

    private static void control(String name, String value) {
        Component found = null;
        int left = name.matches(".* \\d+") ? Integer.parseInt(name.substring(name.lastIndexOf(' ') + 1)) : 0;
        for (Component one : all()) {
            if (name.equals(one.getName()) || name.equals(text(one))) {
                found = one;
                break;
            }
            if (left > 0 && kind(one).equals(name.substring(0, name.lastIndexOf(' '))) && --left == 0) {
                found = one;
            }
        }
        if (found == null) {
            Log.note("trouble", "the scenario uses the control '" + name + "', which the window does not show at turn " + Pin.turn());
            Pin.end("");
        } else if (value != null) {
            fill(found, value);
        } else if (found instanceof AbstractButton button) {
            button.doClick(0);
        } else if (found instanceof JTextField field) {
            field.postActionEvent();
        } else {
            pressed(found, 3, 3, 1);
        }
    }

    private static void fill(Component found, String value) {
        if (found instanceof JTextComponent field) {
            field.setText(value);
        } else if (found instanceof JComboBox<?> box) {
            for (int i = 0; i < box.getItemCount(); i++) {
                if (String.valueOf(box.getItemAt(i)).equals(value)) {
                    box.setSelectedIndex(i);
                }
            }
        } else if (found instanceof JList<?> list) {
            for (int i = 0; i < list.getModel().getSize(); i++) {
                if (String.valueOf(list.getModel().getElementAt(i)).equals(value)) {
                    list.setSelectedIndex(i);
                }
            }
        } else if (found instanceof JSlider slider) {
            slider.setValue(Integer.parseInt(value));
        } else if (found instanceof JSpinner spinner) {
            spinner.setValue(spinner.getValue() instanceof Integer ? (Object) Integer.parseInt(value) : value);
        } else if (found instanceof AbstractButton button && button.isSelected() != Boolean.parseBoolean(value)) {
            button.doClick(0);
        }
    }

    private static void key(Window window, String name, String how) {
        Component focused = window.getMostRecentFocusOwner();
        Component target = focused != null ? focused : window;
        char typed = name.length() == 1 ? name.charAt(0) : name.equals("SPACE") ? ' ' : name.equals("ENTER") || name.equals("RETURN") ? '\n' : KeyEvent.CHAR_UNDEFINED;
        int code = code(name);
        if (!how.equals("release")) {
            target.dispatchEvent(new KeyEvent(target, KeyEvent.KEY_PRESSED, Pin.millis(), 0, code, typed));
            if (typed != KeyEvent.CHAR_UNDEFINED) {
                target.dispatchEvent(new KeyEvent(target, KeyEvent.KEY_TYPED, Pin.millis(), 0, KeyEvent.VK_UNDEFINED, typed));
            }
        }
        if (!how.equals("press")) {
            target.dispatchEvent(new KeyEvent(target, KeyEvent.KEY_RELEASED, Pin.millis(), 0, code, typed));
        }
    }

    private static int code(String name) {
        String wanted = name.equals(" ") ? "SPACE" : name.equals("RETURN") ? "ENTER" : name.equals("ESC") ? "ESCAPE" : name.toUpperCase();
        try {
            return KeyEvent.class.getField("VK_" + wanted).getInt(null);
        } catch (ReflectiveOperationException unknown) {
            return KeyEvent.getExtendedKeyCodeForChar(name.charAt(0));
        }
    }

    private static void mouse(Window window, String[] event) {
        Container root = window instanceof Frame frame && frame instanceof javax.swing.JFrame made ? made.getContentPane() : window;
        int x = Integer.parseInt(event[2]);
        int y = Integer.parseInt(event[3]);
        Component target = SwingUtilities.getDeepestComponentAt(root, x, y);
        target = target == null ? root : target;
        Point place = SwingUtilities.convertPoint(root, x, y, target);
        if (event[1].equals("move")) {
            target.dispatchEvent(new MouseEvent(target, MouseEvent.MOUSE_MOVED, Pin.millis(), 0, place.x, place.y, 0, false));
        } else {
            pressed(target, place.x, place.y, Integer.parseInt(event[4]));
        }
    }

    private static void pressed(Component target, int x, int y, int button) {
        for (int kind : new int[] {MouseEvent.MOUSE_PRESSED, MouseEvent.MOUSE_RELEASED, MouseEvent.MOUSE_CLICKED}) {
            target.dispatchEvent(new MouseEvent(target, kind, Pin.millis(), kind == MouseEvent.MOUSE_PRESSED ? MouseEvent.getMaskForButton(button) : 0, x, y, 1, false, button));
        }
    }

    // -- what is shown -------------------------------------------------------------------------

    private static List<Component> all() {
        List<Component> found = new ArrayList<>();
        showing().forEach(w -> below(w, found));
        return found;
    }

    private static void below(Component one, List<Component> found) {
        found.add(one);
        Component[] children = one instanceof JMenu menu ? menu.getMenuComponents() : one instanceof Container holder ? holder.getComponents() : new Component[0];
        for (Component child : children) {
            below(child, found);
        }
    }

    /** Whether there was anything to note; nothing is noted only if it is certain. */
    private static boolean note(boolean certain) {
        StringJoiner rows = new StringJoiner("\n");
        if (touched || Ticker.any() || working(false)) {
            touched = false;
            drawings.clear();
        }
        for (Window window : showing()) {
            String title = window instanceof Frame frame ? frame.getTitle() : window instanceof JDialog dialog ? dialog.getTitle() : "";
            rows.add(kind(window) + " '" + title + "'");
            List<Component> found = new ArrayList<>();
            below(window, found);
            found.stream().skip(1).map(Windows::row).filter(row -> !row.isEmpty()).forEach(row -> rows.add("  " + row));
        }
        if (rows.length() > 0 || certain) {
            Log.note("shot", "window " + Pin.turn(), rows.toString());
        }
        return rows.length() > 0;
    }

    private static String row(Component one) {
        boolean own = one instanceof JComponent && !one.getClass().getName().startsWith("javax.") && !library(one.getClass());
        String told = text(one);
        if ((told == null && !own && !(one instanceof JList<?>)) || !one.isVisible()) {
            return "";
        }
        StringBuilder text = new StringBuilder(kind(one)).append(told == null ? "" : " '" + told + "'");
        if (!one.isEnabled()) {
            text.append(" disabled");
        }
        if (one instanceof AbstractButton button && button.isSelected()) {
            text.append(" selected");
        }
        if (one instanceof JList<?> list) {
            for (int i = 0; i < list.getModel().getSize(); i++) {
                text.append(list.isSelectedIndex(i) ? " >" : " ").append(list.getModel().getElementAt(i));
            }
        }
        if (one.isForegroundSet() && one.getForeground() != null && !(one.getForeground() instanceof javax.swing.plaf.UIResource)) {
            text.append(" in ").append(Integer.toHexString(one.getForeground().getRGB()));
        }
        return own && one.getWidth() > 0 ? text + " draws " + drawings.computeIfAbsent(one, Windows::drawn) : text.toString();
    }

    private static boolean library(Class<?> kind) {
        return kind.getName().startsWith("java.") || kind.getName().startsWith("sun.");
    }

    private static String drawn(Component one) {
        BufferedImage image = new BufferedImage(one.getWidth(), Math.max(1, one.getHeight()), BufferedImage.TYPE_INT_RGB);
        one.paint(image.getGraphics());
        return Integer.toHexString(Arrays.hashCode(image.getRGB(0, 0, image.getWidth(), image.getHeight(), null, 0, image.getWidth())));
    }

    private static String kind(Component one) {
        Class<?> kind = one.getClass();
        while (!kind.getName().startsWith("javax.swing.") && kind.getSuperclass() != null && !library(kind)) {
            kind = kind.getSuperclass();
        }
        return kind.getSimpleName();
    }

    private static String text(Component one) {
        if (one instanceof JLabel label) {
            return label.getText();
        } else if (one instanceof AbstractButton button) {
            return button.getText();
        } else if (one instanceof JTextComponent field) {
            return field.getText();
        } else if (one instanceof JComboBox<?> box) {
            return String.valueOf(box.getSelectedItem());
        } else if (one instanceof JSlider slider) {
            return String.valueOf(slider.getValue());
        } else if (one instanceof JSpinner spinner) {
            return String.valueOf(spinner.getValue());
        } else if (one instanceof JProgressBar bar) {
            return String.valueOf(bar.getValue());
        }
        return null;
    }
}
