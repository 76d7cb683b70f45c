package aedifex;

import java.awt.event.ActionEvent;
import java.awt.event.ActionListener;
import java.util.ArrayList;
import java.util.List;
import javax.swing.Timer;

/** A timer of a window on simulated time: the earliest that is due fires once a turn. */
public final class Ticker extends Timer {
    private static final long serialVersionUID = 1;
    private static final List<Ticker> running = new ArrayList<>();
    private static long now;
    private long due;

    public Ticker(int delay, ActionListener listener) {
        super(delay, listener);
    }

    @Override
    public void start() {
        synchronized (running) {
            if (!running.contains(this)) {
                due = now + getInitialDelay();
                running.add(this);
            }
        }
    }

    @Override
    public void stop() {
        synchronized (running) {
            running.remove(this);
        }
    }

    @Override
    public void restart() {
        stop();
        start();
    }

    @Override
    public boolean isRunning() {
        synchronized (running) {
            return running.contains(this);
        }
    }

    static boolean any() {
        synchronized (running) {
            return !running.isEmpty();
        }
    }

    /** The timer that is due next, if any runs; time passes until then. */
    static Ticker next() {
        synchronized (running) {
            Ticker first = null;
            for (Ticker one : running) {
                first = first == null || one.due < first.due ? one : first;
            }
            if (first != null) {
                Pin.pass(Math.max(0, first.due - now));
                now = Math.max(now, first.due);
                first.due = now + Math.max(1, first.getDelay());
                if (!first.isRepeats()) {
                    running.remove(first);
                }
            }
            return first;
        }
    }

    void fire() {
        fireActionPerformed(new ActionEvent(this, ActionEvent.ACTION_PERFORMED, getActionCommand(), Pin.turn(), 0));
    }
}
