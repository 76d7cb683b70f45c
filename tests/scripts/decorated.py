import functools

calls = 0
total = 0


def counted(f):
    @functools.wraps(f)
    def inner(*args):
        global calls
        calls += 1
        return f(*args)
    return inner


@counted
def add(n):
    global total
    total += n
    return total


def twice(n):
    add(n)
    return add(n)


print(twice(2), twice(3), calls, add.__name__)
