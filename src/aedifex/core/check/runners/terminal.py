"""Run a program on a terminal of its own: keys by turn or lines after prompts, the screen compared as cells."""

from __future__ import annotations

import contextlib
import fcntl
import os
import re
import select
import struct
import subprocess
import termios
import time
from typing import Any

from ..evidence import Observed
from ..run_environment import World
from ..sandbox import OUTPUT, Reader, Sandbox, end_all, marked, sandbox
from ..scenarios import Scenario

COLUMNS, LINES = 80, 24
MARKER = re.compile(rb"\x1b\]7711;(\d+);([01])\x07")
QUIET = 0.6  # seconds without a sign after which a sleeping program is taken to wait for input
PATIENCE = 3  # times that this is so, with nothing left to type, before the run is ended
KEYS = {
    "UP": "\x1b[A",
    "DOWN": "\x1b[B",
    "RIGHT": "\x1b[C",
    "LEFT": "\x1b[D",
    "HOME": "\x1b[1~",
    "INSERT": "\x1b[2~",
    "DELETE": "\x1b[3~",
    "END": "\x1b[4~",
    "PAGEUP": "\x1b[5~",
    "PAGEDOWN": "\x1b[6~",
    "RETURN": "\r",
    "ENTER": "\r",
    "TAB": "\t",
    "ESCAPE": "\x1b",
    "ESC": "\x1b",
    "SPACE": " ",
    "BACKSPACE": "\x7f",
    "F1": "\x1b[[A",
    "F2": "\x1b[[B",
    "F3": "\x1b[[C",
    "F4": "\x1b[[D",
    "F5": "\x1b[[E",
    "F6": "\x1b[17~",
    "F7": "\x1b[18~",
    "F8": "\x1b[19~",
    "F9": "\x1b[20~",
    "F10": "\x1b[21~",
    **{f"CTRL-{chr(64 + n)}": chr(n) for n in range(1, 27)},
}


def observe(scenario: Scenario, world: World) -> Observed:
    """Run once on a terminal of 80 columns and 24 lines; each look at the keyboard is a turn, with its screen a
    shot."""
    with sandbox(scenario, world) as box:
        return Terminal(box).run()


class Terminal:
    """The other side of the terminal: it looks at the screen and types."""

    def __init__(self, box: Sandbox) -> None:
        import pyte

        self.box = box
        self.screen = pyte.HistoryScreen(COLUMNS, LINES, history=10000)
        self.stream = pyte.ByteStream(self.screen)
        self.typing = Typing(box.scenario)
        self.shots: dict[str, str] = {}
        self.held, self.total = b"", 0
        self.turn = self.idle = 0

    def run(self) -> Observed:
        ours, theirs = os.openpty()
        asking, answering = os.pipe()
        fcntl.ioctl(theirs, termios.TIOCSWINSZ, struct.pack("HHHH", LINES, COLUMNS, 0, 0))
        self.box.world = self.box.world.wishing(answer=asking)
        child = self.box.start(theirs, theirs, subprocess.PIPE, terminal=True, pass_fds=[asking])
        os.close(theirs)
        os.close(asking)
        self.keyboard, self.answers = ours, answering
        errors = b""
        if child is not None:
            reader = Reader(child.stderr, self.box)
            try:
                self.follow(child)
            finally:
                end_all(child, self.box.top)
            reader.join(2)
            errors = bytes(reader.data)
        for fd in (ours, answering):
            os.close(fd)
        self.look("screen at the end")
        if not self.box.trouble and self.typing.left_prompt():
            self.box.trouble = f"the prompt '{self.typing.left_prompt()}' never came"
        seen = self.box.observed(child, b"", errors)
        seen.shots = {**self.shots, **seen.shots}
        if self.idle > PATIENCE and not seen.trouble:
            seen.status, seen.ended = 0, "ended when no more keys came"
        return seen

    def follow(self, child: subprocess.Popen[bytes]) -> None:
        """Read what it shows until it ends, answering each time it asks."""
        deadline = time.monotonic() + self.box.scenario.seconds
        heard = looked = time.monotonic()
        while not self.box.trouble:
            ready, _, _ = select.select([self.keyboard], [], [], 0.05)
            now = time.monotonic()
            if ready:
                heard, self.idle = now, 0
                try:
                    data = os.read(self.keyboard, 1 << 16)
                except OSError:
                    break  # the other end is closed
                if not data:
                    break
                self.shown(data)
            elif child.poll() is not None:
                break
            elif now - heard > QUIET and all(sleeping(pid) for pid in {child.pid, *marked(self.box.top)}):
                # it waits for input without saying so: another program on the same terminal, or a secret
                heard, self.idle = now, 0 if self.type(True) else self.idle + 1
                if self.idle > PATIENCE:
                    break
            if now > deadline:
                self.box.trouble = f"it was still running after {self.box.scenario.seconds:g} seconds"
            elif now - looked > 0.5:
                looked = now
                self.box.trouble = self.box.trouble or self.box.excess()
        if not self.box.trouble and self.idle <= PATIENCE:
            with contextlib.suppress(subprocess.TimeoutExpired):
                child.wait(max(0.1, deadline - time.monotonic()))

    def shown(self, data: bytes) -> None:
        self.total += len(data)
        if self.total > OUTPUT:
            self.box.trouble = f"it wrote more than {OUTPUT >> 20} MiB"
            return
        self.held += data
        while match := MARKER.search(self.held):
            self.draw(self.held[: match.start()])
            self.held = self.held[match.end() :]
            self.turn = int(match[1])
            self.look(f"screen {self.turn}")
            self.answer(match[2] == b"1")
        cut = self.held.rfind(b"\x1b]7711")
        cut = cut if cut >= 0 else len(self.held)
        if self.held.endswith((b"\x1b", b"\x1b]", b"\x1b]7", b"\x1b]77", b"\x1b]771")):
            cut = self.held.rfind(b"\x1b")
        self.draw(self.held[:cut])
        self.held = self.held[cut:]

    def draw(self, data: bytes) -> None:
        self.typing.shown += data.decode("utf-8", "replace")
        with contextlib.suppress(Exception):  # a sequence that the emulator does not know changes nothing
            self.stream.feed(data)

    def answer(self, need: bool) -> None:
        go = self.type(need)
        os.write(self.answers, b"g" if go or not need else b"x")

    def type(self, need: bool) -> bool:
        """Type what is due; false if the program needs a key and there is none left."""
        text = self.typing.due(self.turn, need, self.canonical())
        if text:
            os.write(self.keyboard, text.encode("utf-8", "surrogateescape"))
        return bool(text)

    def canonical(self) -> bool:
        with contextlib.suppress(termios.error):
            return bool(termios.tcgetattr(self.keyboard)[3] & termios.ICANON)
        return False

    def look(self, label: str) -> None:
        """Note the screen: the lines that scrolled away since the last look, the lines in sight, then what is not
        plain."""
        rows = ["".join(line[x].data for x in range(COLUMNS)).rstrip() for line in self.screen.history.top]
        self.screen.history.top.clear()
        rows += [line.rstrip() for line in self.screen.display]
        while rows and not rows[-1]:
            rows.pop()
        marks = [m for y in range(LINES) for m in attributes(self.screen.buffer[y], y)]
        cursor = self.screen.cursor
        self.shots[label] = "\n".join([*rows, f"[cursor {cursor.y + 1}:{cursor.x + 1}]", *marks])


