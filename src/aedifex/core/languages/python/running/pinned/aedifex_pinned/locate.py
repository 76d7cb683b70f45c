"""Where in the program the line of output was made that differs."""

import os
import sys

from . import log, state, turns


class Watcher:
    """Stands before a text stream and counts lines."""

    def __init__(self, stream, line):
        self._stream, self._left = stream, line

    def write(self, text):
        if self._left > 0:
            lines = text.count("\n")
            if lines >= self._left or (lines == self._left - 1 and not text.endswith("\n") and text):
                tell()
            self._left -= lines
        return self._stream.write(text)

    def writelines(self, lines):
        for line in lines:
            self.write(line)

    def __getattr__(self, name):
        return getattr(self._stream, name)


def begin(wanted):
    sys.stdout = Watcher(sys.stdout, wanted["output"])


def tell():
    """Note the innermost line of the program, and of what called it."""
    found = [f"{os.path.relpath(f.f_code.co_filename)}:{f.f_lineno}" for f in state.own_frames()]
    if found:
        log.note("at", turns.now, *found[:3])
