"""Where the tables and keys of a design stand in its text."""

from __future__ import annotations

import re


class Lines:
    """Where each table and key of a TOML text stands: (table, index, sub-table index) and key to line."""

    def __init__(self, text: str) -> None:
        self.found: dict[tuple[str, int, int, str], int] = {}
        table, outer, inner = "", -1, -1
        counts: dict[str, int] = {}
        for number, line in enumerate(without_long_texts(text).split("\n"), 1):
            header = re.match(r"\s*\[\[\s*([\w.]+)\s*\]\]", line)
            key = re.match(r"\s*([\w-]+)\s*=", line)
            if header:
                table = header[1]
                if "." in table:
                    inner = counts[table] = counts.get(table, -1) + 1
                else:
                    counts = {k: v for k, v in counts.items() if not k.startswith(table + ".")}
                    outer, inner = counts.get(table, -1) + 1, -1
                    counts[table] = outer
                self.found[(table, outer, inner, "")] = number
            elif re.match(r"\s*\[", line):
                pass
            elif key:
                self.found.setdefault((table, outer if table else -1, inner, key[1]), number)

    def of(self, table: str, outer: int = -1, inner: int = -1, key: str = "") -> int:
        return self.found.get((table, outer, inner, key)) or self.found.get((table, outer, inner, ""), 0)


TEXT_OR_COMMENT = re.compile(r"""\"\"\"(?:[^\\]|\\.)*?\"\"\"|'''.*?'''|"(?:[^"\\\n]|\\.)*"|'[^'\n]*'|\#[^\n]*""", re.S)


def without_long_texts(text: str) -> str:
    """A TOML text with nothing in its texts of several lines but their line ends."""
    return TEXT_OR_COMMENT.sub(lambda m: "\n" * m[0].count("\n") if m[0].startswith(('"""', "'''")) else m[0], text)
