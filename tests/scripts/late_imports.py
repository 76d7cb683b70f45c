seen = 0
import math
limit = math.floor(2.5)


def double(n):
    return n * scale


scale = 3
import string as text
letters = text.digits[:4]
wide = double(limit)


def show():
    global seen, wide
    seen += 1
    wide += limit
    return letters, wide, seen


for _ in range(2):
    print(show())
