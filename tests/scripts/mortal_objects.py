import atexit

made = 0


class Bell:
    def __init__(self, name):
        self.name = name

    def __del__(self):
        print("gone", self.name)


def ring(bell):
    global made
    made += 1
    print("ring", bell.name)


first = Bell("first")
second = Bell("second")
atexit.register(print, "at exit")
ring(first)
del first
ring(second)
print(made)
