"""A recording stand-in for the drawing turtle: no window, every call that can be seen is written down.

It keeps position, heading, colours and the pen, runs handlers and timers in a fixed order when the program
enters its main loop, and appends a line for each visible act to the file named by AEDIFEX_RECORD.
"""

import math as _math
import os as _os

__all__ = []
_record = open(_os.environ["AEDIFEX_RECORD"], "a", encoding="utf-8") if "AEDIFEX_RECORD" in _os.environ else None
_TIMERS = 40  # how many timer calls the main loop runs before it ends
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
    if isinstance(value, Turtle):
        return "<turtle %d>" % value._number
    if isinstance(value, Shape):
        return "<shape>"
    return repr(value)


def _note(who, what, *args, **named):
    global _count
    _count += 1
    if _record is not None and _count <= _LIMIT:
        parts = [_show(a) for a in args] + [f"{k}={_show(v)}" for k, v in sorted(named.items())]
        _record.write("{}.{}({})\n".format(who, what, ", ".join(parts)))
        _record.flush()
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
        self._shapes = {"arrow", "turtle", "circle", "square", "triangle", "classic", "blank"}
        self.cv, self._canvas = _Canvas(), _Canvas()
        self.xscale = self.yscale = 1.0

    def _act(self, what, *args, **named):
        _note("screen", what, *args, **named)

    def mainloop(self):
        self._act("mainloop")
        for key in sorted(self._keys):
            for fun in list(self._keys.get(key, [])):
                self._act("key", key)
                fun()
        for fun in list(self._clicks):
            self._act("click", 10.0, 20.0)
            fun(10.0, 20.0)
        for turtle in list(self._turtles):
            for fun in list(turtle._clicks):
                turtle._act("clicked")
                fun(1.0, 1.0)
            for fun in list(turtle._drags):
                turtle._act("dragged")
                fun(5.0, 5.0)
            for fun in list(turtle._releases):
                fun(5.0, 5.0)
        for _ in range(_TIMERS):
            if not self._timers:
                break
            self._timers.sort(key=lambda t: t[0])
            when, fun = self._timers.pop(0)
            self._now = when
            fun()
        self._act("end")

    done = mainloop
    _now = 0

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


