"""How far what ``draft`` and ``build`` give is from what a good developer hands back, told by structure.

    python benchmarks/targets.py [FOLDER] [--only WORD] [--show] [--keep FOLDER]

FOLDER (default: tests/targets) has a folder for each pair: ``before`` is the program, ``after`` what it should become. Compared are classes,
their fields, what their constructors are handed, their methods, in which files classes and constants stand, which members are hidden, and
what is left outside of classes in the file that people start. A class is held against that of the target with which it shares most, so
that a name costs itself and not its members. Precision is how much of what was made is wanted, recall how much of what is wanted was
made; the figure of a pair is the mean of their harmonic means.
"""

from __future__ import annotations

import argparse
import ast
import re
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path

import tree_sitter_java
import tree_sitter_javascript
import tree_sitter_typescript
from tree_sitter import Language, Node, Parser

ROOT = Path(__file__).parent.parent
AEDIFEX = [sys.executable, "-m", "aedifex.cli.main"]
SUFFIXES = (".py", ".pde", ".java", ".js", ".ts")
MOST_EDITS = 2  # of a design, that one would take
PARTS = ("classes", "fields", "arguments", "methods", "homes", "hidden", "main")
GRAMMARS = {
    ".java": Language(tree_sitter_java.language()),
    ".js": Language(tree_sitter_javascript.language()),
    ".ts": Language(tree_sitter_typescript.language_typescript()),
}


@dataclass
class Shape:
    """One class: names in small letters without underscores; ``hidden``: those of its members that only it may use."""

    name: str
    home: str
    fields: set[str] = field(default_factory=set)
    arguments: list[str] = field(default_factory=list)
    methods: set[str] = field(default_factory=set)
    hidden: set[str] = field(default_factory=set)

    @property
    def members(self) -> set[str]:
        return self.fields | self.methods


@dataclass
class Structure:
    """A program: ``constants``: name → file; ``main``: lines outside of classes and functions in files that have main code."""

    classes: list[Shape] = field(default_factory=list)
    constants: dict[str, str] = field(default_factory=dict)
    main: list[str] = field(default_factory=list)


def plain(name: str) -> str:
    return name.replace("_", "").replace("#", "").lower()


def structure_of(folder: Path) -> Structure:
    """What stands in the sources of a folder, tests left out."""
    found = Structure()
    for path in sorted(p for p in folder.rglob("*") if p.suffix in SUFFIXES and "test" not in p.stem.lower()):
        (python if path.suffix == ".py" else braced)(path, found)
    return found


def python(path: Path, found: Structure) -> None:
    tree = ast.parse(path.read_text())
    for node in tree.body:
        if isinstance(node, ast.ClassDef):
            found.classes.append(python_class(node, path.stem))
        elif isinstance(node, ast.Assign) and isinstance(node.targets[0], ast.Name) and node.targets[0].id.isupper():
            found.constants[plain(node.targets[0].id)] = path.stem
        elif not isinstance(node, ast.Import | ast.ImportFrom) and not docstring(node):
            found.main += [line.strip() for line in ast.unparse(node).splitlines() if line.strip()]


def docstring(node: ast.stmt) -> bool:
    return isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant) and isinstance(node.value.value, str)


def python_class(node: ast.ClassDef, home: str) -> Shape:
    made = Shape(plain(node.name), home)
    for f in [f for f in node.body if isinstance(f, ast.FunctionDef)]:
        if f.name == "__init__":
            made.arguments = [plain(a.arg) for a in f.args.args[1:]]
        else:
            made.methods.add(plain(f.name))
            made.hidden |= {plain(f.name)} if f.name.startswith("_") else set()
    for x in ast.walk(node):
        if (
            isinstance(x, ast.Attribute)
            and isinstance(x.ctx, ast.Store)
            and isinstance(x.value, ast.Name)
            and x.value.id == "self"
        ):
            made.fields.add(plain(x.attr))
            made.hidden |= {plain(x.attr)} if x.attr.startswith("_") else set()
    return made


def braced(path: Path, found: Structure) -> None:
    sketch = path.suffix == ".pde"
    text = path.read_text()
    if sketch:
        text = "class Sketch_ {\n" + re.sub(r"\bcolor(?=\s+\w)", "int", text) + "\n}\n"
    top = Parser(GRAMMARS[".java" if sketch else path.suffix]).parse(text.encode()).root_node
    for node in walk(top):
        if node.type == "class_declaration":
            made = braced_class(node, path.stem)
            if sketch and made.name == "sketch":
                found.main += [f"{m}()" for m in sorted(made.methods)] + sorted(made.fields)
                found.constants |= constants_in(node, "sketch")
            else:
                found.classes.append(made)
                found.constants |= constants_in(node, made.name)
    if not sketch and path.suffix != ".java":
        for node in top.children:
            if node.type not in ("class_declaration", "import_statement", "export_statement", "comment"):
                found.main += [line.strip() for line in said(node).splitlines() if line.strip()]


