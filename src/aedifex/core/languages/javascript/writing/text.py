"""JavaScript and TypeScript as they are written: classes, methods, imports. Text in, text out."""

from __future__ import annotations

from collections.abc import Sequence

from ....program.edits import Range as Edit
from ....program.facets.bases import Bases
from ....program.language import NewField
from ....program.model import Function, Reference, SourceFile, Statement
from ...braced.facets import BracedText
from ..reading.imports import stem
from ..reading.values import class_trouble, inner_receivers, method_as_value, outward, receiver_at
from . import bases
from .importing import (
    head,
    import_again,
    import_list,
    import_names,
    merged_imports,
    moved,
    offer,
    quiet_module,
    stays_in,
)
from .words import KEYWORDS, end, file_name, gap, hidden, inherited, old_style, statement_end, typed


class JavaScriptText(BracedText):
    """JavaScript and TypeScript as they are written: classes, methods, imports. Text in, text out."""

    class_trouble = staticmethod(class_trouble)
    inner_receivers = staticmethod(inner_receivers)
    method_as_value = staticmethod(method_as_value)
    outward = staticmethod(outward)
    receiver_at = staticmethod(receiver_at)
    bases: Bases | None = bases
    KEYWORDS = KEYWORDS
    head = staticmethod(head)
    import_again = staticmethod(import_again)
    import_list = staticmethod(import_list)
    import_names = staticmethod(import_names)
    merged_imports = staticmethod(merged_imports)
    moved = staticmethod(moved)
    offer = staticmethod(offer)
    quiet_module = staticmethod(quiet_module)
    stays_in = staticmethod(stays_in)
    file_name = staticmethod(file_name)
    hidden = staticmethod(hidden)
    inherited = staticmethod(inherited)
    statement_end = staticmethod(statement_end)
    typed = staticmethod(typed)

    def has_members(self, file: SourceFile, span: tuple[int, int]) -> bool:
        """Whether a member can be written behind an expression as it stands."""
        node = file.tree.root_node.named_descendant_for_byte_range(*span)
        return node.type in (
            "identifier",
            "subscript_expression",
            "member_expression",
            "call_expression",
            "parenthesized_expression",
        )

    def equality(self, unit: str, class_: str) -> str:
        """Objects are compared by identity anyway."""
        return ""

    def listed(self, file: SourceFile, name: str, class_: str, objects: Sequence[str], unit: str) -> str:
        """The statement that makes an array of objects."""
        kind = f": {class_}[]" if typed(file) and not objects else ""
        line = f"const {name}{kind} = [{', '.join(objects)}]{end(file)}"
        return (
            line
            if len(line) <= 100
            else f"const {name} = [\n" + "".join(f"{unit}{o},\n" for o in objects) + f"]{end(file)}"
        )

    def appended(self, file: SourceFile, name: str, object_: str) -> str:
        """The statement that adds an object to an array."""
        return f"{name}.push({object_}){end(file)}"

    def length(self, name: str) -> str:
        return f"{name}.length"

    def each(self, class_: str, item: str, collection: str) -> str:
        """What a loop says that goes through objects."""
        return f"const {item} of {collection}"

    def module_of(self, path: str) -> str:
        return stem(path)

    # -- classes -----------------------------------------------------------------------------------

    def class_text(self, file: SourceFile, unit: str, name: str, base: str, fields: Sequence[NewField]) -> str:
        mark = end(file)
        declared = "".join(declaration(unit, f, mark) for f in fields) if typed(file) else ""
        params = ", ".join(f"{f.value}: {f.type}" if typed(file) and f.type else f.value for f in fields if f.given)
        lines = []
        for f in fields:
            if not f.later and (f.value or not typed(file)):
                lines += [f"{unit * 2}{line}\n" for line in f.above]
                lines.append(f"{unit * 2}{self.RECEIVER}.{f.name} = {f.value or 'undefined'}{mark}{f.comment}\n")
        made = f"{unit}constructor{gap(file)}({params}) {{\n{''.join(lines)}{unit}}}\n" if lines else ""
        heading = f"class {name} extends {base}" if base else f"class {name}"
        return f"{heading} {{\n{declared}{chr(10) if declared and made else ''}{made}}}\n"

    def set_once(self, said: str) -> bool:
        return False

    def class_variable(self, file: SourceFile, name: str, value: str, type_: str) -> str:
        """What a class says of a variable that it keeps once for all objects."""
        kind = f": {type_}" if typed(file) and type_ else ""
        return f"static {name}{kind} = {value or 'undefined'}{end(file)}"

    def class_around(self, file: SourceFile, unit: str, name: str, method: str) -> str:
        return f"class {name} {{\n{method}}}\n"

    def run_method(self, file: SourceFile, unit: str, body: str, guard: Statement | None) -> str:
        return f"{unit}run{gap(file)}() {{\n{body}{unit}}}\n"

    def main_call(
        self, file: SourceFile, class_: str, making: str, variable: str, guard: Statement | None
    ) -> list[str]:
        mark = end(file)
        if variable:
            return [self.declare(file, variable, making, class_, None), f"{variable}.run(){mark}"]
        return [f"{making}.run(){mark}"]

    def use(self, ref: Reference, text: str) -> str:
        """What replaces a reference; a name that is also a key keeps its key."""
        return f"{ref.name}: {text}" if ref.form == "shorthand" else text

    def declare_variable(self, file: SourceFile, name: str, value: str, type_: str) -> str:
        """The statement that declares a new variable at the top."""
        return f"{'var' if old_style(file) else 'const'} {name} = {value}{end(file)}"

    declare_constant = declare_variable

    def declare(self, file: SourceFile, name: str, value: str, class_: str, at: Statement | None) -> str:
        return f"{'var' if old_style(file) else 'const'} {name} = {value}{end(file)}"

    def default_value(self, type_: str) -> str:
        return "undefined"

    def anchored(self, file: SourceFile, statement: Statement) -> bool:
        """Whether a definition must stay in its file because of how it is offered to others."""
        return file.slice(statement.start, statement.end).startswith("export")

    # -- methods -----------------------------------------------------------------------------------

    def method_header(
        self, file: SourceFile, function: Function, name: str, drop: set[str], hide: bool = False
    ) -> list[Edit]:
        """Edits that turn a function, however it is written, into a method: new name, known parameters gone."""
        node = function.node
        prefix = ("async " if function.is_async else "") + ("*" if function.scope.generator else "")
        params = node.child_by_field_name("parameters")
        kept = [file.slice(p.start, p.end) for p in function.params if p.name not in drop]
        start = params.start_byte if params is not None else function.params_start
        edits = [(function.start, start, prefix + name + gap(file))]
        if params is None:
            edits.append((function.params_start, function.params_end, f"({', '.join(kept)})"))
        elif len(kept) != len(function.params):
            edits.append((function.params_start, function.params_end, ", ".join(kept)))
        body = node.child_by_field_name("body")
        if node.type == "arrow_function":
            arrow = next(c for c in node.children if c.type == "=>")
            before = function.params_end + (1 if params is not None else 0)
            kind = node.child_by_field_name("return_type")
            edits.append((kind.end_byte if kind is not None else before, arrow.end_byte, ""))
            if body.type != "statement_block":
                edits += [
                    (body.start_byte, body.start_byte, "{ return "),
                    (body.end_byte, function.end, f"{end(file)} }}"),
                ]
                return edits
        if body.end_byte < function.end:
            edits.append((body.end_byte, function.end, ""))
        return edits

    def parameter(self, file: SourceFile, name: str, type_: str) -> str:
        return f"{name}: {type_}" if typed(file) and type_ else name


def declaration(unit: str, f: NewField, mark: str) -> str:
    """The field as a class with types lists it."""
    sure = "!" if f.later or not f.value else ""
    return f"{unit}{f.name}{sure}: {f.type}{mark}\n" if f.type else f"{unit}{f.name}{mark}\n"


TEXT = JavaScriptText()
