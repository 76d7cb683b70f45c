"""The survey as a picture: what the main code, and each unit with several jobs, is about, and how a draft would cut
it."""

from __future__ import annotations

import io
from dataclasses import dataclass
from typing import Any

COLOURS = {
    "set-up": "#cfd3da",
    "closing": "#b4b9c3",
    "input": "#4a90c9",
    "work": "#79b27a",
    "drawing": "#e39a54",
    "timing": "#e5cf62",
    "sound": "#b294d1",
    "files": "#93765a",
    "database": "#5f8299",
    "network": "#3f9090",
    "console": "#d98aa6",
}
DARK = frozenset({"input", "files", "database", "network"})  # on which letters are white
MAX_STRIPS = 6  # strips in one picture
MIN_STRETCH_HEIGHT = 0.03  # of a strip's height for a stretch, so that its words fit
SIZE = (12.8, 8.0)  # inches, at 100 dots each

Part = tuple[str, int, int, int]


@dataclass
class Strip:
    """One bar from top to bottom. ``parts``: concern, first and last line, statements; ``cuts``: name, first and last
    line."""

    path: str
    name: str
    parts: list[Part]
    cuts: list[tuple[str, int, int]]

    def heights(self) -> list[float]:
        """By the number of statements, as functions may stand between the lines."""
        whole = sum(n for *_, n in self.parts)
        found = [max(MIN_STRETCH_HEIGHT, n / whole) for *_, n in self.parts]
        return [h / sum(found) for h in found]

    def edge(self, line: int, after: bool) -> float:
        """How far down, from 0 to 1, a line begins (or ends, if ``after``)."""
        at = 0.0
        for (_, first, last, _), height in zip(self.parts, self.heights(), strict=True):
            if line < first:
                return at
            if line <= last:
                return at + height * (line - first + after) / (last - first + 1)
            at += height
        return at


def strips(survey: Any) -> list[Strip]:
    """What there is to draw, file by file: the main code first."""
    found = []
    for file in survey.files:
        if file.concerns:
            cuts = cuts_of(file, "")
            found.append(Strip(file.path, "main code", as_parts(file.concerns), cuts))
        whole = [(file.concerns[0]["first"], file.concerns[-1]["last"])] if file.concerns else []
        for unit in file.jobs:
            parts = as_parts(unit["split"]) if unit["split"] else by_line(unit["jobs"])
            if (parts[0][1], parts[-1][2]) not in whole:  # else it is the main code
                found.append(Strip(file.path, unit["name"], parts, cuts_of(file, unit["name"])))
    return [s for s in found if len(s.parts) > 1 or s.cuts]


def cuts_of(file: Any, of: str) -> list[tuple[str, int, int]]:
    """What a draft would make of the main code, or of a method: name, first and last line."""
    return [(c["name"], c["first"], c["last"]) for c in file.cuts if c["of"] == of]


def as_parts(stretches: list[Any]) -> list[Part]:
    return [(s["concern"], s["first"], s["last"], s["statements"]) for s in stretches]


def by_line(jobs: dict[str, list[int]]) -> list[Part]:
    """The jobs of a unit that is no run of statements, in the order of their lines."""
    found: list[Part] = []
    for line, job in sorted((line, job) for job, lines in jobs.items() for line in lines):
        if found and found[-1][0] == job:
            found[-1] = (job, found[-1][1], line, found[-1][3] + 1)
        else:
            found.append((job, line, line, 1))
    return found


def picture(survey: Any, kind: str) -> bytes | None:
    """A figure as a file of a ``kind``, png or svg; None if there is nothing to draw."""
    import matplotlib

    matplotlib.use("Agg")
    from matplotlib.figure import Figure

    found = strips(survey)
    if not found:
        return None
    shown = found[:MAX_STRIPS]
    figure = Figure(figsize=SIZE, dpi=100, facecolor="white")
    width = 1.0 / max(2, len(shown))
    for number, strip in enumerate(shown):
        axes = figure.add_axes((number * width + 0.008, 0.03, width - 0.016, 0.84))
        draw(axes, strip, 13.2 * width)
    more = f"; {len(found) - MAX_STRIPS} more are in the text" if len(found) > MAX_STRIPS else ""
    figure.text(0.012, 0.972, "What the code is about", fontsize=14, weight="bold", va="center")
    figure.text(
        0.012,
        0.945,
        f"lines of the source from top to bottom; brackets: methods that a draft would make of them{more}",
        fontsize=9,
        color="#555",
        va="center",
    )
    out = io.BytesIO()
    with matplotlib.rc_context({"svg.hashsalt": "aedifex", "svg.fonttype": "none"}):
        figure.savefig(out, format=kind, metadata={"Date": None} if kind == "svg" else {"Software": None})
    return out.getvalue()


def draw(axes: Any, strip: Strip, inches: float) -> None:
    """One strip: a block for each stretch with what it is about and its lines, and a bracket for each cut."""
    axes.set_xlim(0, inches)
    axes.set_ylim(1, 0)
    axes.axis("off")
    axes.text(0.02, -0.045, strip.path, fontsize=8, color="#555", va="bottom")
    axes.text(0.02, -0.012, strip.name, fontsize=11, weight="bold", va="bottom")
    bar = inches * (0.55 if strip.cuts else 0.8)
    at = 0.0
    for (concern, first, last, _), height in zip(strip.parts, strip.heights(), strict=True):
        axes.add_patch(rectangle(at, height, bar, COLOURS[concern]))
        if height >= MIN_STRETCH_HEIGHT * 0.5:
            colour = "white" if concern in DARK else "#222"
            axes.text(0.08, at + height / 2, concern, fontsize=9, color=colour, va="center")
            axes.text(
                bar - 0.08,
                at + height / 2,
                str(first) if first == last else f"{first}–{last}",
                fontsize=8,
                color=colour,
                va="center",
                ha="right",
            )
        at += height
    for depth, (name, first, last) in nested(strip.cuts):
        bracket(
            axes,
            strip.edge(first, False),
            strip.edge(last, True),
            bar + 0.12 + 0.16 * depth,
            name,
            f"{first}–{last}" if last > first else str(first),
        )


def rectangle(at: float, height: float, width: float, colour: str) -> Any:
    from matplotlib.patches import Rectangle

    return Rectangle((0, at + 0.001), width, max(0.002, height - 0.002), facecolor=colour, edgecolor="none")


def nested(cuts: list[tuple[str, int, int]]) -> list[tuple[int, tuple[str, int, int]]]:
    """Each cut with how many others hold it: those inside stand nearer to the bar."""
    deepest = max((sum(holds(o, c) for o in cuts) for c in cuts), default=0)
    return [(deepest - sum(holds(o, c) for o in cuts), c) for c in cuts]


def holds(outer: tuple[str, int, int], inner: tuple[str, int, int]) -> bool:
    return outer != inner and outer[1] <= inner[1] and inner[2] <= outer[2]


def bracket(axes: Any, top: float, bottom: float, x: float, name: str, lines: str) -> None:
    axes.plot(
        [x - 0.06, x, x, x - 0.06],
        [top + 0.003, top + 0.003, bottom - 0.003, bottom - 0.003],
        color="#333",
        linewidth=1.2,
        clip_on=False,
    )
    axes.text(x + 0.06, (top + bottom) / 2, f"{name}  {lines}", fontsize=9, color="#333", va="center", clip_on=False)
