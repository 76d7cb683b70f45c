"""Which program a person means by a design, a scenario file or a script; with a design or without one."""

from __future__ import annotations

import glob
import os
import tomllib
from dataclasses import dataclass

from ..analysis.importers import files_needed
from ..check.evidence import Evidence, Sources
from ..design.tables import Design
from ..program.errors import AedifexError, Refused
from ..program.language import suffixes
from ..program.program import Program, find_sources, neighbours, read_program
from ..program.surroundings import digest
from .journal import FOLDER, STEPS, Journal
from .project import DESIGN, SCENARIOS, Before, Project, Stale, open_project, recover


@dataclass(frozen=True)
class MeantProject:
    """``design``: path, "" if there is none; ``scenarios``: the file that was named, None where the one beside the
    design is meant; ``stem``: path of both without what they end with."""

    design: str
    scenarios: str | None
    stem: str


def meant_project(path: str | None) -> MeantProject:
    """What is meant by a design, a scenario file, a script or nothing. Raises AedifexError where that can be told of no
    program."""
    if path is None:
        return named_here()
    if path.endswith(DESIGN):
        return MeantProject(path, None, path.removesuffix(DESIGN))
    if path.endswith(SCENARIOS):
        if not os.path.exists(path):
            raise AedifexError(f"{path}: no such scenario file; check the path.")
        return MeantProject(design_for(path.removesuffix(SCENARIOS)), path, path.removesuffix(SCENARIOS))
    if not path.endswith(suffixes()):
        raise AedifexError(
            f"{path}: is neither a scenario file (*{SCENARIOS}) nor a design (*{DESIGN}) nor a script; name one of "
            "those."
        )
    if not os.path.lexists(path):
        raise AedifexError(f"{path}: no such file or folder; check the path.")
    stem = os.path.splitext(path)[0]
    return MeantProject(design_for(stem), None, stem)


def named_here() -> MeantProject:
    """The only design of this folder, or else its only scenario file."""
    designs, files = sorted(glob.glob("*" + DESIGN)), sorted(glob.glob("*" + SCENARIOS))
    if len(designs) == 1:
        return MeantProject(designs[0], None, designs[0].removesuffix(DESIGN))
    if len(designs) > 1:
        raise AedifexError(f"{len(designs)} designs are here; name one ({', '.join(designs)}).")
    if len(files) != 1:
        what = "no design and no scenario file is" if not files else f"no design and {len(files)} scenario files are"
        raise AedifexError(f"{what} here; name a design, a scenario file or a script.")
    return MeantProject("", files[0], files[0].removesuffix(SCENARIOS))


def design_for(stem: str) -> str:
    """The design beside a script or a scenario file: of the same name, or the only one that is not of another script;
    "" if there is none."""
    if os.path.exists(stem + DESIGN):
        return stem + DESIGN
    found = glob.glob(os.path.join(glob.escape(os.path.dirname(stem) or "."), "*" + DESIGN))
    if script := script_of(stem):
        found = [d for d in found if os.path.basename(script) in entries_of_design(d)]
    if len(found) > 1:
        raise AedifexError(
            f"{len(found)} designs found beside {stem}; name one "
            f"({', '.join(sorted(os.path.basename(d) for d in found))})."
        )
    return found[0] if found else ""


def entries_of_design(design: str) -> list[str]:
    try:
        with open(design, "rb") as handle:
            entries = tomllib.load(handle).get("entries")
    except (OSError, ValueError):
        return []
    return entries if isinstance(entries, list) else []


def script_of(stem: str) -> str:
    return next((stem + s for s in suffixes() if os.path.isfile(stem + s)), "")


