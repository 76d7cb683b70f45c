"""Text of pytest files from calls that were seen (see ``pinned/aedifex_pinned/calls.py`` for what is known of a
call)."""

from __future__ import annotations

import ast
import os
import subprocess
from typing import Any

from ....program.model import SourceFile
from ....program.seen_calls import MARK

SHEET = '"""Makes the project importable from its tests, without a window."""\n\nimport os\nimport sys\n\n'


def read_call(text: str) -> dict[str, Any]:
    found: dict[str, Any] = ast.literal_eval(text)
    return found


def file_name(home: SourceFile, name: str, several: bool) -> str:
    """The file of the tests of a class; ``several``: whether others stand in its file."""
    module = home.path.rsplit("/", 1)[-1].removesuffix(".py")
    return f"test_{module}_{name.lower()}.py" if several else f"test_{module}.py"


def title(method: str, number: int) -> str:
    """The name of a test."""
    return f"test_{method.strip('_')}_{number}"


def beside(up: str) -> dict[str, str]:
    """The ``conftest.py``, where the project is not in the same folder; ``up``: the way to it."""
    if up == ".":
        return {}
    text = (
        f"{SHEET}# {MARK}\n"
        f"sys.path.insert(0, os.path.normpath(os.path.join(os.path.dirname(os.path.abspath(__file__)), {up!r})))\n"
        'os.environ.setdefault("SDL_VIDEODRIVER", "dummy")\nos.environ.setdefault("SDL_AUDIODRIVER", "dummy")\n'
    )
    return {"conftest.py": text}


def test_file(name: str, homes: dict[str, SourceFile], up: str, tests: list[tuple[str, dict[str, Any]]]) -> str:
    """The file for a class: (name of the test, call) in order. ``homes``: file of each class that a test may make."""
    bodies = [body(title, call) for title, call in tests]
    text = "\n\n".join(bodies)
    imports = [f"import {m}" for m in ("io", "zlib") if f"{m}." in text]
    if any(c["seed"] is not None for _, c in tests):
        imports = sorted([*imports, "import random"])
    others = ["import pygame"] if "pygame." in text else []
    others += ["import pytest"] if "pytest." in text else []
    used = sorted(c for c in homes if f"{c}(" in text)
    modules = {c: homes[c].path.removesuffix(".py").replace("/", ".") for c in used}
    own = [f"from {modules[c]} import {c}" for c in sorted(used, key=lambda c: (modules[c], c))]
    blocks = ["\n".join(b) for b in (imports, others, own) if b]
    return f'"""{name} as it behaved; {MARK}, yours to keep and edit."""\n\n' + "\n\n".join(blocks) + "\n\n\n" + text


def body(title: str, call: dict[str, Any]) -> str:
    rows = list(call["setup"])
    if call["seed"] is not None:
        rows.append(f"random.seed({call['seed']})")
    rows += called(call)
    target = call["target"]
    changed = [k for k in call["changed"] if k in call["after"]]
    rows += [f"assert {target}.{k} {same(call['after'][k])}" for k in changed]
    rest = [k for k in call["after"] if k not in changed]
    if rest:
        left = ", ".join(f"{target}.{k}" for k in rest)
        right = ", ".join(call["after"][k] for k in rest)
        rows.append(f"assert ({left}) == ({right})" if len(rest) > 1 else f"assert {left} {same(right)}")
    rows += [f"assert {name} == {text}" for name, text in call["things"].items() if text is not None]
    rows += [f"assert zlib.crc32({name}.get_buffer().raw) == {sum_}" for name, sum_ in call["pictures"].items()]
    if call["told"] and call["printed"]:
        rows.append(f"assert told.getvalue() == {call['printed']!r}")
    elif call["printed"]:
        rows.append(f"assert capsys.readouterr().out == {call['printed']!r}")
    head = f"def {title}({'capsys' if call['printed'] and not call['told'] else ''}):\n"
    return head + "".join(f"    {row}\n" for row in rows)


def same(text: str) -> str:
    return f"is {text}" if text in ("True", "False", "None") else f"== {text}"


def called(call: dict[str, Any]) -> list[str]:
    if call["raised"]:
        return [f"with pytest.raises({call['raised']}):", f"    {call['call']}"]
    if call["result"] is None or call["result"] == "None":
        return [call["call"]] if call["result"] is None else [f"assert {call['call']} is None"]
    return [f"assert {call['call']} {same(call['result'])}"]


def bound(file: SourceFile, name: str) -> str:
    """Why a test cannot import a class: importing its file does more than define; "" if it can."""
    for node in ast.parse(file.text).body:
        if isinstance(node, ast.If) and "__name__" in ast.unparse(node.test):
            continue
        if isinstance(node, ast.For | ast.While | ast.With) or (
            isinstance(node, ast.Expr) and not isinstance(node.value, ast.Constant)
        ):
            return "starts the program when it is imported"
    return ""


def spied(file: SourceFile, names: list[str]) -> bytes:
    """Calls are watched in the running program; its text stays as it is."""
    return file.text


def run(
    place: str, folder: str, names: list[str], sources: list[str], interpreter: str
) -> tuple[set[tuple[str, str]], str]:
    """Run the files of tests in a folder: (file, name) of those that fail, and why they could not be run."""
    done = subprocess.run(
        [interpreter, "-m", "pytest", "-q", "-rfE", "-p", "no:cacheprovider", "--tb=no", folder], cwd=place,
        capture_output=True, text=True, timeout=600, stdin=subprocess.DEVNULL,
        env={**os.environ, "PYTEST_ADDOPTS": "", "PYTHONDONTWRITEBYTECODE": "1"},
    )  # fmt: skip
    if "No module named pytest" in done.stderr:
        return set(), f"pytest is not installed for {interpreter}; install it there"
    return failures(done.stdout), ""


def failures(report: str) -> set[tuple[str, str]]:
    """(file, name) of the tests that a run of pytest with -rfE says to have failed."""
    found = set()
    for line in report.splitlines():
        if line.startswith(("FAILED ", "ERROR ")):
            path, _, name = line.split(" ")[1].rpartition("::")
            found.add((path.rsplit("/", 1)[-1], name.split("[")[0]))
    return found


def command(folder: str) -> str:
    """How a person runs the tests."""
    return f"python -m pytest {folder}"
