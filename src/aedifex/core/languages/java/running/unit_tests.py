"""Text of JUnit files from calls that were seen (see ``pinned/aedifex/Calls.java`` for what is known of a call)."""

from __future__ import annotations

import glob
import os
import re
import subprocess
import tempfile
from typing import Any
from xml.etree import ElementTree

from ....program.model import SourceFile
from ....program.scratch import prefix_of
from ....program.seen_calls import MARK, ways
from ....program.seen_calls import beside as beside
from ....program.seen_calls import read_call as read_call
from ....program.seen_calls import written as written
from ...braced.text import inserted
from ..reading.read import module_text

LIBRARY = "junit-platform-console-standalone"
PLACES = (
    "lib/{0}*.jar",
    "libs/{0}*.jar",
    "~/.m2/repository/org/junit/platform/{0}/*/{0}*.jar",
    "/usr/share/java/{0}*.jar",
)
HELPERS = {
    "printed(": """
    /** What a call prints. */
    private static String printed(Executable call) throws Throwable {
        PrintStream out = System.out;
        ByteArrayOutputStream heard = new ByteArrayOutputStream();
        System.setOut(new PrintStream(heard, true, "UTF-8"));
        try {
            call.execute();
        } finally {
            System.setOut(out);
        }
        return heard.toString("UTF-8");
    }
""",
    "field(": """
    /** What a private field holds, also one of an object that it holds. */
    private static Object field(Object owner, String path) throws ReflectiveOperationException {
        Object found = owner;
        for (String name : path.split("\\\\.")) {
            Field field = found.getClass().getDeclaredField(name);
            field.setAccessible(true);
            found = field.get(found);
        }
        return found;
    }
""",
    "set(": """
    private static void set(Object owner, String path, Object value) throws ReflectiveOperationException {
        int last = path.lastIndexOf('.');
        Object holder = last < 0 ? owner : field(owner, path.substring(0, last));
        Field field = holder.getClass().getDeclaredField(path.substring(last + 1));
        field.setAccessible(true);
        field.set(holder, value);
    }
""",
}
IMPORTS = {
    "new ArrayList<": "java.util.ArrayList",
    "new LinkedList<": "java.util.LinkedList",
    "new HashSet<": "java.util.HashSet",
    "new TreeSet<": "java.util.TreeSet",
    "new HashMap<": "java.util.HashMap",
    "new TreeMap<": "java.util.TreeMap",
    "List.of(": "java.util.List",
    "Set.of(": "java.util.Set",
    "Map.of(": "java.util.Map",
    "Field field": "java.lang.reflect.Field",
    "PrintStream out": "java.io.PrintStream",
    "ByteArrayOutputStream ": "java.io.ByteArrayOutputStream",
    "Executable call": "org.junit.jupiter.api.function.Executable",
    "@Test": "org.junit.jupiter.api.Test",
}


def file_name(home: SourceFile, name: str, several: bool) -> str:
    """The file of the tests of a class; ``several``: whether others stand in its file."""
    return f"{name}Test.java"


def title(method: str, number: int) -> str:
    """The name of a test."""
    return f"{method}_{number}"


def bound(file: SourceFile, name: str) -> str:
    """Why a test cannot make objects of a class by themselves; "" if it can."""
    if file.path.endswith(".pde"):
        return "is a sketch, whose classes have no life outside it"
    node = class_node(file, name)
    if node is None:
        return "has it inside another class"
    return (
        "leaves it abstract"
        if re.search(rb"\babstract\b", file.text[node.start_byte : body_of(node).start_byte])
        else ""
    )


def class_node(file: SourceFile, name: str) -> Any:
    """The declaration of a class at the top of a file, None if there is none."""
    for node in file.tree.root_node.named_children:
        if node.type == "class_declaration" and node.child_by_field_name("name").text == name.encode():
            return node
    return None


def body_of(node: Any) -> Any:
    return node.child_by_field_name("body")


# -- watching -------------------------------------------------------------------------------------


def spied(file: SourceFile, names: list[str]) -> bytes:
    """The text of a file whose classes tell of their objects and calls, line for line."""
    words: list[tuple[int, str]] = []
    for name in names:
        node = class_node(file, name)
        if node is None or any(c.type == "superclass" for c in node.children):
            continue
        makers = [m for m in body_of(node).named_children if m.type == "constructor_declaration"]
        for maker in makers:
            given = ", ".join(parameters(maker))
            words.append((body_of(maker).end_byte - 1, f" aedifex.Calls.born(this, new Object[] {{{given}}}); "))
        if not makers:
            words.append((body_of(node).end_byte - 1, " { aedifex.Calls.born(this, new Object[0]); } "))
        for method in body_of(node).named_children:
            if method.type == "method_declaration" and plain(method):
                words += watched(method, file.text)
    return inserted(file.text, words)


