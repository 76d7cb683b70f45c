"""All that a rewrite says when it refuses."""

from ..program.messages import SHARES_LINE as SHARES_LINE
from ..program.refusal import Message

NO_FILE_OF_CONSTANTS = Message(
    "no-file-of-constants", "in {language}, constants are shared without a file of their own", "leave 'file' out"
)
NO_CONSTANT = Message("no-constant", "'{name}' is no constant that is set once, at the top", "leave 'file' out")
NO_RUN = Message("no-run", "{class_} has no method 'run'", "leave 'set_up' out", by_hand="")
NOT_RUN_AT_ONCE = Message(
    "not-run-at-once",
    "{class_} is not run as soon as it is made, or is made more than once",
    "leave 'set_up' out",
    by_hand="",
)
NOT_COLLECTED = Message(
    "not-collected", "'{name}' is reached in a way that an object in a list cannot be", "leave 'kept_in' out"
)
NOT_MADE_TOGETHER = Message(
    "not-made-together",
    "the objects of {class_} are not made one after the other from plain values",
    "leave 'kept_in' out",
)
OVERLAP = Message("overlap", "{why}", "put each statement there on a line of its own")
COPY_STALE = Message("copy-stale", "'{source}' is set again, and a copy would go stale", "pass it in with 'add'")
SOURCE_SET_AFTER = Message(
    "source-set-after", "'{source}' is set after {class_} is constructed", "pass it in with 'add'"
)
NO_OTHER_NAME = Message("no-other-name", "'{source}' cannot have another name here", "pass it in with 'add'")
NO_LIBRARY_CLASSES = Message(
    "no-library-classes",
    "no library class is extended in {language}",
    "take 'extends' out of the design; the class then keeps it as a field",
    by_hand="",
)
BASE_OF_SEVERAL_FILES = Message(
    "base-of-several-files",
    "the classes that are to have the base '{name}' come from several files",
    "take one of them out",
)
NOTHING_IN_COMMON = Message(
    "nothing-in-common", "the classes have no field and no method in common", "leave 'base' out"
)
NAME_IN_USE = Message("name-in-use", "'{name}' is in use already", "choose another name")
CLASS_NAME_IN_USE = NAME_IN_USE.but("choose another class name")
OBJECT_NAME_IN_USE = NAME_IN_USE.but("rename the object in the design", by_hand="rename the object")
PART_NAME_IN_USE = NAME_IN_USE.but("")
BASE_ALREADY = Message("base-already", "class {class_} has a base already", "leave 'base' out")
NO_CONSTRUCTOR = Message(
    "no-constructor", "{class_} has no constructor in which the extracted class could be constructed"
)
NOTHING_SETS_FIELDS = Message(
    "nothing-sets-fields", "the constructor of {class_} sets none of the fields that would go"
)
DECLARED_FOR_CLASS_ONLY = Message(
    "declared-for-class-only", "'{name}' is declared here in a way that only {class_} allows"
)
MEMBERS_UNKNOWN = Message(
    "members-unknown",
    "the members of {class_} are not known: it is not a class at the top, is decorated, has a base or is one, or "
    "others can reach them by their text",
)
NO_FIELD = Message("no-field", "{class_} has no field '{name}'")
NO_METHOD = Message("no-method", "{class_} has no method '{name}'")
NO_PLAIN_METHOD = Message("no-plain-method", "'{function}' is no plain method")
TAKES_ANY_ARGUMENT = Message("takes-any-argument", "'{function}' takes any named argument")
FUNCTION_TAKES_ANY_ARGUMENT = TAKES_ANY_ARGUMENT.but("leave it a function")
USES_NO_FIELD = Message("uses-no-field", "'{function}' uses '{member}' of {class_}, which is no field")
SETS_KEPT_FIELD = Message("sets-kept-field", "'{function}' sets '{member}', which {class_} keeps")
USED_LATE = Message("used-late", "a function inside '{function}' uses '{member}' later, and {class_} changes it")
GOES_ON_LATER = Message("goes-on-later", "'{function}' goes on later, when '{name}' may hold something else")
PASSED_NAME_TAKEN = Message(
    "passed-name-taken", "'{name}', which '{function}' would be passed, is a name of its own there"
)
MAY_CHANGE_MEANWHILE = Message(
    "may-change-meanwhile", "'{name}' may change while '{function}' runs: others can reach the object from here on"
)
NAMED_ELSEWHERE = Message("named-elsewhere", "another file names {class_}", "leave it in its class")
METHOD_HANDED_ON = Message(
    "method-handed-on", "'{member}' is passed on as a value here, so nobody could pass it {names}"
)
NO_PARENTHESES = Message(
    "no-parentheses", "this call of '{member}' has no parentheses of its own, so nothing more can be passed"
)
OTHER_ARGUMENT_COUNT = Message(
    "other-argument-count",
    "this call of '{member}' has another number of arguments than it takes, so nothing more can be passed",
)
NAME_OF_BASE = Message("name-of-base", "the base of {class_} uses the name '{name}' for something else")
USED_BEFORE_PART = Message(
    "used-before-part",
    "'{member}' is used where {class_} declares its fields, before the extracted class is constructed",
)
USED_NOT_AS_PART = Message(
    "used-not-as-part", "'{member}' is used here in a way that a member of the extracted class does not allow"
)
NOT_SET_ONCE_BEFORE_PART = Message(
    "not-set-once-before-part",
    "'{name}' is not set once and for all before {object} is constructed, so {part} cannot keep it",
)
PART_MEMBER_MEANT = Message("part-member-meant", "'{name}' would mean a member of the extracted class here")
CUT_IN_TWO = Message(
    "cut-in-two", "these lines cut a statement in two", "choose whole statements of one block, or one expression"
)
NO_NAME = Message("no-name", "'{name}' cannot be a name", "choose another name")
BEGIN_IN_LINE = Message("begin-in-line", "these lines begin in the middle of a line", "give each statement a line")
END_IN_LINE = Message("end-in-line", "these lines end in the middle of a line", "give each statement a line")
LINES_DECLARE = Message("lines-declare", "these lines declare, and no function holds them", "choose other lines")
CANNOT_BE_EXTRACTED = Message("cannot-be-extracted", "{why}", "choose other lines")
LINES_END_LOOP = Message(
    "lines-end-loop", "these lines end a loop, and {names}, which they set, is needed after it", "choose other lines"
)
RESULT_TYPE_UNKNOWN = Message("result-type-unknown", "the type of the result is not known", "choose other lines")
TYPE_NOT_WRITTEN = Message("type-not-written", "the declaration of '{name}' does not write its type", "write its type")
START_DIFFERS = Message(
    "start-differs",
    "the design starts {what} with {given}, the source with {there}",
    "change the source, then draft again",
)
SET_AFTER_CONSTRUCTION = Message(
    "set-after-construction",
    "'{name}' cannot be given its first value after the object is constructed",
    "leave it out of the class",
)
DECLARED_UNALIKE = Message(
    "declared-unalike",
    "the variables of the field '{field}' are declared in different ways ({ways})",
    "declare them alike",
)
DECLARED_AND_SET_LATER = Message(
    "declared-and-set-later",
    "'{name}' is declared '{words}', and would be set after its object is constructed",
    "leave it out of the class",
)
CANNOT_BE_FIELD = Message("cannot-be-field", "variable '{name}' {why}", "leave it out of the class")
CANNOT_BE_SHARED = CANNOT_BE_FIELD.but("leave 'shared' out")
ARGUMENT_COUNT = Message(
    "argument-count",
    "object '{object}' is given {count} argument{plural}, but the constructor of {class_} takes {takes}",
    "give one for each, in that order, or leave 'args' out",
)
PARAMETER_HIDES = Message(
    "parameter-hides",
    "the constructor's parameter '{parameter}' would hide a name that its first values read",
    "rename the field in the design",
    by_hand="rename the field",
)
START_NOT_DERIVED = Message(
    "start-not-derived",
    "field '{field}' cannot start as derived: its first value needs no other field",
    "let it start as {kind}",
)
HIDDEN_USED_OUTSIDE = Message(
    "hidden-used-outside",
    "field '{field}' is hidden, and '{name}' is used here, outside {class_}",
    "leave it open: hidden = false",
)
START_NOT_FIXED = Message(
    "start-not-fixed",
    "field '{field}' cannot start as fixed: its first value varies or depends on something else",
    "let it start as argument or later",
)
NOBODY_PASSES = Message("nobody-passes", "nobody passes '{parameter}' to '{function}'", "do not drop it")
FUNCTIONS_FOR_OBJECTS = Message(
    "functions-for-objects", "{functions} functions for {objects} objects", "give one function for each object"
)
MADE_IN_BLOCK = Message(
    "made-in-block",
    "function '{function}' is defined in a block that may run more than once, or not at all (line {line})",
    "it stays a function",
)
USES_RECEIVER_NAME = Message(
    "uses-receiver-name", "function '{function}' uses the name '{receiver}' already", "rename that"
)
NOT_FIRST_ON_LINE = Message(
    "not-first-on-line", "function '{function}' does not start its line", "put it on a line of its own"
)
SHARES_LAST_LINE = Message(
    "shares-last-line", "function '{function}' shares its last line with other code", "put it on lines of its own"
)
REACHES_BY_TEXT = Message("reaches-by-text", "'{call}()' reaches names by their text", "it stays a function")
LOOKS_UP_NAMES = REACHES_BY_TEXT.but("")
STAYS_FUNCTION = Message("stays-function", "{why}", "it stays a function")
LOOKED_AT = Message("looked-at", "{why}", "call the method '{function}'")
WHICH_OBJECT = Message("which-object", "no argument says which object '{function}' is for here", "leave it a function")
DIFFERENT_OBJECTS = Message(
    "different-objects", "the arguments belong to different objects", "do not drop these parameters"
)
CALL_SPREADS = Message("call-spreads", "this call of '{function}' spreads its arguments", "write them out")
NO_PARAMETER = Message("no-parameter", "'{function}' has no parameter '{name}'", "take it out of 'drop'")
CALL_OMITS = Message("call-omits", "this call of '{function}' leaves out a parameter that is to go", "write it out")
SPELLED_OUT = Message("spelled-out", "a self-documenting format shows the name '{name}'", "write it out")
PARAMETER_SPELLED_OUT = SPELLED_OUT.but("do not drop it")
PASSED_AS_VALUE = Message(
    "passed-as-value",
    "function '{function}' is passed on as a value, so its parameters cannot change",
    "keep its parameters in the design",
    by_hand="keep its parameters",
)
CALL_UNREADABLE = Message("call-unreadable", "this call of '{function}' cannot be read", "write it plainly")
TWINS_DIFFER = Message(
    "twins-differ", "'{function}' and '{other}' differ", "leave them apart in the design", by_hand="leave them apart"
)
NO_SUCH_OBJECT_VALUE = Message(
    "no-such-object-value", "'{name}' gets '{text}', which no object of {class_} holds", "do not drop this parameter"
)
FIELD_VARIES = Message("field-varies", "'{name}' does not always get the same field", "do not drop it")
PARAMETER_CHANGED = Message("parameter-changed", "'{function}' changes its parameter '{name}'", "do not drop it")
PARAMETER_READ_LATE = Message(
    "parameter-read-late",
    "'{name}' is read here after '{function}' has returned, and '{known}' may have changed by then",
    "do not drop it",
)
DEFAULT_IN_PLACE = Message(
    "default-in-place", "the default of '{parameter}' is worked out where '{function}' stands", "it stays a function"
)
CALLED_BY_OTHERS_METHOD = Message(
    "called-by-others-method",
    "'{function}' is called for one object by a method of the others",
    "leave it out of the class",
)
NO_CONSOLE = Message(
    "no-console", "no console can be injected in {language}", "take the stream out of the design", by_hand=""
)
NO_ONE_STREAM = Message(
    "no-one-stream", "{words} cannot be one stream", "take the stream out of the design", by_hand=""
)
STREAM_STAYS = Message("stream-stays", "{why}", "take the stream out of the design", by_hand="")
STREAM_UNUSED = Message(
    "stream-unused", "no code outside its classes uses {words}", "take the stream out of the design", by_hand=""
)
CALLED_ELSEWHERE = Message("called-elsewhere", "'{function}' is called elsewhere than by the main code")
OTHER_VARIABLES = Message("other-variables", "the variables of the main code are not those of the file")
FUNCTIONS_AFTER_MAIN = Message("functions-after-main", "functions stand after the main code")
ANY_ARGUMENTS = Message("any-arguments", "it takes any number of arguments")
RESULT_USED = Message("result-used", "the result of '{function}' is used for more than the end of the program")
LINES_JOIN = Message("lines-join", "its lines would be read as a continuation of those around it")
NOTHING_GIVES_PARAMETER = Message("nothing-gives-parameter", "no caller gives its parameter '{parameter}'")
DEFAULT_OF_FUNCTION = Message(
    "default-of-function", "the default of '{parameter}' is worked out where the function stands"
)
ENDS_EARLY_INSIDE = Message("ends-early-inside", "it returns early inside a block that would notice how")
VALUE_NOBODY_TAKES = Message("value-nobody-takes", "it returns a value that is worked out, and no caller takes it")
ENDS_EARLY = Message("ends-early", "it returns early")
NO_MAIN_FUNCTION = Message(
    "no-main-function",
    "there is no one function '{name}' whose lines could be the main code",
    "the function stays as it is",
)
INSTALLED_COMMAND = Message("installed-command", "an installed command calls '{name}'", "the function stays as it is")
NO_VARIABLE_FOR_LITERAL = Message(
    "no-variable-for-literal", "no variable can stand for the literal: {message}", "leave the twins apart"
)
NO_DIFFERING_TWINS = Message(
    "no-differing-twins", "no twins of {class_} differ in {texts}", "take the field out of the design", by_hand=""
)
NOTHING_SETS = Message("nothing-sets", "no statement shows where {name} would be set", "leave the twins apart")
SEVERAL_ON_LINE = Message("several-on-line", "line {line} holds several statements", "put each on a line of its own")
LISTS_STAY = Message("lists-stay", "{why}", "take the class out of the design", by_hand="")
NO_INDEX_PARAMETER = Message(
    "no-index-parameter", "'{function}' has no parameter that is the index", "name it in 'drop'"
)
STAYS_IN_FILE = Message("stays-in-file", "{why}", "class {class_} stays in {path}")
OTHER_FOLDER = Message("other-folder", "'{path}' lies in another folder", "name a file beside it")
NO_MODULE_NAME = Message("no-module-name", "'{path}' is not a name that can be imported", "choose another file name")
PATH_EXISTS = Message("path-exists", "'{path}' exists already", "choose another name")
HIDES_LIBRARY_MODULE = Message(
    "hides-library-module", "'{path}' would hide the library's module of that name", "choose another file name"
)
IMPORTED_LATER = Message(
    "imported-later", "{class_} needs what line {line} imports, after this has run", "class {class_} stays in {path}"
)
CANNOT_MOVE_WITH = Message("cannot-move-with", "'{name}' {why}", "class {class_} stays in {path}")
HIDES_IMPORTED_MODULE = Message(
    "hides-imported-module",
    "'{path}' would hide the module '{module}' that {other} imports",
    "choose another file name",
)
NO_HANDLER_HERE = Message(
    "no-handler-here",
    "no inline handler that could stand elsewhere begins at {where}",
    "name the place where one begins, and a new name for it",
)
NO_LOCAL_HERE = Message(
    "no-local-here",
    "no method of the class has a variable {name}",
    "name a variable of its constructor, Class.variable, or of a method, Class.method.variable",
)
LOCAL_STAYS = Message("local-stays", "{name} cannot be a field: {why}", "leave the field out")
LISTENER_STAYS = Message("listener-stays", "a listener cannot be a method: {why}", "leave the method out")
LISTENERS_DIFFER = Message(
    "listeners-differ", "the listeners of {name} do not do the same", "give each a method of its own"
)
NO_METHOD_YET = Message("no-method-yet", "{class_} has no method '{name}' yet", "correct the design", by_hand="")
RUNS_LATER = Message(
    "runs-later",
    "'{name}' runs after its call has returned, and what it was passed may have changed by then",
    "leave it a function",
)
CHANGES_DURING_CALL = Message(
    "changes-during-call", "'{source}' may change while '{name}' runs", "a copy would go stale; leave it a function"
)
READ_LATE = Message(
    "read-late",
    "'{source}' is read here after '{name}' has returned, and may have changed by then",
    "leave it a function",
)
LOCAL_OF_THAT_NAME = Message("local-of-that-name", "'{function}' has a local '{name}' already", "choose another name")
ONLY_CALLER_KNOWS = Message(
    "only-caller-knows", "only the caller knows which object of {class_} it is", "leave it a function"
)
CANNOT_BE_PASSED = Message("cannot-be-passed", "{why}", "leave it a function")
CHANGED_NOT_READ = Message("changed-not-read", "'{source}' is changed here, not only read", "keep it where it is")
CALLED_BEFORE_SET = Message("called-before-set", "'{name}' is called before '{source}' is set", "set it earlier")
MEANS_ELSE = Message("means-else", "'{name}' means something else here", "choose another name")
MEANS_ELSE_CLASS = MEANS_ELSE.but("choose another name for the class")
OBJECT_MEANS_ELSE = MEANS_ELSE.but("rename the object in the design", by_hand="rename the object")
PART_MEANS_ELSE = MEANS_ELSE.but("")
VALUE_MEANS_ELSE = MEANS_ELSE.but("rename it first")
HANDED_ON = Message(
    "handed-on", "'{name}' is passed on as a value here, so its parameters cannot change", "leave it a function"
)
NO_RECORDS = Message("no-records", "there are no records with just the keys {keys}", "correct the design", by_hand="")
NOT_HANDED_OBJECT = Message(
    "not-handed-object",
    "'{function}' does not get an object of {class_} at every call",
    "name the parameter in 'drop', or leave it a function",
)
RECORD_CANNOT = Message("record-cannot", "a record with the keys {keys} {why}", "the records stay as they are")
NO_SUCH_NAME = Message("no-such-name", "no name '{name}' in these scripts", "{hint}")
AMBIGUOUS_NAME = Message(
    "ambiguous-name", "'{name}' means several things ({places})", "write file::name, or rename them apart by hand"
)
CALLED_SO_ALREADY = Message("called-so-already", "{name} has that name already", "choose another name")
LANGUAGE_READS = Message("language-reads", "the language itself reads '{name}'", "keep that name")
NAME_OF_BUILT_IN = Message("name-of-built-in", "'{name}' is a built-in of the language", "choose another name")
USED_BY_FILE = Message("used-by-file", "'{name}' is used by {path}", "name that file too, so that it can be changed")
NO_MEMBER = Message("no-member", "class {class_} has no member '{member}'", "name one of its members")
NO_SUCH_MEMBER = NO_MEMBER.but("")
LANGUAGE_READS_EITHER = Message(
    "language-reads-either", "the language itself reads '{old}' or '{new}'", "keep that name"
)
CLASS_HAS_BASE = Message("class-has-base", "class {class_} has a base, or is one", "rename its members by hand")
LISTS_MEMBERS = Message("lists-members", "class {class_} lists its members by their text", "keep the name")
WRITTEN_OTHERWISE = Message("written-otherwise", "'{name}' is written in another way here", "write it alike first")
NAMES_BY_TEXT = Message("names-by-text", "'{call}()' can reach '{name}' by its text", "keep that name")
WHOSE_MEMBER = Message(
    "whose-member",
    "the owner of this '{member}' is not known",
    "rename it by hand, or give the member a name of its own first",
)
CALL_BY_HAND = Message("call-by-hand", "{why}", "change that call by hand first")
MEMBERS_BY_TEXT = Message("members-by-text", "'{name}' can reach members by their text", "keep the name")
PEOPLE_START = Message("people-start", "people start {name}", "it keeps its name")
FILES_NOT_RENAMED = Message("files-not-renamed", "files of this language are not renamed", "rename it by hand")
IMPORT_NOT_READ = Message(
    "import-not-read", "{path} imports {name} in a way that was not read", "change that import by hand first"
)
IMPORTED_BY = Message("imported-by", "{name} is imported by {path}", "name that file too, so that it can be changed")
NOT_FORESEEN = Message(
    "not-foreseen",
    "this step cannot be worked out from the design ({kind}: {error})",
    "take out what was changed in it last",
)
NO_CLASS_YET = Message("no-class-yet", "there is no class '{name}' yet", "correct the design", by_hand="")
NO_SUCH = Message("no-such", "there is no {what} '{name}'", "correct the design", by_hand="")
NOT_ONE_FUNCTION = Message(
    "not-one-function", "function '{function}' {why}", "it stays as it is; give each definition a name of its own"
)
MEMBER_NAME_MEANS_ELSE = Message(
    "member-name-means-else",
    "{why}",
    "give the member another name in the design",
    by_hand="give the member another name",
)
ONE_FILE_BUT_FOR_CASE = Message(
    "one-file-but-for-case",
    "'{path}' and '{twin}' are one file where the file system ignores case",
    "choose another name, such as '{stem}_2{dot}{ending}'",
)
READ_BEFORE_FIRST_VALUE = Message(
    "read-before-first-value", "'{name}' may be read before it has its first value", "leave 'shared' out"
)
SKETCH_SHARES_NOTHING = Message(
    "sketch-shares-nothing", "the classes of a sketch cannot share a field", "leave 'shared' out"
)
FIRST_VALUE_IN_PLACE = Message(
    "first-value-in-place", "the first value of '{name}' is worked out where it stands", "leave 'shared' out"
)
FIRST_VALUE_SHARES_LINE = Message(
    "first-value-shares-line", "the first value of '{name}' shares its line", "give it a line of its own"
)
UNSET_CAUGHT = Message(
    "unset-caught", "the program catches {error}, and '{name}' would be set from the start", "leave 'shared' out"
)
ONLY_TWO = Message("only-two", "only two functions can become one")
OTHER_PARAMETERS = Message("other-parameters", "they take different parameters")
LINES_BOUND_TO_PLACE = Message("lines-bound-to-place", "their differing lines work only where they stand")
ONE_DOES_NOTHING = Message("one-does-nothing", "one of them does nothing")
TWINS_ON_ONE_LINE = Message("twins-on-one-line", "they stand on one line")
SEVERAL_DECLARATIONS = Message("several-declarations", "one of them declares in several places which variables it sets")
SETS_FOREIGN = Message("sets-foreign", "one of them sets a variable that the other object does not have")
USES_FOREIGN = Message("uses-foreign", "one of them uses a variable that the other object does not have")
MAIN_STAYS = Message("main-stays", "{why}", "the main code stays where it is")
NO_MAIN_CODE = Message(
    "no-main-code", "there is no main code left to wrap", "take the app out of the design", by_hand=""
)
USED_OUTSIDE_CLASS = Message("used-outside-class", "{why}")
MEMBER_TAKEN = Message("member-taken", "class {class_} has a member '{name}' already", "choose another name")
MEMBER_ALREADY = MEMBER_TAKEN.but("")
MORE_THAN_PLAIN = Message("more-than-plain", "'{function}' is more than a plain function")
NOT_CALLED_ONCE = Message("not-called-once", "'{function}' is not called just once")
STANDS_ON_ONE_LINE = Message("stands-on-one-line", "'{function}' stands on one line")
BOUND_TO_FUNCTION = Message("bound-to-function", "{why}")
CLASS_INSIDE = Message("class-inside", "a class is defined inside it")
SETS_OF_SEVERAL = Message("sets-of-several", "a function inside it sets variables of several functions")
DIE_LATER = Message("die-later", "objects that do something when they die would die later")
CATCHES_UNSET = Message("catches-unset", "the program catches the error of a name that is not set")
STRICTNESS_INSIDE = Message("strictness-inside", "it says for itself how strict it is")
TYPE_LOOKED_UP = Message(
    "type-looked-up", "a variable's type is looked up where it stands, once it is no function's own"
)
STAR_IMPORT_BINDS = Message("star-import-binds", "a star import may bind any name")
OUTER_NAME = Message("outer-name", "its variable '{name}' has a name that means something else outside of it")
CALLED_BY_PROGRAM = Message(
    "called-by-program", "'{function}' is called by the program itself, each time with variables of its own"
)

