"""Imports point one way: cli → views → core, and in the core each floor stands on those below it, without a circle."""

import ast
from pathlib import Path

import pytest

SOURCE = Path(__file__).parent.parent / "src" / "aedifex"
# package → packages of Aedifex that it may import
FLOORS = (
    "program",
    "languages",
    "analysis",
    "design",
    "naming",
    "rewrites",
    "planning",
    "check",
    "apply",
)  # of the core, from below
HIDDEN = {"analysis": {"languages"}, "design": {"languages", "analysis"}, "naming": {"languages"}, "rewrites": {"languages"}, "planning": {"languages"},
          "check": {"languages", "design", "naming", "rewrites", "planning"}, "apply": {"languages"}}  # fmt: skip
MAY = {
    f"core/{name}": {f"core/{below}" for below in FLOORS[: i + 1]} - {f"core/{h}" for h in HIDDEN.get(name, ())}
    for i, name in enumerate(FLOORS)
}
MAY |= {"views": {"core", "views"}, "cli": {"", "core", "views", "cli", "demo"}}
INTERFACE = {"click", "rich"}


def package(path: Path) -> str:
    parts = path.relative_to(SOURCE).parts
    return "/".join(parts[:2]) if parts[0] == "core" and len(parts) > 2 else parts[0]


def imported(path: Path):
    """(absolute module, line) of every import in a file."""
    here = ["aedifex", *path.relative_to(SOURCE).with_suffix("").parts]
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            yield from ((a.name, node.lineno) for a in node.names)
        elif isinstance(node, ast.ImportFrom):
            base = here[: -node.level] if node.level else []
            module = ".".join([*base, *(node.module or "").split(".")]).rstrip(".")
            files = {SOURCE.parent.joinpath(*module.split("."), a.name).with_suffix(".py"): a.name for a in node.names}
            yield from ((f"{module}.{name}" if file.exists() else module, node.lineno) for file, name in files.items())


FILES = [
    p for p in SOURCE.rglob("*.py") if "standins" not in p.parts and "programs" not in p.parts and package(p) in MAY
]


@pytest.mark.parametrize("path", FILES, ids=lambda p: str(p.relative_to(SOURCE)))
def test_directions(path):
    allowed = MAY[package(path)]
    for module, line in imported(path):
        top, *rest = module.split(".")
        if package(path).startswith("core"):
            assert top not in INTERFACE, f"{path}:{line}: the core has no interface code"
        if top == "aedifex":
            where = "/".join(rest[:2]) if rest[:1] == ["core"] else "/".join(rest[:1])
            assert any(where == a or where.startswith(a + "/") for a in allowed), (
                f"{path}:{line}: {module} points the wrong way"
            )


def test_no_file_is_long():
    long = {str(p.relative_to(SOURCE)): n for p in SOURCE.rglob("*.py") if (n := len(p.read_text().splitlines())) > 600}
    assert not long


def test_no_function_is_long():
    long = []
    for path in [p for p in SOURCE.rglob("*.py") if "programs" not in p.parts]:  # those are as people write them
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, (ast.FunctionDef, ast.AsyncFunctionDef)) and (node.end_lineno or 0) - node.lineno > 60:
                long.append(f"{path.name}:{node.lineno} {node.name}")
    assert not long


def test_the_core_names_no_language():
    for path in FILES:
        if "languages" not in path.parts:
            assert not any(m.startswith("aedifex.core.languages") for m, _ in imported(path)), path
            text = path.read_text()
            assert "language ==" not in text and "language.name ==" not in text, path


def test_no_circle():
    """No file imports itself through others, types included."""
    graph: dict[str, set[str]] = {}
    names = {
        "aedifex." + ".".join(p.relative_to(SOURCE).with_suffix("").parts).removesuffix(".__init__"): p
        for p in FILES
        if "pinned" not in p.parts
    }
    for name, path in names.items():
        graph[name] = {m for m, _ in imported(path) if m in names and m != name}
    seen: set[str] = set()

    def visit(name: str, way: tuple[str, ...]) -> None:
        assert name not in way, " → ".join([*way[way.index(name) :], name])
        if name not in seen:
            for other in sorted(graph[name]):
                visit(other, (*way, name))
            seen.add(name)

    for name in sorted(graph):
        visit(name, ())


TREE = {"root_node", "child_by_field_name", "named_children", "descendant_for_byte_range", "start_byte", "end_byte"}
SPELLED = {"self", "this", "def", "void", "static", "let", "var", "//", "/*", b"#", b"//", b"/*"}


@pytest.mark.parametrize(
    "path",
    [
        p
        for p in FILES
        if p.parts[-2] != "program" and "program" not in p.parts and "core" in p.parts and "languages" not in p.parts
    ],
    ids=lambda p: str(p.relative_to(SOURCE)),
)
def test_nothing_above_the_languages_knows_one(path):
    """No node of a syntax tree, no mark of a comment, no receiver, no keyword."""
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Attribute):
            assert node.attr not in TREE, f"{path}:{node.lineno} looks at the syntax tree"
        if isinstance(node, ast.Constant) and isinstance(node.value, (str, bytes)):
            assert node.value not in SPELLED, f"{path}:{node.lineno} spells {node.value!r}"


SHARED = {"observe", "comment_start", "trailing_comment", "indent_unit"}  # one idea, answered in several ways


def test_a_name_has_one_meaning():
    """No function or class of the core has a name that another file gives to something else."""
    homes: dict[str, list[str]] = {}
    for path in [p for p in FILES if "core" in p.parts and "languages" not in p.parts and p.name != "defaults.py"]:
        for node in ast.parse(path.read_text()).body:
            if isinstance(node, (ast.FunctionDef, ast.ClassDef)):
                homes.setdefault(node.name, []).append(str(path.relative_to(SOURCE)))
    assert not {n: where for n, where in homes.items() if len(where) > 1 and n not in SHARED}


def test_what_other_files_import_says_what_it_is():
    """Public is what another file imports: ruff sees to modules and classes, this to functions."""
    functions, used = {}, set()
    for path in [p for p in SOURCE.rglob("*.py") if not {"pinned", "standins", "programs"} & {*p.parts}]:
        tree, here = ast.parse(path.read_text()), path.parent
        functions |= {(path, n.name): n for n in tree.body if isinstance(n, ast.FunctionDef)}
        for node in [n for n in ast.walk(tree) if isinstance(n, ast.ImportFrom) and n.level]:
            home = (
                here.joinpath(*[".."] * (node.level - 1), *(node.module or "").split(".")).resolve().with_suffix(".py")
            )
            used |= {(home, a.name) for a in node.names}
    assert not [
        f"{p.relative_to(SOURCE)}:{n.lineno}"
        for (p, name), n in functions.items()
        if (p, name) in used and not ast.get_docstring(n)
    ]
