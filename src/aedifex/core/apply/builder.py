"""Build a design: each step worked out, read again, run again, journalled, written."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Any

from ..check import check as checking
from ..check.compare import UNMET, Difference
from ..check.evidence import Observed
from ..check.scenarios import Scenario
from ..program.errors import Refused
from ..program.program import Program
from ..program.refusal import Refusal
from ..rewrites.extract_function.rewrite import Lift
from ..rewrites.step import Step
from . import messages
from .affected import touched_functions
from .git import Git
from .project import Project
from .reach import as_json, function_stretch, functions_of, line_stretch, moving, unreached
from .reach import reach_sentence as told_reach
from .sequence import Outcome, run
from .transactions import settled

END = "end"  # journal entry that says that a design was built to its end


@dataclass
class Built:
    """What a build did: the outcome of every step it tried, and the difference that stopped it, if one did."""

    outcomes: list[Outcome] = field(default_factory=list)
    stopped: str = ""
    difference: list[str] = field(default_factory=list)
    program: Program | None = None
    reach: str = ""  # how much of what moves the scenarios ran
    never: dict[str, Any] = field(default_factory=dict)  # the same as data
    reached: str = ""  # the step that it was to go to, where that stands already
    notes: list[str] = field(default_factory=list)

    @property
    def status(self) -> int:
        return 1 if self.stopped or any(o.result in ("refused", "skipped", "wrong") for o in self.outcomes) else 0


@dataclass
class Options:
    """How a build is carried out."""

    until: str = ""
    dry: bool = False
    checks: bool = True
    git: Git | None = None
    strict: bool = False  # whether a class is refused of which the scenarios never run something


class Builder:
    """``tell`` is called with each outcome as it is known; ``ran`` after each scenario that was run."""

    def __init__(
        self,
        project: Project,
        scenarios: list[Scenario],
        options: Options,
        tell: Callable[[Outcome], None] | None = None,
        ran: Callable[[str], None] | None = None,
    ) -> None:
        self.project, self.scenarios, self.options = project, scenarios, options
        self.tell, self.ran = tell or (lambda outcome: None), ran or (lambda name: None)
        self.overlay: dict[str, bytes | None] = {}
        self.unproven: list[Scenario] = []  # scenarios that did not run after the last step

    def build(self) -> Built:
        """Run all steps that do not stand yet. Raises Refused if the folder is in use or the original cannot be run."""
        project = self.project
        self.refuse_mixture()
        if END in project.done:
            return Built(program=project.current)
        if self.options.until in project.done:
            return Built(program=project.current, reached=self.options.until)
        self.refuse_broken()
        with project.journal.locked():
            seen = self.evidence()
            built = self.steps(seen)
            built.notes = checking.crashes(seen, project.original_world())
            if seen:
                built.reach, built.never = told_reach(self.stretches, seen), as_json(self.stretches, seen)
            return built

    def refuse_mixture(self) -> None:
        other = [e for e in self.project.journal.standing() if e.design != self.project.digest]
        if any(e.files for e in other):
            raise Refused(f"{self.project.path}: the sources stand as another version of the design built them; "
                          "run 'aedifex undo --all' first.")  # fmt: skip

    def refuse_broken(self) -> None:
        original = self.project.original
        for path, file in original.files.items():
            if file.problems:
                raise Refused(f"{file.problems[0]}; nothing is rewritten in a file that cannot be read whole.")
            problem = original.language.compiles(path, file.text)
            if problem is not None:
                raise Refused(f"{problem}; nothing is rewritten in such a file.")
        for problem in original.language.accepts([*original.files.values()])[
            :1
        ]:  # all files together, so once for all of them
            raise Refused(f"{problem}; nothing is rewritten in such a file.")

    def evidence(self) -> dict[str, Observed]:
        """What the original does, recorded now unless it is kept already."""
        if not self.options.checks:
            return {}
        kept = self.project.recorded(self.scenarios)
        return kept if kept is not None else self.project.record(self.scenarios, self.ran)

    def steps(self, seen: dict[str, Observed]) -> Built:
        project = self.project
        built = Built(program=project.current)
        homes: dict[str, str] = {}
        complete = True
        self.stretches = moving(project.design, project.original) if seen else []
        self.never = {(s.path, s.first) for s in unreached(self.stretches, seen)}
        whole = settled(
            project.design,
            project.original,
            self.exists_before,
            self.unproven_classes() if self.options.strict and seen else {},
        )
        for outcome in whole.dropped:
            built.outcomes.append(outcome)
            self.tell(outcome)
        again = run(whole.design, project.current, project.done, project.original, homes, self.exists)
        for outcome, program in again if project.done else whole.played:
            built.outcomes.append(outcome)
            outcome.unreached = bool(seen) and self.is_unreached(outcome.step)
            if outcome.result == "done" and seen:
                self.try_out(built, outcome, program, seen)
            if not built.stopped and outcome.result == "done":
                self.keep(outcome, [s.name for s in self.scenarios if s not in self.unproven] if seen else [])
                built.program = program
            self.tell(outcome)
            if built.stopped or outcome.step.id == self.options.until:
                complete = False
                break
        if seen:
            self.prove(built, seen)
        if complete and not built.stopped and not self.options.dry and project.journal.standing():
            project.journal.write(END, "the design is built", project.digest, {})
        return built

    def is_unreached(self, step: Step) -> bool:
        """Whether no scenario runs the function, or the lines, that a step makes a method of."""
        made = getattr(step, "method", None)
        names = made.origins if made is not None else []
        places = [
            function_stretch(*f, self.project.original) for o in names for f in functions_of(o, self.project.original)
        ]
        if isinstance(step, Lift) and (found := line_stretch(step.name, step.told, self.project.original)) is not None:
            places = [found]
        return bool(places) and all((s.path, s.first) in self.never for s in places)

    def unproven_classes(self) -> dict[str, Refusal]:
        """The classes of which the scenarios never run something."""
        found: dict[str, Refusal] = {}
        for c in self.project.design.classes:
            alone = replace(self.project.design, classes=[c], parts=[], lifts=[])
            lost = [s for s in moving(alone, self.project.original) if (s.path, s.first) in self.never]
            if lost:
                found[c.name] = messages.NEVER_REACHED.in_file(lost[0].path, lost[0].first, function=lost[0].name)
        return found

    def try_out(self, built: Built, outcome: Outcome, program: Program, seen: dict[str, Observed]) -> None:
        """Run the scenarios that the step can affect, in a scratch copy; a difference stops the build."""
        project = self.project
        assert built.program is not None
        functions = None if self.options.git is not None else touched_functions(built.program, program, project)
        scenarios = checking.affected(self.scenarios, seen, functions)
        world = project.world({**self.overlay, **outcome.changes}, program)
        result = checking.check(
            scenarios, world, seen, True, self.ran, project.original_world(), project.pictures, due=False
        )
        self.unproven = [s for s in self.scenarios if s not in scenarios and (s in self.unproven or outcome.changes)]
        if result.differences:
            outcome.result = "different"
            built.stopped = outcome.step.id
            built.difference = difference_sentences(result.differences)

    def prove(self, built: Built, seen: dict[str, Observed]) -> None:
        """At the end, or where it stopped, run what no standing step was thought to affect; steps that change it are
        put back."""
        project, said = self.project, built.difference
        whole = self.options.until == "" and not built.stopped
        pending = [s for s in self.scenarios if s in self.unproven or (s.expect and whole)]
        if not pending:
            return
        world = project.world(dict(self.overlay), built.program)
        result = checking.check(pending, world, seen, True, self.ran, project.original_world(), project.pictures, whole)
        if not result.differences:
            return
        built.stopped, built.difference = "the end", said + difference_sentences(result.differences)
        if all(d.after == UNMET for d in result.differences):
            return  # nothing went wrong, but what was wanted did not come: no step is to blame
        while result.differences and not self.options.dry and (gone := project.journal.undo(1)[0]):
            built.stopped = gone[0].step
            again = [s for s in pending if s.name == result.names[-1]]
            if not checking.check(again, project.world(), seen, due=False).differences:
                break

    def exists(self, path: str) -> bool:
        return bool(self.project.journal.current(path))

    def exists_before(self, path: str) -> bool:
        """Whether a file was there before the first step."""
        return self.exists(path) and self.project.journal.original().get(path, b"") is not None

    def keep(self, outcome: Outcome, ran: list[str]) -> None:
        """Write what a step changes. ``ran``: the scenarios that were run after it."""
        if self.options.dry:
            self.overlay.update(outcome.changes)
            return
        step = outcome.step
        self.project.journal.write(step.id, step.title(), self.project.digest, outcome.changes)
        if self.options.git is not None:
            self.options.git.commit(step.title(), step.id, sorted(outcome.changes), ran)


def difference_sentences(differences: list[Difference]) -> list[str]:
    """What a person reads of the differences: each in a sentence, the first with its context and its pictures."""
    if not differences:
        return []
    return (
        [str(d) for d in differences]
        + list(differences[0].context)
        + [f"picture: {p}" for d in differences for p in d.pictures]
    )