def found_project(path: str | None, recording: bool = False) -> tuple[Project, str | None]:
    """The program that is meant, and the scenario file that was named.

    Its design says what the original is, if there is one and it knows the sources. Otherwise what was recorded is the
    original, or what stood before the single steps. ``recording``: what stands may become the original. Raises
    AedifexError or Refused with the reason.
    """
    meant = meant_project(path)
    if not meant.design:
        return undesigned(meant.stem, recording), meant.scenarios
    try:
        project = open_project(meant.design)
    except Stale as trouble:
        stem = meant.design.removesuffix(DESIGN)
        if path is None or path == meant.design:
            if recording:
                raise
        else:
            stem = meant.stem
        return undesigned(stem, recording, str(trouble)), meant.scenarios
    if not recording and not project.journal.standing() and outdated(project):
        return undesigned(meant.design.removesuffix(DESIGN), False), meant.scenarios
    return project, meant.scenarios


def outdated(project: Project) -> bool:
    """Whether other sources were recorded than those that the design knows."""
    kept = project.evidence().sources()
    drafted = project.design.sources
    return kept is not None and any(p in drafted and drafted[p] != f"sha256:{d}" for p, d in kept[1].digests.items())


def undesigned(stem: str, recording: bool, reason: str = "") -> Project:
    """A program without a design that could speak for it. Raises Refused, with the ``reason`` why the design cannot, if
    there is nothing to compare with."""
    root, name = os.path.dirname(os.path.abspath(stem)), os.path.basename(stem)
    kept = Evidence(os.path.join(root, FOLDER), name).sources()
    entry = (
        kept[1].entry
        if kept and os.path.isfile(os.path.join(root, kept[1].entry))
        else os.path.basename(script_of(stem))
    )
    if not entry:
        raise AedifexError(
            f"{stem}: neither a design nor a script of this name is beside the scenarios; draft one, or name it."
        )
    current = program_of(os.path.join(root, entry))
    journal = journal_of(root, name, current)
    said = recover(journal)
    before = original(journal, kept, current, recording)
    if before is None:
        what = f"{reason.rstrip('.')}, and" if reason else f"{entry}:"
        raise Refused(
            f"{what} nothing is recorded that it could be compared with; record it before you change it (aedifex "
            f"record {entry})."
        )
    held = {p: d for p, d in before.texts.items() if p.endswith(current.language.suffixes)}
    paths = dict.fromkeys(
        [*(p for p, d in held.items() if d is not None), *(p for p in current.texts if p not in held)]
    )
    program = only(read_program(root, paths, {p: d for p, d in held.items() if d is not None}), entry)
    design = Design(current.language.name, [entry], {p: digest(t) for p, t in program.texts.items()})
    return Project(stem + DESIGN, root, design, "", journal, program, current, said, before)


def journal_of(root: str, name: str, program: Program) -> Journal:
    """That of a design which is gone by now, if steps of it stand; else that of single steps."""
    built = Journal(root, name, program.language.write.stale)
    return built if built.standing() else Journal(root, STEPS, program.language.write.stale)


def original(journal: Journal, kept: tuple[str, Sources] | None, current: Program, recording: bool) -> Before | None:
    """What is compared with: what was recorded, else what stood before the steps; None if neither is known."""
    touched = {p for entry in journal.standing() for p in entry.files}
    if kept is not None and not recording:
        return Before({p: journal.content(d) for p, d in kept[1].digests.items()}, kept[0], "it was recorded")
    if touched & current.texts.keys() and (journal.stands() or not recording):
        return Before(journal.original(), known="it stood before the first step")
    return Before({}) if recording else None


def program_of(path: str) -> Program:
    """The script that people start, and those beside it that it needs. Raises AedifexError if the path names
    several."""
    root, files = find_sources([path])
    program = read_program(root, files)
    if len(program.files) != 1:
        raise AedifexError(f"{path}: holds {len(files)} scripts; name the one that people start.")
    program = read_program(root, [*files, *neighbours(root, files, program.language)])
    while spare := {p.path for p in program.language.accepts([*program.files.values()])} & program.files.keys() - {
        *files
    }:
        # what lies there and does not compile
        program = read_program(root, [p for p in program.files if p not in spare])
    return only(program, files[0])


def only(program: Program, entry: str) -> Program:
    """The program without files that its entry does not need."""
    kept = {f.path: f for f in files_needed(list(program.files.values()), entry, program.language)}
    return Program(program.root, kept, program.language)
