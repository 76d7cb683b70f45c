"""What surrounds a program fails: tools that are missing or end, disks, folders that are too large, runs that never end. Each is told in a sentence."""

import shutil
import subprocess

import pytest
from conftest import needs
from test_corners import seen

from aedifex.cli.suggest import suggested
from aedifex.core.apply.by_hand import changes_of
from aedifex.core.apply.git import Git
from aedifex.core.apply.scores import weigh
from aedifex.core.apply.sequence import Outcome
from aedifex.core.check import run_environment, sandbox, suggest
from aedifex.core.check.runners import terminal
from aedifex.core.design.origin import as_origins
from aedifex.core.design.tables import ClassDesign, MethodDesign
from aedifex.core.languages.java.running import compiler
from aedifex.core.languages.java.running.unit_tests import run
from aedifex.core.planning.alternatives import Rival
from aedifex.core.planning.drafter import draft
from aedifex.core.program.edits import Edits
from aedifex.core.program.errors import AedifexError, Refused
from aedifex.core.program.language import languages
from aedifex.core.program.model import Problem
from aedifex.core.rewrites.by_hand import empty_design
from aedifex.core.rewrites.function_to_method import BecomeMethod
from aedifex.core.rewrites.pipeline import tried
from aedifex.core.rewrites.rewrite import State
from aedifex.core.rewrites.step import Context, Refusal

LINE = "load = 1\n\n\ndef add(n):\n    global load\n    load += n\n\n\nadd(2)\nprint(load)\n"
JAVA = "public class Line {\n    static int load = 1;\n\n    static void add(int n) {\n        load += n;\n        System.out.println(load);\n    }\n\n    public static void main(String[] args) {\n        add(2);\n    }\n}\n"


def test_without_git_there_are_no_commits(folder, monkeypatch):
    with pytest.raises(
        AedifexError, match="is not in a git repository; run 'git init' there, or build without --commit"
    ):
        Git(str(folder.path))
    monkeypatch.setenv("PATH", "/nowhere")
    with pytest.raises(AedifexError, match=r"git could not be run \(.*\); install it, or build without --commit"):
        Git(str(folder.path))


def test_a_commit_that_the_repository_refuses(folder):
    for words in (["init", "-q"], ["config", "user.name", "tram"], ["config", "user.email", "tram@line.example"]):
        subprocess.run(["git", *words], cwd=folder.path, check=True)
    folder.write("line.py", LINE)
    folder.write(".git/hooks/pre-commit", "#!/bin/sh\necho 'not in the evening' >&2\nexit 1\n").chmod(0o755)
    with pytest.raises(
        AedifexError, match=r"git commit failed \(\['not in the evening'\]\); mend that, then build again"
    ):
        Git(str(folder.path)).commit("line", "lift:tell", ["line.py"], [])


def test_what_a_step_made_that_reads_wrong_is_not_written():
    outcome = Outcome(None, "wrong", {"line.py": b""}, problems=[Problem("line.py", 3, "'load' is bound nowhere")])
    with pytest.raises(Refused, match=r"line\.py:3: 'load' is bound nowhere"):
        changes_of(outcome)


class Meets:
    """A step that changes the same place twice, as none should."""

    refused: Refusal | None = None

    def apply(self, context):
        out = Edits()
        out.replace("line.py", 0, 4, "fare")
        out.replace("line.py", 2, 6, "toll")
        return out


def test_changes_that_meet_are_refused(folder):
    program, step = folder.program("line.py", LINE), Meets()
    assert tried(step, State(empty_design(program), program)) is None
    assert step.refused is not None and step.refused.code == "overlap"


def test_a_step_without_its_class(folder):
    program = folder.program("line.py", LINE)
    made = ClassDesign("Tram", "model", methods=[MethodDesign("add", as_origins("add"))])
    with pytest.raises(Refusal, match="there is no class 'Tram' yet"):
        BecomeMethod(made, made.methods[0]).apply(Context(program, empty_design(program)))


def test_rivals_tell_what_would_be_refused(folder):
    program = folder.program("line.py", LINE + "print(locals())\n")
    design = draft(folder.program("line.py", LINE))
    assert (
        weigh(program, Rival("use", design))
        .refused[0]
        .startswith("found:LineApp: line.py:11: 'locals()' can reach any name by its text")
    )


def test_files_that_undo_needs_are_gone(folder):
    folder.write("line.py", LINE)
    assert folder.aedifex("step", "rename", "load", "riders", "line.py", "--yes").returncode == 0
    shutil.rmtree(folder.path / ".aedifex" / "originals")
    done = folder.aedifex("undo", ".")
    assert done.returncode == 2 and "cannot be read (No such file or directory); restore the folder" in done.stderr
    assert "riders" in folder.read("line.py")


