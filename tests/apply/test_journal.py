"""Nothing is lost: atomic steps, undo, interruption at any moment, one writer, a full disk."""

import contextlib
import json
import os
import random
import signal
import subprocess
import time

import pytest
from conftest import COMMAND

from aedifex.core.apply import journal as journal_module
from aedifex.core.apply.journal import Journal
from aedifex.core.program import atomic
from aedifex.core.program.errors import AedifexError, Refused


def states(tramline) -> list[dict[str, bytes]]:
    """The sources before the build and after each of its steps."""
    found = [tramline.sources()]
    assert tramline.aedifex("build", "-q", "--unchecked", "tramline.design.toml").returncode == 0
    found.append(tramline.sources())
    journal = Journal(str(tramline.path), "tramline")
    while journal.standing():
        journal.undo(1)
        if tramline.sources() not in found:
            found.append(tramline.sources())
    assert tramline.sources() == found[0]
    return found


def test_killed_at_random_moments(tramline):
    """Whatever the moment, the next command leaves every file as before or as after a step."""
    known = states(tramline)
    rng = random.Random(3)
    began = time.monotonic()
    assert tramline.aedifex("build", "-q", "--unchecked", "tramline.design.toml").returncode == 0
    whole = time.monotonic() - began
    tramline.aedifex("undo", "-q", "--all", "tramline.design.toml")
    for _ in range(3):
        child = subprocess.Popen(
            [str(COMMAND), "build", "-q", "--unchecked", "tramline.design.toml"],
            cwd=tramline.path,
            stderr=subprocess.PIPE,
        )
        time.sleep(rng.uniform(0.3, 1.0) * whole)
        child.send_signal(signal.SIGKILL)
        child.wait()
        after = tramline.aedifex("preview", "--quiet", "tramline.design.toml")
        assert after.returncode == 0, after.stderr
        assert tramline.sources() in known
        assert not list(tramline.path.glob("*" + atomic.TEMPORARY))
        tramline.aedifex("undo", "-q", "--all", "tramline.design.toml")
        assert tramline.sources() == known[0]


class Killed(BaseException):
    """Stands for the process being killed: no handler of ours may catch it."""


@pytest.mark.parametrize("moment", range(14))
def test_killed_between_any_two_operations(tmp_path, monkeypatch, moment):
    """Stop before the n-th durable operation of a step; recovery gives the files before or after, to the byte."""
    (tmp_path / "a.py").write_bytes(b"old a")
    (tmp_path / "b.py").write_bytes(b"old b")
    before = {p.name: p.read_bytes() for p in tmp_path.glob("*.py")}
    changes = {"a.py": b"new a", "b.py": None, "c.py": b"new c"}
    journal = Journal(str(tmp_path), "x")
    count = 0

    def stopping(real):
        def act(*args, **named):
            nonlocal count
            count += 1
            if count > moment:
                raise Killed
            return real(*args, **named)

        return act

    with monkeypatch.context() as patch:
        patch.setattr(os, "replace", stopping(os.replace))
        patch.setattr(os, "fsync", stopping(os.fsync))
        patch.setattr(os, "unlink", stopping(os.unlink))
        with journal.locked(), contextlib.suppress(Killed):
            journal.write("step", "title", "design", changes)
    again = Journal(str(tmp_path), "x")
    with again.locked():
        said = again.recover()
    now = {p.name: p.read_bytes() for p in tmp_path.glob("*.py")}
    assert now in (before, {"a.py": b"new a", "c.py": b"new c"})
    assert all(e.state != "begun" for e in again.entries())
    if said:
        assert "interrupted" in said[0]
    assert not again.recover()


def test_a_torn_line_is_left_out(tmp_path):
    (tmp_path / "a.py").write_bytes(b"old")
    journal = Journal(str(tmp_path), "x")
    with journal.locked():
        journal.write("one", "one", "d", {"a.py": b"new"})
        with open(journal.path, "ab") as handle:
            handle.write(b'{"begin": 2, "st')
        assert [e.step for e in journal.standing()] == ["one"]
        journal.write("two", "two", "d", {"a.py": b"newer"})
    assert [e.step for e in journal.standing()] == ["one", "two"]
    assert journal.original() == {"a.py": b"old"}


def test_a_full_disk_puts_the_step_back(tmp_path, monkeypatch):
    (tmp_path / "a.py").write_bytes(b"old a")
    (tmp_path / "b.py").write_bytes(b"old b")
    journal = Journal(str(tmp_path), "x")
    real = journal_module.replace

    def full(path, data, mode):
        if path.endswith("b.py") and data == b"new b":
            raise OSError(28, "No space left on device", path)
        real(path, data, mode)

    monkeypatch.setattr(journal_module, "replace", full)
    with journal.locked(), pytest.raises(AedifexError, match=r"b\.py: cannot be written \(no space left on device\)"):
        journal.write("step", "title", "d", {"a.py": b"new a", "b.py": b"new b"})
    assert (tmp_path / "a.py").read_bytes() == b"old a"
    assert (tmp_path / "b.py").read_bytes() == b"old b"
    assert not journal.standing()


