"""A recording stand-in for the drawing turtle: no window, every call that can be seen is written down.

It keeps position, heading, colours and the pen, runs handlers and timers in a fixed order when the program
enters its main loop, and appends a line for each visible act to the file named by AEDIFEX_RECORD.
"""

from aedifex_turtle_pen import Turtle
from aedifex_turtle_screen import (
    Screen,
    Shape,
    Terminator,
    TurtleGraphicsError,
    TurtleScreen,
    TurtleScreenBase,
    Vec2D,
    _Canvas,
    _Screen,
)

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


_SCREEN = """
addshape bgcolor bgpic bye clearscreen colormode delay exitonclick getcanvas getshapes listen mainloop done
mode numinput onkey onkeypress onkeyrelease onscreenclick ontimer register_shape resetscreen screensize
setup setworldcoordinates textinput title tracer turtles update window_height window_width
""".split()
_TURTLE = """
back backward begin_fill begin_poly bk circle clear clearstamp clearstamps clone color degrees distance dot
down end_fill end_poly fd fillcolor filling forward get_poly getpen getscreen get_shapepoly getturtle goto
heading hideturtle home ht isdown isvisible left lt onclick ondrag onrelease pd pen pencolor pendown pensize
penup pos position pu radians right reset resizemode rt seth setheading setpos setposition setundobuffer
setx sety shape shapesize shapetransform shearfactor showturtle speed st stamp teleport tilt tiltangle
towards turtlesize undo undobufferentries up width write xcor ycor
""".split()
for _name in _SCREEN:
    globals()[_name] = _forward(_name, Screen)
for _name in _TURTLE:
    globals()[_name] = _forward(_name, _default)
__all__ = [*_SCREEN, *_TURTLE, "Pen", "RawPen", "RawTurtle", "Screen", "ScrolledCanvas", "Shape",
    "Terminator", "Turtle", "TurtleScreen", "Vec2D"]  # fmt: skip
ScrolledCanvas = _Canvas