def constants_in(node: Node, home: str) -> dict[str, str]:
    body = node.child_by_field_name("body")
    rows = [
        c
        for c in (body.children if body else [])
        if c.type == "field_declaration" and "final" in said(c).split("=")[0].split()
    ]
    return {
        plain(said(n)): home
        for c in rows
        for d in c.children_by_field_name("declarator")
        if (n := d.child_by_field_name("name")) and said(n).isupper()
    }


def walk(node: Node) -> Iterator[Node]:
    yield node
    for child in node.children:
        yield from walk(child)


def said(node: Node | None) -> str:
    return (node.text or b"").decode() if node is not None else ""


def braced_class(node: Node, home: str) -> Shape:
    made = Shape(plain(said(node.child_by_field_name("name"))), home)
    body = node.child_by_field_name("body")
    for c in body.children if body is not None else []:
        named = c.child_by_field_name("name")
        private = "private" in said(c).split("(")[0].split("=")[0].split() or said(named).startswith(("#", "_"))
        if c.type == "constructor_declaration" or (c.type == "method_definition" and said(named) == "constructor"):
            made.arguments = parameters(c)
            made.fields |= {plain(m) for m in re.findall(r"this\.([#\w]+)\s*=[^=]", said(c))}
            made.hidden |= {plain(m) for m in re.findall(r"this\.([#_]\w+)\s*=[^=]", said(c))}
        elif c.type in ("method_declaration", "method_definition"):
            made.methods.add(plain(said(named)))
            made.hidden |= {plain(said(named))} if private else set()
        elif c.type in ("field_declaration", "field_definition", "public_field_definition"):
            names = [d.child_by_field_name("name") for d in c.children_by_field_name("declarator")] or [
                c.child_by_field_name("property") or named
            ]
            for n in names:
                if not said(n).isupper():
                    made.fields.add(plain(said(n)))
                    made.hidden |= {plain(said(n))} if private or said(n).startswith("#") else set()
    return made


def parameters(node: Node) -> list[str]:
    listed = node.child_by_field_name("parameters")
    rows = listed.named_children if listed is not None else []
    return [plain(said(c.child_by_field_name("name") or c.child_by_field_name("pattern") or c)) for c in rows]


def matched(made: Structure, wanted: Structure) -> dict[int, str]:
    """The number of each class that was made → the name of the target's class that it is held against."""
    scores = sorted(
        (
            (len(a.members & b.members) + 2 * (a.name == b.name), -i, -j)
            for i, a in enumerate(made.classes)
            for j, b in enumerate(wanted.classes)
        ),
        reverse=True,
    )
    found: dict[int, str] = {}
    used: set[int] = set()
    for score, i, j in scores:
        if score and -i not in found and -j not in used:
            found[-i] = wanted.classes[-j].name
            used.add(-j)
    return found


def facts(program: Structure, names: dict[int, str]) -> dict[str, set[tuple[str, ...]]]:
    """What is compared. ``names``: what classes count as."""
    found: dict[str, set[tuple[str, ...]]] = {part: set() for part in PARTS}
    for i, c in enumerate(program.classes):
        name = names.get(i, f"other {c.name}")
        found["classes"].add((c.name,))
        found["fields"] |= {(name, f) for f in c.fields}
        found["arguments"] |= {(name, a) for a in c.arguments}
        found["methods"] |= {(name, m) for m in c.methods}
        found["hidden"] |= {(name, m, str(m in c.hidden)) for m in c.members}
        found["homes"].add((name, name if plain(c.home) == c.name else plain(c.home)))
    found["homes"] |= {(n, names_of_home(program, home, names)) for n, home in program.constants.items()}
    found["main"] = {(counted(line, program, names),) for line in program.main}
    return found


def names_of_home(program: Structure, home: str, names: dict[int, str]) -> str:
    return next(
        (names.get(i, c.name) for i, c in enumerate(program.classes) if plain(c.home) == plain(home)), plain(home)
    )