# -- what is asked for by hand

NO_CONSOLE_USE = Message(
    "no-console-use", "no code in these scripts asks or prints through '{word}' where a variable could stand for it"
)
NO_FUNCTION = Message(
    "no-function", "there is no function '{name}' in these scripts", "name the one that the program starts with"
)
NO_PLACE = Message("no-place", "'{place}' is in none of these scripts", "write file:line:column of the handler")
NO_CLASS_NAME = Message("no-class-name", "'{name}' cannot be the name of a class", "choose another")
NO_CLASS = Message("no-class", "there is no class '{name}' in these scripts")
NO_SCRIPT = Message("no-script", "'{path}' is none of these scripts", "name one of them")
BASE_OF_ONE = Message("base-of-one", "a base takes what several classes have in common", "name two at least")
NO_MEMBER_NAMED = Message("no-member-named", "'{name}' is no member of a class in these scripts", "write Class.member")
HIDDEN_BY_A_WORD = Message(
    "hidden-by-a-word", "a word in its declaration hides a member in {language}", "write it there by hand"
)
USED_OUTSIDE_IT = Message("used-outside-it", "{why}", "it stays open")
NO_TWINS = Message(
    "no-twins",
    "{first} and {second} are no numbered copies of one function",
    "name two that work on numbered variables",
)
NOTHING_TO_SPLIT = Message("nothing-to-split", "no statement sets {names} together with others")
WHOSE_CALL = Message(
    "whose-call",
    "the owner of this '{member}' is not known, so it cannot be said what is passed",
    "keep the object in a variable of its own, or change the calls by hand",
)
NO_LITERAL = Message(
    "no-literal",
    "no literal stands at {place} that a name could stand for",
    "write file:line:column of a number or a text",
)
OTHER_LITERAL = Message("other-literal", "{value} is another literal than {first}", "give it a name of its own")
CANNOT_WRAP = Message("cannot-wrap", "the value cannot be held by an object of {class_}: {why}", "leave the class out")
MEMBER_THERE = Message("member-there", "{class_} may have a member '{name}' already", "give the method another name")