def plain(method: Any) -> bool:
    """Whether calls of a method are watched: it has an object, a body, and no types of its own."""
    words = {w.type for m in method.children if m.type == "modifiers" for w in m.children}
    return (
        not words & {"static", "abstract", "native"}
        and body_of(method) is not None
        and not method.child_by_field_name("type_parameters")
    )


def parameters(method: Any) -> list[str]:
    found = []
    for part in method.child_by_field_name("parameters").named_children:
        declared = next((c for c in part.named_children if c.type == "variable_declarator"), part)
        if declared.child_by_field_name("name") is not None:
            found.append(declared.child_by_field_name("name").text.decode())
    return found


def watched(method: Any, text: bytes) -> list[tuple[int, str]]:
    """A method under another name, and one under its own that calls it and tells what came of it."""
    kind, name = method.child_by_field_name("type"), method.child_by_field_name("name")
    head = text[kind.start_byte : body_of(method).start_byte].decode("utf-8", "replace").rstrip()
    given = ", ".join(parameters(method))
    call = f"seen${name.text.decode()}({given})"
    gives = text[kind.start_byte : kind.end_byte].decode()
    if kind.type == "void_type":
        inner = f"{call}; aedifex.Calls.left(c$);"
    else:
        dimensions = method.child_by_field_name("dimensions")
        gives += dimensions.text.decode() if dimensions is not None else ""
        inner = f"{gives} r$ = {call}; aedifex.Calls.left(c$, r$); return r$;"
    enter = f'aedifex.Calls c$ = aedifex.Calls.enter("{name.text.decode()}", this, new Object[] {{{given}}});'
    wrapper = (
        f"{one_line(head)} {{ {enter} try {{ {inner} }} catch (Throwable t$) {{ aedifex.Calls.threw(c$, t$); throw "
        f"t$; }} }} private "
    )
    return [
        (kind.start_byte, wrapper),
        (name.start_byte, "seen$"),
        *ways([body_of(method)], "block", ("class_body", "lambda_expression"), "aedifex.Calls.at"),
    ]


def one_line(text: str) -> str:
    return " ".join(re.sub(r"//[^\n]*", "", text).split())


# -- writing --------------------------------------------------------------------------------------


def test_file(name: str, homes: dict[str, SourceFile], up: str, tests: list[tuple[str, dict[str, Any]]]) -> str:
    """The file for a class: (name of the test, call) in order. ``homes``: file of each class that a test may make."""
    text = "\n".join(body(each, call) for each, call in tests)
    wanted = [word for word in HELPERS if re.search(r"(?<![\w.])" + re.escape(word), text)]
    if "set(" in wanted and "field(" not in wanted:
        wanted.insert(wanted.index("set("), "field(")  # which it calls
    text += "".join(HELPERS[word] for word in wanted)
    asked = sorted(set(re.findall(r"(?<![\w.])(assert\w+)\(", text)))
    package = module_text(homes[name].text)
    others = {
        f"{module_text(f.text)}.{c}" for c, f in homes.items() if module_text(f.text) != package and f"new {c}(" in text
    }
    imports = sorted({full for word, full in IMPORTS.items() if word in text} | others)
    own = [i for i in imports if not i.startswith("java.")]
    blocks = [
        [f"package {package};"] if package else [],
        [f"import static org.junit.jupiter.api.Assertions.{a};" for a in asked],
        [f"import {i};" for i in imports if i.startswith("java.")],
        [f"import {i};" for i in own],
        [f"/** {name} as it behaved; {MARK}, yours to keep and edit. */", f"class {name}Test {{"],
    ]
    return "\n\n".join("\n".join(b) for b in blocks if b) + f"\n{text}}}\n"


def body(name: str, call: dict[str, Any]) -> str:
    rows = list(call["setup"])
    told = any(
        row.startswith("ByteArrayOutputStream told") for row in rows
    )  # what it prints goes to a stream of the test's
    if told:
        rows.append(called(call))
    elif call["printed"]:
        rows += [
            "String said = printed(() -> {",
            f"    {called(call)}",
            "});",
            f"assertEquals({written(call['printed'])}, said);",
        ]
    else:
        rows.append(called(call))
    changed = [k for k in call["after"] if k in call["changed"]]
    rows += [
        same(reached(call, k), call["after"][k]) for k in [*changed, *(k for k in call["after"] if k not in changed)]
    ]
    rows += [same(name, text) for name, text in call["things"].items() if text is not None]
    if told and call["printed"]:
        rows.append(f'assertEquals({written(call["printed"])}, told.toString("UTF-8"));')
    trouble = "Throwable" if call["printed"] and not told else "Exception"
    throws = f" throws {trouble}" if told or call["printed"] or any("set(" in r or "field(" in r for r in rows) else ""
    return f"    @Test\n    void {name}(){throws} {{\n" + "".join(f"        {row}\n" for row in rows) + "    }\n"


