"""The log of a checked run: a line each, fields between tabs. Written by the first process only."""

import os

path = ""
_pid = 0
_lines = []
_size = 0
MOST = 24 << 20  # characters


def begin(plan):
    global path, _pid
    path, _pid = plan["log"], os.getpid()
    exit_now = os._exit

    def leave(status):
        from . import state

        if os.getpid() == _pid:
            state.at_end()
            flush()
        exit_now(status)

    os._exit = leave


def note(kind, *fields):
    global _size
    line = "\t".join([kind, *(escaped(str(f)) for f in fields)])
    _size += len(line)
    if _size > MOST:
        return
    _lines.append(line)
    if len(_lines) >= 500:
        flush()


def escaped(text):
    return text.replace("\\", "\\\\").replace("\n", "\\n").replace("\t", "\\t").replace("\r", "\\r")


def flush():
    if not _lines or os.getpid() != _pid:
        return
    text = "\n".join(_lines) + "\n"
    _lines.clear()
    try:
        with open(path, "a", encoding="utf-8", errors="surrogateescape", newline="") as handle:
            handle.write(text)
    except OSError:
        pass
