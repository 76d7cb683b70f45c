"""Text of the engine's own tests from calls that were seen (see ``pinned/calls.cjs`` for what is known of a call)."""

from __future__ import annotations

import os
import re
import subprocess
from typing import Any

from ....program.model import SourceFile
from ....program.seen_calls import MARK, ways
from ....program.seen_calls import beside as beside
from ....program.seen_calls import read_call as read_call
from ....program.seen_calls import written as written
from ...braced.text import inserted
from ..reading.imports import kind_of, stem

PRINTED = """
/** What a call prints. */
function printed(t, call) {
  const write = t.mock.method(process.stdout, "write", () => true);
  call();
  write.mock.restore();
  return write.mock.calls.map((c) => c.arguments[0]).join("");
}
"""
DEFINES = frozenset(["class_declaration", "function_declaration", "import_statement", "export_statement", "comment"])
OFFERED = (
    r"\bexport\s+class\s+{0}\b|\bexport\s*\{{[^}}]*\b{0}\b|\bexports\.{0}\s*=|\bmodule\.exports\s*=\s*\{{[^}}]*\b{0}\b"
)


def file_name(home: SourceFile, name: str, several: bool) -> str:
    """The file of the tests of a class; ``several``: whether others stand in its file."""
    middle = f".{name.lower()}" if several else ""
    return f"{stem(home.path)}{middle}.test.{'mjs' if kind_of(home) == 'module' else 'cjs'}"


def title(method: str, number: int) -> str:
    """The name of a test."""
    return f"{method} {number}"


def bound(file: SourceFile, name: str) -> str:
    """Why a test cannot import a class: importing its file does more than define; "" if it can."""
    if file.path.endswith((".ts", ".tsx", ".mts", ".cts")):
        return "has types, and nothing here that turns it into what the engine runs as a test"
    if kind_of(file) == "page":
        return "belongs to a page, which its classes cannot be taken out of"
    if any(does(node) for node in file.tree.root_node.named_children):
        return "starts the program when it is imported"
    text = file.text.decode("utf-8", "replace")
    return "" if re.search(OFFERED.format(re.escape(name)), text) else "does not offer it to other files"


def does(node: Any) -> bool:
    """Whether a statement at the top of a file does more than define."""
    if node.type in DEFINES:
        return False
    if node.type in ("lexical_declaration", "variable_declaration"):
        return b"await" in node.text
    if node.type != "expression_statement":
        return True
    inner = node.named_children[0]
    if inner.type == "assignment_expression":
        return not re.match(rb"(module\.)?exports\b", inner.text)
    return bool(inner.type != "string")


def spied(file: SourceFile, names: list[str]) -> bytes:
    """The text of a file whose classes tell of their objects and calls, line for line."""
    words: list[tuple[int, str]] = []
    for _, name in file.classes:
        node = class_node(file, name)
        if name not in names or node is None or any(c.type == "class_heritage" for c in node.children):
            continue
        body = node.child_by_field_name("body")
        maker = next(
            (m for m in body.named_children if m.type == "method_definition" and named(m) == b"constructor"), None
        )
        end = body.end_byte - 1
        if maker is None:
            words.append(
                (end, f" #aedifexBorn = globalThis.__aedifex_calls?.born(this, []); static {{ {watch(name)} }}")
            )
        else:
            at = maker.child_by_field_name("body").end_byte - 1
            words += [
                (at, " ;globalThis.__aedifex_calls?.born(this, arguments); "),
                (end, f" static {{ {watch(name)} }}"),
            ]
        methods = [m for m in body.named_children if m.type == "method_definition" and m != maker]
        words += ways(methods, "statement_block", ("class", "class_declaration"), "globalThis.__aedifex_calls?.at")
    return inserted(file.text, words)


def watch(name: str) -> str:
    return f"globalThis.__aedifex_calls?.watch({name});"


def named(method: Any) -> bytes:
    found: bytes = method.child_by_field_name("name").text
    return found


