"""What can be wrong in the tables of a class: its name, its fields, its methods, its objects."""

from __future__ import annotations

from ..design.origin import Origin
from ..design.tables import ClassDesign, FieldDesign, MethodDesign, ObjectDesign
from . import mistakes
from .design_check import DesignCheck

DONE = MethodDesign("run", [])  # says that the main code is opened, which it is by now


def check_classes(check: DesignCheck) -> None:
    """Report mistakes in the tables of classes, their fields and objects."""
    seen: set[str] = set()
    for index, c in enumerate(check.design.classes):
        line = check.lines.of("class", index, -1, "name")
        if c.name and not check.write.is_name(c.name):
            check.report(line, mistakes.NO_CLASS_NAME, name=c.name)
        elif c.name in check.program.language.builtins:
            check.report(line, mistakes.NAME_OF_BUILT_IN, name=c.name)
        if c.name in seen:
            check.report(line, mistakes.GIVEN_TWICE, what="class", name=c.name)
        seen.add(c.name)
        for number, f in enumerate(c.fields):
            check_field(check, index, number, c, f)
        if not c.objects and any(o and not o.key for f in c.fields if not f.shared for o in f.origins):
            check.report(line, mistakes.NO_OBJECT, name=c.name)
        for number, o in enumerate(c.objects):
            check_object(check, index, number, c, o)


def of_records(c: ClassDesign) -> bool:
    return any(o.key for f in c.fields for o in f.origins)


def check_field(check: DesignCheck, index: int, number: int, c: ClassDesign, f: FieldDesign) -> None:
    def line(key: str) -> int:
        return check.lines.of("class.field", index, number, key)

    check.member_name(line("name"), index, f.name, f.hidden)
    keyed, count = any(o.key for o in f.origins), max(1, len(c.objects))
    if keyed and f.start not in ("", "argument"):
        check.report(line("start"), mistakes.RECORDS_GIVE_START, name=f.name)
    elif keyed and f.value:
        check.report(line("value"), mistakes.RECORDS_GIVE_VALUE, name=f.name)
    elif f.start == "argument" and f.value and any(f.origins):
        check.report(line("value"), mistakes.ARGS_SAY_VALUE, name=f.name)
    if keyed and (f.shared or f.type):
        key = "shared" if f.shared else "type"
        check.report(line(key), mistakes.RECORDS_SAY_ALL, name=f.name, key=key)
    if f.shared and (len(f.origins) != 1 or not f.origins[0]):
        check.report(line("from"), mistakes.SHARED_OF_SEVERAL, name=f.name)
    elif not f.shared and len(f.origins) != count and not c.wraps:
        objects = "is 1 object" if count == 1 else f"are {count} objects"
        check.report(line("from"), mistakes.OTHER_NUMBER, name=f.name, count=len(f.origins), objects=objects)
    for origin in f.origins:
        if origin:
            check.origin(line("from"), origin, c.name, "variable")


def check_object(check: DesignCheck, index: int, number: int, c: ClassDesign, o: ObjectDesign) -> None:
    check.name(check.lines.of("class.object", index, number, "name"), o.name)
    if o.owner and check.design.class_named(o.owner) is None:
        check.report(check.lines.of("class.object", index, number, "owner"), mistakes.NO_OWNER, name=o.owner)
    if o.args and of_records(c):
        check.report(check.lines.of("class.object", index, number, "args"), mistakes.RECORDS_GIVE_ARGS, name=o.name)
    if o.collection:
        check_collection(check, check.lines.of("class.object", index, number, "collection"), c, o.collection)


def check_collection(check: DesignCheck, line: int, c: ClassDesign, name: str) -> None:
    """The list in which objects are kept: there already, of records; else a new one, or one that it takes the place
    of."""
    if not check.write.is_name(name):
        check.report(line, mistakes.NO_NAME, name=name)
    elif of_records(c):
        if check.file_of(Origin.parse(name)) is None:
            check.absent(line, Origin.parse(name))
    elif len(c.objects) > 1:
        check.report(line, mistakes.VARIABLE_EACH)
    elif name not in [o.local for f in c.fields for o in f.origins] and any(
        name in f.scope.symbols for f in check.program.files.values()
    ):
        check.report(line, mistakes.NAME_IN_USE, name=name)


def check_methods(check: DesignCheck) -> None:
    """Report mistakes in the tables of methods."""
    for index, c in enumerate(check.design.classes):
        for number, m in enumerate(c.methods):
            check_method(check, index, number, c, m)


def check_method(check: DesignCheck, index: int, number: int, c: ClassDesign, m: MethodDesign) -> None:
    def line(key: str) -> int:
        return check.lines.of("class.method", index, number, key)

    check.member_name(line("name"), index, m.name, m.hidden)
    if m is DONE:
        return
    if m.hidden and of_records(c):
        check.report(line("hidden"), mistakes.RECORDS_CALL_IT, name=m.name)
    if m.lines and m.origins:
        check.report(line("lines"), mistakes.FROM_BOTH, name=m.name)
    elif not m.origins and not m.lines:
        check.report(line("from"), mistakes.FROM_NOTHING, name=m.name)
    check.method_lines(line("lines"), m.lines)
    if m.hook and not c.extends and not c.base:
        check.report(line("hook"), mistakes.NOT_A_HOOK, name=m.name, class_=c.name)
    for origin in m.origins:
        check.origin(line("from"), origin, c.name, "function")
    for origin in m.origins[:1]:
        file = check.file_of(origin)
        function = file.function(origin.local) if file is not None else None
        for name in m.drop:
            if function is not None and name not in [p.name for p in function.params]:
                check.report(line("drop"), mistakes.NO_PARAMETER, function=origin.local, name=name)
    for add in m.add:
        value = Origin.parse(add["value"])
        if check.file_of(value) is None and str(value) not in check.objects | check.collections | check.streams:
            check.absent(line("add"), value)
