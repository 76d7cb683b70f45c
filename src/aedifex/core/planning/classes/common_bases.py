"""Classes of one kind (B13): three or more that share methods and fields get a common base, each keeping what
differs."""

from __future__ import annotations

from ...design.tables import ClassDesign, MethodDesign
from ...naming.identifiers import free
from ...naming.inflection import doing
from ...program.language import Language
from ...program.model import SourceFile, Symbol

MIN_SHARING_CLASSES = 3  # classes that share before a base is worth it


def common_bases(file: SourceFile, language: Language, classes: list[ClassDesign], taken: set[str]) -> None:
    """Give classes of one kind a base in their designs, and say why."""
    if language.write.bases is None or not language.write.bases.extendable(file):
        return
    alike: dict[tuple[str, ...], list[tuple[ClassDesign, MethodDesign]]] = {}
    for c in classes:
        if c.role != "app" and not c.base and all(len(f.origins) == 1 for f in c.fields):
            for m in c.methods:
                if (shape := method_words(file, language, c, m)) is not None:
                    alike.setdefault(shape, []).append((c, m))
    for rows in sorted(alike.values(), key=lambda rows: -len(rows)):
        kinds = [c for c, _ in rows]
        if len(rows) >= MIN_SHARING_CLASSES and not any(c.base for c in kinds):
            group_alike(file, language, kinds, rows[0][1], taken)


def method_words(file: SourceFile, language: Language, c: ClassDesign, m: MethodDesign) -> tuple[str, ...] | None:
    """A method with its name, as words that say fields for the variables; None for one that is not made of one plain
    function."""
    f = file.function(m.origins[0].local) if len(m.origins) == 1 and not m.drop and not m.add else None
    if f is None:
        return None
    names: dict[Symbol | None, str] = {
        file.scope.symbols.get(o.local): "." + x.name for x in c.fields for o in x.origins
    }
    names |= {file.scope.symbols.get(o.local): "." + x.name + "()" for x in c.methods for o in x.origins}
    edits = [(r.start, r.end, names[r.symbol]) for r in file.within(f.params_start, f.end) if r.symbol in names]
    declared = [
        (d.start, d.end, names[d.symbol]) for d in file.declarations_within(f.start, f.end) if d.symbol in names
    ]
    return m.name, *language.tokens(file, f.params_start, f.end, [*edits, *declared])


def group_alike(
    file: SourceFile, language: Language, kinds: list[ClassDesign], m: MethodDesign, taken: set[str]
) -> None:
    common = [f.name for f in kinds[0].fields if all(f.name in [x.name for x in c.fields] for c in kinds[1:])]
    if not common:
        return
    verb = language.write.words(m.name)[0]
    base = free(language.write.class_name([doing(verb), "thing"]), taken | {c.name for c in kinds})
    taken.add(base)
    for c in kinds:
        c.base = base
        others = " and ".join(x.name for x in kinds if x is not c)
        c.why.append(f"{m.name} and {', '.join(common)} are the same in {others}, so {base} holds what they share")
    for name in common:
        fields = [f for c in kinds for f in c.fields if f.name == name]
        hidden = all(f.hidden for f in fields)
        differ = {f.start for f in fields} == {"fixed", "argument"} or len(
            {f.value for f in fields if f.start == "fixed"}
        ) > 1
        for c, f in zip(kinds, fields, strict=True):
            f.hidden = hidden
            if differ and f.start == "fixed":
                place = sum(x.start == "argument" for x in c.fields[: c.fields.index(f)])
                for obj in c.objects:
                    obj.args.insert(place, f.value)
                f.start, f.value = "argument", ""