def reached(call: dict[str, Any], path: str) -> str:
    return f'field({call["target"]}, "{path}")' if path in call["hidden"] else f"{call['target']}.{path}"


def called(call: dict[str, Any]) -> str:
    if call["raised"] is not None:
        thrown = f"assertThrows({call['raised'].removeprefix('java.lang.')}.class, () -> {call['call']})"
        return (
            same(f"{thrown}.getMessage()", call["message"]) if call["message"] not in (None, "null") else f"{thrown};"
        )
    return f"{call['call']};" if call["result"] is None else same(call["call"], call["result"])


def same(found: str, text: str) -> str:
    if text == "null":
        return f"assertNull({found});"
    if text in ("true", "false") and not found.startswith("field("):
        return f"assert{text.title()}({found});"
    array = re.match(r"new ([\w.]+(?:\[\])+) \{", text)
    if array is not None:
        return f"assertArrayEquals({text}, {f'({array[1]}) ' if found.startswith('field(') else ''}{found});"
    return f"assertEquals({text}, {found});"


# -- running --------------------------------------------------------------------------------------


def library(root: str) -> str:
    """The archive with which JUnit's tests are compiled and run, "" if there is none."""
    for place in PLACES:
        found = sorted(glob.glob(os.path.join(root, os.path.expanduser(place.format(LIBRARY)))))
        if found:
            return found[-1]
    return ""


def run(
    place: str, folder: str, names: list[str], sources: list[str], interpreter: str
) -> tuple[set[tuple[str, str]], str]:
    """Run the files of tests in a folder: (file, name) of those that fail, and why they could not be run."""
    jar = library(place)
    if not jar:
        return set(), f"{LIBRARY}.jar is nowhere to be found; install JUnit 5, or put it into lib"
    failing: set[tuple[str, str]] = set()
    with tempfile.TemporaryDirectory(prefix=prefix_of("tests")) as made:
        compiler = ["javac", "-nowarn", "-proc:none", "-encoding", "UTF-8", "-Xmaxerrs", "1000", "-cp", jar, "-d", made]
        while True:
            files = [*(os.path.join(place, s) for s in sources), *(os.path.join(folder, n) for n in names)]
            done = subprocess.run([*compiler, *files], capture_output=True, text=True, stdin=subprocess.DEVNULL)
            if not done.returncode:
                break
            wrong = blamed(done.stderr, folder)
            if not wrong:
                return set(), f"the compiler refuses them ({next(iter(done.stderr.splitlines()), '')})"
            failing |= wrong
        reports = os.path.join(made, "reports")
        subprocess.run(
            [
                interpreter,
                "-jar",
                jar,
                "--class-path",
                made,
                "--scan-class-path",
                made,
                "--reports-dir",
                reports,
                "--details",
                "none",
            ],
            cwd=place,
            capture_output=True,
            timeout=600,
            stdin=subprocess.DEVNULL,
        )
        for path in glob.glob(os.path.join(reports, "*jupiter*.xml")):
            failing |= failures(path)
    return failing, ""


def blamed(errors: str, folder: str) -> set[tuple[str, str]]:
    """(file, name) of the tests that the compiler refuses; they are taken out of their files, their lines left
    empty."""
    found = set()
    for path in {m[1] for m in re.finditer(r"^(.*?\.java):\d+: error:", errors, re.M)}:
        if not path.startswith(folder):
            return set()
        with open(path, encoding="utf-8") as handle:
            lines = handle.read().split("\n")
        for number in {int(n) for n in re.findall(rf"^{re.escape(path)}:(\d+): error:", errors, re.M)}:
            first = next((n for n in range(number - 1, -1, -1) if re.match(r"    void \w+\(\)", lines[n])), None)
            if first is None:
                continue
            found.add((os.path.basename(path), re.split(r"\W+", lines[first].strip())[1]))
            last = lines.index("    }", first)
            lines[first : last + 1] = ["    void nothing" + str(number) + "() {", *[""] * (last - first - 1), "    }"]
        with open(path, "w", encoding="utf-8") as handle:
            handle.write("\n".join(lines))
    return {(f, n) for f, n in found if not n.startswith("nothing")}


def failures(report: str) -> set[tuple[str, str]]:
    """(file, name) of the tests that failed, by a report in JUnit's own format."""
    found = set()
    for case in ElementTree.parse(report).getroot().iter("testcase"):
        if case.find("failure") is not None or case.find("error") is not None:
            kind = str(case.get("classname")).rsplit(".", 1)[-1]
            found.add((f"{kind}.java", str(case.get("name")).split("(")[0]))
    return found


def command(folder: str) -> str:
    """How a person runs the tests."""
    jar = library(".") or f"{LIBRARY}.jar"
    places = f". {folder}" if folder.startswith("..") else "."
    return (
        f"javac -cp {jar} -d made $(find {places} -name '*.java') && java -jar {jar} --class-path made "
        "--scan-class-path"
    )
