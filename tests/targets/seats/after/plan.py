ROWS = 4
EMPTY = "-"


class Plan:
    def __init__(self):
        self._rows = [[EMPTY, EMPTY] for _ in range(ROWS)]

    def show(self):
        for number, row in enumerate(self._rows):
            print(number, " ".join(row))

    def free_rows(self):
        return [n for n in range(ROWS) if EMPTY in self._rows[n]]

    def take(self, n, name):
        # the window first
        self._rows[n][self._rows[n].index(EMPTY)] = name

    def leave(self, n):
        self._rows[n] = [EMPTY, EMPTY]

    def pairs(self):
        found = 0
        for n in range(ROWS):
            if EMPTY not in self._rows[n]:
                found += 1
        return found
