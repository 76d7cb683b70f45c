"""Open a long main function: its lines become the main code, and its variables those of the file.

def main():
    score = 0                        if __name__ == "__main__":
    while score < 3: ...      →          score = 0
                                         while score < 3: ...
if __name__ == "__main__":
    main()
"""

from __future__ import annotations

from dataclasses import dataclass, field

from ...program.edits import Edits
from ..rewrite import Context, Refusal, check_hazards, refuse_at
from .opened import announced, how
from .opening import Opening

ADVICE = "the function stays as it is"


@dataclass
class OpenMain:
    path: str
    name: str
    traced = True
    needs: list[str] = field(default_factory=list)
    refused: Refusal | None = None  # where it was tried already

    @property
    def id(self) -> str:
        return f"open:{self.name}"

    def title(self) -> str:
        return f"what {self.name} holds becomes the program's own"

    def apply(self, context: Context) -> Edits:
        file, out = context.file(self.path), Edits()
        found = how(file, context.language, self.name)
        if found is None:
            raise Refusal(f"there is no one function '{self.name}' whose lines could be the main code", file.path, 0, ADVICE)
        if not isinstance(found, Opening):
            raise refuse_at(file, found[1], found[0], ADVICE)
        check_hazards(context, file, {self.name}, ADVICE)
        if told := announced(context.program, file.path, self.name):
            raise Refusal(f"'{self.name}' is what an installed command calls", told, 0, ADVICE)
        for edit in found.edits:
            out.replace(file.path, *edit)
        return out
