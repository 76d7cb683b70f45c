"""Tests made of calls that were seen, in what people of a language run tests with."""

from __future__ import annotations

from typing import Any, Protocol

from ..model import SourceFile


class UnitTests(Protocol):
    """How calls are watched, and the text of tests made of them. ``MARK``: the words that say that a file was written
    here."""

    MARK: str

    def spied(self, file: SourceFile, names: list[str], /) -> bytes:
        """Calls are watched in the running program; its text stays as it is."""
        ...

    def read_call(self, text: str, /) -> dict[str, Any]: ...

    def bound(self, file: SourceFile, name: str, /) -> str:
        """Why a test cannot import a class: importing its file does more than define; "" if it can."""
        ...

    def file_name(self, home: SourceFile, name: str, several: bool, /) -> str:
        """The file of the tests of a class; ``several``: whether others stand in its file."""
        ...

    def title(self, method: str, number: int, /) -> str:
        """The name of a test."""
        ...

    def test_file(
        self, name: str, homes: dict[str, SourceFile], up: str, tests: list[tuple[str, dict[str, Any]]], /
    ) -> str:
        """The file for a class: (name of the test, call) in order. ``homes``: file of each class that a test may
        make."""
        ...

    def beside(self, up: str, /) -> dict[str, str]:
        """The ``conftest.py``, where the project is not in the same folder; ``up``: the way to it."""
        ...

    def command(self, folder: str, /) -> str:
        """How a person runs the tests."""
        ...

    def run(
        self, place: str, folder: str, names: list[str], sources: list[str], interpreter: str, /
    ) -> tuple[set[tuple[str, str]], str]:
        """Run the files of tests in a folder: (file, name) of those that fail, and why they could not be run."""
        ...
