"""What the set-up of a sketch does to a new object first is done by its constructor, and the object is made there.

Grid grid = new Grid();                   Grid grid;
void setup() {                            void setup() {
  size(540, 100);                           size(540, 100);
  grid.setUp();                    →        grid = new Grid(width / 2);
}                                         }
class Grid {                              class Grid {
  void setUp() {                            Grid(float x) {
    this.x = width / 2;                       this.x = x;
    this.cells = ...                          this.cells = ...
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from ..naming.attributes import CONFIGURING
from ..program.edits import Edits
from ..program.model import Function, SourceFile, Statement
from .set_up_in_constructor import method_of
from .step import Context, class_scope

START = "setup"  # what the surroundings call first


@dataclass
class SetUpCall:
    """``made``: the statement at the top that makes the object; ``name``: its variable; ``call``: the statement of the
    set-up that calls ``method``."""

    made: Statement
    name: str
    call: Statement
    method: Function


def set_up_call(context: Context, file: SourceFile, class_: str) -> SetUpCall | None:
    """The first thing that is done to the only object of a class, if that is a call of one of its methods in the set-up
    and nothing else could reach the object before."""
    setup = next((f for f in file.tops if f.name == START), None)
    made = [s for s in file.statements if s.value is not None and file.slice(*s.value) == f"new {class_}()"]
    symbol = file.scope.symbols.get(class_)
    creations = [c for c in file.calls if c.callee.symbol is symbol and not c.callee.member]
    if setup is None or len(made) != 1 or len(creations) != 1 or made[0].target is None or made[0].group is not None:
        return None
    variable = made[0].target.symbol
    body = context.language.body(file, setup)
    first = next((s for s in body if any(r.symbol is variable for r in file.within(s.start, s.end))), None)
    if variable is None or first is None or len(variable.bindings) != 1:
        return None
    asked = re.fullmatch(rf"{re.escape(variable.name)}\.(\w+)\(\);?", file.slice(first.start, first.end))
    method = method_of(file, class_scope(file, class_), asked[1]) if asked is not None else None
    if method is None or times_named(file, method) != 1 or reached_before(context, file, setup, first, variable.name):
        return None
    return SetUpCall(made[0], variable.name, first, method)


def times_named(file: SourceFile, method: Function) -> int:
    """How often a method is named, from wherever."""
    return sum(r.member == method.name or (r.name == method.name and r.form != "definition") for r in file.references)


def reached_before(context: Context, file: SourceFile, setup: Function, call: Statement, name: str) -> bool:
    """Whether what the set-up calls before could use the object."""
    effects = context.effects(file)
    symbol = file.scope.symbols[name]
    others = [f for f in file.tops if f.name == "settings"]
    spans = [(setup.body_start, call.start), *((f.start, f.end) for f in others)]
    return any(symbol in effects.touch(*span).names for span in spans)


def made_in_setup(context: Context, file: SourceFile, class_: str, found: SetUpCall) -> Edits:
    """The object is declared where it was made, and made where it was set up."""
    out, write, f = Edits(), context.write, found.method
    made = found.made
    assert made.value is not None and made.target is not None
    out.delete(file.path, made.target.end, made.value[1])
    given = arguments(context, file, f)
    values = ", ".join(file.slice(*s.value) for s, _, _ in given if s.value is not None)
    out.replace(file.path, found.call.start, found.call.end, f"{found.name} = new {class_}({values});")
    start, end = write.line_start(file, write.comment_start(file, f.start)), write.line_end(file, f.end - 1)
    lead = file.slice(write.line_start(file, f.start), f.start)
    body = context.language.body(file, f)
    lines, last = "", write.line_start(file, write.comment_start(file, body[0].start))
    for s, name, _ in given:
        assert s.value is not None
        lines += file.slice(last, s.value[0]) + name
        last = s.value[1]
    lines = (lines + file.slice(last, write.line_end(file, body[-1].end - 1))).rstrip("\n")
    maker = method_of(file, class_scope(file, class_), class_)
    if maker is not None:
        there = context.language.body(file, maker)
        out.insert(file.path, write.line_end(file, there[-1].end - 1), lines + "\n")
        out.delete(file.path, start, write.blank_after(file, end))
        return out
    params = ", ".join(f"{kind} {name}" for _, name, kind in given)
    text = f"{lead}{class_}({params}) {{\n{lines}\n{lead}}}\n"
    scope = class_scope(file, class_)
    first = min((x for x in file.functions if x.outer is scope), key=lambda x: x.start)
    if first is f:
        out.replace(file.path, start, end, text)
    else:
        at = write.line_start(file, write.comment_start(file, first.start))
        out.insert(file.path, at, text + "\n")
        out.delete(file.path, start, write.blank_after(file, end))
    return out


def arguments(context: Context, file: SourceFile, f: Function) -> list[tuple[Statement, str, str]]:
    """The first statements of a method that set what another object would have of its own, to what anybody can work
    out: (statement, name of the field, its type)."""
    found = []
    write = context.write
    for s in context.language.body(file, f):
        named = re.fullmatch(r"(?:this\.)?(\w+)", file.slice(s.start, s.value[0]).rstrip("= ")) if s.value else None
        if s.kind != "assign" or named is None or s.value is None:
            break
        last = write.words(named[1])[-1].rstrip("0123456789")
        own = any(r.name == write.RECEIVER or r.scope.frame is not f.scope for r in file.within(*s.value))
        field = next((d for d in fields_of(file, f) if d[0] == named[1]), None)
        if last not in CONFIGURING or own or field is None:
            break
        found.append((s, *field))
    return found


def fields_of(file: SourceFile, f: Function) -> list[tuple[str, str]]:
    """(name, type) of each field that the class of a method declares on a line of its own."""
    lines = file.slice(f.outer.start, f.outer.end).split("\n")
    found = [re.fullmatch(r"\s*([\w<>\[\]]+) (\w+)(?: = .*)?;\s*", line) for line in lines]
    return [(m[2], m[1]) for m in found if m is not None and m[1] != "return"]
