"""What is said when nothing can be planned for what a person asks for."""

from ..program.refusal import Message
from ..rewrites.messages import LISTS_STAY as LISTS_STAY
from ..rewrites.messages import NAME_OF_BUILT_IN as NAME_OF_BUILT_IN
from ..rewrites.messages import NO_CLASS_NAME as NO_CLASS_NAME
from ..rewrites.messages import NOT_HANDED_OBJECT as NOT_HANDED_OBJECT
from ..rewrites.messages import RECORD_CANNOT as RECORD_CANNOT

NO_APP = Message("no-app", "{why}")
NO_BRANCHES = Message(
    "no-branches",
    "{name} tells no commands apart whose branches could be functions",
    "choose lines of it with 'aedifex step lift'",
)
NO_LISTENERS = Message(
    "no-listeners",
    "no listener that could be a method is written in {class_}{why}",
    "name a class in whose methods some are, or leave them where they are",
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
NO_VALUE_OF_ITS_OWN = Message(
    "no-value-of-its-own", "'{name}' is no variable, so it has no first value", "name variables of the script"
)
ASKED_BOTH_WAYS = Message(
    "asked-both-ways", "'{name}' is asked to be an argument and to be fixed", "leave it in one of the two"
)
LIST_AND_APART = Message(
    "list-and-apart", "the objects of {name} are asked for in a list and with a variable each", "leave one of the two"
)
CANNOT_START = Message("cannot-start", "'{name}' cannot be {start}: {reason}")
NO_LIST_OF_THEM = Message("no-list-of-them", "the objects of {name} cannot be kept in a list: {reason}")
OF_SEVERAL_FILES = Message(
    "of-several-files", "{class_} would have {apart}", "take the variables of a class from one file"
)
NO_VARIABLE = Message("no-variable", "{class_} would have no variable", "name at least one")
CANNOT_BE_IN = Message("cannot-be-in", "'{name}' cannot be in {class_}: {reason}")
NO_ANSWER = Message("no-answer", "'{word}' is no answer", "the answers begin with {words}")
ANSWER_WITH = Message("answer-with", "'{word}' goes with {count} name{s}", "for example: {example}")
NO_MEMBER_SO = Message("no-member-so", "{class_} has no member '{name}'", "it has {members}")
MADE_OF_LINES = Message(
    "made-of-lines",
    "'{name}' is made of lines of other code, and has no name of its own in the program",
    "keep it, and change its table once all is written",
)
APP_STAYS = Message(
    "app-stays", "{name} runs the main code, so it cannot be left out alone", "answer 'quit' to have nothing written"
)
IN_THE_DESIGN = Message(
    "in-the-design",
    "{name} is made of more than variables and functions, and no answer changes that",
    "keep it, and change its table once all is written",
)
NOT_HANDED_ON = Message(
    "not-handed-on",
    "no functions hand '{name}' to each other that could be methods of it",
    "name a parameter that every call gives plainly",
)
