import re

hits = 0
level = 0
if (match := re.match("a(b+)", "abbb")) is not None:
    hits = len(match[1])
data = [last := n for n in range(4)]
try:
    1 / 0
except ZeroDivisionError as problem:
    message = str(problem)
match level:
    case 0 as zero:
        kind = "none"
    case other:
        kind = "some"
with open(__file__) as source, open(__file__) as again:
    first = source.readline()


def check():
    global level, hits
    level += last
    hits += 1
    return match[1], message, kind, zero, first


print(check(), hits, level, data, last)
