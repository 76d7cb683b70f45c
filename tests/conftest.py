"""What the tests share: scripts in folders, the installed command, programs that are run."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
from pathlib import Path

import forked
import pytest

from aedifex.core.program.language import language_of
from aedifex.core.program.program import read_program

pytest_plugins = ["cover"]
HERE = Path(__file__).parent
COMMAND = Path(sys.executable).parent / "aedifex"


class Folder:
    """A temporary project folder. ``installed``: the command is started as its users start it, not forked."""

    def __init__(self, path: Path, installed: bool = False) -> None:
        self.path = path
        self.installed = installed

    def write(self, name: str, text: str | bytes) -> Path:
        target = self.path / name
        target.parent.mkdir(parents=True, exist_ok=True)
        target.write_bytes(text.encode() if isinstance(text, str) else text)
        return target

    def read(self, name: str) -> str:
        return (self.path / name).read_text()

    def aedifex(
        self, *args: str, timeout: float = 120, env: dict[str, str] | None = None
    ) -> subprocess.CompletedProcess[str]:
        """Run the command here; a traceback is a failure in any test."""
        if env is None and not self.installed:
            done = forked.server().run([*args], self.path, timeout)
        else:
            done = subprocess.run(
                [str(COMMAND), *args],
                cwd=self.path,
                capture_output=True,
                text=True,
                timeout=timeout,
                env={**os.environ, **(env or {})},
            )
        assert "Traceback" not in done.stderr, done.stderr
        return done

    def run(self, name: str, typed: str = "", *args: str) -> tuple[int, str, str]:
        """Exit status, output and last error line of a script, run as its user would."""
        done = subprocess.run(
            [sys.executable, "-B", name, *args], cwd=self.path, capture_output=True, text=True, input=typed, timeout=60
        )
        return done.returncode, done.stdout, "".join(done.stderr.splitlines()[-1:])

    def program(self, name: str, text: str):
        self.write(name, text)
        return read_program(str(self.path), [name])

    def read_all(self, files: str | dict[str, str]):
        """A program of these files, a text alone being line.py; those called other... and of another language lie beside it."""
        files = {"line.py": files} if isinstance(files, str) else files
        for name, text in files.items():
            self.write(name, text)
        return read_program(
            str(self.path), [n for n in files if not n.startswith("other") and n.endswith(language_of(n).suffixes)]
        )

    def sources(self) -> dict[str, bytes]:
        return {p.name: p.read_bytes() for p in sorted(self.path.glob("*.py"))}


def needs(program: str) -> None:
    """Skip a test whose tool is missing, with the reason; fail where everything must be there."""
    if shutil.which(program) is None:
        said = f"{program} is not installed"
        (pytest.fail if os.environ.get("CI") else pytest.skip)(said)


INSTALLED = {"test_cli", "test_examples"}  # start the command as its users do


@pytest.fixture
def folder(tmp_path, request) -> Folder:
    return Folder(tmp_path, request.module.__name__ in INSTALLED)


@pytest.fixture(scope="session")
def drafted_tramline(tmp_path_factory) -> Path:
    """The demo's program with its scenarios, drafted; not to be changed."""
    folder = Folder(tmp_path_factory.mktemp("tramline"))
    programs = Path(__import__("aedifex").__file__).parent / "demo" / "programs"
    for name in ("tramline.py", "tramline.scenarios.toml"):
        shutil.copy(programs / name, folder.path)
    assert folder.aedifex("draft", "-q", "tramline.py").returncode == 0
    return folder.path


@pytest.fixture
def tramline(folder, drafted_tramline) -> Folder:
    """A copy of it."""
    shutil.copytree(drafted_tramline, folder.path, dirs_exist_ok=True)
    return folder
