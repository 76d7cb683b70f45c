"""All that is said when a step of a build is not done."""

from ..program.refusal import Message
from ..rewrites.messages import NOT_FORESEEN as NOT_FORESEEN

NEVER_REACHED = Message(
    "never-reached",
    "no scenario reaches {function}",
    "add a scenario that does (aedifex record --suggest), leave it out, or build without --strict",
)
WRITES_BROKEN = Message(
    "writes-broken",
    "the text that it would write{place} does not hold: {message} (line {line} of that text)",
    "nothing was written for it",
)
NEEDS_STEP = Message("needs-step", "it needs the step '{step}', which was not done")
STAYS_WITH_READERS = Message(
    "stays-with-readers", "'{name}' ends up in {file}, because it moves with its readers", "leave 'file' out"
)
NOT_GIVEN = Message("not-given", "{method} uses {names}, which it is not given", "{gifts}")
NOT_MADE = Message("not-made", "it cannot be made")
NOTHING_CHANGES = Message("nothing-changes", "{step}: nothing would change")
BUILT_IN_PART = Message(
    "built-in-part", "it is built only in part", "build it to its end, or undo it, before this step"
)
