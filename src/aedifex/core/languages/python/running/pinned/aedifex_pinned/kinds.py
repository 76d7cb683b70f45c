"""What takes the place of something is of its kind: a built-in function stays one for whoever asks, and binds to no
object."""

import functools
import sys
import types


class Builtin:
    """A function that passes for a built-in one: it is no method where a class keeps it, is pickled by its name, and
    has the same signature."""

    def __init__(self, real, call):
        self._call = call
        self.__name__ = self.__qualname__ = real.__name__
        self.__module__ = real.__module__
        self.__doc__ = real.__doc__
        self.__self__ = real.__self__
        self.__text_signature__ = real.__text_signature__

    @property
    def __class__(self):
        return types.BuiltinFunctionType

    def __call__(self, *args, **named):
        return self._call(*args, **named)

    def __repr__(self):
        return f"<built-in function {self.__name__}>"

    def __reduce_ex__(self, protocol):
        return self.__name__


def instead(holder, name, call):
    """Put a function in the place of another one, as the same kind of thing."""
    real = getattr(holder, name)
    if isinstance(real, types.BuiltinFunctionType):
        made = Builtin(real, call)
        setattr(holder, name, made)
        home = sys.modules.get(real.__module__)
        if home is not None and getattr(home, name, None) is real:
            setattr(home, name, made)  # by which name it is pickled
    else:
        setattr(holder, name, functools.wraps(real)(call))
