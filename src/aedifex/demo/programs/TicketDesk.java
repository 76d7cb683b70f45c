import java.awt.BorderLayout;
import java.awt.GridLayout;
import java.awt.event.ActionEvent;
import java.awt.event.ActionListener;
import javax.swing.JButton;
import javax.swing.JFrame;
import javax.swing.JLabel;
import javax.swing.JPanel;
import javax.swing.JTextField;
import javax.swing.Timer;

/** The ticket desk of the Brindlebeck line in a window, written in one go. */
public class TicketDesk {
    private static final int SINGLE = 3;
    private static final int RETURN = 5;
    private static final int LAST_MINUTE = 6;

    private static int sold = 0;
    private static int takings = 0;
    private static int minutes = 0;
    private static boolean open = true;
    private static JLabel clockLabel = new JLabel("0 min");
    private static JLabel takingsLabel = new JLabel("0 crowns");
    private static JLabel stateLabel = new JLabel("open");
    private static JTextField nameField = new JTextField("nobody", 12);
    private static JFrame frame = new JFrame("Brindlebeck tickets");

    private static void show() {
        clockLabel.setText(minutes + " min");
        takingsLabel.setText(takings + " crowns for " + sold + " tickets");
        stateLabel.setText(open ? "open" : "closed");
    }

    private static void sell(int price) {
        if (!open) {
            System.out.println("refused");
            return;
        }
        sold++;
        takings += price;
        show();
    }

    public static void main(String[] args) {
        JPanel top = new JPanel(new GridLayout(0, 1));
        top.add(clockLabel);
        top.add(takingsLabel);
        top.add(stateLabel);
        top.add(nameField);
        frame.add(top, BorderLayout.NORTH);

        JPanel buttons = new JPanel();
        JButton single = new JButton("Single");
        single.addActionListener(e -> sell(SINGLE));
        buttons.add(single);
        JButton both = new JButton("Return");
        both.addActionListener(e -> sell(RETURN));
        buttons.add(both);
        JButton shutter = new JButton("Open or close");
        shutter.setName("shutter");
        shutter.addActionListener(new ActionListener() {
            @Override
            public void actionPerformed(ActionEvent event) {
                open = !open;
                show();
            }
        });
        buttons.add(shutter);
        JButton print = new JButton("Print");
        print.addActionListener(e -> {
            System.out.println(nameField.getText() + " sold " + sold);
            System.out.println("for " + takings);
        });
        buttons.add(print);
        frame.add(buttons, BorderLayout.SOUTH);

        Timer clock = new Timer(50, null);
        clock.addActionListener(e -> {
            minutes++;
            if (minutes == LAST_MINUTE) {
                open = false;
                clock.stop();
            }
            show();
        });
        clock.start();

        frame.setDefaultCloseOperation(JFrame.DISPOSE_ON_CLOSE);
        frame.pack();
        frame.setVisible(true);
        System.out.println("the desk is there");
    }
}
