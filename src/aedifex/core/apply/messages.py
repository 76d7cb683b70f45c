"""All that is said when a step of a build is not done."""

from ..program.refusal import Message
from ..rewrites.messages import NO_NAME as NO_NAME
from ..rewrites.messages import OVERLAP as OVERLAP
from ..rewrites.messages import PATH_EXISTS as PATH_EXISTS

NEVER_REACHED = Message("never-reached", "no scenario reaches {function}", "add a scenario that does (aedifex record --suggest), leave it out, or build without --strict")
WRITES_BROKEN = Message("writes-broken", "the text that it would write{place} does not hold: {message} (line {line} of that text)", "nothing was written for it")
NEEDS_STEP = Message("needs-step", "it needs the step '{step}', which was not done")
STAYS_WITH_READERS = Message("stays-with-readers", "'{name}' ends up in {file}, because it moves with its readers", "leave 'file' out")
NOT_GIVEN = Message("not-given", "{method} uses {names}, which it is not given", "{gifts}")
NOT_MADE = Message("not-made", "it cannot be made")
NO_CONSOLE_USE = Message("no-console-use", "no code in these scripts asks or prints through '{word}' where a variable could stand for it")
NO_FUNCTION = Message("no-function", "there is no function '{name}' in these scripts", "name the one that the program starts with")
NO_PLACE = Message("no-place", "'{place}' is in none of these scripts", "write file:line:column of the handler")
NO_CLASS_NAME = Message("no-class-name", "'{name}' cannot be the name of a class", "choose another")
NO_CLASS = Message("no-class", "there is no class '{name}' in these scripts")
NOTHING_CHANGES = Message("nothing-changes", "{step}: nothing would change")
BUILT_IN_PART = Message("built-in-part", "it is built only in part", "build it to its end, or undo it, before this step")
NO_SCRIPT = Message("no-script", "'{path}' is none of these scripts", "name one of them")
BASE_OF_ONE = Message("base-of-one", "a base takes what several classes have in common", "name two at least")
NO_APP = Message("no-app", "{why}")
NO_MEMBER_NAMED = Message("no-member-named", "'{name}' is no member of a class in these scripts", "write Class.member")
HIDDEN_BY_A_WORD = Message("hidden-by-a-word", "a word in its declaration hides a member in {language}", "write it there by hand")
USED_OUTSIDE_IT = Message("used-outside-it", "{why}", "it stays open")
NO_TWINS = Message("no-twins", "{first} and {second} are no numbered copies of one function", "name two that work on numbered variables")
NO_BRANCHES = Message("no-branches", "{name} tells no commands apart whose branches could be functions", "choose lines of it with 'aedifex step lift'")
NOTHING_TO_SPLIT = Message("nothing-to-split", "no statement sets {names} together with others")
WHOSE_CALL = Message("whose-call", "the owner of this '{member}' is not known, so it cannot be said what is passed", "keep the object in a variable of its own, or change the calls by hand")
