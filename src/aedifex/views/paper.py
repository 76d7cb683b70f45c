"""Lines of text with a little colour: words are never cut, what people call things is never taken for mark-up, and a
pipe gets plain text at once."""

from __future__ import annotations

import textwrap
from collections.abc import Sequence
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from rich.console import Console

Piece = tuple[str, str]  # text, style; "" for none


class Paper:
    """Writes to a console. The styles are those of the terminal's own palette, so that they can be read on dark and on
    light."""

    def __init__(self, console: Console) -> None:
        self.console = console
        self.plain = not console.is_terminal
        self.width = console.width

    def line(self, *pieces: Piece, cut: bool = False) -> None:
        """One line, broken between words where it is too long. ``cut``: it is laid out already."""
        text = "".join(t for t, _ in pieces)
        rows = (
            [text]
            if cut or len(text) <= self.width
            else textwrap.wrap(text, self.width, break_long_words=False, break_on_hyphens=False, drop_whitespace=True)
        )
        if self.plain:
            self.console.file.write("".join(row.rstrip() + "\n" for row in rows) or "\n")
            return
        from rich.text import Text

        styles = [style for t, style in pieces for _ in t]
        at = 0
        for row in rows or [""]:
            at = text.find(row, at) if row else at
            self.console.print(
                Text.assemble(*runs(row, styles[at : at + len(row)])), no_wrap=True, overflow="ignore", crop=False
            )
            at += len(row)

    def titled(self, title: str, text: str, tail: str = "", style: str = "bold") -> None:
        """A heading, what is said under it, and a remark."""
        self.line((title, style), (f"  {text}", ""), (f"  {tail}" if tail else "", "dim"))


def runs(row: str, styles: Sequence[str]) -> list[Piece]:
    """The stretches of a row that have one style."""
    found: list[Piece] = []
    for letter, style in zip(row, styles, strict=True):
        if found and found[-1][1] == style:
            found[-1] = (found[-1][0] + letter, style)
        else:
            found.append((letter, style))
    return found
