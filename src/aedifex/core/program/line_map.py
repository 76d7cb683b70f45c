"""Where lines are after edits, and where they were before."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from .edits import Range
from .line_ranges import FORM
from .model import SourceFile


@dataclass
class LineMap:
    """``edits``: what changes in the text of a file."""

    file: SourceFile
    edits: list[Range] = field(default_factory=list)

    def line(self, line: int) -> tuple[int, int]:
        """Where a line is afterwards, and how far it moved to the right."""
        return line + self.shift(line), 0

    def shift(self, line: int) -> int:
        """How many lines the edits above a line add."""
        found = 0
        for start, end, text in self.edits:
            if self.file.line(max(start, end - 1)) < line or (start == end and self.file.lines[line - 1] >= start):
                found += text.count("\n") - self.file.text.count(b"\n", start, end)
        return found

    def kept(self) -> list[int]:
        """The lines that are still there: not replaced as a whole."""
        bounds = [*self.file.lines, len(self.file.text)]
        gone = [(a, b) for a, b, _ in self.edits if a < b]
        return [n for n in range(1, len(bounds)) if not any(a <= bounds[n - 1] and bounds[n] <= b for a, b in gone)]

    def forward(self, lines: str) -> str:
        """Lines as a design names them, as they are afterwards; lines of other files stay as they are."""
        return self.mapped(lines, self.line)

    def back(self, lines: str) -> str:
        """Lines that were named afterwards, as they are in the source."""
        before: dict[int, tuple[int, int]] = {}
        for n in self.kept():
            now, shift = self.line(n)
            before.setdefault(now, (n, -shift))
        return self.mapped(lines, lambda n: before.get(n, (n, 0)))

    def source(self, line: int) -> int:
        """The line of the source where a line was."""
        return int(self.back(f"{self.file.path}:{line}").rpartition(":")[2])

    def mapped(self, lines: str, where: Callable[[int], tuple[int, int]]) -> str:
        match = FORM.fullmatch(lines)
        if match is None or match["path"] != self.file.path:
            return lines
        parts = []
        for line, column in ((match["first"], match["from"]), (match["last"], match["to"])):
            if line is not None:
                now, shift = where(int(line))
                parts.append(f"{now}" + (f":{max(1, int(column) + shift)}" if column else ""))
        return f"{match['path']}:{'-'.join(parts)}"
