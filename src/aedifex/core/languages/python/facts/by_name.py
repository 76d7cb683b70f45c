"""What tells a function from a method, a variable from a field, or one place of the code from another, though the
program runs the same."""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator
from typing import Any

from ....program.model import Call, Reference, SourceFile, Symbol
from ....program.tell import Means, Tell
from ..reading.imports import imported
from .pure import BUILTINS, apis

# Values that hold what is written in them.
HOLDERS = frozenset(["argument_list", "list", "tuple", "set", "dictionary", "pair", "keyword_argument",
    "parenthesized_expression", "conditional_expression", "list_splat", "expression_list",
    "boolean_operator"])  # fmt: skip
EXAMPLE = re.compile(rb"^[ \t]*(?:>>>|\.\.\.)[ \t](.*)$", re.M)
WORD = re.compile(rb"[^\W\d]\w*")
FORMAT = re.compile(r"%\((\w+)\)|\{(\w+)[!:}]|\$\{?(\w+)")


def tells(file: SourceFile) -> list[Tell]:
    """Everything of this kind in a file; worked out once."""
    if "tells" not in file.memo:
        file.memo["tells"] = teller_of(file).found()
    return list(file.memo["tells"])


def copies(file: SourceFile) -> list[tuple[str, int]]:
    """(what it does to functions that something holds, where) of calls that copy whatever they are given, or hold
    nothing alive."""
    if "copies" not in file.memo:
        facts = apis()["asks"]
        does = {
            **dict.fromkeys(facts["copying"], "copies whatever an object holds"),
            **dict.fromkeys(facts["weak"], "does not keep alive what it is given"),
        }
        found = []
        if any(word.partition(".")[0].encode() in file.text for word in does):
            teller = teller_of(file)
            found = [
                (f"'{name}' {does[name]}", call.start)
                for call in file.calls
                if (name := teller.full(call.callee)) in does
            ]
        file.memo["copies"] = found
    return list(file.memo["copies"])


TEXTS = re.compile(r"""["'](?:\w+\.)*(\w+)[.:]([^\W\d]\w*)["']""")
IMPORTERS = frozenset(
    ["importlib.import_module", "importlib.__import__", "__import__", "runpy.run_module", "importlib.util.find_spec"]
)
IMPORTING = frozenset(name.rpartition(".")[2].encode() for name in IMPORTERS)


def text_imports(file: SourceFile) -> list[tuple[str, str, str, int]]:
    """(local name, module, name in it, offset) of modules, and of names in them, that a text says.

    ``importlib.import_module("state")`` binds what it is assigned to, or everything ("*") where that is not told; so
    does a text that is no more than the module's name in a file that imports by text. ``"state.lives"`` and
    ``"state:lives"`` name one thing in it.
    """
    found = []
    teller = teller_of(file)
    loads = (
        [(c, name) for c in file.calls if (name := teller.full(c.callee)) in IMPORTERS]
        if any(w in file.text for w in IMPORTING)
        else []
    )
    bound = {
        s.value: s.target.name
        for s in file.statements
        if s.kind == "assign" and s.value is not None and s.target is not None
    }
    whole = file.slice(0, len(file.text))
    texts = [(m.start(), m[1]) for m in re.finditer(r"""["']([\w.]+)["']""", whole)] if loads else []
    for call, _ in loads:
        given = file.slice(call.args_start, call.args_end).strip()
        if (match := re.fullmatch(r"""["']([\w.]+)["'],?""", given)) is not None:
            local = bound.get((call.start, call.end), "")
            found.append((local, match[1], "" if local else "*", call.start))
    found += [("", text, "*", at) for at, text in texts if not any(text == m for _, m, _, _ in found)]
    found += [
        ("", match[1], match[2], len(whole[: match.start()].encode(file.encoding, "replace")))
        for match in TEXTS.finditer(whole)
    ]
    return found


def teller_of(file: SourceFile) -> Teller:
    if "teller" not in file.memo:
        file.memo["teller"] = Teller(file)
    found: Teller = file.memo["teller"]
    return found


