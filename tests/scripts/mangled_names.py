__tickets = 0


def __punch(n):
    global __tickets
    __tickets += n


def sell(n):
    __punch(n)
    return __tickets


total = 0
for n in (1, 2, 3):
    total = sell(n)
print(total, __tickets)
