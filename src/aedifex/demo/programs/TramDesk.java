import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Scanner;

/** The desk of the Brindlebeck line: tickets are sold and trams sent out, all at the console. */
public class TramDesk {
    private static final int SHORT_PRICE = 2;
    private static final int LONG_PRICE = 5;

    // the till
    private static int tillCash = 0, tillTickets = 0;
    private static List<String> tillLog = new ArrayList<>();

    private static double tram1Place = 0.0;
    private static double tram1Speed = 1.5;
    private static boolean tram1Out = false;
    private static double tram2Place = 30.0;
    private static double tram2Speed = -1.0;
    private static boolean tram2Out = false;

    private static int day = 1;
    private static Random luck = new Random(7);

    private static boolean sell(String kind, int count) {
        int price;
        if (kind.equals("short")) {
            price = SHORT_PRICE;
        } else if (kind.equals("long")) {
            price = LONG_PRICE;
        } else {
            return false;
        }
        tillCash += price * count;
        tillTickets += count;
        tillLog.add(day + " " + kind + " " + count);
        return true;
    }

    private static String tillReport() {
        return tillTickets + " tickets, " + tillCash + " pence";
    }

    private static void printTill() {
        for (String line : tillLog) {
            System.out.println(line);
        }
    }

    static void moveTram1(double hours) {
        if (tram1Out) {
            tram1Place += tram1Speed * hours;
        }
    }

    static void moveTram2(double hours) {
        if (tram2Out) {
            tram2Place += tram2Speed * hours;
        }
    }

    static void sendTram1() {
        tram1Out = !tram1Out;
    }

    static void sendTram2() {
        tram2Out = !tram2Out;
    }

    /** The next day: the till is emptied. */
    static void closeDay() {
        day++;
        tillCash = 0;
        System.out.println("luck " + luck.nextInt(10) + " " + (Math.random() < 2));
    }

    public static void main(String[] args) {
        Scanner in = new Scanner(System.in);
        String name = args.length > 0 ? args[0] : "Brindlebeck";
        System.out.println("Desk of " + name);
        while (in.hasNextLine()) {
            String[] words = in.nextLine().trim().split(" ");
            if (words[0].equals("sell")) {
                System.out.println(sell(words[1], Integer.parseInt(words[2])) ? "sold" : "no such ticket");
            } else if (words[0].equals("send")) {
                if (words[1].equals("1")) {
                    sendTram1();
                } else {
                    sendTram2();
                }
            } else if (words[0].equals("hours")) {
                moveTram1(Double.parseDouble(words[1]));
                moveTram2(Double.parseDouble(words[1]));
                System.out.println(tram1Place + " " + tram2Place);
            } else if (words[0].equals("report")) {
                System.out.println(tillReport());
                printTill();
            } else if (words[0].equals("close")) {
                closeDay();
            } else if (words[0].equals("quit")) {
                break;
            }
        }
        System.out.println("day " + day + ", " + tillReport());
    }
}
