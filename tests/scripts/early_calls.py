def setup():
    global depth, colour
    depth = 4
    colour = "red"


setup()
print(depth)
colour = "blue"


def describe():
    return f"{colour} {depth}"


def dig():
    global depth
    depth += 1


dig()
print(describe())
