"""What is said when nothing can be planned for what a person asks for."""

from ..program.refusal import Message
from ..rewrites.messages import NO_CLASS_NAME as NO_CLASS_NAME

NO_APP = Message("no-app", "{why}")
NO_BRANCHES = Message("no-branches", "{name} tells no commands apart whose branches could be functions", "choose lines of it with 'aedifex step lift'")
