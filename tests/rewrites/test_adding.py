"""docs/adding-a-rewrite.md is performed as it stands."""

import re
import sys
import types
from pathlib import Path

import pytest
from cases import outputs

from aedifex.core import rewrites
from aedifex.core.apply import by_hand
from aedifex.core.apply.sequence import run
from aedifex.core.design.origin import as_origins
from aedifex.core.design.tables import Design, WishDesign
from aedifex.core.rewrites import pipeline

PAGE = (Path(__file__).parents[2] / "docs" / "adding-a-rewrite.md").read_text()
LINE = "fare = 2\n\n\ndef sell(n):\n    return n * fare\n\n\nprint(sell(3), fare)\n"


@pytest.fixture
def shout():
    """The module that the page writes."""
    text = next(t for t in re.findall(r"```python\n(.*?)```", PAGE, re.S) if "class Shouting" in t)
    module = types.ModuleType(f"{rewrites.__name__}.shout")
    module.__package__ = rewrites.__name__
    sys.modules[module.__name__] = module
    exec(compile(text, "shout.py", "exec"), module.__dict__)
    yield module
    del sys.modules[module.__name__]


def test_a_rewrite_is_one_file_and_one_line(folder, shout, monkeypatch):
    program = folder.program("line.py", LINE)
    rewrite = shout.Shouting()
    monkeypatch.setattr(pipeline.prepare, "__defaults__", ((*pipeline.PREPARE, rewrite),))
    monkeypatch.setattr(by_hand, "REWRITES", (*pipeline.REWRITES, rewrite))
    design = Design("python", ["line.py"], {"line.py": ""}, wishes=[WishDesign(keep=as_origins("fare"))])
    done = [(outcome.step.id, outcome.result, after) for outcome, after in run(design, program)]
    assert done[0][:2] == ("shout:fare", "done")
    text = done[0][2].texts["line.py"].decode()
    assert text == LINE.replace("fare", "FARE")
    assert outputs({"line.py": text}) == outputs({"line.py": LINE})
    assert by_hand.by_hand(program, "shout", "fare").after.texts["line.py"].decode() == text
