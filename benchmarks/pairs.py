"""Pictures of programs before and after: what ``draft`` and ``build`` really give, side by side.

    python benchmarks/pairs.py OUT.png PAIR [--dark]

PAIR is a folder of ``tests/targets``; its ``before`` is copied, drafted and built without an edit. Lines that stood before in the same
words, whatever their indent, are grey.
"""

from __future__ import annotations

import argparse
import tempfile
from pathlib import Path

import targets
from PIL import Image, ImageDraw, ImageFont

FONTS = ("DejaVuSansMono.ttf", "LiberationMono-Regular.ttf", "FreeMono.ttf")
SIZE, LEADING, MARGIN, COLUMN = 13, 17, 24, 620
LIGHT = {"paper": "#ffffff", "ink": "#1c2733", "kept": "#8a949e", "name": "#1f5fa8", "rule": "#d5dbe1"}
DARK = {"paper": "#12181f", "ink": "#e6edf3", "kept": "#7d8894", "name": "#7db4f0", "rule": "#303a45"}


def font() -> ImageFont.FreeTypeFont:
    for name in FONTS:
        try:
            return ImageFont.truetype(name, SIZE)
        except OSError:
            continue
    raise SystemExit(f"none of the fonts {', '.join(FONTS)} is here; install fonts-dejavu-core")


def sources(folder: Path) -> list[Path]:
    return sorted(p for p in folder.rglob("*") if p.suffix in targets.SUFFIXES)


def column(files: list[Path], known: set[str]) -> list[tuple[str, str]]:
    """(what a line is, its text) of files one below the other; ``known``: the lines of the other side."""
    rows: list[tuple[str, str]] = []
    for path in files:
        rows += [("", "")] if rows else []
        rows.append(("name", path.name))
        rows += [("kept" if line.strip() in known else "ink", line) for line in path.read_text().splitlines()]
    return rows


def lines_of(files: list[Path]) -> set[str]:
    return {line.strip() for path in files for line in path.read_text().splitlines()}


def drawn(before: list[Path], after: list[Path], colours: dict[str, str]) -> Image.Image:
    left, right = column(before, set()), column(after, lines_of(before))
    height = 2 * MARGIN + LEADING * max(len(left), len(right))
    face = font()
    wide = max(COLUMN, 28 + int(max(face.getlength(text) for _, text in [*left, *right])))
    image = Image.new("RGB", (2 * wide + 2 * MARGIN, height), colours["paper"])
    pen = ImageDraw.Draw(image)
    pen.line([(MARGIN + wide - 14, MARGIN), (MARGIN + wide - 14, height - MARGIN)], fill=colours["rule"])
    for x, rows in ((MARGIN, left), (MARGIN + wide, right)):
        for i, (kind, text) in enumerate(rows):
            pen.text((x, MARGIN + i * LEADING), text, font=face, fill=colours[kind or "ink"])
    return image


def main() -> None:
    parser = argparse.ArgumentParser(description="Draw a program before and after")
    parser.add_argument("out", type=Path)
    parser.add_argument("pair", type=Path)
    parser.add_argument("--dark", action="store_true")
    given = parser.parse_args()
    before, _ = targets.sides(given.pair)
    with tempfile.TemporaryDirectory() as folder:
        if why := targets.built(before, Path(folder), []):
            raise SystemExit(why)
        drawn(sources(before), sources(Path(folder)), DARK if given.dark else LIGHT).save(given.out)


if __name__ == "__main__":
    main()
