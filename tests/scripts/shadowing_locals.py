row = 0
app = "mine"
cell = 1


def paint(row):
    global cell
    cell += row
    app = "local"
    return app, cell


def below():
    global row
    row += 1
    return [row for row in range(row)], row


class self_like:
    cell = 9

    def value(self, cell=3):
        return cell + row


print(paint(2), below(), self_like().value(), app, row, cell)
