"""What holds for every language: the contract with the core, random programs, and the whole path on each demo."""

import re
import shutil
from pathlib import Path

import pytest
from conftest import needs
from registry import seen

from aedifex.core.check.check import observe
from aedifex.core.check.run_environment import World
from aedifex.core.check.scenarios import Scenario
from aedifex.core.program.language import Language, language_of, languages, suffixes

SOURCE = Path(__import__("aedifex").__file__).parent
DEMO = SOURCE / "demo" / "programs"


# -- the contract --------------------------------------------------------------------------------


def asked(word: str) -> set[str]:
    """What the core and the commands take from a language's writer or launcher."""
    texts = [p.read_text() for p in SOURCE.rglob("*.py") if "languages" not in p.parts]
    return {name for text in texts for name in re.findall(rf"\b{word}\.([A-Za-z_]+)", text)}


def test_each_suffix_has_an_entry_point():
    assert {*suffixes()} == {s for language in languages().values() for s in language.suffixes}
    assert all(language_of(f"a{s}").name == name for name, language in languages().items() for s in language.suffixes)


@pytest.mark.parametrize("name", sorted(languages()))
def test_a_language_offers_all_that_the_core_asks_for(name):
    language = languages()[name]
    wanted = set(Language.__annotations__) | {n for n in vars(Language) if not n.startswith("_")}
    assert not [n for n in sorted(wanted) if not hasattr(language, n)]
    assert not [n for n in sorted(asked("write")) if not hasattr(language.write, n)]
    assert not [n for n in sorted(asked("launch")) if not hasattr(language.launch, n)]
    assert not [n for n in sorted(asked("kit")) if not hasattr(language.launch.unit_tests, n)]


# -- the whole path ------------------------------------------------------------------------------

# demo → files, what breaks the built program, and what must be said of it
BROKEN = {
    "tramcanvas.js": (["tramcanvas.js"], "tramcanvas.js", "this._speed * dt", "this._speed + dt", "frame 2"),
    "TramDesk.java": (["TramDesk.java"], "Till.java", "tickets += count", "tickets += 1", "line 5"),
    "TicketDesk.java": (["TicketDesk.java"], "TicketDeskApp.java", "takings += price", "takings -= price", "window 2"),
    "tramsketch.pde": (["tramsketch.pde", "conductor.pde"], "Tram.pde", "x + speed", "x - speed", "frame 1"),
}  # fmt: skip


@pytest.mark.parametrize("script", sorted(BROKEN))
def test_a_demo_is_rearranged_watched_and_put_back(folder, script):
    files, broken, old, new, said = BROKEN[script]
    needs("node" if script.endswith(".js") else "javac")
    if script == "TicketDesk.java":
        needs("Xvfb")
    stem = script.rsplit(".", 1)[0]
    for name in [*files, f"{stem}.scenarios.toml"]:
        shutil.copy(DEMO / name, folder.path)
    assert folder.aedifex("draft", "-q", script).returncode == 0
    apart = [] if script.endswith(".js") else ["--unchecked"]  # the canvas shows it step by step
    built = folder.aedifex("build", *apart, f"{stem}.design.toml")
    assert built.returncode == 0, built.stdout
    assert apart or "The program did the same after each of them" in built.stdout + built.stderr
    assert folder.aedifex("check", f"{stem}.scenarios.toml").returncode == 0
    assert "class T" in folder.read(broken)
    text = folder.read(broken)
    assert old in text
    folder.write(broken, text.replace(old, new))
    wrong = folder.aedifex("check", f"{stem}.scenarios.toml")
    assert wrong.returncode == 1 and said in wrong.stdout, wrong.stdout
    folder.write(broken, text)
    assert folder.aedifex("undo", "-q", "--all").returncode == 0
    assert all((folder.path / name).read_bytes() == (DEMO / name).read_bytes() for name in files)


def test_chance_clock_and_timers_are_pinned(folder):
    needs("node")
    text = (
        "const at = Date.now();\n"
        "setTimeout(() => console.log('second', Date.now() - at > 900000), 1e6);\n"
        "setInterval(() => { console.log('tick', Math.random()); }, 4e5).unref();\n"
        "console.log(new Date().toISOString(), performance.now(), Math.random());\n"
    )
    program = folder.program("line.js", text)
    first, second = (seen(program, str(folder.path), "line.js") for _ in range(2))
    assert first == second
    assert first[2].splitlines()[1:] and first[2].splitlines()[-1] == "second true"
    assert first[2].startswith("2023-11-14")


def test_clicks_controls_and_what_a_page_shows_are_recorded(folder):
    needs("node")
    folder.write(
        "page.html", '<canvas id="c" width="90"></canvas><button id="go">Go</button><script src="page.js"></script>'
    )
    program = folder.program(
        "page.js",
        "let rides = 0;\nconst pen = document.getElementById('c').getContext('2d');\n"
        "document.getElementById('go').addEventListener('click', () => { rides++; document.title = rides; pen.fillRect(rides, 0, 1, 1); });\n"
        "document.getElementById('c').onclick = (e) => pen.fillText(e.offsetX, 1, 2);\n",
    )
    world = World(str(folder.path), "page.js", program.language, {}, list(program.files.values()), [
        {"name": "rides", "file": "page.js", "function": "", "variable": "rides"}])  # fmt: skip
    found = observe(
        Scenario("x", "frames", turns=9, events=[{"turn": 3, "control": "Go"}, {"turn": 5, "click": [7, 8]}]), world
    )
    assert not found.trouble and found.state["rides"][-1][1] == "1"
    assert any("fillRect(1, 0, 1, 1)" in s for s in found.shots.values())
    assert any("fillText(7, 1, 2)" in s for s in found.shots.values())
