total = 0
handlers = []


def make(n):
    def handler(x):
        global total
        total += x * n
        return [total * k for k in range(2)]
    return handler


def run_all():
    out = [h(2) for h in handlers]
    out.append((lambda: total)())
    return out


for n in range(3):
    handlers.append(make(n))
callback = lambda: total + 1
print(run_all(), callback())
total = 50
print(callback(), [h(n) for n, h in enumerate(handlers)])
