"""Who sits where: type "take ROW NAME", "leave ROW" or "pairs"."""

ROWS = 4
EMPTY = "-"


def new_plan():
    return [[EMPTY, EMPTY] for _ in range(ROWS)]


def show(plan):
    for number, row in enumerate(plan):
        print(number, " ".join(row))


def free_rows(plan):
    return [n for n in range(ROWS) if EMPTY in plan[n]]


def take(plan, n, name):
    # the window first
    plan[n][plan[n].index(EMPTY)] = name


def leave(plan, n):
    plan[n] = [EMPTY, EMPTY]


def pairs(plan):
    found = 0
    for n in range(ROWS):
        if EMPTY not in plan[n]:
            found += 1
    return found


def ask_row(plan, word):
    n = int(word) if word.isdecimal() else ROWS
    if n in free_rows(plan):
        return n
    print("no seat in", word)
    return None


def main():
    plan = new_plan()
    while True:
        words = input("> ").split()
        if not words:
            break
        if words[0] == "take":
            n = ask_row(plan, words[1])
            if n is not None:
                take(plan, n, words[2])
        elif words[0] == "leave":
            leave(plan, int(words[1]))
        elif words[0] == "pairs":
            print(pairs(plan))
        show(plan)
    print("seats left in", len(free_rows(plan)), "rows")


if __name__ == "__main__":
    main()
