import random
import sys

WIDTH = 40

gate1_angle = 0
gate1_step = 15
gate1_shut = False
gate2_angle = 90
gate2_step = -10
gate2_shut = False
lamp = "green"
waiting = 0


def turn_gate1(turns):
    global gate1_angle, gate1_step
    if not gate1_shut and lamp == "green":
        gate1_angle += gate1_step * turns
    if gate1_angle >= WIDTH * 2 or gate1_angle <= 0:
        gate1_step = -gate1_step  # swing back


def turn_gate2(turns):
    global gate2_angle, gate2_step
    if not gate2_shut and lamp == "green":
        gate2_angle += gate2_step * turns
    if gate2_angle >= WIDTH * 2 or gate2_angle <= 0:
        gate2_step = -gate2_step


def draw_gate(row, angle, is_shut):
    row[max(0, min(WIDTH - 1, angle // 3))] = "X" if is_shut else "/"


# the morning
rounds = 0
for line in sys.stdin:
    key = line.strip()
    if key == "q":
        break
    elif key == "1":
        gate1_shut = not gate1_shut
        if gate1_shut:
            waiting += random.randint(0, 3)
    elif key == "2":
        gate2_shut = not gate2_shut
        if gate2_shut:
            waiting += random.randint(0, 3)
    elif key == "l":
        lamp = "red" if lamp == "green" else "green"
    turns = 1 if rounds % 2 else 2
    turn_gate1(turns)
    turn_gate2(turns)
    row = ["."] * WIDTH
    draw_gate(row, gate1_angle, gate1_shut)
    draw_gate(row, gate2_angle, gate2_shut)
    print("".join(row), lamp, waiting)
    rounds += 1
print("waited", waiting)
