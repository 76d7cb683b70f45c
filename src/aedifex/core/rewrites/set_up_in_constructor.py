"""What ``run`` does before its loop goes to the constructor.

def __init__(self):                   def __init__(self):
    self._tram = Tram(60)                 self._tram = Tram(60)
                                          pygame.init()
def run(self):                            self._screen = open_screen()
    pygame.init()             →
    self._screen = open_screen()      def run(self):
    while ...:                            while ...:
"""

from __future__ import annotations

from collections.abc import Iterator

from ..analysis.concerns import Concerns
from ..analysis.set_up import set_up_of
from ..design.tables import ClassDesign
from ..program.edits import Edits
from ..program.model import Function, Reference, Scope, SourceFile, Statement
from ..program.program import Program
from . import messages
from .by_hand import Asked, HandCommand, home_of
from .order_methods import makers
from .rewrite import Building, ClassRewrite
from .step import ClassStep, Context, Step, class_scope

RUN = "run"


class SetUpInConstructor(ClassStep):
    """The constructor of the app prepares what its loop works with."""

    kind = "setup"

    def title(self) -> str:
        return f"the constructor of {self.design.name} does what comes before the loop"

    def apply(self, context: Context) -> Edits:
        file, out = context.home(self.design), Edits()
        scope = class_scope(file, self.design.name)
        run = method_of(file, scope, RUN)
        if run is None:
            raise messages.NO_RUN.in_file(file.path, class_=self.design.name)
        self.check_made_once(file)
        moving = preparing(context, file, run)
        if not moving:
            return out  # what there was is in its fields by now
        write = context.write
        start = write.comment_start(file, moving[0].start)
        end = write.line_end(file, moving[-1].end)
        text = file.slice(start, end)
        maker = constructor_of(context, file, scope)
        if maker is not None:
            body = context.language.body(file, maker)
            at = write.line_end(file, body[-1].end)
            out.insert(file.path, at, text if text.endswith("\n") else text + write.newline(file))
        else:
            unit = write.indent_unit(file)
            made = write.constructor_text(file, unit, self.design.name, text.rstrip("\n") + "\n") + "\n"
            first = min((f for f in file.functions if f.outer is scope), key=lambda f: f.start)
            at = write.line_start(file, write.comment_start(file, first.start))
            out.insert(file.path, at, write.with_newlines(made, write.newline(file)))
        out.delete(file.path, write.line_start(file, start), write.blank_after(file, end))
        return out

    def check_made_once(self, file: SourceFile) -> None:
        """An object that is made and run at once cannot tell which of both does something."""
        symbol = file.scope.symbols[self.design.name]
        uses = [r for r in symbol.references if not r.writes]
        made = [c for c in file.calls if c.callee.symbol is symbol and not c.callee.member]
        for use in uses:
            call = next((c for c in made if c.callee is use), None)
            if call is None or not self.runs_at_once(file, call.end, use):
                raise messages.NOT_RUN_AT_ONCE.at(file, use.start, class_=self.design.name)
        if len(made) != 1:
            raise messages.NOT_RUN_AT_ONCE.in_file(file.path, class_=self.design.name)

    def runs_at_once(self, file: SourceFile, end: int, use: Reference) -> bool:
        """Whether ``run`` is called on what was made, with nothing in between."""
        after = file.slice(end, end + 200).lstrip()
        if after.startswith(f".{RUN}("):
            return True
        name = next((o.name for o in self.design.objects), "app")
        return after.lstrip(";\n ").startswith(f"{name}.{RUN}(")


def method_of(file: SourceFile, scope: Scope, name: str) -> Function | None:
    """The method of a class that is called so; None if it has none."""
    return next((f for f in file.functions if f.outer is scope and f.name == name), None)


def constructor_of(context: Context, file: SourceFile, scope: Scope) -> Function | None:
    """The constructor of a class; None if it has none."""
    return next((f for name in makers(context, scope) if (f := method_of(file, scope, name)) is not None), None)


def preparing(context: Context, file: SourceFile, run: Function) -> list[Statement]:
    """The statements of ``run`` that prepare, as many as leave no variable of theirs to the rest."""
    about = Concerns(file, context.language, context.effects(file))
    body = [s for s in context.language.body(file, run) if s.kind != "docstring"]
    found = set_up_of(file, context.language, about, body)
    own = {p.name for p in run.params[1:]} if context.write.RECEIVER else {p.name for p in run.params}
    while found:
        start, end = found[0].start, found[-1].end
        locals_ = [s for s in run.scope.symbols.values() if any(start <= r.start < end for r in s.bindings)]
        crossing = [s for s in locals_ if any(r.start >= end for r in s.references)]
        given = [run.scope.symbols[n] for n in own if n in run.scope.symbols]
        handed = [r for s in given for r in s.references if start <= r.start < end]
        if not crossing and not handed:
            return found
        first = min([min(r.start for r in s.bindings) for s in crossing] + [r.start for r in handed])
        found = [s for s in found if s.end <= first]
    return []


def ask_setup(program: Program, name: str) -> Asked:
    return Asked(SetUpInConstructor(ClassDesign(name, "app")), homes={name: home_of(program, name)})


class ConstructorsThatSetUp(ClassRewrite):
    """The app of a design that wants it."""

    by_hand = (
        HandCommand(
            "setup", ("CLASS",), "The constructor of an app does what its run does before the loop.",
            "Move what the method run of a CLASS does before its loop to the constructor.",
            "setup TramlineApp tramline_app.py", "Moved", ask_setup,
        ),
    )  # fmt: skip

    def steps(self, building: Building) -> Iterator[Step]:
        if building.class_.set_up:
            yield SetUpInConstructor(building.plain, needs=building.ids_of(building.class_, "main"))
