import sys

speed = 1
doors = 0


def shut():
    global doors
    doors += speed


for name in ("speed", "doors"):
    print(name, getattr(sys.modules[__name__], name))
    shut()
print(doors)
