"""Unit tests from what was seen: they run, they catch broken methods, they overwrite nothing of another hand."""

import ast
import re
import subprocess
import sys
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
from mutants import mutants

PROGRAMS = Path(__import__("aedifex").__file__).parent / "demo" / "programs"


def with_tests(folder, name):
    for file in (f"{name}.py", f"{name}.scenarios.toml"):
        folder.write(file, (PROGRAMS / file).read_bytes())
    assert folder.aedifex("draft", "-q", f"{name}.py").returncode == 0
    return folder.aedifex("build", "--unchecked", f"{name}.design.toml", "--tests", "tests")


def run_tests(place: Path, *args: str) -> int:
    command = [sys.executable, "-B", "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", *args]
    try:
        return subprocess.run(
            command, cwd=place, capture_output=True, timeout=60, env={"PATH": "/usr/bin:/bin"}
        ).returncode
    except subprocess.TimeoutExpired:
        return 1


@pytest.mark.parametrize("name", ["fares", "tramwindow"])
def test_they_run_and_catch_eight_of_ten(folder, name, tmp_path_factory):
    done = with_tests(folder, name)
    assert done.returncode == 0 and "all of them run" in done.stdout, done.stdout + done.stderr
    assert run_tests(folder.path, "tests") == 0
    broken = []
    for test in sorted(folder.path.glob("tests/test_*.py")):
        module = test.name.removeprefix("test_")
        methods = set(re.findall(r"\.(\w+)\(", test.read_text()))
        broken += [(module, test.name, text) for _, _, text in mutants(folder.read(module), methods)]
    broken = broken[:: -(-len(broken) // 8)]  # from all classes, a few of each
    for _, _, text in broken:
        ast.parse(text)

    def caught(job) -> bool:
        module, test, text = job
        place = tmp_path_factory.mktemp("mutant")
        for path in (*folder.path.glob("*.py"), *folder.path.glob("tests/*.py")):
            target = place / path.relative_to(folder.path)
            target.parent.mkdir(exist_ok=True)
            target.write_bytes(path.read_bytes())
        (place / module).write_text(text)
        return run_tests(place, f"tests/{test}") != 0

    with ThreadPoolExecutor(2) as pool:
        results = list(pool.map(caught, broken))
    assert len(results) >= 7 and sum(results) >= 0.8 * len(results), (sum(results), len(results))


def test_nothing_of_another_hand_is_overwritten(folder):
    folder.write("tests/test_till.py", "def test_mine():\n    pass\n")
    folder.write("tests/conftest.py", "# mine\n")
    done = with_tests(folder, "fares")
    assert done.returncode == 1 and "test_till.py: is there already and not ours" in done.stderr
    assert (
        folder.read("tests/test_till.py").startswith("def test_mine")
        and not (folder.path / "tests/test_card.py").exists()
    )
    (folder.path / "tests/test_till.py").unlink()
    assert folder.aedifex("build", "fares.design.toml", "--tests", "tests", "--dry-run").returncode == 2
    again = folder.aedifex("build", "fares.design.toml", "--tests", "tests")
    assert "see that it makes the project importable" in again.stderr
    assert folder.read("tests/conftest.py") == "# mine\n" and "def test_fill_1" in folder.read("tests/test_card.py")
    assert folder.aedifex("build", "fares.design.toml", "--tests", "tests").returncode == 0, (
        "its own files it may replace"
    )


def test_a_class_in_the_entry_gets_none(folder):
    folder.write(
        "line.py",
        "tram_x = 0\ntram_v = 1\n\n\ndef move_tram():\n    global tram_x\n    tram_x += tram_v\n\n\ndef turn_tram():\n    global tram_v\n    tram_v = -tram_v\n\n\nmove_tram()\nturn_tram()\nprint(tram_x)\n",
    )
    folder.aedifex("draft", "-q", "line.py")
    design = folder.read("line.design.toml")
    folder.write("line.design.toml", re.sub(r'^file = ".*"\n', "", design, flags=re.M))
    done = folder.aedifex("build", "line.design.toml", "--tests", "tests")
    assert done.returncode == 0 and "starts the program when it is imported" in done.stderr, done.stderr
    assert not (folder.path / "tests").exists()


def test_results_errors_chance_and_lists(folder):
    """Each kind of outcome has its assertion."""
    folder.write(
        "dice.py",
        "import random\n\ndice_thrown = 0\ndice_log = []\n\n\ndef throw_dice(sides, into):\n    global dice_thrown\n"
        "    if sides < 1:\n        raise ValueError('no sides')\n    dice_thrown += 1\n    got = random.randint(1, sides)\n    dice_log.append(got)\n"
        "    into.append(got)\n    return got\n\n\ndef show_dice():\n    print('thrown', dice_thrown)\n\n\nresults = []\nfor n in (6, 20, 100):\n    throw_dice(n, results)\n"
        "try:\n    throw_dice(0, results)\nexcept ValueError:\n    pass\nshow_dice()\nprint(results)\n",
    )
    folder.aedifex("draft", "-q", "dice.py")
    done = folder.aedifex("build", "-q", "dice.design.toml", "--tests", ".")
    assert done.returncode == 0, done.stderr
    text = "".join(p.read_text() for p in folder.path.glob("test_*.py"))
    for part in (
        "random.seed(",
        "with pytest.raises(ValueError):",
        "assert given == [",
        "capsys.readouterr().out == 'thrown 3\\n'",
    ):
        assert part in text, text
    assert run_tests(folder.path) == 0 and not (folder.path / "conftest.py").exists()
