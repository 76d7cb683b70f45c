"""The window of the recording stand-in: what is written down, vectors, shapes, handlers and timers."""

import math as _math

from aedifex_pinned import clock as _clock
from aedifex_pinned import log as _log
from aedifex_pinned import turns as _turns

_TIMERS = 40  # how many timer calls the main loop runs before it ends
_KEYS = {"enter": "return", "esc": "escape", " ": "space"}
_LIMIT = 20000  # acts that are written down
_count = 0


class Terminator(Exception):
    """The window was closed."""


class TurtleGraphicsError(Exception):
    pass


class TurtleScreenBase:
    pass


class Vec2D(tuple):
    def __new__(cls, x, y):
        return tuple.__new__(cls, (x, y))

    def __add__(self, other):
        return Vec2D(self[0] + other[0], self[1] + other[1])

    def __mul__(self, other):
        if isinstance(other, Vec2D):
            return self[0] * other[0] + self[1] * other[1]
        return Vec2D(self[0] * other, self[1] * other)

    def __rmul__(self, other):
        return Vec2D(self[0] * other, self[1] * other) if isinstance(other, (int, float)) else NotImplemented

    def __sub__(self, other):
        return Vec2D(self[0] - other[0], self[1] - other[1])

    def __neg__(self):
        return Vec2D(-self[0], -self[1])

    def __abs__(self):
        return _math.hypot(*self)

    def rotate(self, angle):
        c, s = _math.cos(_math.radians(angle)), _math.sin(_math.radians(angle))
        return Vec2D(self[0] * c - self[1] * s, self[1] * c + self[0] * s)

    def __getnewargs__(self):
        return (self[0], self[1])

    def __repr__(self):
        return "({:.2f},{:.2f})".format(*self)


class Shape:
    def __init__(self, type_, data=None):
        self._type, self._data = type_, [] if type_ == "compound" else data

    def addcomponent(self, poly, fill, outline=None):
        self._data.append([poly, fill, outline or fill])


def _show(value):
    if isinstance(value, float):
        return f"{value:.4f}"
    if isinstance(value, Vec2D):
        return "({:.4f}, {:.4f})".format(*value)
    if isinstance(value, (tuple, list)):
        return "(" + ", ".join(_show(v) for v in value) + ")"
    if callable(value):
        return "<function>"
    if hasattr(value, "_number"):
        return "<turtle %d>" % value._number
    if isinstance(value, Shape):
        return "<shape>"
    return repr(value)


def _note(who, what, *args, **named):
    global _count
    _count += 1
    if _count <= _LIMIT:
        parts = [_show(a) for a in args] + [f"{k}={_show(v)}" for k, v in sorted(named.items())]
        _log.note("device", "{}.{}({})".format(who, what, ", ".join(parts)))
    if _count > _LIMIT * 10:
        raise Terminator


class _Canvas:
    """Answers anything that a program asks of the window underneath."""

    def __getattr__(self, name):
        def act(*args, **named):
            _note("canvas", name, *args, **named)
            return self

        return act

    def __getitem__(self, key):
        return 0

    def winfo_width(self):
        return 800

    def winfo_height(self):
        return 600

    winfo_screenwidth, winfo_screenheight = winfo_width, winfo_height


