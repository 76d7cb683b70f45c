"""Imports point one way: cli → views → core; build → draft → survey → program, build → check → program."""

import ast
from pathlib import Path

import pytest

SOURCE = Path(__file__).parent.parent / "src" / "aedifex"
# package → packages of Aedifex that it may import
MAY = {
    "core/program": {"core/program"},
    "core/languages": {"core/program", "core/languages"},
    "core/survey": {"core/program", "core/survey"},
    "core/draft": {"core/program", "core/survey", "core/draft"},
    "core/check": {"core/program", "core/survey", "core/check"},
    "core/build": {"core/program", "core/survey", "core/draft", "core/check", "core/build"},
    "views": {"core", "views"},
    "cli": {"", "core", "views", "cli", "demo"},
}
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
            yield ".".join([*base, *(node.module or "").split(".")]).rstrip("."), node.lineno


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
            if isinstance(node, (ast.FunctionDef, ast.AsyncFunctionDef)) and (node.end_lineno or 0) - node.lineno >= 51:
                long.append(f"{path.name}:{node.lineno} {node.name}")
    assert not long


def test_the_core_names_no_language():
    for path in FILES:
        if "languages" not in path.parts:
            assert not any(m.startswith("aedifex.core.languages") for m, _ in imported(path)), path
            text = path.read_text()
            assert "language ==" not in text and "language.name ==" not in text, path
