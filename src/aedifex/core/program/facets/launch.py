"""How programs of a language are compiled, started, pinned and observed."""

from __future__ import annotations

from typing import Any, Protocol

from ..clues import Clues
from ..model import SourceFile
from .unit_tests import UnitTests


class Launch(Protocol):
    """``SHARES_SCREEN``: whether two programs may have windows at once; ``MEMORY``: bytes of address space, 0 for no
    limit."""

    SHARES_SCREEN: bool
    MEMORY: int
    unit_tests: UnitTests

    def runner(self, files: list[SourceFile], /) -> str:
        """How a program wants to be run, by what it imports: frames, terminal, requests, or else process."""
        ...

    def needs_display(self, files: list[SourceFile], /) -> bool:
        """Whether a program opens real windows, which only a display server can hold."""
        ...

    def needs_standins(self, files: list[SourceFile], /) -> bool:
        """Whether a program asks for a device that a stand-in replaces."""
        ...

    def clues(self, files: list[SourceFile], /) -> Clues:
        """What the files tell, in the order in which it stands there."""
        ...

    def linked(self, root: str, /) -> list[str]:
        """Folders that a run needs and that are too large to copy: an environment is found without them."""
        ...

    def interpreter(self, root: str, /) -> str:
        """The project's own environment if it has one, else the one that is active, else ours."""
        ...

    def prepare(self, folder: str, sources: list[SourceFile], wishes: dict[str, Any], /) -> str:
        """What must be made before a program can run: nothing."""
        ...

    def command(
        self, root: str, entry: str, sources: list[SourceFile], wishes: dict[str, Any], /
    ) -> tuple[list[str], str]:
        """What stands for the interpreter in a command, and what for the entry."""
        ...

    def environment(self, standins: bool, /) -> dict[str, str]:
        """Variables that pin a child process; ``standins``: devices are replaced by recording ones."""
        ...

    def planned(self, plan: dict[str, Any], path: str, /) -> dict[str, str]:
        """Write the plan of a run where ``pinned`` finds it; the variable that says so."""
        ...

    def crash(self, error: str, /) -> str:
        """The error that ended a run; "" if it was not ended by one."""
        ...

    def missing_module(self, error: str, /) -> str:
        """The module that a run lacked, if that is what ended it."""
        ...

    def mask_trace(self, text: str, /) -> str:
        """Standard error without what names places in the source: only the error itself remains of a traceback."""
        ...