def test_a_folder_with_too_many_files(folder, monkeypatch):
    for n in range(5):
        folder.write(f"stop{n}.txt", "")
    monkeypatch.setattr(run_environment, "TOO_MANY", 4)
    with pytest.raises(AedifexError, match="holds more than 4 files; put the program in a folder of its own"):
        seen(folder, LINE)


def test_a_run_that_writes_too_much(folder, monkeypatch):
    monkeypatch.setattr(sandbox, "FILES", 1 << 20)
    text = "import time\nopen('log', 'w').write('x' * (3 << 20))\nwhile time.time():\n    pass\n"
    assert seen(folder, text).trouble == "it wrote more than 1 MiB of files"
    monkeypatch.setattr(terminal, "OUTPUT", 1 << 16)
    assert "it wrote more than 0 MiB" in seen(folder, "while True:\n    print('x' * 500)\n", runner="terminal").trouble


def test_what_cannot_be_started(folder, monkeypatch):
    monkeypatch.setattr(sandbox.Sandbox, "command", lambda self: ["nowhere"])
    assert seen(folder, LINE).trouble == "'nowhere' could not be started (No such file or directory); install it"


def test_a_prompt_that_never_comes_on_a_terminal(folder):
    run = seen(folder, "print('Stop?')\n", runner="terminal", typed=[{"after": "Line?", "text": "2\n"}])
    assert run.trouble == "the prompt 'Line?' never came"


def test_a_terminal_program_that_does_not_end(folder):
    run = seen(folder, "while True:\n    pass\n", runner="terminal", seconds=1)
    assert run.trouble == "it was still running after 1 seconds"


def test_nothing_can_be_suggested_where_no_run_can_be_compared(folder, monkeypatch):
    path = folder.write(
        "line.py", "import curses\n\n\ndef main(screen):\n    while True:\n        pass\n\n\ncurses.wrapper(main)\n"
    )
    monkeypatch.setattr(suggest, "LONGEST", 0.5)
    with pytest.raises(Refused, match="no run of it can be compared, because it was still running"):
        suggested(str(path), False, True)


# -- Java's own tools ----------------------------------------------------------------------------


def test_no_compiler_is_there(folder, monkeypatch):
    program = folder.program("Line.java", JAVA)
    monkeypatch.setenv("PATH", "/nowhere")
    assert (
        languages()["java"].launch.prepare(str(folder.path), list(program.files.values()), {})
        == "there is no 'javac' to compile it; install a JDK"
    )
    compiler.support.cache_clear()
    monkeypatch.setenv("XDG_CACHE_HOME", str(folder.path / "cache"))
    with pytest.raises(AedifexError, match="there is no 'javac' to compile it; install a JDK"):
        compiler.support()
    compiler.support.cache_clear()


def test_a_compiler_that_is_too_old_for_what_pins_a_program(folder, monkeypatch):
    old = folder.write("javac", "#!/bin/sh\necho 'invalid target release' >&2\nexit 2\n")
    old.chmod(0o755)
    monkeypatch.setenv("PATH", str(folder.path), prepend=":")
    monkeypatch.setenv("XDG_CACHE_HOME", str(folder.path / "cache"))
    compiler.support.cache_clear()
    with pytest.raises(AedifexError, match=r"does not take what Aedifex brings along \(invalid target release\)"):
        compiler.support()
    compiler.support.cache_clear()


def test_a_compiler_that_ends_unasked(folder):
    needs("javac")
    made = compiler.Warm()
    made.child.kill()
    made.child.wait()
    with pytest.raises(AedifexError, match="the Java compiler ended unasked; run the command again"):
        made.compile("", str(folder.path), [])


def test_what_a_compiler_says_without_a_line(folder):
    (file,) = folder.program("Line.java", JAVA).files.values()
    assert [str(p) for p in compiler.told("warning\nerror: no memory is left\n", [file])] == [
        "Line.java: the compiler refuses it (error: no memory is left)"
    ]


def test_tests_that_a_compiler_refuses_for_none_of_theirs(folder, monkeypatch):
    needs("javac")
    folder.write("Line.java", JAVA.replace("load += n;", "load += m;"))
    folder.write("tests/LineTest.java", "class LineTest {}\n")
    monkeypatch.setattr("aedifex.core.languages.java.running.unit_tests.library", lambda place: "junit.jar")
    failing, why = run(str(folder.path), str(folder.path / "tests"), ["LineTest.java"], ["Line.java"], "java")
    assert not failing and "the compiler refuses them (" in why and "Line.java:5: error: cannot find symbol" in why
