"""What the languages say of classes that are to extend a library's."""

from .refusal import Message

CANNOT_EXTEND = Message("cannot-extend", "{class_} is no class that could extend another")
NO_FIELD_DECLARED = Message("no-field-declared", "{class_} has no field '{field}' with a declaration of its own")
HELD_NOT_SET_WHERE_MADE = Message("held-not-set-where-made", "'{field}' is not set where {class_} is constructed")
HELD_NO_LIBRARY_CLASS = Message(
    "held-no-library-class",
    "'{field}' does not hold an object with methods of its own that a class of a library would call",
)
HELD_NEEDS_OBJECT = Message(
    "held-needs-object", "'{field}' is made from something that does not exist before the object does"
)
SHARES_LINE = Message("shares-line", "it shares a line with other members of its class")
NAME_OF_LIBRARY_CLASS = Message("name-of-library-class", "{library} uses the name '{name}' for something else")
CONSTRUCTOR_CALLS_BASE = Message("constructor-calls-base", "the constructor calls that of its base already")
HELD_SET_AGAIN = Message("held-set-again", "'{field}' is set again here")
LIBRARY_MEMBER_MEANT = Message("library-member-meant", "'{name}' would mean a member of {library} here")
WOULD_BE_NOTICED = Message("would-be-noticed", "this runs before '{field}' is set, and the difference could be noticed")
HELD_USED_ELSEWHERE = Message("held-used-elsewhere", "'{field}' is used elsewhere")
HOLDER_UNKNOWN = Message("holder-unknown", "the members of {class_} are not known")
HELD_NOT_SET_ONCE = Message(
    "held-not-set-once",
    "'{field}' is not set exactly once, in the constructor of {class_}, to an object whose class can be extended",
)
HELD_USED_OUTSIDE = Message("held-used-outside", "'{field}' of {class_} is used elsewhere")
NOTHING_REGISTERED = Message(
    "nothing-registered", "no method of {class_} is registered with '{field}' that it could call by its name"
)
HELD_USED_OTHERWISE = Message(
    "held-used-otherwise", "'{field}' is used here in a way in which the object itself cannot be used"
)
ON_ONE_LINE = Message("on-one-line", "'{function}' is written on one line")
