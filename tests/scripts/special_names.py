"""A document string that the program prints."""
import os

seen = 0


def where():
    global seen
    seen += 1
    return os.path.basename(__file__), __name__, __doc__


def again():
    global seen
    seen += 1
    return __name__


print(where())
print(again())
for _ in range(2):
    seen += 1
print(seen)
