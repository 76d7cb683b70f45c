from math import *
from helper_module import *

radius = 2
area = 0


def measure():
    global area, radius
    area = round(pi * radius ** 2, 3)
    radius += level


for _ in range(3):
    measure()
    print(area, radius)
history.append(area)
print(history, read())