class Teller:
    """Goes through a file and notes what names a function by its text."""

    def __init__(self, file: SourceFile) -> None:
        self.file = file
        self.origins: dict[str, str] = {}
        for s in file.imports:
            for local, module, name in imported(file, s):
                self.origins[local] = f"{module}.{name}" if name else module if "." not in module else local

    def found(self) -> list[Tell]:
        return [
            *self.values(),
            *self.examples(),
            *self.run_texts(),
            *self.annotations(),
            *self.stack(),
            *self.formats(),
        ]

    def full(self, ref: Reference) -> str:
        """What a use of an imported name is called in full; else as it is written."""
        origin = (
            self.origins.get(ref.name, ref.name) if ref.symbol is None or "import" in ref.symbol.kinds else ref.name
        )
        return f"{origin}.{ref.member}" if ref.member else origin

    # -- functions as values ---------------------------------------------------------------------

    def values(self) -> Iterator[Tell]:
        functions = {f.symbol for f in self.file.functions if f.outer is self.file.scope and f.symbol is not None}
        for symbol in sorted(functions, key=lambda s: s.name):
            for ref in symbol.references:
                if (
                    not ref.writes
                    and ref.role != "call"
                    and not ref.member
                    and ref.form != "spelled"
                    and (why := self.looks(ref))
                ):
                    yield Tell(Means.VALUE, ref.start, f"'{symbol.name}' {why}", (symbol.name,))
                    break

    def looks(self, ref: Reference) -> str:
        """What looks at a function that stands for itself; "" if it is only kept to be called."""
        node = self.file.tree.root_node.descendant_for_byte_range(ref.start, ref.end)
        inside, node = node, node.parent
        while node is not None and node.type in HOLDERS:
            inside, node = node, node.parent
        if node is None:
            return ""
        if node.type in ("interpolation", "format_expression") or (
            node.type == "binary_operator" and node.child_by_field_name("operator").text == b"%"
        ):
            return "is written out"
        if node.type == "call":
            return self.asked(node, inside)
        if node.type in ("assignment", "named_expression") and inside.start_byte >= node.named_children[-1].start_byte:
            return self.assigned(ref, node)
        return ""

    def asked(self, node: Any, inside: Any) -> str:
        call = next(
            (
                c
                for c in self.file.calls_within(node.start_byte, node.end_byte)
                if c.start == node.start_byte and c.end == node.end_byte
            ),
            None,
        )
        member = node.child_by_field_name("function").child_by_field_name("attribute")
        name = self.full(call.callee) if call is not None else member.text.decode() if member is not None else ""
        facts = apis()["asks"]
        known = (
            name in facts["functions"]
            or name.split(".")[0] in facts["modules"]
            or (call is not None and name in facts["builtins"] and not self.own(call))
        )
        if known or name.rsplit(".", 1)[-1] in facts["members"]:
            return (
                f"is passed to '{name}', which looks at it as a function"
                if name not in ("print", "format")
                else "is written out"
            )
        return ""

    def own(self, call: Call) -> bool:
        return call.callee.symbol is not None and bool(call.callee.symbol.kinds)

    def assigned(self, ref: Reference, node: Any) -> str:
        """A function that a class has is a method of its objects; one that is a method already would not be."""
        if ref.scope.kind == "class":
            return "is a member of a class, which makes it a method of its objects"
        left = node.child_by_field_name("left")
        if left is None or left.type != "attribute":
            return ""
        base = left.child_by_field_name("object")
        names = [r for r in self.file.within(base.start_byte, base.end_byte) if r.start == base.start_byte]
        symbol = names[0].symbol if names else None
        kinds = symbol.kinds if symbol is not None else set()
        if "class" in kinds or ("import" in kinds and base.type == "attribute") or base.text[:1].isupper():
            return "becomes a member of a class, which makes it a method of its objects"
        return ""

    # -- texts that name things ------------------------------------------------------------------

    def named(self, words: set[str]) -> tuple[str, ...]:
        """Those of some words that the file binds at its top."""
        symbols = self.file.scope.symbols
        return tuple(sorted(w for w in words if w in symbols and symbols[w].kinds & {"variable", "function", "class"}))

    def examples(self) -> Iterator[Tell]:
        if b">>>" not in self.file.text:
            return
        for match in EXAMPLE.finditer(self.file.text):
            words = {w.decode(self.file.encoding, "replace") for w in WORD.findall(match[1])}
            for name in self.named(words):
                yield Tell(Means.TEXT, match.start(1), f"an example in a document string uses '{name}'", (name,))

    def run_texts(self) -> Iterator[Tell]:
        facts = apis()["code"]
        loose = any(o.split(".")[0] in facts["modules"] for o in self.origins.values())
        for call in self.file.calls:
            name = self.full(call.callee)
            by_name = name.rsplit(".", 1)[-1] in facts["names"]
            runs = name in facts["functions"] or (loose and call.callee.member in facts["members"])
            if not (by_name or runs or name in IMPORTERS):
                continue
            args = self.file.slice(call.args_start, call.args_end)
            if by_name:
                words = set(re.findall(r"[\"'](?:\w+\.)?(\w+)[\"']", args))
                for found in self.named(words):
                    yield Tell(Means.TEXT, call.start, f"'{name}' finds '{found}' by that name", (found,))
            elif name in IMPORTERS and not re.fullmatch(r"""["'][\w.]+["'],?""", args.strip()):
                yield Tell(Means.ANY_TEXT, call.start, f"'{name}' can reach any module by its name")
            elif runs:
                yield from self.run_text(call, name, args)

    def run_text(self, call: Call, name: str, args: str) -> Iterator[Tell]:
        try:
            parsed = ast.parse(f"f({args}\n)", mode="eval").body
        except (SyntaxError, ValueError, RecursionError):
            return
        assert isinstance(parsed, ast.Call)
        given = [*parsed.args, *(k.value for k in parsed.keywords if k.arg in ("stmt", "setup", "statement", "cmd"))]
        for value in given[: 2 if "timeit" in name else 1]:
            if isinstance(value, ast.Constant) and isinstance(value.value, str):
                for found in self.named(words_of(value.value)):
                    yield Tell(Means.TEXT, call.start, f"the text that '{name}' runs uses '{found}'", (found,))
            elif not isinstance(value, ast.Name) or not self.function_named(value.id):
                yield Tell(Means.ANY_TEXT, call.start, f"the text that '{name}' runs can use any name of the file")
                return

    def function_named(self, name: str) -> Symbol | None:
        found = self.file.scope.symbols.get(name)
        return found if found is not None and found.kinds == {"function"} else None

    def annotations(self) -> Iterator[Tell]:
        symbol = self.file.scope.symbols.get("__annotations__")
        if symbol is None or symbol.kinds or not symbol.references:
            return
        names = tuple(
            sorted(
                {
                    self.file.slice(s.target.start, s.target.end)
                    for s in self.file.statements
                    if s.annotation is not None and s.target is not None
                }
            )
        )
        if names:
            yield Tell(
                Means.TEXT,
                symbol.references[0].start,
                "'__annotations__' lists the variables that are declared with a type",
                names,
            )

    # -- where code stands -----------------------------------------------------------------------

    def stack(self) -> Iterator[Tell]:
        facts = apis()["stack"]
        words = {w.rpartition(".")[2] for kind in ("functions", "names", "file_functions") for w in facts[kind]}
        words |= {local for local, origin in self.origins.items() if origin.rpartition(".")[2] in words}
        for ref in [r for r in self.file.references if (r.member or r.name) in words]:
            name = self.full(ref)
            if not ref.writes and name in facts["functions"]:
                yield Tell(Means.STACK, ref.start, f"'{name}' tells which functions are running")
            elif name in facts["names"] and ref.symbol is not None and not ref.symbol.kinds:
                yield Tell(Means.STACK, ref.start, f"'{name}' depends on how many functions are running")
            elif not ref.writes and name in facts["file_functions"]:
                yield Tell(Means.FILE, ref.start, f"'{name}' tells in which file the code stands")

    def formats(self) -> Iterator[Tell]:
        """What a log writes of each call: the function and the file that it stands in."""
        if not any(o.split(".")[0] in ("logging", "loguru") for o in self.origins.values()):
            return
        facts = apis()["stack"]
        whole = self.file.slice(0, len(self.file.text))
        for match in FORMAT.finditer(whole):
            word = next(g for g in match.groups() if g)
            at = len(whole[: match.start()].encode(self.file.encoding, "replace"))
            if word in facts["formats"]:
                yield Tell(Means.STACK, at, f"the log says '{word}' of each call")
            elif word in facts["file_formats"]:
                for ref in self.file.references:
                    if ref.member in facts["log"] and ref.role in ("call", "read"):
                        yield Tell(
                            Means.FILE, ref.start, f"the log says '{word}', so that in which file the code stands shows"
                        )


