import weakref

callbacks = weakref.WeakSet()
heard = []


class Bell:
    def __init__(self, name):
        self.name = name


def ring():
    for bell in sorted(callbacks, key=lambda b: b.name):
        heard.append(bell.name)


first = Bell("first")
second = Bell("second")
callbacks.add(first)
callbacks.add(second)
ring()
del second
ring()
print(heard)
