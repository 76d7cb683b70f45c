"""The scenario's keys, clicks and timers as pygame events, and what is held down meanwhile."""

from . import clock, log, turns

NAMES = {"ENTER": "RETURN", "ESC": "ESCAPE", "SPACEBAR": "SPACE", "CTRL": "LCTRL", "SHIFT": "LSHIFT", "ALT": "LALT",
         "-": "MINUS", "+": "PLUS", "=": "EQUALS", ",": "COMMA", ".": "PERIOD", "/": "SLASH", ";": "SEMICOLON",
         "[": "LEFTBRACKET", "]": "RIGHTBRACKET", "'": "QUOTE", " ": "SPACE", "*": "ASTERISK"}  # fmt: skip
TYPED = {"SPACE": " ", "RETURN": "\r", "TAB": "\t", "ESCAPE": "\x1b", "BACKSPACE": "\x08"}


class Pressed:
    """Which keys are held, by key code."""

    def __init__(self, held):
        self._held = frozenset(held)

    def __getitem__(self, code):
        return code in self._held

    def __len__(self):
        return 512

    def __iter__(self):
        return (code in self._held for code in range(512))


class Feed:
    def __init__(self, pygame):
        self.pygame = pygame
        self.held, self.buttons = {}, set()
        self.position, self.last = (0, 0), (0, 0)
        self.timers = {}  # event type → [event, seconds between, next time, how often still or -1]
        self.kept = {pygame.QUIT, pygame.KEYDOWN, pygame.KEYUP, pygame.MOUSEMOTION, pygame.MOUSEBUTTONDOWN,
                     pygame.MOUSEBUTTONUP, pygame.MOUSEWHEEL, pygame.TEXTINPUT}  # fmt: skip

    def counts(self, event):
        """Whether an event is the scenario's or the program's own; the window system's come by chance."""
        return event.type in self.kept or event.type >= self.pygame.USEREVENT

    def waits(self):
        return bool(self.timers)

    def deliver(self):
        """Put all that is due into the queue."""
        while True:
            found = turns.due()
            if not found:
                break
            for event in found:
                self.give(event)
        for kind, timer in list(self.timers.items()):
            while kind in self.timers and timer[2] <= clock.peek():
                self.post(timer[0])
                timer[2] += timer[1]
                timer[3] -= 1
                if timer[3] == 0:
                    del self.timers[kind]

    def post(self, kind, **fields):
        event = self.pygame.event.Event(kind, **fields) if isinstance(kind, int) else kind
        self.pygame.event.post(event)

    def give(self, event):
        if "quit" in event:
            self.post(self.pygame.QUIT)
        elif "key" in event:
            self.key(event)
        elif "text" in event:
            for letter in event["text"]:
                self.key({"key": letter, "press": True})
                self.post(self.pygame.TEXTINPUT, text=letter, window=None)
                self.key({"key": letter, "press": False})
        elif "click" in event or "move" in event:
            self.mouse(event)
        else:
            log.note(
                "trouble",
                f"the scenario uses the control '{event.get('control')}', but a pygame window has none; click at a "
                "place",
            )
            turns.end("")

    def key(self, event):
        pygame, name = self.pygame, event["key"]
        shift = len(name) == 1 and name.isupper()
        spelled = NAMES.get(name.upper(), name)
        code = next(
            (
                getattr(pygame, "K_" + n)
                for n in (spelled, spelled.upper(), spelled.lower())
                if hasattr(pygame, "K_" + n)
            ),
            None,
        )
        if code is None:
            log.note("trouble", f"pygame knows no key '{name}'; name it as in K_{name}, without K_")
            turns.end("")
        unicode = name if len(name) == 1 else TYPED.get(spelled.upper(), "")
        if event.get("press", True):
            self.held[code] = name
            self.post(
                pygame.KEYDOWN,
                key=code,
                unicode=unicode,
                mod=self.mods() | (pygame.KMOD_SHIFT if shift else 0),
                scancode=0,
                window=None,
            )
            if "press" not in event:
                turns.add({"turn": turns.now + 1, "key": name, "press": False})
        else:
            self.held.pop(code, None)
            self.post(pygame.KEYUP, key=code, unicode=unicode, mod=self.mods(), scancode=0, window=None)

    def mods(self):
        names = {"LSHIFT": "KMOD_LSHIFT", "RSHIFT": "KMOD_RSHIFT", "LCTRL": "KMOD_LCTRL", "RCTRL": "KMOD_RCTRL",
                 "LALT": "KMOD_LALT", "RALT": "KMOD_RALT"}  # fmt: skip
        found = 0
        for name, mod in names.items():
            if getattr(self.pygame, "K_" + name) in self.held:
                found |= getattr(self.pygame, mod)
        return found

    def pressed(self):
        return Pressed(self.held)

    def mouse(self, event):
        pygame = self.pygame
        to = tuple(event.get("click") or event["move"])
        relative = (to[0] - self.position[0], to[1] - self.position[1])
        if "move" in event or relative != (0, 0):
            self.position = to
            held = tuple(int(b in self.buttons) for b in (1, 2, 3))
            self.post(pygame.MOUSEMOTION, pos=to, rel=relative, buttons=held, touch=False, window=None)
        if "click" not in event:
            return
        button = event.get("button", 1)
        if event.get("press", True):
            self.buttons.add(button)
            self.post(pygame.MOUSEBUTTONDOWN, pos=to, button=button, touch=False, window=None)
            if "press" not in event:
                turns.add({"turn": turns.now + 1, "click": list(to), "button": button, "press": False})
        else:
            self.buttons.discard(button)
            self.post(pygame.MOUSEBUTTONUP, pos=to, button=button, touch=False, window=None)

    def moved(self):
        relative = (self.position[0] - self.last[0], self.position[1] - self.last[1])
        self.last = self.position
        return relative

    def place(self, *at):
        self.position = tuple(at[0]) if len(at) == 1 else at

    def timer(self, event, millis=0, loops=0):
        kind = event if isinstance(event, int) else event.type
        self.timers.pop(kind, None)
        if millis > 0:
            self.timers[kind] = [event, millis / 1000, clock.peek() + millis / 1000, loops or -1]
