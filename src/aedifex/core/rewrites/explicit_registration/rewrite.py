"""Functions that a decoration registers are registered by a call (C8). See
``rewrites/explicit_registration/registrations.py`` for an example."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ...program.edits import Edits
from ...program.program import Program
from .. import messages
from ..by_hand import Asked, HandCommand
from ..rewrite import Rewrite, State
from ..step import Context, FileStep
from .registrations import unfoldings


@dataclass
class RegisterByCall(FileStep):
    """The functions of a file are registered by a call behind them."""

    kind = "register"

    def title(self) -> str:
        return "functions are registered by a call instead of a decoration"

    def apply(self, context: Context) -> Edits:
        out = Edits()
        for edit in unfoldings(context.program, self.path):
            out.replace(self.path, *edit)
        return out


def ask_register(program: Program, path: str) -> Asked:
    if path not in program.files:
        raise messages.NO_SCRIPT.in_file(path=path)
    return Asked(RegisterByCall(path))


class ExplicitRegistration(Rewrite[RegisterByCall]):
    """Only where main code moves: a decorated function could not stand beside it."""

    by_hand = (
        HandCommand(
            "register",
            ("SCRIPT",),
            "Functions are registered by a call, not a decoration.",
            """Let the functions of a SCRIPT that a decoration registers with an object be registered by a call behind
            them.

            They are plain functions then, which can become methods.""",
            "register panel.py panel.py",
            "Changed",
            ask_register,
        ),
    )

    def requests(self, state: State) -> Iterator[RegisterByCall]:
        apps = any(c.role == "app" for c in state.design.classes)
        for path in [p for p in state.program.files if p in state.design.sources and apps]:
            if unfoldings(state.program, path):
                yield RegisterByCall(path)
