# a stock list with a report, as it grew
import csv
import io
import sys

stock_items = {}
stock_changes = 0
report_lines = []
report_width = 20
currency = "marks"


def stock_add(name, count, price=1.5, *tags, **notes):
    """Add to the stock.

    Later calls add up.
    """
    global stock_changes
    old = stock_items.get(name, (0, price, ()))
    stock_items[name] = (old[0] + count, price, tags)
    stock_changes += 1
    for key in sorted(notes):
        report_add(f"{key}: {notes[key]}")


def stock_take(name, count):
    global stock_changes
    have, price, tags = stock_items[name]
    if have < count:
        raise KeyError(name)
    stock_items[name] = (have - count, price, tags)
    stock_changes += 1
    return price * count


def report_add(text):
    report_lines.append(text.ljust(report_width) + "|")


def report_print(out=None):
    out = out or sys.stdout
    for line in report_lines:
        out.write(line + "\n")
    report_lines.clear()


def total():
    return sum(count * price for count, price, _ in stock_items.values())


def read(text):
    for row in csv.reader(io.StringIO(text)):
        if not row or row[0].startswith("#"):
            continue
        stock_add(row[0], int(row[1]), float(row[2]), *row[3:])


read("rail,3,2.5,iron\n#x\n\nbolt,100,0.1,iron,small\n")
stock_add("lamp", 2, colour="red", bulb="old")
try:
    stock_take("lamp", 5)
except KeyError as missing:
    report_add(f"no {missing}")
report_add(f"{stock_take('bolt', 10):.2f} {currency}")
currency = "crowns"
report_width = 30
report_add(f"{total():.2f} {currency}")
report_print()
buffer = io.StringIO()
report_add("again")
report_print(buffer)
print(buffer.getvalue(), stock_changes, sorted(stock_items), end="")
