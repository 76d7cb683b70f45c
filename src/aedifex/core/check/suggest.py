"""A first set of scenarios, found by trying: what a person would do who tries every key once, kept where it reaches
more.

The program's text gives what may be tried (see ``program/clues.py``); running it tells which tries reach lines that no
earlier one did. The number of runs is bounded, not their time, so that the same program always gives the same file.
"""

from __future__ import annotations

import random
import re
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from itertools import islice

from ..program.clues import Clues
from ..program.errors import Refused
from .check import WORKERS, observe
from .evidence import Observed
from .run_environment import World
from .scenarios import COMMAND, Scenario
from .suggest_events import control_scenarios, frame_scenarios, key_scenarios
from .variants import free_scenario_name, variants
from .variants import scenario_words as named_by_input

RUNS = 400  # that looking for scenarios may take
LINES = 30  # typed in one session
WALK = 80  # lines typed at random
NUMBERS = ("1", "2", "0", "-1", "150")
RESTS = ("tram", "tram 2", "2", "2 tram")  # of a line whose first word is a command
ROUND = 4  # further inputs that are tried side by side
DRY = 3  # rounds that reach nothing new before it is done
MAX_SCENARIOS = 10  # scenarios
QUICK = 5.0  # seconds that one try may take
LONGEST = 20.0  # seconds that a try may take before one has turned out never to end

HIDDEN = re.compile(r"uses the control '(.+?)', which")  # as every runner with windows says it
Reached = frozenset[tuple[str, int]]


class Explorer:
    """Runs tries and remembers what they reached."""

    def __init__(self, world: World, tell: Callable[[str], None] | None = None) -> None:
        self.world = world.wishing(cover="lines")
        self.tell = tell or (lambda name: None)
        self.runs = 0
        self.known: dict[str, tuple[Observed, Reached]] = {}
        self.covered: set[tuple[str, int]] = set()
        self.longest = LONGEST

    def run(self, scenario: Scenario) -> Observed:
        return observe(replace(scenario, seconds=min(scenario.seconds, self.longest)), self.world)

    def tries(self, scenarios: list[Scenario]) -> list[tuple[Observed, Reached]]:
        """Run some tries side by side."""
        fresh = [s for s in scenarios if repr(s) not in self.known]
        with ThreadPoolExecutor(WORKERS) as pool:
            for scenario, seen in zip(fresh, pool.map(self.run, fresh), strict=True):
                if "still running" in seen.trouble:
                    seen = self.run(scenario)  # a machine that was busy must not change what is found
                    self.longest = min(self.longest, QUICK) if "still running" in seen.trouble else self.longest
                self.runs += 1
                self.tell(scenario.name)
                reached = frozenset((path, line) for path, lines in seen.reached.items() for line in lines)
                self.known[repr(scenario)] = (seen, reached)
                missing = self.world.language.launch.missing_module(seen.error)
                if missing:
                    raise Refused(
                        f"{self.world.entry}: needs the module '{missing}', which is not installed for "
                        f"{self.world.interpreter}; install it there."
                    )
        return [self.known[repr(s)] for s in scenarios]

    def one(self, scenario: Scenario) -> tuple[Observed, Reached]:
        return self.tries([scenario])[0]

    def gain(self, reached: Reached) -> int:
        return len(reached - self.covered)

    @property
    def spent(self) -> bool:
        return self.runs >= RUNS


def suggest(world: World, clues: Clues, tell: Callable[[str], None] | None = None) -> list[Scenario]:
    """Scenarios for the program of a world. Raises Refused if it cannot be run at all."""
    explorer = Explorer(world, tell)
    return saturated(explorer, first_ones(explorer, clues), clues)


def saturated(explorer: Explorer, found: list[Scenario], clues: Clues) -> list[Scenario]:
    """Further inputs, made of those that were found, until three rounds of them in a row reach nothing new."""
    more = variants(found, clues, explorer.world.runner(Scenario("x")))
    dry = 0
    while dry < DRY and len(found) < MAX_SCENARIOS and not explorer.spent and (batch := list(islice(more, ROUND))):
        dry += 1
        tries = [replace(s, seconds=min(s.seconds, QUICK)) for s in batch]
        for scenario, (seen, reached) in zip(batch, explorer.tries(tries), strict=True):
            if not seen.trouble and explorer.gain(reached) and len(found) < MAX_SCENARIOS:
                explorer.covered |= reached
                found.append(
                    replace(scenario, name=free_scenario_name(outcome_words(scenario, seen), {s.name for s in found}))
                )
                dry = 0
    return found


