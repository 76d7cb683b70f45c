"""What is said when nothing can be planned for what a person asks for."""

from ..program.refusal import Message
from ..rewrites.messages import LISTS_STAY as LISTS_STAY
from ..rewrites.messages import NO_CLASS_NAME as NO_CLASS_NAME
from ..rewrites.messages import RECORD_CANNOT as RECORD_CANNOT

NO_APP = Message("no-app", "{why}")
NO_BRANCHES = Message("no-branches", "{name} tells no commands apart whose branches could be functions", "choose lines of it with 'aedifex step lift'")
NO_RECORDS_IN = Message("no-records-in", "no records stand in {names}, made as they are written with keys that are", "name the list that holds them, or the variables that hold one each")
NO_VARIABLES = Message("no-variables", "no one file has the variables {names}", "name variables that stand at the top of one script")