def test_a_change_after_an_interruption_is_not_overwritten(tmp_path):
    (tmp_path / "a.py").write_bytes(b"old")
    journal = Journal(str(tmp_path), "x")
    with journal.locked():
        digest = journal.keep(b"new")
        journal.append(
            {"begin": 1, "step": "s", "title": "t", "design": "d", "files": {"a.py": [journal.keep(b"old"), digest]}}
        )
        (tmp_path / "a.py").write_bytes(b"mine")
        with pytest.raises(Refused, match=r"a\.py: was changed"):
            journal.recover()
    assert (tmp_path / "a.py").read_bytes() == b"mine"


def test_damaged_objects_are_noticed(tmp_path):
    journal = Journal(str(tmp_path), "x")
    with journal.locked():
        digest = journal.keep(b"text")
        (tmp_path / ".aedifex" / "originals" / digest).write_bytes(b"other")
        with pytest.raises(AedifexError, match="damaged"):
            journal.content(digest)


def test_two_at_once(tramline):
    holder = Journal(str(tramline.path), "tramline")
    with holder.locked():
        for command in (["build", "tramline.design.toml"], ["record", "tramline.design.toml"]):
            done = tramline.aedifex(*command)
            assert done.returncode == 1
            assert "another build or undo is at work" in done.stderr


def test_undo_one_several_all(tramline):
    before = tramline.sources()
    assert tramline.aedifex("build", "-q", "--unchecked", "tramline.design.toml").returncode == 0
    after = tramline.sources()
    assert "put back  clean:tramline.py" in tramline.aedifex("undo").stdout
    assert len(tramline.aedifex("undo", "--steps", "3").stdout.splitlines()) == 3
    assert "tram.py" not in tramline.sources()
    assert tramline.aedifex("build", "-q", "--unchecked", "tramline.design.toml").returncode == 0
    assert tramline.sources() == after
    assert tramline.aedifex("undo", "--all").returncode == 0
    assert tramline.sources() == before
    again = tramline.aedifex("undo")
    assert (again.returncode, "nothing to undo" in again.stderr) == (1, True)


def test_undo_refuses_after_a_change(tramline):
    assert tramline.aedifex("build", "-q", "--unchecked", "tramline.design.toml").returncode == 0
    tramline.write("tramline.py", tramline.read("tramline.py") + "# mine\n")
    for command in ("undo", "build"):
        done = tramline.aedifex(command, "tramline.design.toml")
        assert done.returncode == 1
        assert "tramline.py: was changed after" in done.stderr


def test_stale_byte_code_goes(tramline):
    cache = tramline.write("__pycache__/tramline.cpython-399.pyc", b"stale")
    assert tramline.aedifex("build", "-q", "--unchecked", "tramline.design.toml").returncode == 0
    assert not cache.exists()


def test_file_modes_and_links_are_kept(tramline):
    script = tramline.path / "tramline.py"
    real = tramline.path / "elsewhere"
    real.mkdir()
    os.chmod(script, 0o755)
    script.rename(real / "tramline.py")
    script.symlink_to(real / "tramline.py")
    assert tramline.aedifex("build", "-q", "--unchecked", "tramline.design.toml").returncode == 0
    assert script.is_symlink()
    assert (real / "tramline.py").stat().st_mode & 0o777 == 0o755
    assert "Service().run()" in (real / "tramline.py").read_text()


def test_commits(tramline):
    def git(*args):
        return subprocess.run(["git", *args], cwd=tramline.path, capture_output=True, text=True, check=True).stdout

    assert tramline.aedifex("build", "--commit", "tramline.design.toml").returncode == 2
    git("init", "-q")
    git("config", "user.email", "line@example.org")
    git("config", "user.name", "Line")
    git("add", ".")
    git("commit", "-qm", "start")
    tramline.write("tramline.scenarios.toml", tramline.read("tramline.scenarios.toml") + "\n# more\n")
    dirty = tramline.aedifex("build", "--commit", "tramline.design.toml")
    assert (dirty.returncode, "not committed" in dirty.stderr) == (1, True)
    built = tramline.aedifex(
        "build",
        "--commit",
        "--with-changes",
        "--json",
        "--unchecked",
        "--until",
        "method:Tram.move",
        "tramline.design.toml",
    )
    done = [s for s in json.loads(built.stdout)["steps"] if s["result"] == "done"]
    log = git("log", "--format=%s", "--reverse").splitlines()
    assert len(log) == len(done) + 1
    assert "create class Tram: 8 variables become fields of tram1, tram2" in log
    assert ".aedifex" not in git("ls-files")
    assert "tramline.scenarios.toml" in git("status", "--porcelain")


def test_a_design_that_changed_nothing_is_in_nobodys_way(folder):
    folder.write("line.py", "print(1)\n")
    assert folder.aedifex("draft", "-q", "line.py").returncode == 0
    assert "Nothing to do" in folder.aedifex("build", "line.design.toml").stderr
    folder.write(
        "line.py",
        "x = 1\ny = 2\n\n\ndef move():\n    global x, y\n    x += y\n    y += 1\n\n\nmove()\nmove()\nprint(x, y)\n",
    )
    assert folder.aedifex("draft", "-q", "--again", "line.py").returncode == 0
    built = folder.aedifex("build", "line.design.toml")
    assert built.returncode == 0 and "found:" in built.stdout, built.stderr
