"""JavaScript and TypeScript as they are written: classes, methods, imports. Text in, text out."""

from __future__ import annotations

from collections.abc import Sequence

from ....program.edits import Range as Edit
from ....program.facets.defaults import filled, moved_out, opened, placed, renamed_elsewhere, sized  # noqa: F401
from ....program.language import NewField
from ....program.layout import (  # noqa: F401
    blank_after,
    blank_before,
    indented,
    line_end,
    line_start,
    newline,
    shifted,
    with_newlines,
    words,
)
from ....program.model import Function, Reference, SourceFile, Statement, Symbol
from ...braced.text import (  # noqa: F401  (part of what a writer offers)
    bare_class,
    comment_start,
    empty_body,
    empty_class,
    everywhere_import,
    indent_unit,
    keyword_argument,
    make,
    member,
    method_place,
    packaged,
    packaged_import,
    reads_documents,
    room,
    stale,
    top_lead,
    top_module,
    trailing_comment,
    with_methods,
)
from ..reading.imports import stem
from ..reading.values import class_trouble, inner_receivers, method_as_value, outward, receiver_at  # noqa: F401
from . import bases  # noqa: F401
from .importing import (  # noqa: F401
    head,
    import_again,
    import_list,
    import_names,
    merged_imports,
    moved,
    offer,
    offered,
    quiet_module,
    stays_in,
)
from .words import (  # noqa: F401
    class_name,
    end,
    file_name,
    gap,
    hidden,
    inherited,
    is_name,
    member_name,
    old_style,
    statement_end,
    typed,
)

RECEIVER = "this"


def has_members(file: SourceFile, span: tuple[int, int]) -> bool:
    """Whether a member can be written behind an expression as it stands."""
    node = file.tree.root_node.named_descendant_for_byte_range(*span)
    return node.type in (
        "identifier",
        "subscript_expression",
        "member_expression",
        "call_expression",
        "parenthesized_expression",
    )


def equality(unit: str, class_: str) -> str:
    """Objects are compared by identity anyway."""
    return ""


def listed(file: SourceFile, name: str, class_: str, objects: Sequence[str], unit: str) -> str:
    """The statement that makes an array of objects."""
    kind = f": {class_}[]" if typed(file) and not objects else ""
    line = f"const {name}{kind} = [{', '.join(objects)}]{end(file)}"
    return (
        line
        if len(line) <= 100
        else f"const {name} = [\n" + "".join(f"{unit}{o},\n" for o in objects) + f"]{end(file)}"
    )


def appended(file: SourceFile, name: str, object_: str) -> str:
    """The statement that adds an object to an array."""
    return f"{name}.push({object_}){end(file)}"


def length(name: str) -> str:
    return f"{name}.length"


def each(class_: str, item: str, collection: str) -> str:
    """What a loop says that goes through objects."""
    return f"const {item} of {collection}"


CONSTRUCTOR = "constructor"
DESTRUCTOR = ""
BLANKS = 1  # blank lines between definitions
PARTED_IMPORTS = False
FILE_IS_CLASS = False


def module_of(path: str) -> str:
    return stem(path)


def hides_library(path: str) -> bool:
    return False


# -- classes -------------------------------------------------------------------------------------


def class_text(file: SourceFile, unit: str, name: str, base: str, fields: Sequence[NewField]) -> str:
    mark = end(file)
    declared = "".join(declaration(unit, f, mark) for f in fields) if typed(file) else ""
    params = ", ".join(f"{f.value}: {f.type}" if typed(file) and f.type else f.value for f in fields if f.given)
    lines = []
    for f in fields:
        if not f.later and (f.value or not typed(file)):
            lines += [f"{unit * 2}{line}\n" for line in f.above]
            lines.append(f"{unit * 2}{RECEIVER}.{f.name} = {f.value or 'undefined'}{mark}{f.comment}\n")
    made = f"{unit}constructor{gap(file)}({params}) {{\n{''.join(lines)}{unit}}}\n" if lines else ""
    heading = f"class {name} extends {base}" if base else f"class {name}"
    return f"{heading} {{\n{declared}{chr(10) if declared and made else ''}{made}}}\n"


