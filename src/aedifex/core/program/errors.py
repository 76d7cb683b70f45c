"""Errors that a person can do something about; the interface prints them as one sentence."""

from __future__ import annotations

from typing import Protocol


class AedifexError(Exception):
    """Unusable input or wrong usage (exit status 2). ``code``: of the refusal that it says; "" where there is none."""

    status = 2
    code = ""


class Says(Protocol):
    """A refusal, as a step by hand says it."""

    @property
    def code(self) -> str: ...

    def by_hand(self) -> str: ...


class Refused(AedifexError):
    """Something that was understood and is not done (exit status 1). ``refusal``: with its code and place, where it has
    one."""

    status = 1

    def __init__(self, said: str | Says) -> None:
        super().__init__(said if isinstance(said, str) else f"{said.by_hand()}.")
        self.refusal = None if isinstance(said, str) else said
        self.code = "" if self.refusal is None else self.refusal.code
