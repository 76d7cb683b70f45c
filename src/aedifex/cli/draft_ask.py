"""``aedifex draft --ask``: the proposal gone through on the terminal, class by class."""

from __future__ import annotations

import sys
from typing import TYPE_CHECKING

import click

from .common import console

if TYPE_CHECKING:
    from rich.console import Console

    from ..core.design.tables import Design
    from ..core.planning.conversation import Conversation

NOTHING_WRITTEN = "nothing was written"


def needs_terminal() -> None:
    """Raises AedifexError where nobody can answer."""
    from ..core.program.errors import AedifexError

    if not (sys.stdin.isatty() and sys.stdout.isatty()):
        raise AedifexError(
            f"--ask needs a terminal; {NOTHING_WRITTEN}. Without one, use --keep, --together and others."
        )


def gone_through(conversation: Conversation) -> Design:
    """The design once each class was asked about in turn. Raises Refused when the person ends it, at the end of input
    or on Ctrl-C."""
    from ..core.program.errors import Refused
    from ..views import proposal

    out = console()
    proposal.outline(out, conversation.design)
    out.print("Press Enter to take a class as it is; ? shows what can be answered.")
    done: list[str] = []
    try:
        while name := next((c.name for c in conversation.design.classes if c.name not in done), ""):
            if about(out, conversation, name, done) == "rest":
                break
    except (EOFError, KeyboardInterrupt, click.Abort):
        raise Refused(f"ended before the last class; {NOTHING_WRITTEN}.") from None
    if not conversation.design.classes:
        raise Refused(f"no class is left; {NOTHING_WRITTEN}.")
    return conversation.design


def about(out: Console, conversation: Conversation, name: str, done: list[str]) -> str:
    """Ask about one class until it is kept, or gone. Returns the last answer."""
    from ..core.program.refusal import Refusal
    from ..views import proposal

    shown = None
    while name and (c := conversation.design.class_named(name)) is not None:
        if c is not shown:
            proposal.show(out, c, len(done) + 1, max(len(conversation.design.classes), len(done) + 1))
            shown = c
        said = input(f"{name}> ").strip()
        if said == "quit":
            raise EOFError
        if said == "?":
            proposal.answers(out)
        elif said == "why":
            proposal.reasons(out, c)
        elif said == "back":
            out.print("Taken back." if conversation.back() else "There is no answer to take back.")
            done[:] = [n for n in done if conversation.kept(n)]
            return said
        elif said in ("", "keep", "rest"):
            conversation.keep(name)
            done.append(name)
            return said
        else:
            try:
                before = conversation.design
                name = conversation.take(name, said)
                proposal.outline(out, conversation.design)
                proposal.lost(out, before, conversation.design)
            except Refusal as no:
                proposal.refused(out, no.with_code)
    return ""
