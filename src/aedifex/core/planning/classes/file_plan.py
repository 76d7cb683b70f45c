"""What has been planned of a file so far: classes, and what these take over."""

from __future__ import annotations

from collections.abc import Iterable
from collections.abc import Set as AbstractSet
from dataclasses import dataclass, field, replace

from ...design.tables import ClassDesign, StayDesign
from ...program.model import Function, Symbol
from .facts import FileFacts
from .selection import worked_out_between


@dataclass(frozen=True)
class FilePlan:
    """``facts``: with the constants that became fields as variables; ``variables``, ``functions``: those that have a
    class by now; ``bound``: classes that call functions which stay in the file; ``why_not``: function → why it is no
    method."""

    facts: FileFacts
    classes: tuple[ClassDesign, ...] = ()
    stays: tuple[StayDesign, ...] = ()
    why_not: dict[str, str] = field(default_factory=dict)
    variables: frozenset[Symbol] = frozenset()
    functions: frozenset[Symbol] = frozenset()
    bound: frozenset[str] = frozenset()

    @property
    def object_names(self) -> set[str]:
        return {o.name for c in self.classes for o in c.objects}

    @property
    def app(self) -> ClassDesign | None:
        return next((c for c in self.classes if c.role == "app"), None)

    def staying(self, *stays: StayDesign) -> FilePlan:
        """With more that stays."""
        return replace(self, stays=(*self.stays, *stays))


def with_class(
    plan: FilePlan, made: ClassDesign, variables: AbstractSet[Symbol], functions: Iterable[Function]
) -> FilePlan:
    """With a class that takes over these; without, where the language has no place for a first value that code between
    works out."""
    late = [f for f in made.fields if f.start == "later"] if not plan.facts.language.code_at_top else []
    if late:
        origins = [o.local for o in late[0].origins if o]
        return plan.staying(worked_out_between({*variables}, origins[0]))
    return replace(
        plan,
        classes=(*plan.classes, made),
        variables=plan.variables | variables,
        functions=plan.functions | {f.symbol for f in functions if f.symbol is not None},
    )
