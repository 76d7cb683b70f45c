import random

STOPS = ["market", "harbour", "mill", "bridge"]


class Board:
    def __init__(self):
        self.word = random.choice(STOPS)
        self.guessed = []
        self.missed = []

    def show(self, console):
        console.say(" ".join(c if c in self.guessed else "_" for c in self.word))
        console.say("missed:", " ".join(self.missed))

    def is_found(self):
        return all(c in self.guessed for c in self.word)

    def ask_letter(self, console):
        while True:
            letter = console.ask("letter? ").strip().lower()
            if len(letter) == 1 and letter not in self.guessed and letter not in self.missed:
                return letter
            console.say("one new letter, please")
