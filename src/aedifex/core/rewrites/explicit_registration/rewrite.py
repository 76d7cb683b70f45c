"""Functions that a decoration registers are registered by a call (C8). See ``rewrites/explicit_registration/registrations.py`` for an example."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from ...program.edits import Edits
from ...program.refusal import Refusal
from ..rewrite import Context, Rewrite, State
from .registrations import unfoldings


@dataclass
class RegisterByCall:
    path: str
    needs: list[str] = field(default_factory=list)
    refused: Refusal | None = None  # where it was tried already

    @property
    def id(self) -> str:
        return f"register:{self.path}"

    def title(self) -> str:
        return "functions are registered by a call instead of a decoration"

    def apply(self, context: Context) -> Edits:
        out = Edits()
        for edit in unfoldings(context.program, self.path):
            out.replace(self.path, *edit)
        return out


class ExplicitRegistration(Rewrite[RegisterByCall]):
    """Only where main code moves: a decorated function could not stand beside it."""

    def requests(self, state: State) -> Iterator[RegisterByCall]:
        apps = any(c.role == "app" for c in state.design.classes)
        for path in [p for p in state.program.files if p in state.design.sources and apps]:
            if unfoldings(state.program, path):
                yield RegisterByCall(path)
