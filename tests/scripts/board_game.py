from dataclasses import dataclass
GRID = 4
board = [[0] * GRID for _ in range(GRID)]
turn = 1
history: list = []
winner = None
@dataclass
class Move:
    x: int
    y: int
def place(m):
    global turn, winner
    if board[m.y][m.x]:
        return False
    board[m.y][m.x] = turn
    history.append(m)
    if check(turn): winner = turn
    turn = 3 - turn
    return True
def check(who):
    return any(all(c == who for c in row) for row in board)
def show():
    for row in board: print("".join(".XO"[c] for c in row))
i = 0
while winner is None and i < GRID * GRID:
    place(Move(i % GRID, (i * 2) % GRID)) or place(Move(i % GRID, (i*2+1) % GRID))
    i += 1
show(); print(winner, turn, len(history), history[0])