class Turtle:
    def __init__(self, shape="classic", undobuffersize=1000, visible=True):
        self.screen = Screen()
        self.screen._turtles.append(self)
        self._number = len(self.screen._turtles)
        self._clicks, self._drags, self._releases = [], [], []
        self._shape, self._visible, self._full = shape, visible, 360.0
        self._poly = None
        self._start()
        self._act("made", shape, visible)

    RawTurtle = None

    def _start(self):
        self._position, self._angle = Vec2D(0.0, 0.0), 0.0 if self.screen._mode != "logo" else 90.0
        self._pendown, self._speed, self._pencolor, self._fillcolor, self._pensize = True, 3, "black", "black", 1
        self._filling, self._stretch, self._tilt, self._resize = False, (1.0, 1.0, 1), 0.0, "noresize"

    def _act(self, what, *args, **named):
        _note("turtle%d" % self._number, what, *args, **named)

    # where it is
    def position(self):
        return self._position

    pos = position

    def xcor(self):
        return self._position[0]

    def ycor(self):
        return self._position[1]

    def heading(self):
        angle = self._angle / 360.0 * self._full
        return (self._full / 4 - angle) % self._full if self.screen._mode == "logo" else angle % self._full

    def _xy(self, x, y=None):
        if y is not None:
            return Vec2D(x, y)
        return x.position() if isinstance(x, Turtle) else Vec2D(*x)

    def towards(self, x, y=None):
        to = self._xy(x, y) - self._position
        angle = _math.degrees(_math.atan2(to[1], to[0])) % 360.0 / 360.0 * self._full
        return (self._full / 4 - angle) % self._full if self.screen._mode == "logo" else angle

    def distance(self, x, y=None):
        return abs(self._xy(x, y) - self._position)

    # moving
    def _go(self, end):
        self._position = Vec2D(*end)
        if self._poly is not None:
            self._poly.append(self._position)
        self._act("at", float(end[0]), float(end[1]), self._pendown)

    def forward(self, distance):
        self._go(self._position + Vec2D(distance, 0).rotate(self._angle))

    fd = forward

    def back(self, distance):
        self.forward(-distance)

    bk = backward = back

    def goto(self, x, y=None):
        self._go(self._xy(x, y))

    setpos = setposition = goto

    def teleport(self, x=None, y=None, *, fill_gap=False):
        self._position = Vec2D(self.xcor() if x is None else x, self.ycor() if y is None else y)
        self._act("teleport", *self._position)

    def setx(self, x):
        self._go((x, self._position[1]))

    def sety(self, y):
        self._go((self._position[0], y))

    def home(self):
        self.goto(0.0, 0.0)
        self.setheading(0)

    def _turn(self, angle):
        self._angle = (self._angle + angle / self._full * 360.0) % 360.0
        self._act("heading", self._angle)

    def left(self, angle):
        self._turn(angle)

    lt = left

    def right(self, angle):
        self._turn(-angle)

    rt = right

    def setheading(self, to):
        angle = to / self._full * 360.0
        self._angle = (90.0 - angle if self.screen._mode == "logo" else angle) % 360.0
        self._act("heading", self._angle)

    seth = setheading

    def degrees(self, fullcircle=360.0):
        self._full = fullcircle

    def radians(self):
        self._full = 2 * _math.pi

    def circle(self, radius, extent=None, steps=None):
        extent = self._full if extent is None else extent
        self._act("circle", radius, extent, steps)
        turn = extent / self._full * 360.0
        centre = self._position + Vec2D(0, radius).rotate(self._angle)
        self._position = centre + (self._position - centre).rotate(turn if radius >= 0 else -turn)
        self._angle = (self._angle + (turn if radius >= 0 else -turn)) % 360.0

    # the pen
    def pendown(self):
        self._pendown = True

    def penup(self):
        self._pendown = False

    pd, down, pu, up = pendown, pendown, penup, penup

    def isdown(self):
        return self._pendown

    def speed(self, speed=None):
        if speed is None:
            return self._speed
        self._speed = speed
        self._act("speed", speed)

    def pensize(self, width=None):
        if width is None:
            return self._pensize
        self._pensize = width
        self._act("pensize", width)

    width = pensize

    def pencolor(self, *args):
        if not args:
            return self._pencolor
        self._pencolor = args[0] if len(args) == 1 else args
        self._act("pencolor", *args)

    def fillcolor(self, *args):
        if not args:
            return self._fillcolor
        self._fillcolor = args[0] if len(args) == 1 else args
        self._act("fillcolor", *args)

    def color(self, *args):
        if not args:
            return self._pencolor, self._fillcolor
        if len(args) == 2:
            self._pencolor, self._fillcolor = args
        else:
            self._pencolor = self._fillcolor = args[0] if len(args) == 1 else args
        self._act("color", *args)

    def pen(self, pen=None, **named):
        if pen is None and not named:
            return {"shown": self._visible, "pendown": self._pendown, "pencolor": self._pencolor,
                    "fillcolor": self._fillcolor, "pensize": self._pensize, "speed": self._speed}  # fmt: skip
        settings = {**(pen or {}), **named}
        for key, attribute in (("pendown", "_pendown"), ("pencolor", "_pencolor"), ("fillcolor", "_fillcolor"),
                               ("pensize", "_pensize"), ("speed", "_speed"), ("shown", "_visible")):  # fmt: skip
            if key in settings:
                setattr(self, attribute, settings[key])
        self._act("pen", **settings)

    def filling(self):
        return self._filling

    def begin_fill(self):
        self._filling = True
        self._act("begin_fill")

    def end_fill(self):
        self._filling = False
        self._act("end_fill")

    def begin_poly(self):
        self._poly = [self._position]

    def end_poly(self):
        self._last, self._poly = tuple(self._poly or ()), None

    def get_poly(self):
        return getattr(self, "_last", None)

    def shape(self, name=None):
        if name is None:
            return self._shape
        self._shape = name
        self._act("shape", name)

    def shapesize(self, *args, **named):
        if not args and not named:
            return self._stretch
        self._stretch = (args * 3)[:3] if len(args) == 1 else (*args, 1, 1)[:3]
        self._act("shapesize", *args, **named)

    turtlesize = shapesize

    def hideturtle(self):
        self._visible = False
        self._act("hideturtle")

    def showturtle(self):
        self._visible = True
        self._act("showturtle")

    ht, st = hideturtle, showturtle

    def isvisible(self):
        return self._visible

    def stamp(self):
        self._act("stamp")
        return _count

    def clone(self):
        other = type(self).__new__(type(self))
        other.__dict__.update(self.__dict__)
        other._clicks, other._drags, other._releases = [], [], []
        self.screen._turtles.append(other)
        other._number = len(self.screen._turtles)
        other._act("cloned")
        return other

    def reset(self):
        self._start()
        self._act("reset")

    def clear(self):
        self._act("clear")

    def undo(self):
        self._act("undo")

    def getscreen(self):
        return self.screen

    def getturtle(self):
        return self

    getpen = getturtle

    def onclick(self, fun, btn=1, add=None):
        self._clicks = [fun] if fun is not None else []

    def ondrag(self, fun, btn=1, add=None):
        self._drags = [fun] if fun is not None else []

    def onrelease(self, fun, btn=1, add=None):
        self._releases = [fun] if fun is not None else []

    def write(self, arg, move=False, align="left", font=("Arial", 8, "normal")):
        self._act("write", str(arg), align, font)

    def __getattr__(self, name):
        if name.startswith("_"):
            raise AttributeError(name)

        def act(*args, **named):
            self._act(name, *args, **named)

        return act


