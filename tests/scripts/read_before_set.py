count = 0


def bump():
    global count
    count += 1


bump()
try:
    DEBUG
except NameError:
    print("not set yet")
DEBUG = True
bump()
print(DEBUG, count)
