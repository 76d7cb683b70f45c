"""The pen of the recording stand-in: where it is, how it moves, what it draws with."""

import math as _math

import aedifex_turtle_screen as _screen_module
from aedifex_turtle_screen import Screen, Vec2D, _note


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
        return _screen_module._count

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
