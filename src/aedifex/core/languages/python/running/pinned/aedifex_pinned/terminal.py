"""A program on a real terminal: before it reads a key or a line it says so, and waits until the scenario has typed.

The word to the other side is a control string in the output itself, so that the screen is looked at exactly there; the
answer comes through a pipe: "g" go on, "x" nothing more will be typed.
"""

import builtins
import fcntl
import io
import os
import struct
import sys
import termios

from . import clock, hooks, turns

_answer = -1
_kept = []
_real_read = os.read
_pid = os.getpid()


def begin(plan):
    global _answer
    _answer = plan["answer"]
    try:
        fcntl.ioctl(0, termios.TIOCSCTTY, 0)
    except OSError:
        pass  # it has one already
    clock.on_sleep[:] = [lambda: ask("sleep", False)]
    clock.before_select.append(lambda fds, timeout: ask("wait", timeout is None) if 0 in fds else None)
    replace_stdin()
    builtins.input = ask_line
    os.read = read
    hooks.AFTER["select"] = selecting
    hooks.AFTER["curses"] = lambda module: curses_on(module)
    hooks.AFTER["curses.panel"] = panels


def pending():
    """Whether something typed is still unread."""
    try:
        return struct.unpack("i", fcntl.ioctl(0, termios.FIONREAD, b"\0\0\0\0"))[0] > 0
    except OSError:
        return False


def ask(kind, need):
    """A turn is over. ``need``: the program cannot go on without a key."""
    if os.getpid() != _pid:
        return
    if need and pending():
        return
    try:
        sys.stdout.flush()
    except (OSError, ValueError):
        pass
    number = turns.now
    os.write(1, b"\x1b]7711;%d;%d\x07" % (number, need))
    answer = _real_read(_answer, 1)
    turns.over(kind)
    if answer != b"g" and need:
        turns.end("ended when no more keys came")


def ask_line(prompt=""):
    sys.stdout.write(str(prompt))
    sys.stdout.flush()
    line = sys.stdin.readline()
    if not line:
        raise EOFError("EOF when reading a line")
    return line.rstrip("\n")


def read(fd, size):
    if fd == 0:
        ask("prompt", True)
    return _real_read(fd, size)


class Keyboard(io.RawIOBase):
    name, mode = "<stdin>", "rb"

    def readable(self):
        return True

    def fileno(self):
        return 0

    def isatty(self):
        return True

    def readinto(self, target):
        ask("prompt", True)
        data = _real_read(0, len(target))
        target[: len(data)] = data
        return len(data)


def replace_stdin():
    old = sys.stdin
    new = io.TextIOWrapper(io.BufferedReader(Keyboard()), encoding=old.encoding, errors=old.errors, line_buffering=True)
    new.mode = "r"
    _kept.append(old)
    sys.stdin = sys.__stdin__ = new


def selecting(module):
    real = module.select

    def select(reading, writing, other, timeout=None):
        typed = [f for f in reading if (f if isinstance(f, int) else f.fileno()) == 0]
        if not typed:
            if not (reading or writing or other) and timeout is not None:
                clock.sleep(timeout)
                return [], [], []
            return real(reading, writing, other, timeout)
        ask("wait", timeout is None)
        ready = real(reading, writing, other, 0)
        if not any(ready) and timeout:
            clock.pass_time(timeout)
        return ready if timeout is not None or any(ready) else real(reading, writing, other)

    module.select = select


class Window:
    """A window whose reading tells first; everything else is the real window's."""

    def __init__(self, real, pad=False):
        self.__dict__.update(_real=real, _pad=pad, _delay=-1)

    def __getattr__(self, name):
        value = getattr(self._real, name)
        if name in ("overlay", "overwrite"):
            return lambda other, *rest: value(bare(other), *rest)
        if name in ("subwin", "derwin", "subpad"):
            return lambda *args: Window(value(*args), self._pad)
        return value

    def nodelay(self, flag):
        self.timeout(0 if flag else -1)

    def timeout(self, milliseconds):
        self.__dict__["_delay"] = milliseconds
        self._real.timeout(0 if milliseconds >= 0 else -1)

    def _typed(self, name, args):
        if not self._pad:
            self._real.refresh()
        delay = self._delay if self._delay >= 0 else _half_delay[0]
        ask("key", delay < 0)
        waiting = not pending()
        if waiting and delay > 0:
            clock.pass_time(delay / 1000)
        if delay >= 0:
            self._real.timeout(0)
        return getattr(self._real, name)(*args)

    def getch(self, *args):
        return self._typed("getch", args)

    def getkey(self, *args):
        return self._typed("getkey", args)

    def get_wch(self, *args):
        return self._typed("get_wch", args)

    def getstr(self, *args):
        return self._typed("getstr", args)


_half_delay = [-1]


def bare(window):
    return window._real if isinstance(window, Window) else window


def curses_on(curses):
    start, new, pad, half, no = curses.initscr, curses.newwin, curses.newpad, curses.halfdelay, curses.nocbreak

    def halfdelay(tenths):
        _half_delay[0] = tenths * 100
        return half(tenths)

    def nocbreak():
        _half_delay[0] = -1
        return no()

    curses.initscr = lambda: Window(start())
    curses.newwin = lambda *args: Window(new(*args))
    curses.newpad = lambda *args: Window(pad(*args), True)
    curses.napms = lambda milliseconds: clock.sleep(milliseconds / 1000)
    curses.halfdelay, curses.nocbreak = halfdelay, nocbreak


def panels(panel):
    real = panel.new_panel
    panel.new_panel = lambda window: real(bare(window))
