try:
    import json as fmt
except ImportError:
    fmt = None
import os
data = {}
count = 0
def load(text):
    global data, count
    count += 1
    try:
        data = fmt.loads(text)
    except ValueError as problem:
        print("bad", type(problem).__name__)
        data = {}
    return len(data)
def save():
    with open("out.json", "w") as handle:
        handle.write(fmt.dumps(data))
    return os.path.exists("out.json")
while True:
    try:
        line = input("> ")
    except EOFError:
        print()
        break
    if not line:
        continue
    print(load(line))
    if not data:
        pass
print(save(), count)
exit(len(data))
