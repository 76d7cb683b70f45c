"""The console of a Python program: ``input`` and ``print`` go through an object that a test can give its own
streams."""

from __future__ import annotations

from collections.abc import Sequence

from ....program.layout import line_end, line_start
from ....program.model import Call, SourceFile, Statement
from ....program.streams import StreamKind, StreamUse, in_class
from ..reading.structure import arguments
from .text import TEXT

KINDS: Sequence[StreamKind] = (
    StreamKind(("input", "print"), ("console", "terminal"), "{class}()", ("Console", "Terminal")),
)
VERBS = {"input": "ask", "print": "say"}

ASK = """
    def ask(self, prompt=""):
        if self._source is None:
            return input(prompt)
        self.say(prompt, end="", flush=True)
        line = self._source.readline()
        if not line:
            raise EOFError("EOF when reading a line")
        return line.rstrip("\\n")
"""
SAY = """
    def say(self, *values, sep=" ", end="\\n", flush=False):
        print(*values, sep=sep, end=end, file=self._sink, flush=flush)
"""
MADE = """class {class_}:
    \"\"\"Where the program asks and tells; other streams can be handed in.\"\"\"

    def __init__(self, source=None, sink=None):
        self._source = source
        self._sink = sink
"""


def uses(file: SourceFile) -> list[StreamUse]:
    found = []
    for call in file.calls:
        ref = call.callee
        if ref.name in VERBS and not ref.member and (ref.symbol is None or not ref.symbol.kinds) and kept(file, call):
            found.append(StreamUse(ref.start, ref.end, f"{{name}}.{VERBS[ref.name]}", ref.name, ref.name == "input"))
    return sorted(found, key=lambda u: u.start)


def kept(file: SourceFile, call: Call) -> bool:
    """Whether a call says all that the object needs to know, and stands where the object can be had: in no class, and
    in no function's head."""
    given = {a.keyword for a in arguments(file, call)}
    if given & {"file", "**"} or (call.callee.name == "input" and given - {"", "*"}):
        return False
    return not in_class(file, call.callee.scope) and not any(
        f.head <= call.start < f.body_start for f in file.functions
    )


def trouble(file: SourceFile) -> tuple[str, int] | None:
    if file.star_imports:
        return "a star import may bring another 'print' or 'input'", file.star_imports[0]
    for name in VERBS:
        symbol = file.scope.symbols.get(name)
        if symbol is not None and symbol.bindings:
            return f"'{name}' is a name of the program's own", symbol.bindings[0].start
    return None


def declared(
    file: SourceFile, kind: StreamKind, name: str, class_: str, origins: Sequence[str]
) -> list[tuple[int, int, str]]:
    unit = TEXT.indent_unit(file)
    text = MADE.replace("{class_}", class_) + (ASK if "input" in origins else "") + SAY
    rows = [
        row.replace("    ", unit) if not row.strip() else unit * ((len(row) - len(row.lstrip())) // 4) + row.lstrip()
        for row in text.splitlines()
    ]
    made = "\n".join(rows) + f"\n\n\n{name} = {kind.value.replace('{class}', class_)}\n"
    at, below = place(file)
    body = ("\n\n" if at else "") + made + ("" if at and not below else "\n\n" if not at else "\n")
    return [(at, at, TEXT.with_newlines(body, TEXT.newline(file)))]


def place(file: SourceFile) -> tuple[int, bool]:
    """Behind what the file opens with, a document string and imports; and whether a line stands right below."""
    last: Statement | None = None
    for s in file.statements:
        if s.kind not in ("docstring", "import"):
            break
        last = s
    if last is None:
        first = file.statements[0].start if file.statements else 0
        return line_start(file, TEXT.comment_start(file, first)), True
    at = line_end(file, last.end)
    following = file.text[at : line_end(file, at)] if at < len(file.text) else b"\n"
    return at, bool(following.strip())
