"""Requests that a program's routes answer, in an order in which they make sense."""

from __future__ import annotations

import ast
import re
from typing import Any

METHODS = ("get", "post", "put", "patch", "delete")
VALUES = {"int": ("1", "99"), "float": ("1.5",), "path": ("a/b",)}


def requests(tree: ast.Module) -> list[dict[str, Any]]:
    """Each route looked at, then changed, then looked at again; what is not there asked for as well."""
    looks: list[dict[str, Any]] = []
    changes: list[dict[str, Any]] = []
    removals: list[dict[str, Any]] = []
    registered = by_call(tree)
    for node in ast.walk(tree):
        if not isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef):
            continue
        for path, methods in [*routes(node), *registered.get(node.name, [])]:
            for method in methods:
                for filled in addresses(path):
                    request: dict[str, Any] = (
                        {"path": filled} if method == "GET" else {"method": method, "path": filled}
                    )
                    if method == "GET":
                        query = "&".join(f"{k}=2" for k in members(node, "args"))
                        looks.append(request)
                        if query:
                            looks.append({"path": f"{filled}?{query}"})
                    elif method == "DELETE":
                        removals.append(request)
                    else:
                        changes.append({**request, **body(node)})
    looks += [{"path": p} for p in compared(tree)]
    found = [*looks, *changes, *(looks if changes else []), *removals, *(looks if removals else [])]
    return [*found, {"path": "/no-such-place"}] if found else []


def routes(node: ast.FunctionDef | ast.AsyncFunctionDef) -> list[tuple[str, list[str]]]:
    found = []
    for decorator in node.decorator_list:
        if isinstance(decorator, ast.Call) and isinstance(decorator.func, ast.Attribute) and decorator.args:
            name, first = decorator.func.attr, decorator.args[0]
            if name in ("route", *METHODS) and isinstance(first, ast.Constant) and str(first.value).startswith("/"):
                given = next((k.value for k in decorator.keywords if k.arg in ("methods", "method")), None)
                named = [str(e.value).upper() for e in ast.walk(given) if isinstance(e, ast.Constant)] if given else []
                found.append((str(first.value), named or ([name.upper()] if name in METHODS else ["GET"])))
    return found


def by_call(tree: ast.Module) -> dict[str, list[tuple[str, list[str]]]]:
    """Function → its routes, of those that a call registers: ``app.add_url_rule("/all", view_func=list_all)``,
    ``app.route("/all")(list_all)``."""
    found: dict[str, list[tuple[str, list[str]]]] = {}
    for node in ast.walk(tree):
        if not isinstance(node, ast.Call):
            continue
        inner = node.func if isinstance(node.func, ast.Call) else node
        name = inner.func.attr if isinstance(inner.func, ast.Attribute) else ""
        if (
            name not in ("add_url_rule", "add_route", "add_api_route", "route")
            or not inner.args
            or not isinstance(inner.args[0], ast.Constant)
        ):
            continue
        words = {k.arg: k.value for k in inner.keywords}
        handlers = [
            words.get("view_func") or words.get("endpoint"),
            *inner.args[1:],
            *(node.args if inner is not node else []),
        ]
        methods = (
            [str(e.value).upper() for e in ast.walk(words["methods"]) if isinstance(e, ast.Constant)]
            if "methods" in words
            else ["GET"]
        )
        for handler in handlers:
            called = (
                handler.id
                if isinstance(handler, ast.Name)
                else handler.attr
                if isinstance(handler, ast.Attribute)
                else ""
            )
            if called:
                found.setdefault(called, []).append((str(inner.args[0].value), methods))
                break
    return found


def addresses(path: str) -> list[str]:
    """The path with its variable parts filled in: one that is likely there, one that is not."""
    pattern = re.compile(r"[<{](?:(\w+)(?:\([^)]*\))?:)?(\w+)[>}]")
    parts = pattern.findall(path)
    if not parts:
        return [path]
    filled = []
    for index in (0, 1):
        values = [VALUES.get(kind, ("1", "nobody")) for kind, _ in parts]
        step = iter([v[min(index, len(v) - 1)] for v in values])
        filled.append(pattern.sub(lambda m, step=step: next(step), path))  # type: ignore[misc]
    return list(dict.fromkeys(filled))


def members(node: ast.AST, holder: str) -> list[str]:
    """Names that are taken from ``request.<holder>`` by subscript or get."""
    found: list[str] = []
    for inner in ast.walk(node):
        key: ast.expr | None = None
        if isinstance(inner, ast.Subscript) and holder in ast.unparse(inner.value).split("."):
            key = inner.slice
        elif (
            isinstance(inner, ast.Call)
            and isinstance(inner.func, ast.Attribute)
            and inner.func.attr == "get"
            and inner.args
        ):
            if holder in ast.unparse(inner.func.value).split("."):
                key = inner.args[0]
        if isinstance(key, ast.Constant) and isinstance(key.value, str):
            found.append(key.value)
    return list(dict.fromkeys(found))


def body(node: ast.AST) -> dict[str, Any]:
    """A form or a JSON object with the members that the handler takes."""
    text = ast.unparse(node)
    form = members(node, "form")
    if form:
        return {"form": dict.fromkeys(form, "2")}
    if "get_json" in text or ".json" in text:
        keys = [k.value for inner in ast.walk(node) if isinstance(inner, ast.Subscript | ast.Call)
                for k in ([inner.slice] if isinstance(inner, ast.Subscript) else inner.args[:1])
                if isinstance(k, ast.Constant) and isinstance(k.value, str)]  # fmt: skip
        return {"json": {k: 2 for k in dict.fromkeys(keys) if k.isidentifier()}}
    return {}


def compared(tree: ast.Module) -> list[str]:
    """Paths that a plain server compares the request's path with."""
    found = []
    for node in ast.walk(tree):
        if isinstance(node, ast.Compare) and "path" in ast.unparse(node).lower():
            for part in (node.left, *node.comparators):
                if isinstance(part, ast.Constant) and isinstance(part.value, str) and part.value.startswith("/"):
                    found.append(part.value)
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute) and node.func.attr == "startswith":
            if "path" in ast.unparse(node.func.value).lower() and node.args and isinstance(node.args[0], ast.Constant):
                found.append(str(node.args[0].value) + "1")
    if not found and any(
        isinstance(n, ast.FunctionDef) and n.name in ("do_GET", "application", "app") for n in ast.walk(tree)
    ):
        found.append("/")
    return list(dict.fromkeys(p for p in found if p.startswith("/")))
