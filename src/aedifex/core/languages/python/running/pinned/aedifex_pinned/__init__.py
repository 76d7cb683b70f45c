"""What a checked run gets: chance and clocks pinned, a fence around it, scripted input, and a log of what was seen.

The plan (what to watch, when to end, which events to give) is a Python literal in the file named by AEDIFEX_PLAN. Only
the first process has one; its children are pinned, and no more.
"""

import os
import sys

from . import chance, clock, hooks, log


def start():
    restore_path()
    plan = read_plan()
    clock.pin()
    chance.pin()
    if plan:
        log.begin(plan)
        from . import fence, turns

        fence.raise_around(plan)
        turns.begin(plan)
        prepare(plan)
    hooks.install()


def read_plan():
    path = os.environ.pop("AEDIFEX_PLAN", "")
    if not path:
        return {}
    with open(path, encoding="utf-8") as handle:
        return eval(handle.read(), {"__builtins__": {}})


def restore_path():
    """The program sees the search path and environment that it would have had."""
    here = os.path.dirname(os.path.dirname(os.path.abspath(__file__)))
    sys.path[:] = [p for p in sys.path if os.path.abspath(p or ".") != here]
    folder = os.environ.pop("AEDIFEX_STANDINS", "")
    if folder:
        sys.path.insert(0, folder)


def prepare(plan):
    """What depends on the kind of run."""
    from . import state, typing_in

    state.watch(plan)
    if plan.get("cover"):
        from . import cover

        cover.begin(plan["cover"])
    if plan.get("locate"):
        from . import locate

        locate.begin(plan["locate"])
    if plan["runner"] == "terminal":
        from . import terminal

        terminal.begin(plan)
    else:
        typing_in.begin()
    if plan["runner"] == "frames":
        hooks.AFTER["pygame"] = lambda module: begin("pygame_frames", module, plan)
        hooks.AFTER["pyglet"] = lambda module: begin("pyglet_window", module, plan)
        hooks.AFTER["tkinter"] = lambda module: begin("tk_window", module, plan)
    if plan["runner"] == "requests":
        from . import web

        web.begin(plan)
    if plan.get("calls"):
        from . import calls

        calls.begin(plan["calls"], plan.get("streams", []))


def begin(name, module, plan):
    import importlib

    sys.dont_write_bytecode, given = False, sys.dont_write_bytecode
    found = importlib.import_module(__name__ + "." + name)
    sys.dont_write_bytecode = given
    found.begin(module, plan)
