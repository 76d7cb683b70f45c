"""The design file as its dataclasses say it: the schema in the package, what is drafted, what may not be written."""

import json
import tomllib
from pathlib import Path

import pytest
from jsonschema import Draft7Validator

import aedifex
from aedifex.core.design import schema
from aedifex.core.design.tables import ROLES, STARTS
from aedifex.core.design.toml import SCHEMA, parse, to_toml

SHIPPED = json.loads((Path(aedifex.__file__).parent / "core" / "design" / SCHEMA).read_text())
HEAD = 'format = 1\nlanguage = "python"\nentries = ["line.py"]\nsources = { "line.py" = "sha256:0" }\n'


def test_the_schema_in_the_package_is_that_of_the_tables():
    """``python -c "..."`` as in CONTRIBUTING.md writes it anew."""
    assert schema.json_schema() == SHIPPED
    Draft7Validator.check_schema(SHIPPED)


def test_drafts_keep_to_it_and_name_it(drafted_tramline):
    text = (drafted_tramline / "tramline.design.toml").read_text()
    assert not list(Draft7Validator(SHIPPED).iter_errors(tomllib.loads(text)))
    named = text.splitlines()[0].removeprefix("#:schema ")
    assert json.loads((drafted_tramline / named).read_text()) == SHIPPED
    assert f"# {' | '.join(ROLES)}" in text and f"# {' | '.join(STARTS)}" in text
    assert to_toml(parse("design", text)[0]) == text


@pytest.mark.parametrize(
    ("more", "line"),
    [
        ('[[class]]\nname = "Tram"\nrole = "king"\n', 7),
        ('[[class]]\nname = "Tram"\n[[class.field]]\nname = "x"\nfrom = ["x"]\nstart = "soon"\n', 10),
        ('[[class]]\nname = "Tram"\n[[class.method]]\nname = "x"\nadd = [{ name = "n" }]\n', 9),
        ('[[class]]\nnam = "Tram"\n', 6),
        ('[[part]]\nname = "Log"\nof = "Tram"\nobject = "log"\n[[part.method]]\nname = "x"\n', 9),
        (
            '[[part]]\nname = "Log"\nof = "Tram"\nobject = "log"\n[[part.field]]\nname = "x"\nfrom = ["x"]\nstart = "fixed"\n',
            12,
        ),
        ('[[rename]]\nfrom = ["a"]\nto = "b"\n', 6),
        ("[[wish]]\ntogether = [1]\n", 6),
    ],
)
def test_what_may_not_be_written_is_told_with_its_line_and_editors_mark_it(more, line):
    _, _, problems = parse("line.design.toml", HEAD + more)
    assert line in [p.line for p in problems]
    assert list(Draft7Validator(SHIPPED).iter_errors(tomllib.loads(HEAD + more)))
