lift1_floor = 0
lift1_open = True
lift2_floor = 7
lift2_open = False
calls_made = 0


def up_lift1(n=1):
    global lift1_floor, lift1_open
    lift1_open = False
    lift1_floor += n
    if lift1_floor > 3:
        open_lift1()


def up_lift2(n=1):
    global lift2_floor, lift2_open
    lift2_open = False
    lift2_floor += n
    if lift2_floor > 3:
        open_lift2()


def open_lift1():
    global lift1_open
    lift1_open = True


def open_lift2():
    global lift2_open
    lift2_open = True


def show(floor, is_open, label="lift"):
    print(label, floor, "open" if is_open else "shut")


def both():
    global calls_made
    calls_made += 1
    up_lift1(2)
    up_lift2()
    return lift1_floor + lift2_floor


for _ in range(3):
    print(both())
    show(lift1_floor, lift1_open)
    show(lift2_floor, is_open=lift2_open, label="second")
up_lift1()
print(calls_made, lift1_open, lift2_open)
