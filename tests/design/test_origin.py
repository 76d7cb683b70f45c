"""What the names of a design speak of, and how they follow a rename."""

import pytest
import tomlkit
from hypothesis import given
from hypothesis import strategies as st

from aedifex.core.design.origin import Origin
from aedifex.core.design.schema import columns
from aedifex.core.design.tables import Design
from aedifex.core.design.toml import parse
from aedifex.core.rewrites.renamed_designs import FileRow, Renaming, follow_table

WORD = st.from_regex(r"[a-z_$][a-zA-Z0-9_$]{0,5}", fullmatch=True)
FILE = st.from_regex(r"([a-z]{1,4}/)?[a-z]{1,6}\.(py|js|java)", fullmatch=True)
NAMED = st.builds(
    Origin, WORD, WORD | st.just("") | st.builds("{}.{}".format, WORD, WORD), FILE | st.just(""), WORD | st.just("")
)
PLACED = st.builds(
    lambda file, line, column: Origin(file=file, place=f"{line}:{column}"),
    FILE,
    st.integers(1, 999),
    st.integers(1, 99),
)


@given(NAMED | PLACED)
def test_an_origin_is_what_it_writes(origin):
    assert Origin.parse(str(origin)) == origin


@pytest.mark.parametrize(
    ("old", "given", "found"),
    [
        ("score", "score", "points"),
        ("score", "a.py::score", "a.py::points"),
        ("a.py::score", "b.py::score", "b.py::score"),
        ("score", "score[left]", "points[left]"),
        ("score", "main.score", "main.score"),
        ("main.score", "main.score", "main.points"),
        ("main", "main.score", "points.score"),
        ("score", "score.py:3:9", "score.py:3:9"),
    ],
)
def test_a_name_follows_wherever_it_stands(old, given, found):
    assert str(Renaming(Origin.parse(old), "points", False).origin(Origin.parse(given))) == found


TABLES = """
format = 1
language = "python"
entries = ["line.py"]
sources = {"line.py" = ""}

[[class]]
name = "Tram"
[[class.field]]
name = "x"
from = ["tram_x", "line.py::tram_x"]  # both
value = "tram_x + len('tram_x')"
[[class.method]]
name = "move"
from = ["move"]
drop = ["tram_x", "n"]
add = [{name = "tram_x", value = "tram_x"}, {name = "at", value = "tram_x"}]
[[class.object]]
name = "tram"
args = ["tram_x", "other.tram_x"]

[[part]]
name = "Log"
of = "Depot"
object = "log"
keep = ["tram_x"]
[[part.field]]
name = "rows"
from = ["tram_x"]

[[lift]]
name = "draw"
of = "Depot.tram_x"
lines = ["line.py:3-4"]

[[stay]]
name = "tram_x"

[[wish]]
together = ["tram_x", "move"]
"""


@pytest.mark.parametrize(
    ("old", "count"),  # how often the new name stands in the tables
    [("tram_x", 9), ("move.tram_x", 1), ("Depot.tram_x", 3), ("Depot", 2), ("line.py", 3)],
)
def test_every_table_follows(old, count):
    doc = tomlkit.parse(TABLES)
    follow_table(Renaming(Origin.parse(old), "NEW", old == "line.py"), Design, FileRow(doc))
    text = tomlkit.dumps(doc)
    assert text.count("NEW") == count
    assert text.count("#") == TABLES.count("#") and not parse("", text)[2]


def test_what_a_key_speaks_of_is_known():
    kinds = {"origin", "lines", "file", "parameter", "argument", "owner", "member", "expression"}

    def spoken(table):
        for c in columns(table).values():
            yield from spoken(c.key.of) if c.key.of is not None else [c.key.speaks] * bool(c.key.speaks)

    assert set(spoken(Design)) == kinds
