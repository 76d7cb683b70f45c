"""What a command loads: nothing dear that it does not use."""

import subprocess
import sys

import pytest
from conftest import COMMAND

DEAR = {"matplotlib", "numpy", "scipy", "networkx", "PIL", "pyte", "pygame", "tkinter", "inflect"}
USES = {
    "survey tramline.py": set(),
    "ask tram1_x tramline.py": {"inflect"},
    "draft --again tramline.py": {"inflect"},
    "preview tramline.design.toml": set(),
    "step lift tramline.py:151-152 draw_trams tramline.py": {"inflect"},
    "check tramline.scenarios.toml": {"PIL", "pyte"},
    "build --until found:Tram tramline.design.toml": {"PIL", "pyte"},
    "undo --all": set(),
    "survey tramline.py --figure strip.svg": {"matplotlib", "numpy", "PIL"},
}  # fmt: skip


@pytest.mark.parametrize("words", USES)
def test_a_command_loads_what_it_uses(tramline, words):
    done = subprocess.run(
        [sys.executable, "-X", "importtime", str(COMMAND), *words.split()],
        cwd=tramline.path,
        capture_output=True,
        text=True,
        timeout=120,
    )
    loaded = {
        line.rsplit("|", 1)[-1].strip().split(".")[0]
        for line in done.stderr.splitlines()
        if line.startswith("import time:")
    }
    assert "aedifex" in loaded and loaded & DEAR <= USES[words]
