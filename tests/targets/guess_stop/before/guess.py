import random

STOPS = ["market", "harbour", "mill", "bridge"]


def show_board(word, guessed, missed):
    print(" ".join(c if c in guessed else "_" for c in word))
    print("missed:", " ".join(missed))


def is_found(word, guessed):
    return all(c in guessed for c in word)


def ask_letter(guessed, missed):
    while True:
        letter = input("letter? ").strip().lower()
        if len(letter) == 1 and letter not in guessed and letter not in missed:
            return letter
        print("one new letter, please")


def main():
    print("Guess the stop!")
    word = random.choice(STOPS)
    guessed = []
    missed = []
    while True:
        show_board(word, guessed, missed)
        letter = ask_letter(guessed, missed)
        if letter in word:
            guessed.append(letter)
            if is_found(word, guessed):
                print("You know the line:", word)
                break
        else:
            missed.append(letter)
            if len(missed) == 6:
                print("It was", word)
                break


if __name__ == "__main__":
    main()
