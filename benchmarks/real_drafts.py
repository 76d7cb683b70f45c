"""Procedural programs that beginners and others wrote, drafted and built, so that a person can read what comes out.

    python benchmarks/real_drafts.py FOLDER [--put-away] [--only WORD]

Each program gets a folder of its own in FOLDER with what it was (``before``), what it became (``after``) and the diff between them.
Every second program, in the order of their names, is put away: its results are not looked at while the draft is worked on, and it is
built only with ``--put-away``. No program here is one of those of ``real_python.py`` and ``real_curly.py``.
"""

from __future__ import annotations

import argparse
import difflib
import shutil
import subprocess
import sys
import zipfile
from dataclasses import dataclass
from pathlib import Path

import real_curly

ROOT = Path(__file__).parent.parent
AEDIFEX = [sys.executable, "-m", "aedifex.cli.main"]
CACHE = ROOT / ".cache" / "real-drafts"
SUFFIXES = (".py", ".pde", ".java", ".js", ".ts")


@dataclass(frozen=True)
class Drafted:
    """A program: where it comes from (wheel, npm or jdk), the package, and its file there."""

    source: str
    package: str
    file: str

    @property
    def name(self) -> str:
        return f"{self.package}/{Path(self.file).name}"

    @property
    def suffix(self) -> str:
        return Path(self.file).suffix


PYTHON = """
    2048-py=main.py Dual-Game=games/hangman.py Dual-Game=games/rock_paper_scissors.py aggnf=aggnf/cli.py and-snake=and_snake/play_snake.py
    as-doraemon=as_doraemon/__init__.py autosnake=autoSnake/game.py baby-snake=baby_snake/main.py blackjackfire=bjpack/bjack.py
    bread-bair=game.py bullet-dodger=bullet_dodger/bullet_dodger.py calcli=calcli.py chanwookim-rps=chanwookim_rps/__init__.py
    connectfourmd=connectfourmd/Connectfour.py flappybird=flappybird/__init__.py gsnake=gsnake/main.py mastermindpy=mastermind.py
    mpong=mpong/mpong.py minigamesbyvedcodes=minigamesbyvedcodes/tictactoe.py hangman-game=hangman_game/engine.py
    charlie-game-compendium=charlie_game_compendium/tic_tac_toe.py charlie-game-compendium=charlie_game_compendium/number_guesser.py
""".split()
BOOK = "test/parser/Processing-Book-001"
SKETCHES = (
    f"{BOOK}/Illustrations/page_254/page_254.pde", f"{BOOK}/Illustrations/page_228/page_228.pde",
    f"{BOOK}/Units 43-51/49 Simulate 1/_02/_02.pde", "test/parser/shiffman-test.pde", "test/ref/brownian.pde",
    "test/ref/conway.pde", "test/ref/puff.pde",
)  # fmt: skip
JAVA = """
    javax/swing/JFileChooser/8016665/JFileChooserOrientation javax/swing/JTabbedPane/4310381/bug4310381
    java/awt/TextField/DisabledUndoTest/DisabledUndoTest java/awt/TextField/ScrollSelectionTest/ScrollSelectionTest
    java/awt/FontMetrics/ExtremeFontSizeTest java/awt/MenuBar/CellsResize java/awt/image/ImageOffsetTest
    java/awt/geom/AffineTransform/GetTypeOptimization
""".split()
SCRIPTS = """
    snake-cli=index.js drawille-canvas=example.js png-pong=demo/demo.ts splat-ecs=lib/particles.js splat-ecs=lib/sound-manager.js
    js-tetris-cli=src/renderer/ansi/ansi-terminal.js game-2048=src/index.js
""".split()


def programs() -> list[Drafted]:
    """All of them, by name."""
    found = [Drafted("wheel", *word.split("=")) for word in PYTHON]
    found += [Drafted("npm", "processing-js", file) for file in SKETCHES]
    found += [Drafted("jdk", "openjdk-17", f"test/jdk/{name}.java") for name in JAVA]
    found += [Drafted("npm", *word.split("=")) for word in SCRIPTS]
    return sorted(found, key=lambda p: (p.suffix, p.name))


def put_away() -> list[Drafted]:
    """The half that nobody reads while the draft is worked on."""
    return programs()[1::2]


def fetched(program: Drafted) -> Path | None:
    """The program's file; None if it cannot be had here."""
    CACHE.mkdir(parents=True, exist_ok=True)
    if program.source == "npm":
        top = real_curly.npm(program.package, CACHE)
    elif program.source == "jdk":
        top = real_curly.source(program.package, "*/test/jdk/*.java", CACHE)
    else:
        top = wheel(program.package)
    found = top / program.file
    return found if found.exists() else None


def wheel(package: str) -> Path:
    """An unpacked wheel."""
    top = CACHE / "wheels" / package
    if not top.exists():
        pip = [sys.executable, "-m", "pip", "-q", "download", "--no-deps", "--only-binary", ":all:"]
        subprocess.run([*pip, "-d", str(top), package], capture_output=True)
        for archive in top.glob("*.whl"):
            zipfile.ZipFile(archive).extractall(top)
    return top


def built(program: Drafted, folder: Path) -> str:
    """Draft and build it in ``folder``/after; what became of it, in words."""
    file = fetched(program)
    if file is None:
        return "cannot be had here"
    shutil.rmtree(folder, ignore_errors=True)
    name = f"{program.package.replace('-', '_')}.py" if file.name == "__init__.py" else file.name
    if file.suffix == ".pde":
        name = f"{file.stem}/{file.name}"
    for side in ("before", "after"):
        (folder / side / name).parent.mkdir(parents=True)
        shutil.copy(file, folder / side / name)
    drafted = aedifex("draft", str(folder / "after" / name))
    (folder / "draft.txt").write_text(drafted.stdout + drafted.stderr)
    if drafted.returncode:
        return last_line(drafted.stderr)
    design = next((folder / "after").rglob("*.design.toml"), None)
    if design is None:
        return next((line for line in drafted.stdout.splitlines() if line.startswith("Leave it")), "no design")
    made = aedifex("build", "--unchecked", str(design))
    (folder / "build.txt").write_text(made.stdout + made.stderr)
    (folder / "diff.txt").write_text(difference(folder / "before", folder / "after"))
    return last_line(made.stderr) if made.returncode else drafted.stdout.strip().splitlines()[0]


def difference(before: Path, after: Path) -> str:
    """A unified diff of two folders' sources."""
    names = sorted({str(p.relative_to(top)) for top in (before, after) for p in top.rglob("*") if p.suffix in SUFFIXES})
    found: list[str] = []
    for name in names:
        old, new = ((top / name).read_text().splitlines(keepends=True) if (top / name).exists() else [] for top in (before, after))
        found += difflib.unified_diff(old, new, f"before/{name}", f"after/{name}")
    return "".join(found)


def aedifex(*words: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run([*AEDIFEX, *words], capture_output=True, text=True)


def last_line(text: str) -> str:
    return next(iter(text.strip().splitlines()[-1:]), "no word")


def main() -> None:
    parser = argparse.ArgumentParser(description="Draft and build programs of others, to be read")
    parser.add_argument("folder", type=Path)
    parser.add_argument("--put-away", action="store_true", help="the half that is put away")
    parser.add_argument("--only", default="", help="a word of the program's name")
    given = parser.parse_args()
    away = put_away()
    for program in [p for p in programs() if (p in away) == given.put_away and given.only in p.name]:
        said = built(program, given.folder / program.name.replace("/", "_"))
        print(f"{program.name}: {said}", flush=True)


if __name__ == "__main__":
    main()
