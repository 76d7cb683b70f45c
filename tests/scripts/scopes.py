width = 3
cells = []


def fill():
    width = [w for w in range(5)]
    cells.append(len(width))
    squares = [width * width for width in range(3)]
    cells.append(squares)
    return lambda: cells


class Board:
    width = width
    rows = [1 for _ in range(3)]

    def size(self):
        return width * len(self.rows)


def grow():
    global width
    width += 1

    def inner():
        nonlocal_width = width
        return nonlocal_width + width
    return inner()


print(fill()(), grow(), Board.width, Board().size(), [width for _ in range(2)], width)
