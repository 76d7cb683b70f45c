speed = 4
doors = "shut"


def show():
    global speed
    speed += 1
    return f"{speed=} {doors=!s} {speed + 1=}"


print(show())
doors = "open"
print(show())
