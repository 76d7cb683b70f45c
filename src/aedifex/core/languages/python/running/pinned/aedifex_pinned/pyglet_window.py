"""pyglet windows: the main loop runs on simulated time, events come by turn, and each picture is noted by its checksum.

A turn is one round of the main loop: time passes, what is scheduled runs, the events that are due come, the windows are
drawn. A program with a loop of its own has a turn whenever it flips a window.
"""

from . import clock, hooks, log, turns

ROUNDS = 400  # of a main loop that nothing ends
NAMES = {"ESC": "ESCAPE", "CTRL": "LCTRL", "SHIFT": "LSHIFT", "ALT": "LALT", "SPACEBAR": "SPACE", " ":
    "SPACE", "-": "MINUS", "+": "PLUS", "=": "EQUAL", ",": "COMMA", ".": "PERIOD", "/": "SLASH", ";":
    "SEMICOLON", "*": "ASTERISK"}  # fmt: skip
TYPED = {"SPACE": " ", "ENTER": "\r", "RETURN": "\r"}
MODS = {"LSHIFT": 1, "RSHIFT": 1, "LCTRL": 2, "RCTRL": 2, "LALT": 4, "RALT": 4}


class Feed:
    """The scenario's keys and clicks, and what is held down meanwhile."""

    def __init__(self):
        self.held, self.buttons = {}, 0
        self.position = (0, 0)

    def mods(self):
        found = 0
        for name in self.held:
            found |= MODS.get(name, 0)
        return found

    def give(self, window, event):
        if "quit" in event:
            window.dispatch_event("on_close")
        elif "key" in event:
            self.key(window, event)
        elif "text" in event:
            for letter in event["text"]:
                self.key(window, {"key": letter, "press": True})
                self.key(window, {"key": letter, "press": False})
        elif "click" in event or "move" in event:
            self.mouse(window, event)
        else:
            stop(
                f"the scenario uses the control '{event.get('control')}', but a pyglet window has none; click at a "
                "place"
            )

    def key(self, window, event):
        from pyglet.window import key

        name = event["key"]
        spelled = NAMES.get(name.upper(), name.upper())
        symbol = next((getattr(key, n) for n in (spelled, "_" + spelled) if hasattr(key, n)), None)
        if symbol is None:
            stop(f"pyglet knows no key '{name}'; name it as pyglet.window.key does")
        if event.get("press", True):
            self.held[spelled] = symbol
            window.dispatch_event("on_key_press", symbol, self.mods())
            typed = name if len(name) == 1 else TYPED.get(spelled, "")
            if typed:
                window.dispatch_event("on_text", typed)
            if "press" not in event:
                turns.add({"turn": turns.now + 1, "key": name, "press": False})
        else:
            self.held.pop(spelled, None)
            window.dispatch_event("on_key_release", symbol, self.mods())

    def mouse(self, window, event):
        x, y = event.get("click") or event["move"]
        y = window.height - 1 - y  # pyglet counts from below
        dx, dy = x - self.position[0], y - self.position[1]
        if "move" in event or (dx, dy) != (0, 0):
            self.position = (x, y)
            if self.buttons:
                window.dispatch_event("on_mouse_drag", x, y, dx, dy, self.buttons, self.mods())
            else:
                window.dispatch_event("on_mouse_motion", x, y, dx, dy)
        if "click" not in event:
            return
        button = 1 << (event.get("button", 1) - 1)
        if event.get("press", True):
            self.buttons |= button
            window.dispatch_event("on_mouse_press", x, y, button, self.mods())
            if "press" not in event:
                turns.add(
                    {
                        "turn": turns.now + 1,
                        "click": list(event["click"]),
                        "button": event.get("button", 1),
                        "press": False,
                    }
                )
        else:
            self.buttons &= ~button
            window.dispatch_event("on_mouse_release", x, y, button, self.mods())


def stop(why):
    log.note("trouble", why)
    turns.end("")


class Run:
    def __init__(self, plan):
        self.keep, self.feed, self.looping = plan.get("keep", {}), Feed(), False

    def shot(self, window):
        from pyglet import gl

        width, height = window.get_framebuffer_size()
        data = (gl.GLubyte * (width * height * 3))()
        gl.glPixelStorei(gl.GL_PACK_ALIGNMENT, 1)
        gl.glReadPixels(0, 0, width, height, gl.GL_RGB, gl.GL_UNSIGNED_BYTE, data)
        mark = hash(bytes(data)) & 0xFFFFFFFFFFFFFFFF  # hashing of bytes is pinned
        log.note("shot", f"frame {turns.now}", f"{width}x{height} {mark:016x}")
        if turns.now in self.keep:
            from pyglet.image import ImageData

            ImageData(width, height, "RGB", bytes(data)).save(self.keep[turns.now])

    def deliver(self, windows):
        for event in turns.due():
            if windows:
                self.feed.give(windows[0], event)

    def loop(self, app, loop, interval):
        """What stands for the main loop. ``interval``: seconds between pictures; None if the program schedules them
        itself."""
        from pyglet.window import Window

        self.looping, rounds = True, 0
        Window._enable_event_queue = False
        for window in list(app.windows):
            window.switch_to()
            window.dispatch_pending_events()
        while not loop.has_exit:
            clock.pass_time(interval or 1 / 60)
            loop.clock.tick(poll=True)
            windows = sorted(app.windows, key=id)[:1] if len(app.windows) == 1 else list(app.windows)
            self.deliver(windows)
            for window in windows if interval is not None else ():
                if window in app.windows and window.context:
                    window.draw(interval or 1 / 60)
            turns.over("frame")
            rounds += 1
            if rounds > ROUNDS and not turns.later():
                turns.end(f"ended after {ROUNDS} rounds of its main loop")
        self.looping = False


def begin(pyglet, plan):
    run = Run(plan)
    hooks.AFTER["pyglet.app.base"] = lambda module: loops(module, run)
    hooks.AFTER["pyglet.window"] = lambda module: windows(module, run)


def loops(base, run):
    def started(self, interval=1 / 60):
        from pyglet import app

        self._interval, self.has_exit = interval, False
        self.dispatch_event("on_enter")
        self.is_running = True
        run.loop(app, self, interval)
        self.is_running = False
        self.dispatch_event("on_exit")

    base.EventLoop.run = started


def windows(module, run):
    """A picture is over when a window is flipped; the window system's own events come by chance, so they do not
    come."""
    kind = module.Window
    flip, caption = kind.flip, kind.set_caption

    def flipped(self):
        run.shot(self)
        flip(self)
        if not run.looping:
            clock.pass_time(1 / 60)
            turns.over("frame")

    def events(self):
        self._allow_dispatch_event = True
        self.dispatch_pending_events()
        run.deliver([self])
        self._allow_dispatch_event = False

    def captioned(self, text):
        log.note("device", f"caption {text}")
        caption(self, text)

    kind.flip, kind.dispatch_events, kind.set_caption = flipped, events, captioned