def attributes(line: Any, number: int) -> list[str]:
    """The stretches of a line that are not plain."""
    found: list[tuple[int, int, str]] = []
    for x in range(COLUMNS):
        cell = line[x]
        look = [n for n in ("bold", "italics", "underscore", "strikethrough", "reverse") if getattr(cell, n)]
        look += [f"{n} {getattr(cell, n)}" for n, plain in (("fg", "white"), ("bg", "black"))
                 if getattr(cell, n) not in ("default", plain)]  # fmt: skip
        text = ", ".join(look)
        if text and found and found[-1][1] == x and found[-1][2] == text:
            found[-1] = (found[-1][0], x + 1, text)
        elif text:
            found.append((x, x + 1, text))
    return [f"[line {number + 1}, {a + 1}-{b}: {text}]" for a, b, text in found]


class Typing:
    """What is still to be typed."""

    def __init__(self, scenario: Scenario) -> None:
        self.events = sorted(scenario.events, key=lambda e: e["turn"])
        self.typed = list(scenario.typed)
        self.shown = ""  # since something was typed last
        self.ends = 0

    def due(self, turn: int, need: bool, canonical: bool) -> str:
        """The characters to type now; "" if there are none. A program that cannot go on gets what comes next."""
        found = ""
        while self.events and self.events[0]["turn"] <= turn:
            found += characters(self.events.pop(0))
        if not found and self.typed and need and self.typed[0].get("after", "") in self.shown:
            found = characters({"text": self.typed.pop(0)["text"]})
        if not found and need and self.events:
            found = characters(self.events.pop(0))
        if not found and need and canonical and self.ends < 2 and not self.typed:
            self.ends += 1
            found = "\x04"
        if found:
            self.shown = ""
        return found

    def left_prompt(self) -> str:
        return next((t["after"] for t in self.typed if "after" in t), "")


def characters(event: dict[str, Any]) -> str:
    if "text" in event:
        return str(event["text"]).replace("\n", "\r")
    if "key" in event:
        name = event["key"]
        return str(KEYS.get(name.upper(), name)) if len(name) > 1 else name
    return "\x04" if "quit" in event else ""


def sleeping(pid: int) -> bool:
    """Whether a process waits for something."""
    try:
        with open(f"/proc/{pid}/stat", "rb") as handle:
            return handle.read().rpartition(b")")[2].split()[0] == b"S"
    except OSError:
        return False
