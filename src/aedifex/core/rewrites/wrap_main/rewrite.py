"""Wrap the main code as a whole into the app class's ``run``; the entry keeps its name and starts it.

count = 0                      class App:
while count < 3:         →         def run(self):
    count += step()                    count = 0
                                       while count < 3: ...
                               App().run()
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from ...analysis.counting_loops import with_inner
from ...analysis.effects import Effects
from ...analysis.hazards import hazards
from ...analysis.messages import NAMING
from ...design.tables import ClassDesign
from ...program.edits import Edits, Range
from ...program.model import Reference, SourceFile, Statement
from .. import messages
from ..rewrite import Building, ClassRewrite
from ..step import ClassStep, Context, Step, add_method, outward
from .plan import MainPlan, plan_main


@dataclass
class EncloseMain(ClassStep):
    """The main code becomes a method of the app."""

    kind = "main"

    @property
    def subject(self) -> str:
        return f"{self.design.name}.run"

    def title(self) -> str:
        return f"the main code becomes {self.design.name}.run"

    def apply(self, context: Context) -> Edits:
        return Wrapper(context, context.home(self.design), self.design).edits()


class WrapMain(ClassRewrite):
    """The app of the design."""

    def steps(self, building: Building) -> Iterator[Step]:
        yield EncloseMain(building.plain, needs=building.ids_of(building.class_))


class Wrapper:
    """Works out the class around the main code, and the two lines that are left."""

    def __init__(self, context: Context, file: SourceFile, design: ClassDesign) -> None:
        self.context, self.file, self.design = context, file, design
        self.write = context.write
        self.unit = self.write.indent_unit(file)
        self.variable = design.objects[0].name if design.objects else ""
        self.out = Edits()

    def edits(self) -> Edits:
        plan = self.plan
        if plan.refusal:
            message, at = plan.refusal
            raise messages.MAIN_STAYS.at(self.file, at, why=message)
        names = {s.name for s in plan.binds(self.file)}
        found = hazards(self.context.program, self.file.path, self.context.program.outsiders) if names else []
        if (h := next((h for h in found if h.kind in NAMING and set(h.names) & names), None)) is not None:
            raise messages.MAIN_STAYS.in_file(h.path, h.line, why=h.message)
        if not plan.moving and plan.guard is None:
            raise messages.NO_MAIN_CODE.in_file(self.file.path)
        nl = self.write.newline(self.file)
        text = self.write.run_method(self.file, self.unit, self.body(plan), plan.guard)
        scope = next((s for s, n in self.file.classes if n == self.design.name and s.parent is self.file.scope), None)
        if scope is not None:
            add_method(self.context, self.file, scope, text, self.out)
        else:
            at = self.write.blank_before(self.file, self.write.comment_start(self.file, self.anchor(plan)))
            text = ("\n" * self.write.BLANKS if at else "") + self.write.class_around(
                self.file, self.unit, self.design.name, text
            )
            self.out.insert(self.file.path, at, self.write.with_newlines(text, nl))
        self.entry(plan, nl)
        return self.out

    @cached_property
    def plan(self) -> MainPlan:
        language = self.context.language
        return plan_main(self.file, Effects(self.file, language), language, self.variable)

    def anchor(self, plan: MainPlan) -> int:
        """Where the class goes when there is none yet: before the last stretch of main code."""
        if plan.guard is not None:
            return plan.guard.start
        return plan.stretches(self.file)[-1][0].start

    # -- run -------------------------------------------------------------------------------------

    def body(self, plan: MainPlan) -> str:
        parts = []
        for stretch in plan.stretches(self.file):
            start = self.write.comment_start(self.file, stretch[0].start)
            end = self.write.line_end(self.file, stretch[-1].end)
            parts.append(self.moved(start, end, self.unit * 2, stretch))
        if plan.guard is not None:
            inner = plan.inside
            end = self.inside_end(plan)
            if self.shared(plan):
                lead = self.write.top_lead(self.file, self.unit) + self.unit * 2
                parts.append(lead + self.moved(inner[0].start, end, "", inner))
            else:
                parts.append(self.moved(self.write.comment_start(self.file, inner[0].start), end, self.unit, inner))
        return "\n".join(part.rstrip("\r\n") + "\n" for part in parts if part.strip())

    def inside_end(self, plan: MainPlan) -> int:
        """Where the lines of the guard end: what closes it may share the last one."""
        end = plan.inside[-1].end
        line = self.write.line_end(self.file, end)
        rest = self.file.text[end:line].strip()
        return end if rest and not self.write.trailing_comment(self.file, end) else int(line)

    def shared(self, plan: MainPlan) -> bool:
        """Whether the main code stands on the line of its guard."""
        return plan.guard is not None and self.file.line(plan.inside[0].start) == self.file.line(plan.guard.start)

    def moved(self, start: int, end: int, prefix: str, stretch: list[Statement]) -> str:
        edits: list[tuple[int, int, str]] = []
        own = self.file.scope.symbols.get(self.variable) if self.variable else None
        mine = [r for r in self.file.within(start, end) if own is not None and r.symbol is own and not r.writes]
        edits += [(r.start, r.end, self.write.use(r, self.receiver(r))) for r in mine]
        more, trouble = self.write.inner_receivers(self.file, self.file.scope, mine)
        if trouble:
            raise messages.MAIN_STAYS.at(self.file, start, why=trouble)
        edits += more + outward(self.context, self.file, self.design, (start, end), mine, start)
        making = self.making(stretch)
        for s in stretch:
            edits += self.write.local_edits(self.file, s) if s not in making else []
        edits += self.given_back(stretch)
        for s in making:
            left, right = self.write.line_start(self.file, s.start), self.write.line_end(self.file, s.end)
            others = [o for o in stretch if o is not s and left <= o.start < right]
            if others:
                following = min((o.start for o in others if o.start > s.start), default=s.end)
                edits.append((s.start, following, ""))
            else:
                edits.append((left, right, ""))
        edits += self.spare_blanks(start, end, edits)
        text = str(self.write.indented(self.file, start, end, edits, prefix))
        while text and not text.split("\n", 1)[0].strip():
            text = text.split("\n", 1)[1] if "\n" in text else ""
        return text

    @cached_property
    def kept(self) -> tuple[str, bool]:
        """The function that the main code was before it was opened, as it stays, and whether it gives what ``run``
        does."""
        if not self.design.opened or self.design.opened[0] in self.file.scope.symbols or self.plan.guard is None:
            return "", False
        made = self.making(self.plan.moving)
        if self.shared(self.plan) or self.plan.keep_alive or any(s not in made for s in self.plan.moving):
            return "", False
        name, calling = self.design.opened
        return self.write.kept_main(self.unit, name, calling, self.calls(self.plan))

    def given_back(self, stretch: list[Statement]) -> list[Range]:
        """What the function gave was made the end of the program; ``run`` gives it back."""
        if not self.kept[1]:
            return []
        before, after = self.design.opened[1].split(f"{self.design.opened[0]}()", 1)
        edits: list[Range] = []
        inner = list(with_inner(self.file, self.context.language, stretch))
        noticing = [(s.start, s.end) for s in inner if s.kind in ("try", "with")]  # an end, but no return
        for s in inner:
            first, last = s.start + len(before.encode()), s.end - len(after.encode())
            if any(a < s.start < b for a, b in noticing) or not self.ends(s, before, after):
                continue
            if first < last:
                lines = b"\n" in self.file.text[first:last]
                edits += [(s.start, first, "return (" if lines else "return "), (last, s.end, ")" if lines else "")]
            elif s is stretch[-1]:
                edits.append((self.write.line_start(self.file, s.start), self.write.line_end(self.file, s.end), ""))
            else:
                edits.append((s.start, s.end, "return"))
        return edits

    def ends(self, s: Statement, before: str, after: str) -> bool:
        """Whether a statement ends the program as the call of the function did, with a value or without."""
        text = self.file.slice(s.start, s.end)
        if s.kind not in ("raise", "expression") or not (text.startswith(before) and text.endswith(after)):
            return False
        begins = s.start + len(before.encode())
        call = next((c for c in self.file.calls_within(s.start, s.end) if c.start < begins and c.end == s.end), None)
        given = self.context.language.arguments(self.file, call) if call is not None else []
        return call is not None and len(given) < 2 and not any(a.keyword for a in given)

    def receiver(self, ref: Reference) -> str:
        return str(self.write.receiver_at(self.file, ref.scope, self.file.scope, self.design.name))

    def spare_blanks(self, start: int, end: int, edits: list[tuple[int, int, str]]) -> list[tuple[int, int, str]]:
        """Inside a method one blank line is enough."""
        found, before = [], False
        for number in range(self.file.line(start) - 1, len(self.file.lines)):
            left = self.file.lines[number]
            right = self.file.lines[number + 1] if number + 1 < len(self.file.lines) else len(self.file.text)
            if left >= end or left >= right:
                break
            inside = any(a < left < b for a, b in self.file.strings)
            gone = any(a <= left and right <= b for a, b, _ in edits)
            blank = not inside and not self.file.text[left:right].strip()
            if blank and before and not gone:
                found.append((left, right, ""))
            before = blank or (gone and before)
        return found

    def making(self, stretch: list[Statement]) -> list[Statement]:
        """The statement that makes the app: it is what the entry does now."""
        return [s for s in stretch if s.target is not None and self.variable and s.target.name == self.variable
                and s.target.symbol is not None and s.target.symbol.scope is self.file.scope]  # fmt: skip

    def made(self, plan: MainPlan) -> str:
        """How the app is made, with what it is handed."""
        found = [s for s in self.making(plan.statements) if s.value is not None]
        return (
            self.file.slice(*found[0].value) if found and found[0].value else str(self.write.make(self.design.name, []))
        )

    # -- the entry -------------------------------------------------------------------------------

    def calls(self, plan: MainPlan) -> list[str]:
        """What makes the app and starts it."""
        variable = self.variable if plan.keep_alive else ""
        return self.write.main_call(
            self.file, self.design.name, self.made(plan), variable or ("app" if plan.keep_alive else ""), plan.guard
        )

    def entry(self, plan: MainPlan, nl: str) -> None:
        lines = self.calls(plan)
        if self.kept[0] and plan.guard is not None:
            at = self.write.comment_start(self.file, plan.guard.start)
            text = self.kept[0] + "\n" * self.write.BLANKS
            self.out.insert(self.file.path, at, self.write.with_newlines(text, nl))
            lines = [self.design.opened[1]]
        if self.shared(plan):
            self.out.replace(self.file.path, plan.inside[0].start, plan.inside[-1].end, "; ".join(lines))
        elif plan.guard is not None:
            inner = plan.inside
            start = self.write.blank_before(self.file, self.write.comment_start(self.file, inner[0].start))
            lead = self.file.slice(self.write.line_start(self.file, inner[0].start), inner[0].start)
            end = self.inside_end(plan)
            self.out.replace(self.file.path, start, end, "".join(lead + line + nl for line in lines))
        stretches = plan.stretches(self.file)
        for number, stretch in enumerate(stretches):
            start = self.write.comment_start(self.file, stretch[0].start)
            end = self.write.line_end(self.file, stretch[-1].end)
            last = number == len(stretches) - 1 and plan.guard is None
            if last:
                self.out.replace(self.file.path, start, end, "".join(line + nl for line in lines))
            else:
                self.out.delete(self.file.path, self.write.blank_before(self.file, start), end)
