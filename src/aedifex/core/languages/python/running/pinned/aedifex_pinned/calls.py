"""The calls of the methods of some classes, as source text from which a test can be made.

Noted of each call: how its object and arguments are made, the call, and what it gave, printed and changed. A call
during which a turn passes (it waits for input, or draws a frame) is left out: no test could do that, unless it asks
through an object that it was handed.
"""

import copy
import io
import random
import sys

from . import classes, log, sources, turns

SEEDS = 12  # of them one is given before each call from outside, so that a test can give it too
MOST = 400  # different calls of one method
_seen = {}
_depth = 0
_running = []  # the calls that are not over


def begin(names, streams):
    classes.follow({*names, *streams})
    classes.on_class.append(lambda kind: overhear(kind) if kind.__name__ in streams else wrap(kind))


def overhear(kind):
    """Note what is typed for the calls that wait for it."""
    sources.streams.add(kind)
    original = getattr(kind, "ask", None)

    def ask(self, *args, **named):
        line = original(self, *args, **named)
        for call in _running:
            call.answers.append(line)
        return line

    if original is not None:
        kind.ask = ask


def wrap(kind):
    sources.kinds.add(kind)
    keep_birth(kind)
    for name, function in list(vars(kind).items()):
        if type(function).__name__ == "function" and not (name.startswith("__") and name.endswith("__")):
            setattr(kind, name, watched(kind, name, function))


def keep_birth(kind):
    original = kind.__init__

    def __init__(self, *args, **named):
        given = sources.arguments(args, named)
        original(self, *args, **named)
        if type(self) is kind:
            sources.born[id(self)] = (given, sources.flat(self), self)

    __init__.__wrapped__ = original
    kind.__init__ = __init__


def watched(kind, name, function):
    def method(self, *args, **named):
        global _depth
        if type(self) is not kind or len(_seen.setdefault((kind.__name__, name), set())) >= MOST:
            return function(self, *args, **named)
        call = Call(kind, name, self, args, named)
        _depth += 1
        try:
            return call.follow(function, _depth == 1)
        finally:
            _depth -= 1

    method.__name__, method.__qualname__, method.__doc__ = name, function.__qualname__, function.__doc__
    method.__wrapped__ = function
    return method


class Call:
    def __init__(self, kind, name, owner, args, named):
        self.kind, self.name, self.owner, self.args, self.named = kind, name, owner, args, named
        self.setting = sources.Setting()
        self.target = self.setting.object(owner, sources.stem(kind.__name__))
        self.given = self.setting.arguments(args, named)
        self.before = sources.flat(owner)
        self.answers = []

    def follow(self, function, outermost):
        """Call the method and note what can be noted."""
        seed = len(_seen[self.kind.__name__, self.name]) % SEEDS + 1
        if outermost:
            random.seed(seed)
        turn, chance = turns.now, random.getstate()
        pictures = self.rehearse(function) if self.setting.surfaces else {}
        out, printed = sys.stdout, io.StringIO()
        sys.stdout = Both(out, printed)
        lines, error, result = set(), None, None
        tracing = sys.gettrace()
        sys.settrace(tracer(function.__code__, lines))
        _running.append(self)
        try:
            result = function(self.owner, *self.args, **self.named)
            return result
        except Exception as raised:
            error = raised
            raise
        finally:
            sys.settrace(tracing)
            sys.stdout = out
            _running.remove(self)
            used = random.getstate() != chance
            if (
                self.target
                and self.given is not None
                and (turns.now == turn or self.answers)
                and (outermost or not used)
            ):
                self.note(result, error, printed.getvalue(), seed if used else None, lines, pictures)

    def rehearse(self, function):
        """What it draws on empty surfaces: their checksums, from a copy of the object."""
        import zlib

        chance, out = random.getstate(), sys.stdout
        empty = {n: type(s)(s.get_size()) for n, s in self.setting.surfaces.items()}
        swap = {id(s): empty[n] for n, s in self.setting.surfaces.items()}
        sys.stdout = io.StringIO()
        try:
            owner = copy.deepcopy(self.owner)
            function(
                owner,
                *[swap.get(id(a), a) for a in self.args],
                **{k: swap.get(id(a), a) for k, a in self.named.items()},
            )
            return {n: zlib.crc32(s.get_buffer().raw) for n, s in empty.items()}
        except Exception:
            return {}
        finally:
            sys.stdout = out
            random.setstate(chance)

    def note(self, result, error, printed, seed, lines, pictures):
        after = sources.flat(self.owner)
        row = {
            "class": self.kind.__name__,
            "method": self.name,
            "setup": self.setting.typed(self.answers),
            "target": self.target,
            "call": f"{self.target}.{self.name}({self.given})",
            "printed": printed,
            "seed": seed,
            "result": sources.code(result),
            "raised": type(error).__name__ if error else "",
            "pictures": pictures,
            "after": {
                k: v
                for k, v in after.items()
                if v is not None and (self.before.get(k) is not None or k not in self.before)
            },
            "changed": [k for k in after if after[k] != self.before.get(k)],
            "things": self.setting.after(),
            "lines": sorted(lines),
            "told": bool(self.setting.stream),
        }
        key = repr((row["setup"], row["call"]))
        seen = _seen[self.kind.__name__, self.name]
        if key not in seen and len(repr(row)) < 6000:
            seen.add(key)
            log.note("call", repr(row))


def tracer(code, lines):
    def trace(frame, event, argument):
        if frame.f_code is code:
            last = [0]

            def line(frame, event, argument):
                if event == "line":
                    lines.add((last[0], frame.f_lineno))
                    last[0] = frame.f_lineno
                return line

            return line
        return None

    return trace


class Both:
    """Writes to two streams."""

    def __init__(self, stream, copy):
        self._stream, self._copy = stream, copy

    def write(self, text):
        self._copy.write(text)
        return self._stream.write(text)

    def __getattr__(self, name):
        return getattr(self._stream, name)
