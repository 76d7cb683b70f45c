"""What is said when nothing can be planned for what a person asks for."""

from ..program.refusal import Message
from ..rewrites.messages import LISTS_STAY as LISTS_STAY
from ..rewrites.messages import NAME_OF_BUILT_IN as NAME_OF_BUILT_IN
from ..rewrites.messages import NO_CLASS_NAME as NO_CLASS_NAME
from ..rewrites.messages import RECORD_CANNOT as RECORD_CANNOT

NO_APP = Message("no-app", "{why}")
NO_BRANCHES = Message(
    "no-branches",
    "{name} tells no commands apart whose branches could be functions",
    "choose lines of it with 'aedifex step lift'",
)
NO_RECORDS_IN = Message(
    "no-records-in",
    "no records stand in {names}, made as they are written with keys that are",
    "name the list that holds them, or the variables that hold one each",
)
NO_VARIABLES = Message(
    "no-variables", "no one file has the variables {names}", "name variables that stand at the top of one script"
)
NOT_A_NAME = Message("not-a-name", "'{name}' is not a name of these scripts", "{hint}")
ASKED_TWICE = Message("asked-twice", "'{name}' is asked for in {first} and {second}", "leave it in one class")
ASKED_TO_STAY = Message(
    "asked-to-stay", "'{name}' is also asked to stay where it is ({place})", "leave it in one of the two"
)
CLASS_NAMED_SO = Message(
    "class-named-so", "something is called '{name}' already ({place})", "give the class another name"
)
OF_SEVERAL_FILES = Message(
    "of-several-files", "{class_} would have {apart}", "take the variables of a class from one file"
)
NO_VARIABLE = Message("no-variable", "{class_} would have no variable", "name at least one")
CANNOT_BE_IN = Message("cannot-be-in", "'{name}' cannot be in {class_}: {reason}")