def outcome_words(scenario: Scenario, seen: Observed) -> str:
    """What a scenario does, and how it ends where that is not well."""
    return named_by_input(scenario) + (", which ends in an error" if seen.status not in (0, None) else "")


def first_ones(explorer: Explorer, clues: Clues) -> list[Scenario]:
    """Everything once, in the way of the program's kind."""
    world = explorer.world
    kind = world.runner(Scenario("x"))
    if clues.requests and world.language.launch.runner(world.sources) == "requests":
        found = [Scenario("every route", "requests", requests=clues.requests)]
        for module in dict.fromkeys(m for m, _ in clues.served):
            names = [n for m, n in clues.served if m == module]
            says = f"import {module}; print({', '.join(f'type({module}.{n}).__name__' for n in names)})"
            found.append(Scenario("a server imports it", "process", run=[COMMAND[0], "-c", says]))
    elif kind == "frames" and clues.controls:
        found = control_scenarios(clues)
    elif kind == "frames":
        found = frame_scenarios(clues)
    elif kind == "terminal":
        found = key_scenarios(clues)
    else:
        return sessions(explorer, clues)
    return comparable_scenarios(explorer, found)


def comparable_scenarios(explorer: Explorer, scenarios: list[Scenario]) -> list[Scenario]:
    """Those that can be compared: the first two, which do the same in another order, and of the rest those that reach
    more."""
    found: list[Scenario] = []
    trouble = ""
    for first, wanted in enumerate(scenarios):
        scenario, seen, reached = shown_only(explorer, wanted)
        if seen.trouble:
            trouble = trouble or seen.trouble
        elif first < 2 or explorer.gain(reached):
            explorer.covered |= reached
            found.append(scenario)
    if not found:
        raise Refused(
            f"{explorer.world.entry}: no run of it can be compared, because {trouble}; write a scenario by hand."
        )
    return found


def shown_only(explorer: Explorer, scenario: Scenario) -> tuple[Scenario, Observed, Reached]:
    """The scenario without the controls that the window does not show when their turn comes."""
    while True:
        seen, reached = explorer.one(scenario)
        match = HIDDEN.search(seen.trouble)
        left = [e for e in scenario.events if match is None or e.get("control") != match[1]]
        if match is None or len(left) == len(scenario.events) or explorer.spent:
            return scenario, seen, reached
        scenario = replace(scenario, events=left)


# -- programs that are typed to ------------------------------------------------------------------


def sessions(explorer: Explorer, clues: Clues) -> list[Scenario]:
    """One scenario for each list of arguments that reaches more, and for each way to end a session."""
    found: list[Scenario] = []
    trouble = ""
    for given in [[], *clues.arguments]:
        base = Scenario("", "process", run=[*COMMAND, *given], seconds=QUICK)
        seen, reached = explorer.one(base)
        if seen.trouble:
            trouble = trouble or seen.trouble
            continue
        if given and not explorer.gain(reached) and not seen.starved:
            continue
        before = set(explorer.covered)
        for typed in typed_sessions(explorer, clues, base) if seen.starved else []:
            session = replace(base, stdin=typed)
            found.append(
                replace(session, name=session_name(given, typed, found, clues, explorer.one(session)[0]), seconds=20.0)
            )
        explorer.covered |= reached
        if not seen.starved or (not given and reached - before and not found):
            found.append(replace(base, name=session_name(given, "", found, clues, seen), seconds=20.0))
        elif not given:
            found.append(replace(base, name="nothing is typed", seconds=20.0))
        if explorer.spent:
            break
    if not found:
        raise Refused(
            f"{explorer.world.entry}: no run of it can be compared, because {trouble}; write a scenario by hand."
        )
    return found


def session_name(given: list[str], typed: str, found: list[Scenario], clues: Clues, seen: Observed) -> str:
    """What a session does. Every answer was given once where all the words that the program knows are typed."""
    names = {s.name for s in found}
    lines = [line for line in typed.split("\n") if line]
    everything = len(lines) > 2 and {w for w in clues.words[:12] if w} <= {
        word for line in lines for word in (line, line.split()[0])
    }
    if given:
        what = "with " + " ".join(given)
    elif everything:
        what = next(
            (w for w in ("every answer once", "back and forth", "another end") if w not in names), "another end"
        )
    else:
        what = named_by_input(Scenario("", stdin=typed)) if typed else "as it starts"
    return free_scenario_name(
        what + (", which ends in an error" if seen.status not in (0, None) and not given else ""), names
    )