def counted(line: str, program: Structure, names: dict[int, str]) -> str:
    """A line of main code with classes called as they count."""
    for i, c in enumerate(program.classes):
        line = re.sub(rf"(?i)\b{c.name}\b", names.get(i, c.name), line)
    return re.sub(r"\s+", " ", line)


def distances(made: Structure, wanted: Structure) -> dict[str, tuple[float, float]]:
    """Precision and recall of each part."""
    mine = facts(made, matched(made, wanted))
    theirs = facts(wanted, {i: c.name for i, c in enumerate(wanted.classes)})
    found = {}
    for part in PARTS:
        a, b = mine[part], theirs[part]
        if a or b:
            found[part] = (len(a & b) / len(a) if a else 1.0, len(a & b) / len(b) if b else 1.0)
    return found


def edits(made: Structure, wanted: Structure) -> int:
    """How many values and tables of the design differ from those of the target: a member that is there under another name is one."""
    mine = facts(made, matched(made, wanted))
    theirs = facts(wanted, {i: c.name for i, c in enumerate(wanted.classes)})
    both = {row[:2] for row in mine["hidden"]} & {row[:2] for row in theirs["hidden"]}
    count = 0
    for part in ("classes", "fields", "arguments", "methods", "homes", "hidden"):
        ours, other = mine[part] - theirs[part], theirs[part] - mine[part]
        if part == "hidden":
            ours, other = {r for r in ours if r[:2] in both}, {r for r in other if r[:2] in both}
        count += max(len(ours), len(other))
    return count


def mean(found: dict[str, tuple[float, float]]) -> float:
    return sum(2 * p * r / (p + r) if p + r else 0.0 for p, r in found.values()) / len(found)


def built(before: Path, folder: Path, options: list[str]) -> str:
    """Draft and build a copy of a program; why it cannot be, if so."""
    shutil.copytree(before, folder, dirs_exist_ok=True)
    sources = sorted(p for p in folder.rglob("*") if p.suffix in SUFFIXES)
    entry = next((p for p in sources if p.suffix == ".pde" and p.stem == p.parent.name), None)
    drafted = aedifex("draft", *options, *(map(str, [entry] if entry else sources)))
    designs = list(folder.rglob("*.design.toml"))
    if drafted.returncode or not designs:
        return drafted.stderr.strip()
    made = aedifex("build", "-q", "--unchecked", str(designs[0]))
    return made.stderr.strip() if made.returncode else ""


def aedifex(*words: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run([*AEDIFEX, *words], capture_output=True, text=True)


def sides(pair: Path) -> tuple[Path, Path]:
    """Before and after; where what comes first is one step of several, that."""
    return pair / "before", pair / "between" if (pair / "between").exists() else pair / "after"


def main() -> None:
    parser = argparse.ArgumentParser(description="Hold what draft and build give against targets")
    parser.add_argument("folder", type=Path, nargs="?", default=ROOT / "tests" / "targets")
    parser.add_argument("--only", default="")
    parser.add_argument("--show", action="store_true", help="what is missing and what is too much")
    parser.add_argument("--keep", type=Path, help="where to leave what was made")
    given = parser.parse_args()
    figures, counts = [], []
    for pair in sorted(p.parent for p in given.folder.glob("*/before") if given.only in p.parent.name):
        before, after = sides(pair)
        with tempfile.TemporaryDirectory() as place:
            folder = (given.keep or Path(place)) / pair.name
            shutil.rmtree(folder, ignore_errors=True)
            why = built(before, folder, [])
            made, wanted = structure_of(folder), structure_of(after)
        found = distances(made, wanted)
        figures.append(mean(found))
        row = "  ".join(f"{part} {p:.2f}/{r:.2f}" for part, (p, r) in found.items())
        count = edits(made, wanted)
        counts.append(count)
        print(f"{figures[-1]:.2f}  {count:2} edits  {pair.name:20}  {row}" + (f"  {why}" if why else ""), flush=True)
        if given.show:
            show(made, wanted)
    within = sum(count <= MOST_EDITS for count in counts)
    print(f"{sum(figures) / len(figures):.2f}  mean of {len(figures)}; precision/recall; {within} within {MOST_EDITS} edits")


def show(made: Structure, wanted: Structure) -> None:
    mine = facts(made, matched(made, wanted))
    theirs = facts(wanted, {i: c.name for i, c in enumerate(wanted.classes)})
    for part in PARTS:
        for mark, rows in (("-", theirs[part] - mine[part]), ("+", mine[part] - theirs[part])):
            for row in sorted(rows):
                print(f"      {mark} {part}: {' '.join(row)}")


if __name__ == "__main__":
    main()
