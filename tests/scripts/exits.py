import atexit
import sys

depth = 0
closed = []


def dive(n):
    global depth
    depth += n
    if depth > 5:
        raise SystemExit(depth)
    return depth


def close():
    closed.append(depth)
    print("closing", closed)


atexit.register(close)
try:
    for n in (1, 2, 1):
        print(dive(n))
    with open(__file__) as source:
        first = source.readline()
    assert first == "import atexit\n"
    print(dive(9))
except ValueError:
    print("never")
finally:
    print("finally", depth)
    sys.stdout.flush()