def typed_sessions(explorer: Explorer, clues: Clues, base: Scenario) -> list[str]:
    """Texts to type: a long session that goes on while something new is reached, then other ways to end it."""
    words = list(dict.fromkeys([*clues.words, *(NUMBERS if clues.numbers or not clues.words else ()), ""]))
    if clues.splits:
        words += [f"{word} {rest}" for rest in RESTS for word in clues.words[:12]]
    session = Session(explorer, base, words)
    session.grow()
    return session.texts()


class Session:
    """A list of typed lines that grows; ``enders`` are answers after which the program asked for nothing more."""

    def __init__(self, explorer: Explorer, base: Scenario, words: list[str]) -> None:
        self.explorer, self.base, self.words = explorer, base, words
        self.lines: list[str] = []
        self.enders: list[list[str]] = []
        self.sites: dict[str, list[str]] = {}  # the places that asked something, and what may be answered there

    def scenario(self, lines: list[str]) -> Scenario:
        return replace(self.base, stdin="".join(line + "\n" for line in lines))

    def grow(self) -> None:
        """While an answer, or two, reach something new; then each word that was not typed; then once more."""
        while self.extend(self.best(1) or self.best(2)):
            pass
        while self.extend(self.unused()):
            pass
        while self.extend(self.best(1)):
            pass

    def extend(self, step: list[str]) -> bool:
        if not step or len(self.lines) >= LINES or self.explorer.spent:
            return False
        self.lines += step
        self.explorer.covered |= self.explorer.one(self.scenario(self.lines))[1]
        return True

    def best(self, depth: int) -> list[str]:
        """The next answers that reach most that is new while the program goes on asking; [] if none does."""
        words = sorted(self.words, key=self.lines.count)
        steps = [[w] for w in words] if depth == 1 else self.pairs(words)
        site = self.explorer.one(self.scenario(self.lines))[0].starved
        chunk = 4 if site in self.sites or depth > 1 else len(steps)  # a question that is new is answered in every way
        answers = self.sites.setdefault(site, [])
        best, most = [], 0
        for at in range(0, len(steps), chunk):
            some = steps[at : at + chunk]
            for step, (seen, reached) in zip(
                some, self.explorer.tries([self.scenario([*self.lines, *s]) for s in some]), strict=True
            ):
                gain = self.explorer.gain(reached)
                if depth == 1 and seen.starved and not seen.trouble:
                    answers += step * (3 if gain else 1)
                if gain and not seen.trouble and not seen.starved and depth == 1:
                    self.enders.append([*self.lines, *step])
                elif gain > most and not seen.trouble and seen.starved:
                    best, most = step, gain
            if best:
                break
        return best

    def pairs(self, words: list[str]) -> list[list[str]]:
        """A word and an answer to what it asks: something usual, or what was typed just before."""
        answers = dict.fromkeys([*self.lines[-1:], NUMBERS[0], "tram", ""])
        return [[word, answer] for word in words[:12] for answer in answers]

    def unused(self) -> list[str]:
        """A word that was not typed yet and does not end the session, though it reaches nothing new."""
        for word in self.words[:12]:
            if word and word not in self.lines:
                seen, _ = self.explorer.one(self.scenario([*self.lines, word]))
                if seen.starved and not seen.trouble:
                    return [word]
        return []

    def wandering(self) -> list[str]:
        """A walk through the questions, each answered with one of the answers that it took: things meet that otherwise
        do not."""
        chance = random.Random(len(self.sites))
        lines: list[str] = []
        while len(lines) < WALK and len(self.lines) > 1:
            seen, _ = self.explorer.one(self.scenario(lines))
            answers = self.sites.get(seen.starved, [])
            if not answers or seen.trouble:
                break
            lines.append(chance.choice(answers))
        while lines and not self.explorer.one(self.scenario(lines))[0].starved:
            lines.pop()
        return lines

    def texts(self) -> list[str]:
        """The session typed twice over and ended, if that works; then each other end that reaches more."""
        found = []
        full = [*self.lines, *self.lines] if len(self.lines) > 1 else self.lines
        ending = next((e[-1:] for e in reversed(self.enders)), [])
        for lines in ([*full, *ending], [*self.lines, *ending], self.lines):
            if lines and not self.explorer.one(self.scenario(lines))[0].trouble:
                found.append(lines)
                break
        wander = self.wandering()
        if wander:
            found.append([*wander, *ending])
        for lines in found:
            self.explorer.covered |= self.explorer.one(self.scenario(lines))[1]
        for ender in self.enders:
            if self.explorer.gain(self.explorer.one(self.scenario(ender))[1]) and len(found) < 6:
                found.append(ender)
                self.explorer.covered |= self.explorer.one(self.scenario(ender))[1]
        return ["".join(line + "\n" for line in lines) for lines in found]
