from console import Console
from guess_app import GuessApp

if __name__ == "__main__":
    GuessApp(Console()).run()
