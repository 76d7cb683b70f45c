"""What a build would give, worked out in memory: outline of the classes, figures, unified diff."""

from __future__ import annotations

import difflib
import re
from dataclasses import dataclass, field
from typing import Any

from ..analysis.hazards import assumptions
from ..analysis.metrics import Figures, figures
from ..program.program import Program
from .project import Project
from .sequence import Outcome
from .transactions import settled


@dataclass
class ClassOutline:
    """A class as a preview shows it: made with what, able to do what."""

    name: str
    file: str
    role: str = ""
    objects: list[str] = field(default_factory=list)
    made_with: list[str] = field(default_factory=list)
    can: list[tuple[str, str]] = field(
        default_factory=list
    )  # (method with its parameters, first line of its docstring)


@dataclass
class Foreseen:
    """What a build would do, worked out in memory."""

    before: Figures
    after: Figures
    classes: list[ClassOutline]
    outcomes: list[Outcome]
    diff: str
    assumed: list[str] = field(default_factory=list)

    def as_json(self) -> dict[str, Any]:
        return {
            "before": self.before.as_json(),
            "after": self.after.as_json(),
            "classes": [
                {
                    "name": c.name,
                    "file": c.file,
                    "role": c.role,
                    "objects": c.objects,
                    "made_with": c.made_with,
                    "methods": [m for m, _ in c.can],
                }
                for c in self.classes
            ],
            "assumed": self.assumed,
            "refused": [
                {"step": o.step.id, "because": str(o.refusal), "refusal": o.refusal.as_json() if o.refusal else None}
                for o in self.refused
            ],
        }

    @property
    def refused(self) -> list[Outcome]:
        return [o for o in self.outcomes if o.refusal is not None]


def foresee(project: Project) -> Foreseen:
    """Everything from the original, whatever stands now."""
    whole = settled(project.design, project.original, exists=lambda p: False)
    outcomes = [*whole.dropped, *(o for o, _ in whole.played)]
    last = whole.played[-1][1] if whole.played else project.original
    assumed = [a for path in project.original.files for a in assumptions(project.original, path)] if outcomes else []
    return Foreseen(
        figures(project.original),
        figures(last),
        outline(last, project),
        outcomes,
        diff(project.original, last),
        assumed,
    )


def outline(program: Program, project: Project) -> list[ClassOutline]:
    names = {c.name for c in project.design.classes} | {n for p in project.design.parts for n in (p.name, p.of)}
    names |= {x.of.rpartition(".")[0] for x in project.design.lifts}
    found = []
    for file in program.files.values():
        for scope, name in file.classes:
            if scope.parent is not file.scope or name not in names:
                continue
            design = project.design.class_named(name)
            part = next((p for p in project.design.parts if p.name == name), None)
            objects = (
                [f"{o.name} in {o.collection}" if o.collection else o.name for o in design.objects]
                if design is not None
                else []
            )
            if design is not None and design.kept_in and design.objects:
                objects = [f"the list {design.kept_in}"]
            role = part.role if part is not None else ""
            if design is not None:  # a class that stands is what its author made of it
                role = "" if design.existing else design.role
            made = ClassOutline(name, file.stands(scope.start)[0], role, objects)
            for child in scope.children:
                f = child.function
                if f is None:
                    continue
                params = [p.name for p in f.arguments]
                if f.name == program.language.write.CONSTRUCTOR:
                    made.made_with = params
                else:
                    text = re.sub(r"^[rRuU]?[\"']+|[\"']+$", "", file.slice(*f.docstring)) if f.docstring else ""
                    doc = (text.strip().splitlines() or [""])[0]
                    made.can.append((f"{f.name}({', '.join(params)})", doc))
            found.append(made)
    return found


def diff(before: Program, after: Program) -> str:
    """A unified diff with paths a/ and b/, new files from /dev/null."""
    return diff_texts(before.texts, after.texts)


def diff_texts(was: dict[str, bytes], now: dict[str, bytes]) -> str:
    """What changes between two states of files, as a unified diff."""
    parts: list[str] = []
    for path in sorted({*was, *now}):
        old, new = was.get(path), now.get(path)
        if old == new:
            continue
        left, right = patch_lines(old), patch_lines(new)
        parts.append(f"diff --git a/{path} b/{path}\n")
        if old is None:
            parts.append("new file mode 100644\n")
        elif new is None:
            parts.append("deleted file mode 100644\n")
        names = ("/dev/null" if old is None else f"a/{path}", "/dev/null" if new is None else f"b/{path}")
        for line in difflib.unified_diff(left, right, *names, lineterm="\n"):
            parts.append(line if line.endswith("\n") else line + "\n\\ No newline at end of file\n")
    return "".join(parts)


def patch_lines(text: bytes | None) -> list[str]:
    """The lines as a patch counts them: a line feed ends one, and nothing else does."""
    parts = (text or b"").decode("utf-8", "surrogateescape").split("\n")
    return [p + "\n" for p in parts[:-1]] + ([parts[-1]] if parts[-1] else [])
