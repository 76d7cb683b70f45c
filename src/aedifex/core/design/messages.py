"""All that can be wrong in the form of a design: keys, types, values."""

from ..program.refusal import Message

NO_FORMAT = Message("no-format", "'format' is missing in the file", "write format = {format} first")
OTHER_TYPE = Message("other-type", "'{key}' must be {kind}", "correct its value")
OTHER_FORMAT = Message(
    "other-format", "format {given} is not known", "write {format}, or use the version that wrote it"
)
UNKNOWN_KEY = Message("unknown-key", "unknown key '{key}'", "{hint}")
MISSING_KEY = Message("missing-key", "'{key}' is missing in {table}", "write it")
OTHER_VALUE = Message("other-value", "{key} '{value}' is not one of {choices}", "write one of them")
OTHER_ENTRY = Message("other-entry", "each entry of '{key}' must be {form}", "write it so")
