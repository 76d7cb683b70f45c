"""All that can be wrong in a design whose form is right: names that do not exist, are used twice, or cannot be
written."""

from ..program.refusal import Message
from .messages import AMBIGUOUS_NAME as AMBIGUOUS_NAME
from .messages import CUT_IN_TWO as CUT_IN_TWO
from .messages import NAME_IN_USE as NAME_IN_USE
from .messages import NAME_OF_BUILT_IN as NAME_OF_BUILT_IN
from .messages import NO_CLASS_NAME as NO_CLASS_NAME
from .messages import NO_NAME as NO_NAME
from .messages import NO_ONE_STREAM as NO_ONE_STREAM
from .messages import NO_PARAMETER as NO_PARAMETER

OTHER_LANGUAGE = Message("other-language", "the sources are not written in {language}", "draft again")
NO_SOURCE = Message("no-source", "entry '{entry}' is not among the sources", "name one of them")
NO_ENTRY = Message("no-entry", "'entries' names no source", "write the one that people start")
GIVEN_TWICE = Message("given-twice", "{what} '{name}' is given twice", "take one of them out")
NOT_IN_SOURCES = Message("not-in-sources", "'{name}' does not exist in the sources", "{hint}")
IN_SEVERAL_FILES = Message("in-several-files", "'{name}' is in {files}", "write {first}::{name}, or the other")
OTHER_KIND = Message("other-kind", "'{name}' is no {kind}", "name one")
BELONGS_ALREADY = Message("belongs-already", "'{name}' already belongs to class {class_}", "take one of them out")
CALLED_BY_LANGUAGE = Message("called-by-language", "the language itself calls '{name}'", "choose another name")
STREAM_NEEDS_CLASS = Message("stream-needs-class", "stream '{name}' needs a class", "give it a name with 'class'")
NO_CLASS_OF_SOURCES = Message("no-class-of-sources", "'{name}' is no class of the sources", "name one")
NOT_ONE_MEMBER = Message("not-one-member", "{kind} '{name}' comes from one member of {class_}", "write that in 'from'")
RENAMES_A_FILE = Message("renames-a-file", "'{name}' is a file", "rename it with 'aedifex step rename'")
NO_FIELD_TO_EXTEND = Message(
    "no-field-to-extend",
    "'{name}' is no field of {class_}, so it cannot extend what that holds",
    "name the field that holds the library's object",
)
BASE_IS_A_CLASS = Message(
    "base-is-a-class",
    "base '{name}' is a class of this design; a base is made of what its classes have in common",
    "choose another name",
)
BASE_OF_ONE_CLASS = Message(
    "base-of-one-class", "only {class_} has the base '{name}'", "name it in two classes at least"
)
RECORDS_GIVE_START = Message(
    "records-give-start",
    "the records give '{name}' to the constructor, so it starts as argument",
    "leave 'start' and 'value' out",
)
RECORDS_GIVE_VALUE = Message(
    "records-give-value", "the records say themselves what '{name}' starts with", "leave 'value' out"
)
RECORDS_SAY_ALL = Message(
    "records-say-all", "the records say all that there is to say of '{name}'", "leave '{key}' out"
)
RECORDS_CALL_IT = Message(
    "records-call-it", "'{name}' is called by what holds the records, so it stays open", "leave 'hidden' out"
)
NO_RECORD_KEY = Message("no-record-key", "'{name}' holds no records with the key '{key}'", "name one of their keys")
ARGS_SAY_VALUE = Message(
    "args-say-value", "'{name}' starts as argument, so each object's 'args' say with what", "leave 'value' out"
)
SHARED_OF_SEVERAL = Message(
    "shared-of-several", "field '{name}' is shared by all objects, so it comes from one variable", "write one in 'from'"
)
OTHER_NUMBER = Message(
    "other-number",
    "field '{name}' comes from {count} variables, but there {objects}",
    'write as many, "" where an object has none',
)
FROM_NOTHING = Message("from-nothing", "method '{name}' comes from no function and no lines", "write 'from' or 'lines'")
FROM_BOTH = Message("from-both", "method '{name}' comes from functions and from lines", "take one of them out")
NOT_A_HOOK = Message(
    "not-a-hook", "nothing calls '{name}' by its name, since {class_} extends no class", "leave 'hook' out"
)
NO_SUCH_LINES = Message("no-such-lines", "{why}", "correct the lines")
IN_INNER_FUNCTION = Message(
    "in-inner-function", "{lines} stands in a function inside another one", "lift it there by 'aedifex step lift'"
)
NOT_ONE_STRETCH = Message("not-one-stretch", "method '{name}' comes from one stretch of lines", "write one in 'lines'")
OTHER_METHOD = Message("other-method", "{lines} is no part of a method '{method}'", "correct 'of' or 'lines'")
NO_OBJECT = Message("no-object", "class '{name}' has no object", "say with [[class.object]] what it is called")
NO_OWNER = Message("no-owner", "owner '{name}' is not a class of this design", "name one, or leave 'owner' out")
RECORDS_GIVE_ARGS = Message("records-give-args", "the records say with what each '{name}' is made", "leave 'args' out")
VARIABLE_EACH = Message(
    "variable-each", "objects that have a variable each are not kept in a list", "leave 'collection' out"
)
ONE_FIELD_HOLDS = Message(
    "one-field-holds",
    "{class_} wraps a value, so it has one field, which says no variable",
    "leave one field, 'from' empty",
)
NO_CLASS_STANDS = Message(
    "no-class-stands", "no class '{name}' stands in these scripts", "leave 'existing' out, or correct the name"
)
ONLY_METHODS = Message(
    "only-methods", "{name} stands already, so it gains methods only", "leave fields and objects out"
)
