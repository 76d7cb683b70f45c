"""Reasons that only languages with braces have, and one that is told by what is proposed instead."""

import pytest
from conftest import needs
from inprocess import here

from aedifex.core.analysis.ask import ask
from aedifex.core.analysis.report import survey
from aedifex.core.apply.sequence import run
from aedifex.core.languages.java.running import unit_tests as java
from aedifex.core.languages.javascript.running import unit_tests as javascript
from aedifex.core.languages.javascript.running.erase import erased
from aedifex.core.planning.drafter import draft

INNER = "public class Line {\n    static class Car {\n        int x;\n    }\n    public static void main(String[] args) {\n        System.out.println(new Car().x);\n    }\n}\n"
TESTED = [
    ("Line.java", INNER, "Car", "has it inside another class"),
    ("Line.java", INNER, "Line", ""),
    ("Line.java", INNER.replace("public class", "public abstract class"), "Line", "leaves it abstract"),
    (
        "line.pde",
        "class Car {\n  int x;\n}\nvoid setup() {\n}\n",
        "Car",
        "is a sketch, whose classes have no life outside it",
    ),
    (
        "line.ts",
        "export class Car {}\n",
        "Car",
        "has types, and nothing here that turns it into what the engine runs as a test",
    ),
    ("line.mjs", "export class Car {}\nconsole.log(1);\n", "Car", "starts the program when it is imported"),
    ("line.mjs", "class Car {}\n", "Car", "does not offer it to other files"),
    (
        "line.js",
        "class Car {}\ndocument.title = new Car();\n",
        "Car",
        "belongs to a page, which its classes cannot be taken out of",
    ),
    ("line.mjs", "export class Car {}\n", "Car", ""),
]


@pytest.mark.parametrize(("name", "text", "class_", "said"), TESTED, ids=[t[3][:20] or t[0] for t in TESTED])
def test_why_a_class_cannot_be_tested_by_itself(folder, name, text, class_, said):
    (file,) = folder.program(name, text).files.values()
    kit = javascript if name.startswith("line.") and not name.endswith("pde") else java
    assert kit.bound(file, class_) == said


BEYOND = [
    ("enum Zone {\n  A,\n}\n", "line.ts:1: an enum"),
    (
        "class Car {\n  constructor(private x: number) {}\n}\n",
        "line.ts:2: a parameter that is a field needs the language's own compiler",
    ),
    ("const x: number = 1;\n", ""),
]


@pytest.mark.parametrize(("text", "said"), BEYOND, ids=["enum", "parameter", "plain"])
def test_what_more_than_leaving_types_out_would_take(folder, text, said):
    (file,) = folder.program("line.ts", text).files.values()
    assert erased(file)[1].startswith(said) and bool(erased(file)[1]) is bool(said)


def test_what_the_main_code_offers_by_declaring_it(folder):
    program = folder.program("line.mjs", "export let load = 1;\n")
    (file,) = program.files.values()
    assert (
        program.language.write.class_trouble(file, 0, len(file.text), main=True)
        == "the main code offers names to other files"
    )


def test_what_another_language_does_stays_where_it_finds_it(folder):
    needs("javac")
    text = "public class Line {\n    static int load = 1;\n    static int fare = 2;\n    static native void ring();\n    static void add(int n) {\n        load += n;\n        fare += load;\n    }\n    public static void main(String[] args) {\n        add(2);\n        System.out.println(load + fare);\n    }\n}\n"
    assert ("ring", "it is written in another language") in [
        (s.name, s.why) for s in draft(folder.program("Line.java", text)).stays
    ]


PAGE = "{0}\n  let rung = 0;\n  const told = [];\n  function ring(n) {{\n    rung += n;\n    told.push(rung);\n    document.title = told.join();\n  }}\n  ring(2);\n  ring(3);\n  ring(4);\n{1}\n"
READY = [
    ("document.addEventListener('DOMContentLoaded', () => {", "});"),
    ("window.onload = function () {", "};"),
    ("$(function () {", "});"),
    ("$(document).ready(function begin() {", "});"),
]


@pytest.mark.parametrize(("opened", "closed"), READY, ids=["event", "onload", "short", "ready"])
def test_what_runs_once_the_page_is_there_is_shown_and_stays(folder, opened, closed):
    program = folder.program("line.js", PAGE.format(opened, closed))
    (stay,) = draft(program).stays
    assert stay.why.startswith(
        "what it holds stays its own: line 1: it runs only once the page is there; where the script stands at the end of the page"
    )
    assert [v.name for v in survey(program).files[0].variables] == ["rung", "told"]
    assert ask(program, "rung")[0].name == "main.rung"


def test_a_page_s_function_that_is_called_at_once_is_its_main_code(folder):
    """Under its own name, which nobody uses, as well; where it calls itself it stays a function."""
    text = PAGE.format("(function begin() {", "})();")
    design = draft(folder.program("line.js", text))
    (app,) = design.classes
    assert (app.role, [str(o) for f in app.fields for o in f.origins]) == ("app", ["main.rung", "main.told"])
    assert draft(folder.program("line.js", text.replace("ring(4);", "if (rung < 3) begin();"))).classes == []


COPIES = (
    "".join(f"tram{n}_x = {n}\ntram{n}_speed = 2\n" for n in "12")
    + "log_n = 0\nlog_rows = []\n\n\ndef note():\n    global log_n\n    log_n += 1\n    log_rows.append(tram1_x)\n"
)
MOVING = "\n\ndef tram{0}_move():\n    global tram{0}_x, tram{0}_speed\n    tram{0}_x += tram{0}_speed\n    tram{0}_speed += 1\n    note()\n"
TOTAL = "\n\ndef total():\n    global log_n\n    log_n += 1\n    print(log_n, log_rows)\n\n\n{0}tram1_move()\n{0}tram2_move()\n{0}total()\n"


def test_copies_stay_apart_where_another_class_is_handed_one_of_them(folder):
    """``note`` is handed the first tram, and both trams call it: in a method of either, nobody could tell which one that is."""
    text = COPIES + MOVING.format(1) + MOVING.format(2) + TOTAL.format("")
    program = folder.program("line.py", text)
    design = draft(program)
    assert all(len(c.objects) == 1 for c in design.classes) and design.classes
    *_, (_, after) = run(design, program)
    assert here(after.texts, "line.py") == here(program.texts, "line.py")
