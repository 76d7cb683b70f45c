"""Reading: roles of references, forms of bindings, encodings, and text that is not quite Python."""

import pytest

from aedifex.core.languages.python.reading.read import read
from aedifex.core.program.errors import AedifexError


def roles(source: str, name: str) -> list[str]:
    file = read("x.py", source.encode())
    return [
        r.role.value + (f":{r.form}" if r.form else "") + ("!" if r.mutates else "")
        for r in file.within(0, len(source))
        if r.name == name
    ]


@pytest.mark.parametrize(
    ("source", "expected"),
    [
        ("x = 1", ["write"]),
        ("x += 1", ["both"]),
        ("print(x, k=x, *x)", ["value", "value", "value"]),
        ("x(1)", ["call"]),
        ("x.run(1)", ["read"]),
        ("x.append(1)", ["read!"]),
        ("x[0] = x.y.z", ["read!", "read"]),
        ("x.a.b[1] += 2", ["read!"]),
        ("del x, (x)", ["delete", "delete"]),
        ("(x, *y), z = w", ["write:unpack"]),
        ("x = y = []", ["write:chain"]),
        ("for x, _ in x: pass", ["write:loop", "read"]),
        ("with a as x, b as (x, c): pass", ["write:with", "write:with"]),
        ("try: pass\nexcept E as x: pass", ["write:except"]),
        ("if (x := 1): x", ["write:walrus", "read"]),
        ("match v:\n case x: pass\n case P(a=x): pass\n case x.y: pass", ["write:pattern", "write:pattern", "read"]),
        ("import x.y, z as x\nfrom m import q as x", ["write:import", "write:import", "write:import"]),
        ("def x(): pass\nclass x: pass", ["write:definition", "write:definition"]),
        ("f'{x} {x=} {x:{x}}'", ["read", "read:spelled", "read", "read"]),
        ("x: int", ["read:annotation"]),
        ("x: int = 2", ["write"]),
        ("y = x if x else [x]", ["value", "value", "value"]),
        ("x is None or {x: 1}[x]", ["read:compared", "value:key", "read:key"]),
        ("[x for x in x if x]", ["value", "write:loop", "read", "read"]),
        ("lambda x=x: x", ["value", "write:parameter", "value"]),
        ("type(x).y = x", ["read", "value"]),
        ("print >>x, x", ["read", "read"]),
        ("@x\ndef f(a: x) -> x: pass", ["value", "read", "read"]),
    ],
)
def test_roles(source, expected):
    assert sorted(roles(source, "x")) == sorted(expected)


def test_symbols_cross_scopes():
    source = """
total = 0
class Box:
    total = total
    def put(self):
        global total
        total += 1
        def inner():
            return total
        return [total for _ in range(2)], inner
def shadow(total):
    return total
def __hidden(): pass
class Tram:
    def go(self):
        return __hidden
"""
    file = read("x.py", source.encode())
    symbol = file.scope.symbols["total"]
    lines = [file.line(r.start) for r in symbol.references]
    assert lines == [2, 7, 9, 10]
    assert [file.line(d.start) for d in symbol.declarations] == [6]
    hidden = file.scope.symbols["__hidden"]
    assert [file.line(r.start) for r in hidden.references] == [13], "a class changes the name"
    assert "_Tram__hidden" in file.scope.symbols


def test_functions_have_their_parts():
    source = "@d\nasync def f(a, /, b: int = 1, *args, c, d=2, **kw) -> int:\n    'doc'\n    yield a\n"
    f = read("x.py", source.encode()).functions[0]
    assert [(p.name, p.kind, p.default is not None) for p in f.params] == [
        ("a", "positional", False), ("b", "plain", True), ("args", "star", False), ("c", "keyword", False), ("d", "keyword", True),
        ("kw", "doublestar", False),
    ]  # fmt: skip
    assert (f.is_async, f.decorators, f.scope.generator, source[slice(*f.docstring)]) == (True, 1, True, "'doc'")


@pytest.mark.parametrize(
    ("text", "message"),
    [
        (b"x = '\xff'", r"x\.py:1: is not utf-8 text"),
        (b"# coding: nonsense\n", r"x\.py:1: declares the unknown encoding 'nonsense'"),
        (b"# coding: utf-16\n", r"x\.py:1: .*utf-16"),
        (b"# coding: ascii\n\nx = '\xc3\xa9'", r"x\.py:3: is not ascii text; correct the declaration"),
        (b"x = 1\n\0", r"x\.py:2: holds a null byte"),
        (b"x = " + b"-" * 200_000 + b"1", r"x\.py: is nested too deeply"),
    ],
)
def test_unreadable(text, message):
    with pytest.raises(AedifexError, match=message):
        read("x.py", text)


def test_declared_encodings_and_marks():
    file = read("x.py", "# -*- coding: latin-1 -*-\nname = 'é'\nprint(name)\n".encode("latin-1"))
    assert [file.slice(r.start, r.end) for r in file.within(0, 99)] == ["name", "print", "name"]
    assert read("x.py", "\ufeffä = 1\r\n".encode()).scope.symbols["ä"].kinds == {"variable"}


def test_broken_syntax_is_read_as_far_as_it_goes():
    file = read("x.py", b"a = 1\ndef f(:\n  b = = 2\n\nc = a\n")
    assert file.problems and file.problems[0].line <= 3
    assert "a" in file.scope.symbols