def words_of(text: str) -> set[str]:
    """The names that a text of Python uses."""
    try:
        nodes = list(ast.walk(ast.parse(text.strip())))
    except (SyntaxError, ValueError, RecursionError):
        return set(re.findall(r"[^\W\d]\w*", text))
    found = {n.id for n in nodes if isinstance(n, ast.Name)}
    return (
        found
        | {a.name for n in nodes if isinstance(n, ast.ImportFrom | ast.Import) for a in n.names}
        | {n.attr for n in nodes if isinstance(n, ast.Attribute)}
    )


def served(file: SourceFile) -> list[tuple[int, tuple[str, ...], str]]:
    """(offset, names, how) of objects and functions that a server imports by convention."""
    facts, teller = apis()["served"], teller_of(file)
    found: list[tuple[int, tuple[str, ...], str]] = []
    near = any(o.split(".")[0] in facts["modules"] for o in teller.origins.values())
    calls = {(c.start, c.end): c for c in file.calls}
    for s in file.statements:
        if s.kind != "assign" or s.target is None or s.value is None:
            continue
        name, call = s.target.name, calls.get(s.value)
        maker = teller.full(call.callee) if call is not None else ""
        if (
            maker in facts["makers"]
            or (near and maker.rsplit(".", 1)[-1] in facts["makers"])
            or (near and name in facts["names"])
        ):
            found.append((s.start, (name,), f"a server imports '{name}' by that name"))
    for f in file.tops:
        shape = [p.name for p in f.params]
        if (near and f.name in facts["names"]) or shape in (
            ["environ", "start_response"],
            ["scope", "receive", "send"],
        ):
            found.append((f.start, (f.name,), f"a server imports '{f.name}' by that name"))
    return found


