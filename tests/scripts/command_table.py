import sys
score = 0
lives = 3
names = {}
commands = {}

class Player:
    bonus = 2
    def __init__(self, name):
        self.name = name
    def win(self, n):
        return n * self.bonus

def add(
    n,
    times=1,  # how often
    *,
    loud=False,
):
    global score
    score += n * times
    if loud:
        print("!" * n)
    return score

def lose():
    global lives
    lives -= 1
    if lives == 0:
        print("over", score)
        sys.exit(4)

def register(name):
    names[name] = Player(name)
    return names[name]

commands = {"a": add, "l": lose}
register("x")
for c in "aallal":
    if c == "a":
        commands[c](
            2,
            loud=True,
        )
    else:
        commands[c]()
    if score > 100:
        break
else:
    print("never")
print(score, lives, names["x"].win(3), sorted(names))
