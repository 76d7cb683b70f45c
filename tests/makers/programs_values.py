"""Random programs in which functions hand a board to each other under one name: some look into it, some change it, some copy it, print
it or give it back, and now and then one does what forbids to make an object of it."""

from __future__ import annotations

import random

START = ["[[0] * SIZE for _ in range(SIZE)]", "new_board()", "[[n, 1, 2][:SIZE] for n in range(SIZE)]"]


class ValueMaker:
    """Writes one program from a seed; it ends by itself, at times with an error, and prints what it did."""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)

    def program(self) -> str:
        rng = self.rng
        lines = ["SIZE = 3", "moves = 0", "", "", "def new_board():", "    return [[0] * SIZE for _ in range(SIZE)]"]
        makers = [
            self.put, self.at, self.full, self.show, self.best, self.count, self.fill, self.twice, self.flip, self.told, self.odd,
        ]  # fmt: skip
        self.known = ["put", "at"]
        chosen = [self.put, self.at, *rng.sample(makers[2:], rng.randint(1, 6))]
        for make in chosen:
            lines += ["", "", *make()]
            self.known.append(make.__name__)
        inside = rng.random() < 0.5
        body = "\n".join(self.main()).split("\n")
        lines += ["", "", *(["def main():", *("    " + line for line in body), "", "", "main()"] if inside else body)]
        return "\n".join(lines) + "\n"

    def put(self) -> list[str]:
        more = ["    global moves", "    moves += 1"] if self.rng.random() < 0.15 else []
        return ["def put(board, row, piece):", *more, "    board[row][row % SIZE] = piece"]

    def at(self) -> list[str]:
        return ["def at(board, row, col):", "    return board[row % SIZE][col % SIZE]"]

    def full(self) -> list[str]:
        test = self.rng.choice(
            ["all(at(board, n, n) for n in range(SIZE))", "sum(map(sum, board)) > 4", "len(board) > 9"]
        )
        return ["def full(board):", f"    return {test}"]

    def show(self) -> list[str]:
        said = self.rng.choice(
            ["print(board)", 'print(f"{board} {at(board, 1, 1)}")', "for row in board:\n        print(*row)"]
        )
        return ["def show(board):", f"    {said}"]

    def best(self) -> list[str]:
        copied = self.rng.choice(["[list(row) for row in board]", "[row[:] for row in board]", "board[:]"])
        return [
            "def best(board, depth):", "    if depth == 0:", "        return at(board, 0, 0)", f"    trial = {copied}",
            "    put(trial, depth, depth)", f"    return best({self.rng.choice(['trial', 'board'])}, depth - 1) + at(trial, 1, 1)",
        ]  # fmt: skip

    def count(self) -> list[str]:
        return ["def count(board, piece):", "    return sum(row.count(piece) for row in board)"]

    def fill(self) -> list[str]:
        end = self.rng.choice(["    return board", "    return None", "    board.append([7, 7, 7])"])
        return ["def fill(board, piece):", "    for n in range(SIZE):", "        put(board, n, piece)", end]

    def twice(self) -> list[str]:
        return ["def twice(board):", "    def once(n):", "        put(board, n, 5)", "    once(0)", "    once(1)"]

    def flip(self) -> list[str]:
        return [
            "def flip(board):",
            "    turned = [list(row) for row in zip(*board)]",
            "    put(turned, 0, 8)",
            "    return turned",
        ]

    def told(self) -> list[str]:
        return ["def told(board, word=''):", "    print(word, board is None, len(board), moves)"]

    def odd(self) -> list[str]:
        return self.rng.choice([
            ["def odd(board):", "    board = list(board)", "    board[0] = [9, 9, 9]", "    return board"],
            ["def odd(board=None):", "    return board"],
            ["def odd(board, *more):", "    return board, more"],
        ])  # fmt: skip

    def main(self) -> list[str]:
        rng = self.rng
        lines = [f"board = {rng.choice(START)}"]
        if rng.random() < 0.4:
            lines.append(f"other = {rng.choice([*START, 'board'])}")
        names = ["board", "other"] if len(lines) > 1 else ["board"]
        calls = {
            "put": "put({0}, {1}, {1} + 1)", "at": "print(at({0}, {1}, 0))", "full": "print(full({0}))", "show": "show({0})",
            "best": "print(best({0}, 2))", "count": "print(count({0}, {1}))", "fill": "fill({0}, {1})", "twice": "twice({0})",
            "flip": "{0} = flip({0})", "told": "told({0})", "odd": "print(odd({0}))",
        }  # fmt: skip
        for _ in range(rng.randint(4, 9)):
            name = rng.choice(names)
            if rng.random() < 0.75:
                call = calls[rng.choice(self.known)]
                said = f"board={name}" if "{1}" not in call and "2)" not in call and rng.random() < 0.1 else name
                lines.append(call.format(said if not call.startswith("{0}") else name, rng.randint(0, 2)))
            else:
                lines.append(self.bare(name))
        return [*lines, f"print({', '.join(names)})"]

    def bare(self, name: str) -> str:
        rng = self.rng
        row = [
            f"print({name}[0], len({name}))", f"{name}[1] = [4, 4, 4]", f"{name} = {rng.choice(START)}",
            f"kept = {name}\nkept[0] = [6, 6, 6]\nput(kept, 1, 2)", f"for line in {name}:\n    print(line)", "put(new_board(), 0, 1)",
            f"print((lambda: at({name}, 0, 0))())",
        ]  # fmt: skip
        if rng.random() < 0.1:
            row += [f"{name} += [[3, 3, 3]]", f"{name}, last = {name}, 1", f"for {name} in [{name}]:\n    show({name})"]
        return rng.choice(row)
