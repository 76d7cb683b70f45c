speed = 2
doors = 0


def report():
    x = speed
    return sorted(locals())


def shut():
    global doors, speed
    doors += 1
    speed -= 1


shut()
print(report(), doors)
for _ in range(2):
    shut()
print(doors, speed)
