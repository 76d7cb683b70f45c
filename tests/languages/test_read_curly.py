"""Names and positions in the languages with braces: each name means what the language says, each edit lands in its file."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from aedifex.core.languages.java.reading.grammar import masked
from aedifex.core.languages.java.reading.read import read as read_java
from aedifex.core.languages.javascript.reading.read import read as read_js
from aedifex.core.languages.javascript.running.erase import erased
from aedifex.core.program.edits import Edits
from aedifex.core.program.joined import join

# text with ‹marks› at places that must be one variable, and «marks» at places that must be another
JS = [
    "function f() { if (1) { var ‹x› = 1; } return ‹x›; } let «x»; «x»++;",
    "let «x» = 1; { let ‹x› = 2; ‹x›; } for (let x of [«x»]) x; «x»;",
    "const «copy» = function copy() { const ‹copy› = 1; return ‹copy›; }; «copy»();",
    "let «a» = 1; function f({ ‹a›, b = ‹a› }) { return { ‹a› }; } f({ «a» });",
    "let «e» = 0; try { «e»++; } catch (‹e›) { ‹e›; } «e»;",
    "class «T» { T() { return «T»; } } new «T»(); ({ T() {} });",
    "f(‹x›); var ‹x› = 1; function f(«x») { var «x»; return «x»; }",
    "for (let ‹i› = 0; ‹i› < 2; ‹i›++) { let «i» = 5; «i»; }",
    "for (const ‹k› in o) { ‹k›; } let «k» = 1; «k»;",
    "switch (1) { case 0: let ‹s› = 1; case 1: ‹s›; } var «s»; «s»;",
    "let «g» = 1; (function ‹g›() { ‹g›; })(); «g»;",
    "let «n» = 1; const o = { n: 2, m() { return «n»; } }; o.n; «n»;",
    "let [a, { b: ‹c›, ...rest }] = q; a.b; ‹c›; let «b»; «b»;",
    "let «p» = 1; const f = (‹p› = q, x = ‹p›) => ‹p›; «p»;",
    "const f = ‹v› => { { let «v» = 1; «v»; } ‹v›; };",
    "let «t» = 1; t: for (;;) { «t»++; break t; }",
    "class ‹A› { #x = 1; get x() { return this.#x + ‹A›.n; } static n = 2; } let «x»; «x»; ‹A›;",
    "let «d» = 1; const e = class ‹d› { m() { return ‹d›; } }; «d»;",
    "let «u» = `${«u»} ${(‹u› => ‹u›)(1)}`;",
    "async function f() { for await (const ‹x› of y) ‹x›; } let «x»; «x»;",
    "function* g() { const ‹x› = yield 1; ‹x›; } let «x»;",
    "var ‹v› = 1; { var ‹v› = 2; } let «w»; { let w; } «w»;",
    "let «a» = 1; ({ a: ‹b› = «a» } = {}); var ‹b›;",
    "let «x» = 0; new (class { [«x»]() { let ‹x› = 1; return ‹x›; } })();",
    "export default function ‹main›() { ‹main›(); } let «m»; export { «m» };",
    "import ‹d›, { e as «f» } from 'q'; ‹d›(«f»);",
]
JAVA = [
    "class L { static int «x»; static int x() { return «x»; } static void m() { int ‹x› = x(); ‹x›++; L.«x»++; } public static void main(String[] a) {} }",
    "class L { static int «x»; static class I { int ‹x›; void m() { ‹x›++; } void n(int x) { x++; } } static void m() { «x»++; } public static void main(String[] a) {} }",
    "class L { static int «x»; static void m() { for (int ‹x› = 0; ‹x› < 3; ‹x›++) { L.«x» += ‹x›; } «x»++; } public static void main(String[] a) {} }",
    "class L { static int «x»; static void m(int[] q) { for (int ‹x› : q) { ‹x›++; } «x»++; } public static void main(String[] a) {} }",
    "class L { static int «x»; static void m() { java.util.function.IntUnaryOperator f = ‹x› -> ‹x› + 1; f.applyAsInt(«x»); } public static void main(String[] a) {} }",
    "class L { static int «x»; static void m() { try { } catch (RuntimeException ‹x›) { ‹x›.printStackTrace(); } «x»++; } public static void main(String[] a) {} }",
    "class L { static int «x»; static void m() throws Exception { try (java.io.Closeable ‹x› = null) { ‹x›.close(); } «x»++; } public static void main(String[] a) {} }",
    "class L { static int «x»; static class P { int ‹x›; P(int x) { this.x = x; } int m() { return ‹x› + L.«x»; } } public static void main(String[] a) {} }",
    "class L { static int «x»; record R(int ‹x›) { int m() { return ‹x›; } } static int n() { return «x»; } public static void main(String[] a) {} }",
    "class L { static int «x»; enum E { A, B; int ‹x›() { return L.«x»; } } static int m() { return «x»; } public static void main(String[] a) {} }",
    "class L { static int «x»; static void m() { x: for (;;) { «x»++; break x; } } public static void main(String[] a) {} }",
    "class L { static int «x»; static void m() { Object o = new Object() { int ‹x› = 1; int n() { return ‹x›; } }; «x»++; } public static void main(String[] a) {} }",
    "class L { static int «x»; static <T extends Comparable<T>> T m(T ‹x›) { return ‹x›; } static int n() { return «x»; } public static void main(String[] a) {} }",
    "class L { static int «x»; static int m(int d) { return switch (d) { case 1 -> { int ‹x› = 2; yield ‹x›; } default -> «x»; }; } public static void main(String[] a) {} }",
    "class L { static int «x» = 1, ‹y› = «x»; static int m() { return «x» + ‹y›; } public static void main(String[] a) {} }",
    "class L { static int[] «x»; static void m() { «x»[0] += L.«x»[1]; x(1); } static void x(int ‹y›) { ‹y›++; } public static void main(String[] a) {} }",
    'class L { static String «s» = "s"; static void m() { «s» += «s».length() + "s"; for (char ‹s› : L.«s».toCharArray()) ‹s›++; } public static void main(String[] a) {} }',
    "class L { static int «n»; static void m(Object o) { if (o instanceof String ‹n› && ‹n›.isEmpty()) {} Runnable r = () -> «n»++; } public static void main(String[] a) {} }",
]


def groups(text: str) -> tuple[bytes, list[int], list[int]]:
    """The text without marks, and the offsets of the two kinds."""
    plain, first, second = "", [], []
    for c in text:
        if c in "‹«":
            (first if c == "‹" else second).append(len(plain))
        elif c not in "›»":
            plain += c
    return plain.encode(), first, second


@pytest.mark.parametrize(
    ("read", "path", "text"), [*((read_js, "l.js", t) for t in JS), *((read_java, "L.java", t) for t in JAVA)]
)
def test_every_name_means_its_own_variable(read, path, text):
    plain, first, second = groups(text)
    file = read(path, plain)
    assert not file.problems
    symbols = {}
    for ref in file.references:
        start = ref.end - len(ref.name.encode())
        symbols[start] = ref.symbol
    for places in (first, second):
        assert len({id(symbols[at]) for at in places}) <= 1
    if first and second:
        assert symbols[first[0]] is not symbols[second[0]]


def test_what_a_sketch_writes_in_its_own_way_is_masked_in_place():
    text = b'color c = #FF8000; float f = float("1.5") + int(c); // int(x) stays\nString s = "#123456 int(y)";'
    shown = masked(text)
    assert len(shown) == len(text) and b"Float(" in shown and b"Int(c)" in shown
    assert b"// int(x) stays" in shown and b'"#123456 int(y)"' in shown and b"#FF8000" not in shown


def test_types_are_blanked_in_place():
    text = b"let a: Map<string, number> = new Map<string, number>();\nfunction f(this: T, b?: number): a is T { return (<any>b)! as T; }\nimport { type Q, z } from './q';\nz();\n"
    out, trouble = erased(read_js("l.ts", text))
    assert not trouble
    assert out.splitlines()[0].split() == ["let", "a", "=", "new", "Map", "();"]
    assert "this" not in out and "Q" not in out and "./q.js" in out
    assert [len(line) for line in out.splitlines()[:2]] == [len(line) for line in text.decode().splitlines()[:2]]
    assert "an enum" in erased(read_js("l.ts", b"enum A { B }"))[1]


@given(st.lists(st.text("ab;\n", max_size=30), min_size=1, max_size=4), st.data())
def test_edits_of_joined_files_land_in_each_file(texts, data):
    files = {f"t{i}.pde": t.encode() for i, t in enumerate(texts)}
    (file,) = join("/line", files, read_java).values()
    assert {p: file.text[a:b] for p, a, b in file.parts} == files
    edits, wanted = Edits(), dict(files)
    for path, start, end in file.parts:
        if end > start and data.draw(st.booleans()):
            at = data.draw(st.integers(start, end - 1))
            edits.replace(file.path, at, at + 1, "XY")
            held = files[path]
            wanted[path] = held[: at - start] + b"XY" + held[at - start + 1 :]
            assert file.place(at) == (path, held[: at - start].count(b"\n") + 1)
    assert {**files, **edits.apply({file.path: file})} == wanted
