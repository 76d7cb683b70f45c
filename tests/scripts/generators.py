import asyncio

line = 0
log = []


def stops(n):
    global line
    for i in range(n):
        line += 1
        yield line, i


async def wait(n):
    global line
    await asyncio.sleep(0)
    line += n
    return line


def fact(n):
    log.append(n)
    return 1 if n < 2 else n * fact(n - 1)


for value in stops(3):
    print(value)
print(asyncio.run(wait(4)), fact(5), log, list(stops(2)))