class TurtleScreen:
    _instances = {}

    def __init__(self, cv=None, *args, **named):
        self._timers, self._keys, self._clicks, self._turtles = [], {}, [], []
        self._mode, self._delay, self._tracer, self._colormode, self._bg = "standard", 10, 1, 1.0, "white"
        _clock.on_sleep.append(lambda: (self._deliver(), _turns.over("sleep")))
        self._shapes = {"arrow", "turtle", "circle", "square", "triangle", "classic", "blank"}
        self.cv, self._canvas = _Canvas(), _Canvas()
        self.xscale = self.yscale = 1.0

    def _act(self, what, *args, **named):
        _note("screen", what, *args, **named)

    def mainloop(self):
        self._act("mainloop")
        if _turns.scripted:
            self._follow()
        else:
            self._try_everything()
        self._act("end")

    def _follow(self):
        """The scenario's events and the program's timers, a timer a turn."""
        while self._open and (self._timers or _turns.later()):
            self._deliver()
            self._fire()
            _turns.over("frame")

    def _try_everything(self):
        """Without a scenario every handler is called once, then the timers run."""
        for key in sorted(self._keys):
            for fun in list(self._keys.get(key, [])):
                self._act("key", key)
                fun()
        self._click(10.0, 20.0)
        for turtle in list(self._turtles):
            for what, handlers, at in (
                ("clicked", turtle._clicks, 1.0),
                ("dragged", turtle._drags, 5.0),
                ("released", turtle._releases, 5.0),
            ):
                for fun in list(handlers):
                    turtle._act(what)
                    fun(at, at)
        for _ in range(_TIMERS):
            if not self._timers or not self._open:
                break
            self._fire()
            _turns.over("frame")

    def _fire(self):
        if not self._timers:
            return
        self._timers.sort(key=lambda t: t[0])
        when, fun = self._timers.pop(0)
        self._now = max(self._now, when)
        fun()

    def _click(self, x, y):
        for fun in list(self._clicks):
            self._act("click", x, y)
            fun(x, y)

    def _deliver(self):
        """Call the handlers of the events whose turn has come."""
        for event in _turns.due():
            if "quit" in event:
                self._open = False
            elif "key" in event or "text" in event:
                for name in [event["key"]] if "key" in event else event["text"]:
                    spelled = next((k for k in self._keys if k.lower() == _KEYS.get(name.lower(), name.lower())), None)
                    for fun in (
                        list(self._keys.get(spelled, self._keys.get("any", []))) if event.get("press", True) else ()
                    ):
                        self._act("key", name)
                        fun()
            elif "click" in event and event.get("press", True):
                self._click(*map(float, event["click"]))
                for turtle in list(self._turtles):
                    if abs(turtle._position - Vec2D(*event["click"])) < 12:
                        for fun in list(turtle._clicks):
                            fun(*map(float, event["click"]))

    def update(self):
        self._act("update")
        self._deliver()
        _turns.over("frame")
        if not self._open:
            raise Terminator

    done = mainloop
    _now = 0
    _open = True

    def ontimer(self, fun, t=0):
        self._act("ontimer", t)
        self._timers.append((self._now + t, fun))

    def onkey(self, fun, key):
        self._act("onkey", key)
        if fun is None:
            self._keys.pop(key, None)
        else:
            self._keys[key] = [fun]

    onkeyrelease = onkey

    def onkeypress(self, fun, key=None):
        self.onkey(fun, key or "any")

    def onclick(self, fun, btn=1, add=None):
        self._act("onclick", btn)
        self._clicks = ([*self._clicks, fun] if add else [fun]) if fun is not None else []

    onscreenclick = onclick

    def tracer(self, n=None, delay=None):
        if n is None:
            return self._tracer
        self._tracer = n
        self._act("tracer", n, delay)

    def delay(self, delay=None):
        if delay is None:
            return self._delay
        self._delay = delay
        self._act("delay", delay)

    def colormode(self, cmode=None):
        if cmode is None:
            return self._colormode
        self._colormode = cmode
        self._act("colormode", cmode)

    def mode(self, mode=None):
        if mode is None:
            return self._mode
        self._mode = mode
        self._act("mode", mode)
        for turtle in self._turtles:
            turtle.reset()

    def bgcolor(self, *args):
        if not args:
            return self._bg
        self._bg = args[0] if len(args) == 1 else args
        self._act("bgcolor", *args)

    def turtles(self):
        return list(self._turtles)

    def getshapes(self):
        return sorted(self._shapes)

    def register_shape(self, name, shape=None):
        self._act("register_shape", name, shape)
        self._shapes.add(name)

    addshape = register_shape

    def window_width(self):
        return 800

    def window_height(self):
        return 600

    def screensize(self, *args, **named):
        if not args and not named:
            return (400, 300)
        self._act("screensize", *args, **named)

    def getcanvas(self):
        return self.cv

    def numinput(self, title, prompt, default=None, minval=None, maxval=None):
        self._act("numinput", title, prompt)
        return default

    def textinput(self, title, prompt):
        self._act("textinput", title, prompt)
        return "tram"

    def reset(self):
        self._act("reset")
        for turtle in self._turtles:
            turtle.reset()

    resetscreen = reset

    def clear(self):
        self._act("clear")
        self._turtles.clear()
        self._keys.clear()
        self._clicks, self._timers = [], []

    clearscreen = clear

    def bye(self):
        self._act("bye")
        self._open = False
        self._timers = []

    def exitonclick(self):
        self._act("exitonclick")
        self.mainloop()

    def __getattr__(self, name):
        if name.startswith("__"):
            raise AttributeError(name)

        def act(*args, **named):
            self._act(name, *args, **named)

        return act


_Screen = TurtleScreen
_screen = None


def Screen():
    global _screen
    if _screen is None:
        _screen = TurtleScreen()
    return _screen
