"""docs/adding-a-language.md: one folder and an entry point, and every command works on its programs."""

import re
import subprocess
from importlib.metadata import EntryPoint
from pathlib import Path

import pytest
from conftest import needs

from aedifex.cli.main import cli
from aedifex.core.program import language
from aedifex.core.program.surroundings import digest

HERE = Path(__file__).parents[1]
PAGE = (HERE.parent / "docs" / "adding-a-language.md").read_text()
DESK = """#include <stdio.h>

int till_cash = 20;     // what it opens with
int till_sold = 0, till_lost = 2;

void sell(int count, int price) {
    till_cash += count * price;
    till_sold++;
}

int main(void) {
    for (int till = 0; till < 3; till++) {
        sell(till, 2);
    }
    printf("%d %d %d\\n", till_cash, till_sold, till_lost);
    return 0;
}
"""
DESIGN = """format = 1
language = "toy"
entries = ["desk.c"]
sources = {{ "desk.c" = "{digest}" }}

[[class]]
name = "Till"
{fields}
[[class.object]]
name = "desk_till"
"""
FIELD = '\n[[class.field]]\nname = "{0}"\nfrom = ["till_{0}"]\nstart = "argument"\n'


@pytest.fixture
def toy(monkeypatch):
    """The language, installed."""
    real = language.entry_points
    point = EntryPoint("c", "toy:LANGUAGE", "aedifex.languages")
    monkeypatch.setattr(language, "entry_points", lambda group: [*real(group=group), point])
    language.readers.cache_clear()
    yield
    language.readers.cache_clear()


def aedifex(*words: str) -> None:
    """The command in this process, which knows the language."""
    try:
        cli.main([*words], standalone_mode=False)
    except SystemExit as end:
        assert not end.code


def ran(folder) -> str:
    needs("gcc")
    subprocess.run(["gcc", "-o", folder.path / "desk", folder.path / "desk.c"], check=True)
    return subprocess.run([folder.path / "desk"], capture_output=True, text=True, check=True).stdout


def test_the_page_shows_what_stands_in_the_toy():
    source = (HERE / "toy" / "__init__.py").read_text()
    shown = re.findall(r"```python\n(.*?)```", PAGE, re.S)
    assert len(shown) == 4 and all(code.rstrip() in source for code in shown)


def test_globals_become_a_structure(toy, folder, capsys):
    source = str(folder.write("desk.c", DESK))
    fields = "".join(map(FIELD.format, ("cash", "sold", "lost")))
    design = str(folder.write("desk.design.toml", DESIGN.format(digest=digest(DESK.encode()), fields=fields)))
    before = ran(folder)
    aedifex("survey", source)
    assert re.search(r"till_cash.*sell", capsys.readouterr().out, re.S)
    aedifex("build", "--unchecked", "-q", design)
    text = folder.read("desk.c")
    assert "typedef struct {\n    int cash;\n    int sold;\n    int lost;\n} Till;\n" in text
    assert "Till desk_till = {20, 0, 2};" in text and "desk_till.cash += count * price;" in text
    assert ran(folder) == before
    aedifex("step", "rename", "sell", "hand_out", source, "--yes", "--unchecked", "-q")
    assert "hand_out(till, 2);" in folder.read("desk.c") and ran(folder) == before
    aedifex("undo", "-q", "--all", design)
    assert folder.read("desk.c") == DESK
