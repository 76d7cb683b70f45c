import sys

mode = "slow"
if len(sys.argv) > 5:
    late = "set"


def show():
    try:
        return late
    except NameError:
        return "unset"


def faster():
    global mode, late
    mode = "fast"
    late = "by function"


print(show(), mode)
faster()
print(show(), mode)
