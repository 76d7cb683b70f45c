"""Standard input, one typed line at a time, so that each question of the program is a turn."""

import io
import os
import sys

from . import log, turns

_kept = []  # the stream that was replaced: it would close the descriptor when it goes


class Typed(io.RawIOBase):
    """Standard input that hands out at most one line a read."""

    name = "<stdin>"
    mode = "rb"

    def __init__(self):
        self._held = b""
        self._pid = os.getpid()

    def readable(self):
        return True

    def fileno(self):
        return 0

    def isatty(self):
        return os.isatty(0)

    def readinto(self, target):
        if os.getpid() == self._pid:
            turns.over("prompt")
        if not self._held:
            self._held = os.read(0, 1 << 16)
            if not self._held:
                log.note("starved", asked_at())
        cut = self._held.find(b"\n") + 1 or len(self._held)
        cut = min(cut, len(target))
        target[:cut] = self._held[:cut]
        self._held = self._held[cut:]
        return cut


def asked_at():
    """The line of the program that asks."""
    from . import state

    frames = state.own_frames()
    return f"{os.path.basename(frames[0].f_code.co_filename)}:{frames[0].f_lineno}" if frames else ""


def begin():
    old = sys.stdin
    if old is None or os.isatty(0):
        return
    new = io.TextIOWrapper(io.BufferedReader(Typed()), encoding=old.encoding, errors=old.errors)
    new.mode = "r"
    _kept.append(old)
    sys.stdin = sys.__stdin__ = new