def run_by_others(file: SourceFile) -> list[tuple[int, tuple[str, ...], str]]:
    """(offset, names, how) of what a runner may call or read by its name, where it gives the file names that nothing
    binds.

    These are the functions that nothing here uses, and the constants. A runner shows where such a name is used while
    the file is read, or in most of these functions; in a few of them it is an import that somebody forgot.
    """
    symbols = file.scope.symbols
    if file.scope.stars or file.problems or b"NameError" in file.text:
        return []
    known = BUILTINS | set(apis()["given"]["former"])
    uses = [
        r for n, s in symbols.items() if not s.kinds and n not in known and not n.startswith("__") for r in s.references
    ]
    hooks = [f for f in file.tops if f.symbol is not None and all(r.writes for r in f.symbol.references)]
    at_once = [r for r in uses if not any(f.start <= r.start < f.end for f in file.functions)]
    in_hooks = [next((r for r in uses if f.start <= r.start < f.end), None) for f in hooks]
    shown = [*at_once, *(r for r in in_hooks if r is not None)]
    if not shown or (not at_once and 2 * len(shown) < len(hooks)):
        return []
    where = f"'{shown[0].name}' (line {file.shown(shown[0].start)}) is given by what runs the file, which may"
    found: list[tuple[int, tuple[str, ...], str]] = [
        (f.start, (f.name,), f"{where} call '{f.name}' by its name too") for f in hooks
    ]
    for s in symbols.values() if hooks else ():
        if s.kinds == {"variable"} and s.name.isupper() and len(s.bindings) == 1 and s.bindings[0].scope is file.scope:
            found.append((s.bindings[0].start, (s.name,), f"{where} read '{s.name}' by its name too"))
    return found