def class_node(file: SourceFile, name: str) -> Any:
    """The declaration of a class at the top of a file, None if there is none."""
    for node in file.tree.root_node.named_children:
        inner = node.child_by_field_name("declaration") if node.type == "export_statement" else node
        if (
            inner is not None
            and inner.type == "class_declaration"
            and inner.child_by_field_name("name").text == name.encode()
        ):
            return inner
    return None


def test_file(name: str, homes: dict[str, SourceFile], up: str, tests: list[tuple[str, dict[str, Any]]]) -> str:
    """The file for a class: (name of the test, call) in order. ``homes``: file of each class that a test may make."""
    text = "\n".join(body(title, call) for title, call in tests)
    used = sorted((homes[c].path, c) for c in homes if f"new {c}(" in text)
    start = up + "/" if up.startswith(".") else f"./{up}/"
    if kind_of(homes[name]) == "module":
        heads = ['import assert from "node:assert/strict";', 'import test from "node:test";', ""]
        heads += [f'import {{ {c} }} from "{start}{path}";' for path, c in used]
    else:
        heads = [
            '"use strict";',
            "",
            'const assert = require("node:assert/strict");',
            'const test = require("node:test");',
            "",
        ]
        heads += [f'const {{ {c} }} = require("{start}{path}");' for path, c in used]
    printed = PRINTED if "printed(t, " in text else ""
    first = f"// {name} as it behaved; {MARK}, yours to keep and edit."
    return "\n".join([first, *heads, printed, text])


def body(title: str, call: dict[str, Any]) -> str:
    rows = list(call["setup"])
    if call["chance"]:
        rows.append(f"const drawn = [{', '.join(map(repr, call['chance']))}];")
        rows.append('t.mock.method(Math, "random", () => drawn.shift());')
    if call["printed"]:
        rows += ["const said = printed(t, () => {", f"  {called(call)}", "});", same("said", written(call["printed"]))]
    else:
        rows.append(called(call))
    if call["chance"]:
        rows.append(same("drawn", "[]"))
    target = call["target"]
    changed = [k for k in call["changed"] if k in call["after"]]
    rows += [same(f"{target}.{k}", call["after"][k]) for k in changed]
    rest = [k for k in call["after"] if k not in changed]
    if len(rest) > 1:
        rows.append(
            same(f"[{', '.join(f'{target}.{k}' for k in rest)}]", f"[{', '.join(call['after'][k] for k in rest)}]")
        )
    else:
        rows += [same(f"{target}.{k}", call["after"][k]) for k in rest]
    rows += [same(name, text) for name, text in call["things"].items() if text is not None]
    given = "t" if call["printed"] or call["chance"] else ""
    head = f"test({written(title)}, ({given}) => {{\n"
    return head + "".join(f"  {row}\n" for row in rows) + "});\n"


def called(call: dict[str, Any]) -> str:
    if call["raised"] is not None:
        raised = f", {call['raised']}" if call["raised"] else ""
        return f"assert.throws(() => {call['call']}{raised});"
    if call["result"] in (None, "undefined"):
        return f"{call['call']};"
    return same(call["call"], call["result"])


def same(found: str, text: str) -> str:
    kind = "deepEqual" if text.startswith(("[", "{", "new ")) else "equal"
    return f"assert.{kind}({found}, {text});"


def run(
    place: str, folder: str, names: list[str], sources: list[str], interpreter: str
) -> tuple[set[tuple[str, str]], str]:
    """Run the files of tests in a folder: (file, name) of those that fail, and why they could not be run."""
    failing = set()
    for name in names:
        done = subprocess.run(
            [interpreter, "--test-reporter=tap", os.path.join(folder, name)], cwd=place, capture_output=True, text=True,
            timeout=600, stdin=subprocess.DEVNULL,
        )  # fmt: skip
        if "bad option: --test-reporter" in done.stderr or "No such built-in module: node:test" in done.stderr:
            return set(), f"{interpreter} is too old to run them; it takes version 20"
        failing |= {(name, t) for t in re.findall(r"^not ok \d+ - (.*)$", done.stdout, re.M)}
    return failing, ""


def command(folder: str) -> str:
    """How a person runs the tests."""
    return f"node --test {folder}"
