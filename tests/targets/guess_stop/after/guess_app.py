from board import Board


class GuessApp:
    def __init__(self, console):
        self._console = console

    def run(self):
        self._console.say("Guess the stop!")
        board = Board()
        while True:
            board.show(self._console)
            letter = board.ask_letter(self._console)
            if letter in board.word:
                board.guessed.append(letter)
                if board.is_found():
                    self._console.say("You know the line:", board.word)
                    break
            else:
                board.missed.append(letter)
                if len(board.missed) == 6:
                    self._console.say("It was", board.word)
                    break