RawTurtle = RawPen = Pen = Turtle
_pen = None


def _default():
    global _pen
    if _pen is None:
        _pen = Turtle()
    return _pen


def _forward(name, holder):
    def function(*args, **named):
        return getattr(holder(), name)(*args, **named)

    function.__name__ = name
    return function


_SCREEN = [
    "addshape",
    "bgcolor",
    "bgpic",
    "bye",
    "clearscreen",
    "colormode",
    "delay",
    "exitonclick",
    "getcanvas",
    "getshapes",
    "listen",
    "mainloop",
    "done",
    "mode",
    "numinput",
    "onkey",
    "onkeypress",
    "onkeyrelease",
    "onscreenclick",
    "ontimer",
    "register_shape",
    "resetscreen",
    "screensize",
    "setup",
    "setworldcoordinates",
    "textinput",
    "title",
    "tracer",
    "turtles",
    "update",
    "window_height",
    "window_width",
]
_TURTLE = [
    "back",
    "backward",
    "begin_fill",
    "begin_poly",
    "bk",
    "circle",
    "clear",
    "clearstamp",
    "clearstamps",
    "clone",
    "color",
    "degrees",
    "distance",
    "dot",
    "down",
    "end_fill",
    "end_poly",
    "fd",
    "fillcolor",
    "filling",
    "forward",
    "get_poly",
    "getpen",
    "getscreen",
    "get_shapepoly",
    "getturtle",
    "goto",
    "heading",
    "hideturtle",
    "home",
    "ht",
    "isdown",
    "isvisible",
    "left",
    "lt",
    "onclick",
    "ondrag",
    "onrelease",
    "pd",
    "pen",
    "pencolor",
    "pendown",
    "pensize",
    "penup",
    "pos",
    "position",
    "pu",
    "radians",
    "right",
    "reset",
    "resizemode",
    "rt",
    "seth",
    "setheading",
    "setpos",
    "setposition",
    "setundobuffer",
    "setx",
    "sety",
    "shape",
    "shapesize",
    "shapetransform",
    "shearfactor",
    "showturtle",
    "speed",
    "st",
    "stamp",
    "teleport",
    "tilt",
    "tiltangle",
    "towards",
    "turtlesize",
    "undo",
    "undobufferentries",
    "up",
    "width",
    "write",
    "xcor",
    "ycor",
]
for _name in _SCREEN:
    globals()[_name] = _forward(_name, Screen)
for _name in _TURTLE:
    globals()[_name] = _forward(_name, _default)
__all__ = [*_SCREEN, *_TURTLE, "Pen", "RawPen", "RawTurtle", "Screen", "ScrolledCanvas", "Shape", "Terminator", "Turtle",
           "TurtleScreen", "Vec2D"]  # fmt: skip
ScrolledCanvas = _Canvas
