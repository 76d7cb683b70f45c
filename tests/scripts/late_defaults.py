base = 3
offset = 1


def shift(x, by=base):
    global offset
    offset += by
    return x + by


base = 10


def collect(item, into=[]):
    global offset
    offset += 1
    into.append((item, base))
    return into


print(shift(1), shift(1, 2), collect("a"), collect("b"), offset)
