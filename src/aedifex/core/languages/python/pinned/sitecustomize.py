"""Loaded by the interpreter at start-up in a checked run only: pins chance and clocks.

The clock starts at a fixed instant and moves only when the program asks for it (a little) or sleeps
(by what it sleeps), so that a run takes no longer than its work and tells the same time every run.
"""

import os
import sys
import time as _time

_START = 1_700_000_000.0  # seconds; an arbitrary instant
_TICK = 0.001
_now = 0.0


def _read():
    global _now
    _now += _TICK
    return _now


def _sleep(seconds):
    global _now
    if seconds < 0:
        raise ValueError("sleep length must be non-negative")
    _now += float(seconds)


def _pin_clock():
    real = {name: getattr(_time, name) for name in ("gmtime", "localtime", "ctime", "strftime", "asctime")}
    _time.time = lambda: _START + _read()
    _time.time_ns = lambda: int((_START + _read()) * 1e9)
    for name in ("monotonic", "perf_counter", "process_time", "thread_time"):
        setattr(_time, name, _read)
        setattr(_time, name + "_ns", lambda: int(_read() * 1e9))
    _time.sleep = _sleep
    _time.gmtime = lambda secs=None: real["gmtime"](_START + _read() if secs is None else secs)
    _time.localtime = lambda secs=None: real["localtime"](_START + _read() if secs is None else secs)
    _time.ctime = lambda secs=None: real["ctime"](_START + _read() if secs is None else secs)
    _time.asctime = lambda t=None: real["asctime"](_time.localtime() if t is None else t)
    _time.strftime = lambda form, t=None: real["strftime"](form, _time.localtime() if t is None else t)


def _pin_dates():
    import datetime

    class _Meta(type):
        def __instancecheck__(cls, other):
            return isinstance(other, cls.__mro__[1])

        def __subclasscheck__(cls, other):
            return issubclass(other, cls.__mro__[1])

    def at_present(cls, tz=None):
        return cls.fromtimestamp(_START + _read(), tz)

    real_datetime, real_date = datetime.datetime, datetime.date

    class pinned_datetime(real_datetime, metaclass=_Meta):
        __slots__ = ()
        now = classmethod(at_present)
        today = classmethod(lambda cls: at_present(cls))
        utcnow = classmethod(lambda cls: cls.fromtimestamp(_START + _read(), datetime.UTC).replace(tzinfo=None))

    class pinned_date(real_date, metaclass=_Meta):
        __slots__ = ()
        today = classmethod(lambda cls: cls.fromtimestamp(_START + _read()))

    for pinned, real in ((pinned_datetime, real_datetime), (pinned_date, real_date)):
        pinned.__name__ = pinned.__qualname__ = real.__name__
        pinned.__module__ = "datetime"
    datetime.datetime, datetime.date = pinned_datetime, pinned_date


def _pin_random(module):
    module.seed(20)
    module.SystemRandom.random = lambda self: module.random()
    module.SystemRandom.getrandbits = lambda self, k: module.getrandbits(k)


def _pin_uuid(module):
    import random

    module.uuid4 = lambda: module.UUID(int=random.getrandbits(128), version=4)
    module.uuid1 = lambda *a, **k: module.uuid4()


_AFTER = {"random": _pin_random, "datetime": lambda module: _pin_dates(), "uuid": _pin_uuid}


class _Seeder:
    """Pins a module as soon as the program has imported it, not before: importing it costs time."""

    def find_spec(self, name, path=None, target=None):
        if name not in _AFTER:
            return None
        from importlib.machinery import PathFinder

        spec = PathFinder.find_spec(name, path, target)
        if spec is None or spec.loader is None:
            return None
        run = spec.loader.exec_module

        def exec_module(module):
            run(module)
            _AFTER[name](module)

        spec.loader.exec_module = exec_module
        return spec


def _restore_path():
    """The program sees the search path and environment that it would have had."""
    here = os.path.dirname(os.path.abspath(__file__))
    sys.path[:] = [p for p in sys.path if os.path.abspath(p or ".") != here]
    for name in ("AEDIFEX_STANDINS",):
        folder = os.environ.pop(name, "")
        if folder:
            sys.path.insert(0, folder)


if os.environ.get("AEDIFEX_PINNED") == "1":
    _pin_clock()
    sys.meta_path.insert(0, _Seeder())
    _restore_path()
