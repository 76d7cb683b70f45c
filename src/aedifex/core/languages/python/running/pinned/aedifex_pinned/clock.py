"""A clock that starts at a fixed instant and moves only when the program asks for it (a little) or waits (by what it
waits), so that a run takes no longer than its work and tells the same time every run."""

import sys
import time

from . import hooks
from .kinds import instead

START = 1_700_000_000.0  # seconds; an arbitrary instant
TICK = 0.001  # seconds that pass whenever the clock is read
YIELD = 0.002  # seconds that are really waited when other threads have work to do

_now = 0.0
real_sleep, real_time = time.sleep, time.monotonic
CHILD = 10  # seconds that a child process is given, at most
_children = []  # until when each child that is waited for is given its time, in real time
on_sleep = []  # called at each wait of the program
before_select = []  # called with the descriptors that an event loop watches, and its time limit


def read():
    global _now
    _now += TICK
    return _now


def peek():
    """The time without asking for it."""
    return _now


def pass_time(seconds):
    """Time goes by without a wait."""
    global _now
    _now += float(seconds)


def sleep(seconds):
    if seconds < 0:
        raise ValueError("sleep length must be non-negative")
    if _children and real_time() < _children[-1]:
        real_sleep(seconds)
        return
    for call in on_sleep:
        call()
    pass_time(seconds)
    if alone():
        return
    real_sleep(min(seconds, YIELD))


def alone():
    threading = sys.modules.get("threading")
    return threading is None or threading.active_count() <= 1


def pin():
    real = {name: getattr(time, name) for name in ("gmtime", "localtime", "ctime", "strftime", "asctime")}
    instead(time, "time", lambda: START + read())
    instead(time, "time_ns", lambda: int((START + read()) * 1e9))
    for name in ("monotonic", "perf_counter", "process_time", "thread_time"):
        instead(time, name, lambda: read())
        instead(time, name + "_ns", lambda: int(read() * 1e9))
    instead(time, "sleep", sleep)
    instead(time, "gmtime", lambda secs=None: real["gmtime"](START + read() if secs is None else secs))
    instead(time, "localtime", lambda secs=None: real["localtime"](START + read() if secs is None else secs))
    instead(time, "ctime", lambda secs=None: real["ctime"](START + read() if secs is None else secs))
    instead(time, "asctime", lambda t=None: real["asctime"](time.localtime() if t is None else t))
    instead(time, "strftime", lambda form, t=None: real["strftime"](form, time.localtime() if t is None else t))
    hooks.AFTER.update(
        {
            "datetime": pin_dates,
            "threading": pin_waits,
            "selectors": pin_selectors,
            "sched": pin_sched,
            "subprocess": pin_children,
        }
    )


def pin_dates(datetime):
    class Meta(type):
        def __instancecheck__(cls, other):
            return isinstance(other, cls.__mro__[1])

        def __subclasscheck__(cls, other):
            return issubclass(other, cls.__mro__[1])

    def at_present(cls, tz=None):
        return cls.fromtimestamp(START + read(), tz)

    real_datetime, real_date, utc = datetime.datetime, datetime.date, datetime.timezone.utc

    class pinned_datetime(real_datetime, metaclass=Meta):
        __slots__ = ()
        now = classmethod(at_present)
        today = classmethod(lambda cls: at_present(cls))
        utcnow = classmethod(lambda cls: cls.fromtimestamp(START + read(), utc).replace(tzinfo=None))

    class pinned_date(real_date, metaclass=Meta):
        __slots__ = ()
        today = classmethod(lambda cls: cls.fromtimestamp(START + read()))

    for pinned, real in ((pinned_datetime, real_datetime), (pinned_date, real_date)):
        pinned.__name__ = pinned.__qualname__ = real.__name__
        pinned.__module__ = "datetime"
    datetime.datetime, datetime.date = pinned_datetime, pinned_date


def pin_waits(threading):
    """A wait with a time limit that nobody else could end is over at once."""
    real = threading.Event.wait

    def wait(self, timeout=None):
        if timeout is None or self.is_set() or not alone():
            return real(self, timeout)
        sleep(max(0, timeout))
        return self.is_set()

    instead(threading.Event, "wait", wait)


def pin_sched(sched):
    sched._time = read


def pin_children(subprocess):
    """A child process runs in real time: who waits for it waits really, however short a time the program would give
    it."""

    def waiting_for(real):
        def wait(self, *args, **named):
            _children.append(real_time() + CHILD)
            try:
                return real(self, *args, **named)
            finally:
                _children.pop()

        return wait

    for name in ("wait", "communicate"):
        instead(subprocess.Popen, name, waiting_for(getattr(subprocess.Popen, name)))


def pin_selectors(selectors):
    """An event loop that only waits for time to pass does not wait."""
    for name in ("EpollSelector", "PollSelector", "SelectSelector", "KqueueSelector"):
        kind = getattr(selectors, name, None)
        if kind is not None:
            instead(kind, "select", waiting(kind.select))


def waiting(real):
    def select(self, timeout=None):
        for call in before_select:
            call([key.fd for key in self.get_map().values()], timeout)
        if timeout is None or timeout <= 0:
            return real(self, timeout)
        ready = real(self, max(0, _children[-1] - real_time()) if _children else 0)
        if ready:
            return ready
        if not alone() or len(self.get_map()) > 1:
            ready = real(self, min(timeout, 0.01))
            if ready:
                return ready
        pass_time(timeout)
        return []

    return select
