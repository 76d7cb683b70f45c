"""Who sits where: type "take ROW NAME", "leave ROW" or "pairs"."""

from plan import ROWS, Plan


def ask_row(plan, word):
    n = int(word) if word.isdecimal() else ROWS
    if n in plan.free_rows():
        return n
    print("no seat in", word)
    return None


def main():
    plan = Plan()
    while True:
        words = input("> ").split()
        if not words:
            break
        if words[0] == "take":
            n = ask_row(plan, words[1])
            if n is not None:
                plan.take(n, words[2])
        elif words[0] == "leave":
            plan.leave(int(words[1]))
        elif words[0] == "pairs":
            print(plan.pairs())
        plan.show()
    print("seats left in", len(plan.free_rows()), "rows")


if __name__ == "__main__":
    main()
