"""Which of the program's functions a run calls (file and first line of each), or which of its lines it reaches."""

import atexit
import os
import sys
import threading

from . import log, state

_codes = set()
_lines = {}


def begin(what):
    """``what``: "lines", or anything else for functions."""
    atexit.register(tell)
    if what == "lines":
        threading.settrace(entered)
        sys.settrace(entered)
    else:
        sys.setprofile(called)


def called(frame, event, argument):
    if event == "call":
        _codes.add(frame.f_code)


def entered(frame, event, argument):
    if frame.f_code.co_filename not in state.files:
        return None
    _codes.add(frame.f_code)
    reached = _lines.setdefault(frame.f_code.co_filename, set())
    reached.add(frame.f_lineno)

    def line(frame, event, argument):
        if event == "line":
            reached.add(frame.f_lineno)
        return line

    return line


def tell():
    sys.setprofile(None)
    sys.settrace(None)
    rows = {(os.path.relpath(c.co_filename), c.co_firstlineno) for c in _codes if c.co_filename in state.files}
    for path, line in sorted(rows):
        log.note("cover", path, line)
    for path, lines in sorted(_lines.items()):
        log.note("reach", os.path.relpath(path), " ".join(map(str, sorted(lines))))
    log.flush()
