"""What a reviewer would say against a proposal, as terms: each counts what it says, and the sum tells a good proposal from a poor one."""

import pytest

from aedifex.core.design.origin import as_origins
from aedifex.core.design.tables import ClassDesign, Design, FieldDesign, MethodDesign, ObjectDesign, StayDesign
from aedifex.core.planning.alternatives import rivals
from aedifex.core.planning.drafter import draft
from aedifex.core.planning.objective import cost, objective, worth_it
from aedifex.core.program.program import read_program

LINE = """\
fare = 0
lamp = 0


def pay():
    global fare
    fare += 2
    fare -= 1


def glow():
    global lamp
    lamp += 1
    print(lamp)


pay()
glow()
print(fare)
"""


@pytest.fixture
def program(tmp_path):
    (tmp_path / "line.py").write_text(LINE)
    return read_program(str(tmp_path), ["line.py"])


def field(name, *origins):
    return FieldDesign(name, as_origins(*(origins or (name,))))


TERMS = {
    "fields beyond": [ClassDesign("All", fields=[field(f"{c}x", "") for c in "abcdefghij"])],
    "names that end in a number": [ClassDesign("Till", fields=[field("fare")], methods=[MethodDesign("pay2", as_origins("pay"))])],
    "named after no thing": [ClassDesign("Going", fields=[field("fare"), field("lamp")])],
    "handed over": [ClassDesign("Till", methods=[MethodDesign("pay", as_origins("pay"), add=[{"name": "n", "value": "n"}])])],
    "one expression": [ClassDesign("Till", methods=[MethodDesign("high", lines=["line.py:5:4-5:9"])])],
    "same for all": [ClassDesign("Tram", objects=[ObjectDesign("a", ["1"]), ObjectDesign("b", ["1"])])],
    "one member": [ClassDesign("Till", fields=[field("fare")])],
    "by a number": [ClassDesign("Till", fields=[field("fare1", "fare"), field("fare2", "lamp")])],
    "around the main code": [ClassDesign("App", "app", fields=[field("fare"), field("lamp")])],
    "without a common field": [
        ClassDesign(
            "Mix", fields=[field("fare"), field("lamp")], methods=[MethodDesign("pay", as_origins("pay")), MethodDesign("glow", as_origins("glow"))]
        )
    ],
    "outside of classes": [],
}  # fmt: skip


@pytest.mark.parametrize("says", TERMS)
def test_each_term_counts_what_it_says(program, says):
    found = [t.says for t in objective(program, Design("python", ["line.py"], {}, classes=TERMS[says]))]
    assert any(says in t for t in found), found


def test_what_found_no_class_costs_more_than_what_did(program):
    nothing = Design("python", ["line.py"], {}, stays=[StayDesign("fare", "it stays"), StayDesign("lamp", "it stays")])
    design = draft(program)
    assert cost(objective(program, design)) < cost(objective(program, nothing))
    assert worth_it(program, design) and not worth_it(program, nothing)


def test_a_draft_that_costs_more_than_it_brings_writes_nothing(folder):
    lines = ["def side(n):", "    print(n)", "", "", *(f"side({n})" for n in range(30)), ""]
    folder.write("star.py", "\n".join(lines))
    done = folder.aedifex("draft", "star.py")
    assert done.returncode == 0 and "cost more than they bring" in done.stdout
    assert not list(folder.path.glob("*.toml"))
    assert folder.aedifex("draft", "star.py", "--anyway").returncode == 0 and list(folder.path.glob("*.design.toml"))


def test_rivals_are_told_apart_by_their_terms(tramline):
    done = tramline.aedifex("draft", "--again", "tramline.py", "--rivals", "2")
    assert "together" in done.stdout and "what it costs" in done.stdout
    program = read_program(str(tramline.path), ["tramline.py"])
    first, second = rivals(program, [], 2)
    assert cost(objective(program, first.design)) < cost(objective(program, second.design))