def declaration(unit: str, f: NewField, mark: str) -> str:
    """The field as a class with types lists it."""
    sure = "!" if f.later or not f.value else ""
    return f"{unit}{f.name}{sure}: {f.type}{mark}\n" if f.type else f"{unit}{f.name}{mark}\n"


def declared_words(file: SourceFile, statement: Statement) -> str:
    """A declaration says nothing but its variable's name and type."""
    return ""


def set_once(said: str) -> bool:
    return False


def class_variable(file: SourceFile, name: str, value: str, type_: str) -> str:
    """What a class says of a variable that it keeps once for all objects."""
    kind = f": {type_}" if typed(file) and type_ else ""
    return f"static {name}{kind} = {value or 'undefined'}{end(file)}"


def class_around(file: SourceFile, unit: str, name: str, method: str) -> str:
    return f"class {name} {{\n{method}}}\n"


def run_method(file: SourceFile, unit: str, body: str, guard: Statement | None) -> str:
    return f"{unit}run{gap(file)}() {{\n{body}{unit}}}\n"


def main_call(file: SourceFile, class_: str, making: str, variable: str, guard: Statement | None) -> list[str]:
    mark = end(file)
    if variable:
        return [declare(file, variable, making, class_, None), f"{variable}.run(){mark}"]
    return [f"{making}.run(){mark}"]


def use(ref: Reference, text: str) -> str:
    """What replaces a reference; a name that is also a key keeps its key."""
    return f"{ref.name}: {text}" if ref.form == "shorthand" else text


def declare_variable(file: SourceFile, name: str, value: str, type_: str) -> str:
    """The statement that declares a new variable at the top."""
    return f"{'var' if old_style(file) else 'const'} {name} = {value}{end(file)}"


declare_constant = declare_variable


def declare(file: SourceFile, name: str, value: str, class_: str, at: Statement | None) -> str:
    return f"{'var' if old_style(file) else 'const'} {name} = {value}{end(file)}"


def opening(file: SourceFile) -> int:
    """Where the code at the top begins."""
    return 0


def local_edits(file: SourceFile, statement: Statement) -> list[Edit]:
    """What must change in a statement at the top that becomes one of a method."""
    return []


def must_be_field(file: SourceFile, symbol: Symbol, more: Sequence[Reference]) -> bool:
    """Whether a variable of the main code could not be a local of a method."""
    return False


def as_argument(file: SourceFile, span: tuple[int, int], text: str, type_: str) -> str:
    """A first value as an argument."""
    return text


def default_value(type_: str) -> str:
    return "undefined"


def anchored(file: SourceFile, statement: Statement) -> bool:
    """Whether a definition must stay in its file because of how it is offered to others."""
    return file.slice(statement.start, statement.end).startswith("export")


# -- methods -------------------------------------------------------------------------------------


def method_header(file: SourceFile, function: Function, name: str, drop: set[str], hide: bool = False) -> list[Edit]:
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
            edits += [(body.start_byte, body.start_byte, "{ return "), (body.end_byte, function.end, f"{end(file)} }}")]
            return edits
    if body.end_byte < function.end:
        edits.append((body.end_byte, function.end, ""))
    return edits


def added_parameters(file: SourceFile, function: Function, added: Sequence[tuple[str, str]]) -> tuple[Edit, str]:
    """The edit that adds parameters, and where callers give them: first, if a later one may be left out."""
    names = ", ".join(f"{n}: {t}" if typed(file) and t else n for n, t in added)
    if not function.params:
        return (function.params_start, function.params_start, names), "last"
    if any(p.default or p.kind == "star" for p in function.params):
        return (function.params[0].start, function.params[0].start, names + ", "), "first"
    return (function.params[-1].end, function.params[-1].end, ", " + names), "last"
