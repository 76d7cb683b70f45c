"""Work that makes many objects and no garbage goes faster while nobody looks for garbage."""

from __future__ import annotations

import gc
from collections.abc import Callable
from functools import wraps
from typing import ParamSpec, TypeVar

P = ParamSpec("P")
R = TypeVar("R")


def uncollected(function: Callable[P, R]) -> Callable[P, R]:
    """Run a function with the cyclic collector paused; it is as it was afterwards, whatever happens."""

    @wraps(function)
    def run(*args: P.args, **named: P.kwargs) -> R:
        if not gc.isenabled():
            return function(*args, **named)
        gc.disable()
        try:
            return function(*args, **named)
        finally:
            gc.enable()

    return run
