x1 = 0
y1 = 0
x2 = 5
y2 = 5
alive1 = True
alive2 = True
frame = 0
def move_1():
    global x1, y1
    x1 += 1
    y1 += frame
    if x1 > 3:
        kill_1()
def kill_1():
    global alive1
    alive1 = False
def move_2():
    global x2, y2
    x2 += 1
    y2 += frame
    if x2 > 3:
        kill_2()
def kill_2():
    global alive2
    alive2 = False
def dist(xa, ya, xb, yb):
    return abs(xa - xb) + abs(ya - yb)
def draw(x, y, alive):
    print("*" if alive else "-", x, y)
while frame < 5:
    frame += 1
    if alive1: move_1()
    if alive2: move_2()
    draw(x1, y1, alive1)
    draw(x2, y2, alive2)
    print(dist(x1, y1, x2, y2))
