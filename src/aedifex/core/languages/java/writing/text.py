"""Java and sketches as they are written: classes, methods, fields with their types. Text in, text out."""

from __future__ import annotations

import re
from collections.abc import Sequence

from ....program.edits import Range as Edit
from ....program.facets.bases import Bases
from ....program.language import NewField
from ....program.layout import line_end
from ....program.model import Function, Reference, Scope, SourceFile, Statement, Symbol
from ...braced.facets import BracedText
from ..reading.values import class_trouble, inner_receivers, method_as_value, needless_receivers, outward, receiver_at
from . import bases
from .moving import moved_out, opened, renamed_elsewhere, stays_in
from .words import KEYWORDS, default_value, file_name, inherited, sketch


class JavaText(BracedText):
    """Java and sketches as they are written: classes, methods, fields with their types. Text in, text out."""

    class_trouble = staticmethod(class_trouble)
    inner_receivers = staticmethod(inner_receivers)
    method_as_value = staticmethod(method_as_value)
    outward = staticmethod(outward)
    receiver_at = staticmethod(receiver_at)
    needless_receivers = staticmethod(needless_receivers)
    bases: Bases | None = bases
    KEYWORDS = KEYWORDS
    moved_out = staticmethod(moved_out)
    opened = staticmethod(opened)
    renamed_elsewhere = staticmethod(renamed_elsewhere)
    stays_in = staticmethod(stays_in)
    default_value = staticmethod(default_value)
    file_name = staticmethod(file_name)
    inherited = staticmethod(inherited)
    CONSTRUCTOR = "<init>"
    DESTRUCTOR = "finalize"
    FILE_IS_CLASS = True

    def hides_library(self, path: str) -> bool:
        """A class of the language's own that every file sees would be hidden."""
        from ..facts.pure import apis

        return self.module_of(path) in apis()["names"]["lang"]

    def quiet_module(self, module: str) -> bool:
        return True

    def top_lead(self, file: SourceFile, unit: str) -> str:
        """The indentation of the program's globals: inside their class, or at the top of a sketch."""
        return "" if sketch(file) else unit

    def opening(self, file: SourceFile) -> int:
        """Where the globals begin: behind the brace that opens their class."""
        if sketch(file):
            return 0
        for node in file.tree.root_node.named_children:
            if (
                node.type == "class_declaration"
                and file.slice(*span(node.child_by_field_name("name"))) == file.scope.name
            ):
                return line_end(file, node.child_by_field_name("body").start_byte)
        return 0

    # -- classes -----------------------------------------------------------------------------------

    def class_text(self, file: SourceFile, unit: str, name: str, base: str, fields: Sequence[NewField]) -> str:
        """Fields first, each with its type, then the constructor if anything is to be given or worked out in it."""
        lead = self.top_lead(file, unit)
        listed, body = [], []
        for f in fields:
            hide = "private " if f.hidden and not sketch(file) else ""
            apart = f.given or f.derived or (self.RECEIVER + ".") in f.value
            value = "" if apart or f.later or not f.value else f" = {f.value}"
            listed += [f"{lead}{unit}{line}\n" for line in f.above]
            listed.append(f"{lead}{unit}{worded(f.words, hide)}{f.type} {f.name}{value};{f.comment}\n")
            if apart:
                made_of = f"new {f.type} " if f.value.startswith("{") else ""
                body.append(f"{lead}{unit * 2}{self.RECEIVER}.{f.name} = {made_of}{f.value};\n")
        params = ", ".join(f"{f.type} {f.value}" for f in fields if f.given)
        made = f"{lead}{unit}{name}({params}) {{\n{''.join(body)}{lead}{unit}}}\n" if body else ""
        heading = f"{lead}{'' if sketch(file) else 'static '}class {name}" + (f" extends {base}" if base else "")
        return f"{heading} {{\n{''.join(listed)}{chr(10) if listed and made else ''}{made}{lead}}}\n"

    def declared_words(self, file: SourceFile, statement: Statement) -> str:
        """What the declaration of a variable says besides its visibility, its type and that there is one of it: it
        belongs to the field as well."""
        node = statement.node
        group = next((c for c in node.children if c.type == "modifiers"), None) if node is not None else None
        said = (
            [
                c
                for c in group.children
                if c.type not in ("public", "private", "protected", "static", "line_comment", "block_comment")
            ]
            if group is not None
            else []
        )
        return " ".join(file.slice(c.start_byte, c.end_byte) for c in said)

    def set_once(self, said: str) -> bool:
        """Whether a declaration of these words must give its value by the end of the constructor."""
        return "final" in said.split()

    def class_variable(self, file: SourceFile, name: str, value: str, type_: str) -> str:
        """What a class says of a variable that it keeps once for all objects."""
        return f"static {type_} {name} = {value or default_value(type_)};"

    def class_around(self, file: SourceFile, unit: str, name: str, method: str) -> str:
        lead = self.top_lead(file, unit)
        return f"{lead}static class {name} {{\n{method}{lead}}}\n"

    def constructor_text(self, file: SourceFile, unit: str, name: str, body: str, /) -> str:
        lead = self.top_lead(file, unit) + unit
        return f"{lead}{name}() {{\n{body}{lead}}}\n"

    def run_method(self, file: SourceFile, unit: str, body: str, guard: Statement | None) -> str:
        """``main`` becomes ``run``, with the arguments that it was started with and what it may throw."""
        lead = self.top_lead(file, unit) + unit
        node = guard.node if guard is not None else None
        params = node.child_by_field_name("parameters") if node is not None else None
        given = file.slice(params.start_byte + 1, params.end_byte - 1) if params is not None else ""
        throws = (
            next((file.slice(*span(c)) + " " for c in node.named_children if c.type == "throws"), "")
            if node is not None
            else ""
        )
        return f"{lead}void run({given}) {throws}{{\n{body}{lead}}}\n"

    def main_call(
        self, file: SourceFile, class_: str, making: str, variable: str, guard: Statement | None
    ) -> list[str]:
        node = guard.node if guard is not None else None
        params = node.child_by_field_name("parameters").named_children if node is not None else []
        args = ", ".join(
            file.slice(*span(p.child_by_field_name("name"))) for p in params if p.type == "formal_parameter"
        )
        return [f"{making}.run({args});"]

    def declare_variable(self, file: SourceFile, name: str, value: str, type_: str) -> str:
        """The statement that declares a new variable at the top."""
        return f"{'' if sketch(file) else 'static '}{type_} {name} = {value};"

    def declare_constant(self, file: SourceFile, name: str, value: str, type_: str) -> str:
        return f"{'' if sketch(file) else 'static '}final {type_} {name} = {value};"

    def declare(self, file: SourceFile, name: str, value: str, class_: str, at: Statement | None) -> str:
        return f"{'' if sketch(file) else 'static '}{class_} {name} = {value};"

    def local_edits(self, file: SourceFile, statement: Statement) -> list[Edit]:
        """A global that only ``main`` uses becomes its local: no word in front of its type, always a first value."""
        if statement.node is not None and statement.node.type == "static_initializer":
            return [(statement.start, statement.node.named_children[0].start_byte, "")]
        if statement.target is None or statement.node is None or statement.node.type != "field_declaration":
            return []
        edits: list[Edit] = []
        kind = statement.annotation
        start = statement.group[0] if statement.group is not None else statement.start
        first = kind is not None and not file.text[kind[1] : statement.target.start].strip()
        if kind is not None and first and start < kind[0]:
            edits.append((start, kind[0], ""))
        if statement.value is not None and statement.value[0] == statement.value[1] and kind is not None:
            edits.append(
                (statement.value[0], statement.value[0], f" = {default_value(file.slice(*kind) + statement.brackets)}")
            )
        return edits

    def must_be_field(self, file: SourceFile, symbol: Symbol, more: Sequence[Reference]) -> bool:
        """A local that a lambda or an inner class uses may never change: such a variable cannot be a local.

        ``more``: where the variable is going to be used besides.
        """
        if len(symbol.bindings) < 2:
            return False
        guards = [s for s in file.statements if s.kind == "guard"]
        for ref in [*symbol.references, *more]:
            at: Scope | None = ref.scope
            while at is not None and at is not file.scope:
                if any(g.start < at.start < g.end for g in guards) and (at.kind == "class" or at.name == "lambda"):
                    return True
                at = at.parent
        return False

    # -- lists -------------------------------------------------------------------------------------

    def listed(self, file: SourceFile, name: str, class_: str, objects: Sequence[str], unit: str) -> str:
        """The statement that makes an array of objects."""
        word, lead = "" if sketch(file) else "static ", self.top_lead(file, unit)
        line = f"{word}{class_}[] {name} = {{{', '.join(objects)}}};"
        return (
            line
            if len(line) <= 100
            else f"{word}{class_}[] {name} = {{\n" + "".join(f"{lead}{unit}{o},\n" for o in objects) + f"{lead}}};"
        )

    def sized(self, file: SourceFile, name: str, class_: str, size: str) -> str:
        """The statement that makes room for objects."""
        return f"{'' if sketch(file) else 'static '}{class_}[] {name} = new {class_}[{size}];"

    def placed(self, name: str, index: str, object_: str) -> str:
        """The statement that puts one of them in its place."""
        return f"{name}[{index}] = {object_};"

    def filled(self, lead: str, unit: str, name: str, index: str, object_: str) -> str:
        """A loop that makes all of them."""
        return (
            f"{lead}for (int {index} = 0; {index} < {name}.length; {index}++) "
            f"{{\n{lead}{unit}{self.placed(name, index, object_)}\n{lead}}}\n"
        )

    def length(self, name: str) -> str:
        return f"{name}.length"

    def each(self, class_: str, item: str, collection: str) -> str:
        """What a loop says that goes through objects."""
        return f"{class_} {item} : {collection}"

    # -- methods -----------------------------------------------------------------------------------

    def method_header(
        self, file: SourceFile, function: Function, name: str, drop: set[str], hide: bool = False
    ) -> list[Edit]:
        """Edits that turn a static function into a method: new name, known parameters gone, no longer static; private,
        if ``hide``."""
        edits: list[Edit] = [(function.name_start, function.name_end, name)]
        kept = [file.slice(p.start, p.end) for p in function.params if p.name not in drop]
        if len(kept) != len(function.params):
            edits.append((function.params_start, function.params_end, ", ".join(kept)))
        words_ = next((c for c in function.node.children if c.type == "modifiers"), None)
        hide = hide and not sketch(file)
        if words_ is None:
            edits += [(function.head, function.head, "private ")] if hide else []
        else:
            gone = ("static", "private", *(("public", "protected") if hide else ()))
            ends = [*(c.start_byte for c in words_.children[1:]), function.head]
            place = next((c.start_byte for c in words_.children if not c.type.endswith("annotation")), function.head)
            for c, end in zip(words_.children, ends, strict=True):
                if c.type in gone:
                    edits.append((c.start_byte, end, "private " if hide and c.start_byte == place else ""))
            safe = any("SafeVarargs" in file.slice(*span(c)) for c in words_.children if c.type.endswith("annotation"))
            if safe and not hide and not any(c.type == "final" for c in words_.children):
                edits.append((function.head, function.head, "final "))
            if hide and not any(start == place for start, _, _ in edits):
                edits.append((place, place, "private "))
        return edits

    def as_argument(self, file: SourceFile, start: tuple[int, int], text: str, type_: str) -> str:
        """A list of values in braces needs its type where it is an argument."""
        return f"new {type_} {text}" if text.startswith("{") else text


def span(node: object) -> tuple[int, int]:
    """Where a node stands."""
    return node.start_byte, node.end_byte  # type: ignore[attr-defined]


def worded(said: str, hide: str) -> str:
    """What stands in front of a field's type: annotations, how it is hidden, then the other words."""
    parts = re.findall(r"@[\w.]+(?:\((?:[^()]|\([^()]*\))*\))?|\S+", said)
    notes = [p for p in parts if p.startswith("@")]
    return "".join(n + " " for n in notes) + hide + "".join(p + " " for p in parts if p not in notes)


TEXT = JavaText()
