# a = b = []: one list under two names must stay one list
waiting = boarded = []
count = 0


def arrive(name):
    global count
    waiting.append(name)
    count += 1


def board():
    global count
    boarded.append("x")
    count += 1


arrive("mill")
board()
for _ in range(3):
    arrive("market")
print(waiting, boarded, waiting is boarded, count)
