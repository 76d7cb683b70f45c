count = 0
table = {}


def up():
    global count
    count += 1


def down():
    global count
    count -= 1


up.note = "rises"
table[up] = "up"
table["down"] = down
current = up
for step in range(4):
    current()
    current = down if current is up else up
print(count, up.note, table[up], down.__name__)
