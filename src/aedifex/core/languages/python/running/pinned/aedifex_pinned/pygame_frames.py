"""pygame under a simulated clock with scripted events: a frame is over when the display is flipped or updated.

The library is the real one, with dummy drivers; what comes from outside (events, held keys, the mouse, the time) is the
scenario's, and each frame's picture is noted by its checksum.
"""

from . import clock, log, turns
from .pygame_events import Feed

IDLE = 50  # looks at the events without a frame, after which each look counts as a turn


class Run:
    """What is known of the window's run."""

    def __init__(self, pygame, plan):
        self.pygame, self.keep = pygame, plan.get("keep", {})
        self.feed = Feed(pygame)
        self.looks = 0  # at the events since the last turn
        self.fresh = True  # whether a turn has passed since the clock last ticked

    def over(self, kind):
        self.looks, self.fresh = 0, True
        turns.over(kind)

    def frame(self):
        surface = self.pygame.display.get_surface()
        number = turns.now
        if surface is not None:
            width, height = surface.get_size()
            # hashing of bytes is pinned, and faster than a checksum
            mark = hash(surface.get_buffer().raw) & 0xFFFFFFFFFFFFFFFF
            log.note("shot", f"frame {number}", f"{width}x{height} {mark:016x}")
            if number in self.keep:
                self.pygame.image.save(surface, self.keep[number])
        self.over("frame")

    def look(self):
        self.looks += 1
        if self.looks > IDLE:
            turns.over("look")
        self.feed.deliver()


def begin(pygame, plan):
    run = Run(pygame, plan)
    display(pygame, run)
    events(pygame, run)
    timing(pygame, run)
    sounds(pygame)


def display(pygame, run):
    flip, update, caption = pygame.display.flip, pygame.display.update, pygame.display.set_caption

    def flipped():
        flip()
        run.frame()

    def updated(*args, **named):
        update(*args, **named)
        run.frame()

    def captioned(title, *rest):
        log.note("device", f"caption {title}")
        caption(title, *rest)

    pygame.display.flip, pygame.display.update, pygame.display.set_caption = flipped, updated, captioned


def events(pygame, run):
    feed, real = run.feed, {n: getattr(pygame.event, n) for n in ("get", "poll", "peek")}

    def get(*args, **named):
        run.look()
        return [e for e in real["get"](*args, **named) if feed.counts(e)]

    def poll():
        run.look()
        return next_event()

    def next_event():
        while True:
            event = real["poll"]()
            if event.type == pygame.NOEVENT or feed.counts(event):
                return event

    def wait(timeout=0):
        while True:
            run.feed.deliver()
            event = next_event()
            if event.type != pygame.NOEVENT:
                return event
            run.over("wait")
            if timeout > 0:
                clock.pass_time(timeout / 1000)
                return event
            if not turns.later() and not feed.waits():
                turns.end("ended when no more events came")
            clock.pass_time(0.01)

    def peek(*args, **named):
        run.look()
        if args or named:
            return real["peek"](*args, **named)
        kept = [e for e in real["get"]() if feed.counts(e)]
        for event in kept:
            pygame.event.post(event)
        return bool(kept)

    pygame.event.get, pygame.event.poll, pygame.event.wait, pygame.event.peek = get, poll, wait, peek
    pygame.event.pump = lambda: run.look()
    pygame.key.get_pressed = lambda: (feed.deliver(), feed.pressed())[1]
    pygame.key.get_mods = lambda: feed.mods()
    pygame.key.get_focused = pygame.mouse.get_focused = lambda: True
    pygame.mouse.get_pos = lambda: feed.position
    pygame.mouse.get_pressed = lambda num_buttons=3: tuple(b in feed.buttons for b in range(1, num_buttons + 1))
    pygame.mouse.get_rel = feed.moved
    pygame.mouse.set_pos = lambda *at: feed.place(*at)


def timing(pygame, run):
    def wait(milliseconds):
        if not run.fresh:
            run.over("wait")
        run.fresh = False
        clock.pass_time(milliseconds / 1000)
        return milliseconds

    class Clock:
        def __init__(self):
            self._last, self._passed, self._count, self._rate = clock.peek(), 0, 0, 0.0

        def tick(self, framerate=0):
            if not run.fresh:
                run.over("tick")
            run.fresh = False
            before = self._last
            wanted = before + (1 / framerate if framerate else 0.001)
            clock.pass_time(max(wanted - clock.peek(), 0))
            self._last = clock.peek()
            self._passed = int(self._last * 1000) - int(before * 1000)
            self._count += 1
            self._rate = 1 / max(self._last - before, 0.001)
            return self._passed

        tick_busy_loop = tick

        def get_time(self):
            return self._passed

        get_rawtime = get_time

        def get_fps(self):
            return round(self._rate, 3) if self._count > 10 else 0.0

    pygame.time.Clock = Clock
    if hasattr(pygame, "Clock"):
        pygame.Clock = Clock
    pygame.time.wait = pygame.time.delay = wait
    pygame.time.get_ticks = lambda: int(clock.read() * 1000)
    pygame.time.set_timer = run.feed.timer


def sounds(pygame):
    """What is played is noted; nothing is heard."""
    mixer = pygame.mixer
    if not hasattr(mixer, "Sound") or not isinstance(mixer.Sound, type):
        return

    class Sound(mixer.Sound):
        def play(self, *args, **named):
            log.note("device", f"sound of {len(self.get_raw())} bytes played")
            return super().play(*args, **named)

    mixer.Sound = Sound
    play, load = mixer.music.play, mixer.music.load

    def played(*args, **named):
        log.note("device", "music played")
        return play(*args, **named)

    def loaded(name, *rest, **named):
        log.note("device", f"music loaded: {name if isinstance(name, str) else 'a stream'}")
        return load(name, *rest, **named)

    mixer.music.play, mixer.music.load = played, loaded
