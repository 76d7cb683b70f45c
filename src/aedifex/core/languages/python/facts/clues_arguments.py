"""Argument lists that a program's own parsing of its arguments makes worth a run."""

from __future__ import annotations

import ast


def arguments(tree: ast.Module) -> list[list[str]]:
    """One list for each option or choice that the code names; [] is left to the caller."""
    needed: list[str] = []
    optional: list[list[str]] = []
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute) and node.func.attr == "add_argument":
            names = [a.value for a in node.args if isinstance(a, ast.Constant) and isinstance(a.value, str)]
            if not names:
                continue
            words = {k.arg: k.value for k in node.keywords if k.arg}
            values = choices(words)
            if not names[0].startswith("-"):
                if literal(words.get("nargs")) not in ("?", "*"):
                    needed.append(values[0])
                optional += [[v] for v in values[1:]] if not needed else []
            elif str(literal(words.get("action")) or "").startswith(("store_true", "store_false", "count")):
                optional.append([names[-1]])
            elif literal(words.get("action")) not in ("version", "help"):
                optional += [[names[-1], v] for v in values]
    if not needed and not optional:
        return compared(tree)
    return [needed, *([*option, *needed] for option in optional), *([["--no-such-option"]] if optional else [])]


def choices(words: dict[str, ast.expr]) -> list[str]:
    given = words.get("choices")
    if isinstance(given, ast.List | ast.Tuple | ast.Set):
        return [str(literal(e)) for e in given.elts] or ["x"]
    kind = words.get("type")
    name = kind.id if isinstance(kind, ast.Name) else ""
    return {"int": ["2", "0"], "float": ["2.5"]}.get(name, ["tram"])


def literal(node: ast.expr | None) -> object:
    return node.value if isinstance(node, ast.Constant) else None


def compared(tree: ast.Module) -> list[list[str]]:
    """Texts that members of ``sys.argv`` are compared with; a number where they are converted."""
    found: list[list[str]] = []
    uses = False
    for node in ast.walk(tree):
        if isinstance(node, ast.Attribute) and node.attr == "argv":
            uses = True
        if isinstance(node, ast.Compare) and "argv" in ast.unparse(node):
            for part in (node.left, *node.comparators):
                if isinstance(part, ast.Constant) and isinstance(part.value, str):
                    found.append([part.value])
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in ("int", "float"):
            if "argv" in ast.unparse(node):
                found.append(["3"])
    return found or ([["3"], ["tram"]] if uses else [])
