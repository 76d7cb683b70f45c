"""Random small programs that ask: those of the other makers, with some of their numbers typed instead."""

import random
import re

from programs import Maker
from programs_flow import FlowMaker, MainMaker, ThingMaker
from programs_lists import ListMaker

TYPED = "1\n2\n3\n" * 400
NUMBER = re.compile(r"(?<=[=(,+-] )\d+(?=$|[,)])|(?<=\()\d+(?=\))")
FIXED = ("def ", "for ", "if ", "while ", "elif ", "@", "class ", "global ")


class ConsoleMaker:
    def __init__(self, seed: int) -> None:
        self.random = random.Random(seed)
        self.maker = self.random.choice([Maker, FlowMaker, MainMaker, ThingMaker, ListMaker])(seed)

    def program(self) -> str:
        """The text of the program; what is typed into it is ``TYPED``."""
        lines = self.maker.program().split("\n")
        return "\n".join(line if line.strip().startswith(FIXED) else NUMBER.sub(self.asked, line) for line in lines)

    def asked(self, number: re.Match) -> str:
        if self.random.random() < 0.8:
            return number[0]
        return self.random.choice(['int(input("how many? "))', "int(input())", 'len(input("say: "))'])
