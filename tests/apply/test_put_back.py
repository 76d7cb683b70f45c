"""What was done can be undone, and what is said of it is so: builds in pieces, links, journals that were cut off, commits."""

import json
import os
import subprocess

import pytest

from aedifex.core.program.language import language_of
from aedifex.core.program.program import find_sources, read_program

LINE = """\
fares = 0
riders = 0


def sell(n):
    global fares, riders
    fares += n
    riders += 1


def show():
    print(fares, riders)


sell(3)
show()
"""


@pytest.fixture
def drafted(folder):
    folder.write("line.py", LINE)
    assert folder.aedifex("draft", "-q", "line.py").returncode == 0
    return folder


def build(folder, *options):
    return folder.aedifex("build", "--unchecked", *options, "line.design.toml")


def test_a_build_in_pieces_comes_to_the_same(drafted):
    whole = build(drafted, "--json")
    steps = [s["id"] for s in json.loads(whole.stdout)["steps"] if s["result"] == "done"]
    built = drafted.sources()
    for number in (1, len(steps) // 2, len(steps) - 1):
        assert drafted.aedifex("undo", "-q", "--steps", str(number)).returncode == 0
        assert drafted.sources() != built
        again = json.loads(build(drafted, "--json").stdout)["steps"]
        assert (drafted.sources(), sum(s["result"] == "done" for s in again)) == (built, number)
    assert drafted.aedifex("undo", "-q", "--all").returncode == 0 and drafted.read("line.py") == LINE
    for _ in range(2):
        assert build(drafted, "-q", "--until", steps[0]).returncode == 0
        assert "class" in drafted.read("line.py") and "def sell" in drafted.read("line.py"), "not beyond that step"
    assert build(drafted, "-q").returncode == 0 and drafted.sources() == built


def test_a_commit_says_what_was_checked(drafted):
    def git(*words):
        return subprocess.run(["git", *words], cwd=drafted.path, capture_output=True, text=True, check=True).stdout

    for words in (
        ["init", "-q"],
        ["config", "user.name", "tram"],
        ["config", "user.email", "tram@line.example"],
        ["add", "."],
        ["commit", "-qm", "start"],
    ):
        git(*words)
    assert drafted.aedifex("build", "-q", "--commit", "line.design.toml").returncode == 0
    assert "in 1 scenario" in git("log", "-1", "--format=%b")
    assert drafted.aedifex("undo", "-q", "--all").returncode == 0
    git("reset", "-q", "--hard", git("rev-list", "--max-parents=0", "HEAD").strip())
    assert build(drafted, "-q", "--commit").returncode == 0
    assert "was not run" in git("log", "-1", "--format=%b")


@pytest.mark.parametrize("words", [["build", "-q", "--unchecked", "line.design.toml"], ["undo", "--all"]])
def test_what_git_or_an_editor_put_back_counts_as_undone(drafted, words):
    assert build(drafted, "-q").returncode == 0
    built = drafted.sources()
    for name in built:
        os.unlink(drafted.path / name)
    drafted.write("line.py", LINE)
    done = drafted.aedifex(*words)
    assert done.returncode == 0 and "put them back" in done.stderr
    assert drafted.sources() == (built if words[0] == "build" else {"line.py": LINE.encode()})


def test_links_are_not_broken_or_followed_out_of_the_folder(drafted, tmp_path_factory):
    os.link(drafted.path / "line.py", drafted.path / "twin.txt")
    done = build(drafted)
    assert (done.returncode, "has 2 names on this disk" in done.stderr, drafted.read("twin.txt")) == (1, True, LINE)
    os.unlink(drafted.path / "twin.txt")
    outside = tmp_path_factory.mktemp("outside") / "line.py"
    os.rename(drafted.path / "line.py", outside)
    os.symlink(outside, drafted.path / "line.py")
    done = build(drafted)
    assert (done.returncode, "outside this folder" in done.stderr, outside.read_text()) == (1, True, LINE)


def test_a_journal_that_was_cut_off_is_told_with_the_way_back(drafted):
    assert build(drafted, "-q").returncode == 0
    built = drafted.sources()
    journal = drafted.path / ".aedifex" / "line.journal"
    journal.write_bytes(b"")
    told = drafted.aedifex("undo", "--all", "line.design.toml")
    assert (told.returncode, drafted.sources()) == (1, built)
    command = next(line for line in told.stderr.splitlines() if "cp " in line).split("cp ", 1)[1].split()
    (drafted.path / command[1]).write_bytes((drafted.path / command[0]).read_bytes())
    assert drafted.read("line.py") == LINE, "the command that it names gives the original back"


def test_what_lies_beside_a_java_program_is_read_with_it(folder):
    folder.write(
        "Screen.java",
        "public class Screen {\n    static int n = new Seed().n;\n    public static void main(String[] args) {\n        System.out.println(n + lane.Stop.COUNT);\n    }\n}\n",
    )
    folder.write("Seed.java", "class Seed {\n    int n = 3;\n}\n")
    folder.write("lane/Stop.java", "package lane;\n\npublic class Stop {\n    public static final int COUNT = 2;\n}\n")
    folder.write("Other.java", "public class Other {\n    public static void main(String[] args) {\n    }\n}\n")
    root, files = find_sources([str(folder.path / "Screen.java")])
    assert files == ["Screen.java", "Seed.java", "lane/Stop.java"]
    program = read_program(root, files)
    clues = language_of("Screen.java").launch.clues(list(program.files.values()))
    assert not clues.controls


def test_the_controls_of_a_window_and_the_keys_that_it_compares_are_found(folder):
    text = (
        "import javax.swing.*;\nimport java.awt.event.*;\n\npublic class Desk {\n    static int sold = 0;\n    public static void main(String[] args) {\n"
        '        JButton sell = new JButton("Sell");\n        sell.addActionListener(e -> sold++);\n        JFrame frame = new JFrame("Desk");\n'
        "        frame.addKeyListener(new KeyAdapter() {\n            public void keyTyped(KeyEvent e) {\n                if (e.getKeyChar() == 'k') sold--;\n            }\n        });\n"
        "        frame.add(sell);\n        frame.setVisible(true);\n    }\n}\n"
    )
    program = folder.program("Desk.java", text)
    clues = language_of("Desk.java").launch.clues(list(program.files.values()))
    assert "Sell" in [c[0] for c in clues.controls] and "k" in [*clues.keys, *clues.words]
