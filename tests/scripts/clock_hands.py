import datetime
import random
import time

hand1_angle = 0.0
hand1_step = 6.0
hand1_log = []
hand2_angle = 90.0
hand2_step = 0.5
hand2_log = []
ticks = 0
started = time.time()
jitter = random.random() * 0


def turn_hand1(seconds):
    global hand1_angle
    hand1_angle = (hand1_angle + hand1_step * seconds + jitter) % 360
    hand1_log.append(round(hand1_angle, 1))


def turn_hand2(seconds):
    global hand2_angle
    hand2_angle = (hand2_angle + hand2_step * seconds + jitter) % 360
    hand2_log.append(round(hand2_angle, 1))


def reset_hand1():
    global hand1_angle
    hand1_angle = 0.0
    hand1_log.clear()


def reset_hand2():
    global hand2_angle
    hand2_angle = 0.0
    hand2_log.clear()


def describe(label, angle, log):
    return f"{label}: {angle:.1f} {log[-2:]}"


def tick():
    global ticks
    ticks += 1
    time.sleep(0)
    return isinstance(datetime.datetime.now(), datetime.datetime) and time.time() >= started


while ticks < 5:
    if not tick():
        break
    turn_hand1(10)
    turn_hand2(seconds=10)
    if ticks == 3:
        reset_hand2()
    print(describe("first", hand1_angle, hand1_log), describe(log=hand2_log, angle=hand2_angle, label="second"))
reset_hand1()
print(hand1_log, hand2_log, ticks)
