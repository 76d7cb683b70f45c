"""Unit tests from what was seen: which calls are worth a test, the files, and proof that they run."""

from __future__ import annotations

import itertools
import os
import tempfile
from collections.abc import Callable
from dataclasses import dataclass, field
from dataclasses import replace as replace_world
from typing import Any

from ..program.atomic import replace
from ..program.errors import Refused
from ..program.facets.unit_tests import UnitTests
from ..program.model import SourceFile
from ..program.scratch import prefix_of
from .check import observe
from .run_environment import World
from .scenarios import Scenario

EACH = 12  # tests of one method
UP = ".."  # from the folder in which tests are tried to the project
Call = dict[str, Any]


@dataclass
class Written:
    """Files by path, how many tests each holds, and what there is to say about the rest."""

    files: dict[str, str] = field(default_factory=dict)
    counts: dict[str, int] = field(default_factory=dict)
    notes: list[str] = field(default_factory=list)
    proven: bool = True  # whether they were run
    command: str = ""  # with which a person runs them


def write_tests(
    scenarios: list[Scenario],
    world: World,
    homes: dict[str, str],
    folder: str,
    tell: Callable[[str], None] | None = None,
    streams: dict[str, str] | None = None,
) -> Written:
    """Tests of the classes in ``homes`` (class → file) below ``folder``, made of calls that the scenarios bring about.

    ``streams``: class → file of what the program asks and tells through, which tests make but do not test.

    Raises Refused if a file of another hand stands in the way; nothing is written then.
    """
    kit = world.language.launch.unit_tests
    made = Written()
    files = {f.path: f for f in world.sources}
    usable = {c: files[path] for c, path in homes.items() if constructible_alone(c, files[path], kit, made)}
    streams = streams or {}
    calls = seen_calls(scenarios, world.wishing(streams=sorted(streams)), usable, made, tell) if usable else []
    chosen = {c: choose([k for k in calls if k["class"] == c], kit) for c in usable}
    names = file_names(usable, kit)
    usable = {**usable, **{c: files[path] for c, path in streams.items()}}
    failing = prove(rendered(chosen, usable, names, UP, kit), world, made)
    if failing:
        chosen = {c: [(t, k) for t, k in tests if (names[c], t) not in failing] for c, tests in chosen.items()}
        count = "1 call depends" if len(failing) == 1 else f"{len(failing)} calls depend"
        made.notes.append(f"{count} on more than the object and the arguments; no test is made of them.")
    for c, tests in chosen.items():
        if tests:
            made.counts[names[c]] = len(tests)
        elif c not in streams:
            made.notes.append(
                f"{c}: no call of it could be made a test, because "
                f"{untested([k for k in calls if k['class'] == c], [t for n, t in failing if n == names[c]])}."
            )
    up = os.path.relpath(world.root, folder).replace(os.sep, "/")
    texts = rendered(chosen, usable, names, up, kit)
    if texts:
        put(texts, folder, up, kit, made)
        made.command = kit.command(os.path.relpath(folder))
    return made


def untested(calls: list[dict[str, Any]], failing: list[str]) -> str:
    """Why none of the calls that were seen of a class is a test."""
    if not calls:
        return "no run calls a method of it once it is made"
    if failing:
        return f"what its {len(failing)} calls do depends on more than the object and what it is passed"
    kinds = sorted({str(k.get("method", "")) for k in calls if k.get("method")})
    return (
        f"what {', '.join(kinds[:3]) or 'they'} {'is' if len(kinds) == 1 else 'are'} given, or what comes of it, "
        "cannot be written as text"
    )


def constructible_alone(name: str, file: SourceFile, kit: UnitTests, made: Written) -> bool:
    """Whether a test can make objects of a class without starting the program; a note if it cannot."""
    why = kit.bound(file, name)
    if why:
        made.notes.append(f"{name}: stands in {file.path}, which {why}; it gets no tests there.")
    return not why


def seen_calls(
    scenarios: list[Scenario],
    world: World,
    homes: dict[str, SourceFile],
    made: Written,
    tell: Callable[[str], None] | None,
) -> list[Call]:
    """What the scenarios call of the classes in ``homes``, from runs of sources that tell of each call."""
    kit = world.language.launch.unit_tests
    files = {f.path: f for f in homes.values()}
    spied = {p: kit.spied(f, sorted(c for c, home in homes.items() if home is f)) for p, f in files.items()}
    sources = [world.language.read(f.path, spied[f.path]) if f.path in spied else f for f in world.sources]
    watched = replace_world(world, overlay={**world.overlay, **spied}, sources=sources).wishing(calls=sorted(homes))
    calls: list[Call] = []
    for scenario in scenarios:
        seen = observe(scenario, watched)
        if seen.trouble:
            made.notes.append(f"scenario '{scenario.name}': its calls could not be watched, because {seen.trouble}.")
        calls += [kit.read_call(text) for text in seen.calls]
        if tell is not None:
            tell(scenario.name)
    return calls


def file_names(homes: dict[str, SourceFile], kit: UnitTests) -> dict[str, str]:
    """The name of each class's file of tests."""
    paths = [f.path for f in homes.values()]
    return {c: kit.file_name(file, c, paths.count(file.path) > 1) for c, file in homes.items()}


def choose(calls: list[Call], kit: UnitTests) -> list[tuple[str, Call]]:
    """For each method the calls that differ most, with the name of the test that each becomes."""
    found: dict[str, Call] = {}
    for method in dict.fromkeys(c["method"] for c in calls):
        for call in telling([c for c in calls if c["method"] == method]):
            numbers = (kit.title(method, n) for n in itertools.count(1))
            found[next(t for t in numbers if t not in found)] = call
    return list(found.items())


def telling(calls: list[Call]) -> list[Call]:
    """New ways through the lines first, then new outcomes, then the smallest and largest numbers, then some from all
    over."""
    kept: list[Call] = []
    ways: set[Any] = set()
    outcomes: set[str] = set()

    def take(call: Call) -> None:
        if call not in kept and len(kept) < EACH:
            kept.append(call)
            ways.update(call["lines"])
            outcomes.add(call_outcome(call))

    for call in calls:
        if set(call["lines"]) - ways:
            take(call)
    for call in calls:
        if call_outcome(call) not in outcomes and len(kept) < EACH // 2:
            take(call)
    for call in [*extremes(calls), *spread(calls, EACH)]:
        take(call)
    return kept


def extremes(calls: list[Call]) -> list[Call]:
    """The calls after which a number was smallest or largest."""
    found: list[Call] = []
    for name in dict.fromkeys(k for c in calls for k in c["after"]):
        with_number = [(number(c["after"].get(name)), n) for n, c in enumerate(calls)]
        known = [(v, n) for v, n in with_number if v is not None]
        if known and min(known)[0] != max(known)[0]:
            found += [calls[min(known)[1]], calls[max(known)[1]]]
    return found


def number(text: str | None) -> float | None:
    try:
        return float(text or "")
    except ValueError:
        return None


def spread(calls: list[Call], count: int) -> list[Call]:
    """So many of the calls, from the whole of the run; those that change something come before those that do not."""
    active = [c for c in calls if c["changed"] or c["printed"]] or calls
    wide = active[:: max(1, len(active) // max(1, count))]
    return [*wide, *(c for c in calls if c not in wide)]


def call_outcome(call: Call) -> str:
    return repr(
        [call["result"], call["raised"], call["changed"], call["printed"], call["things"], call.get("pictures")]
    )


def rendered(
    chosen: dict[str, list[tuple[str, Call]]],
    homes: dict[str, SourceFile],
    names: dict[str, str],
    up: str,
    kit: UnitTests,
) -> dict[str, str]:
    """The files by name; ``up``: the way from their folder to the project's."""
    return {names[c]: kit.test_file(c, homes, up, tests) for c, tests in chosen.items() if tests}


def prove(files: dict[str, str], world: World, made: Written) -> set[tuple[str, str]]:
    """Run the tests on a copy of the project; (file, name) of those that fail."""
    if not files:
        return set()
    kit = world.language.launch.unit_tests
    with tempfile.TemporaryDirectory(prefix=prefix_of("tests")) as top:
        place = os.path.join(top, "work")
        world.lay_out(place, [], pinned=False)
        tests = os.path.join(place, "aedifex_tests")
        os.makedirs(tests)
        for name, text in {**files, **kit.beside(UP)}.items():
            with open(os.path.join(tests, name), "w", encoding="utf-8") as handle:
                handle.write(text)
        failing: set[tuple[str, str]]
        failing, trouble = kit.run(place, tests, sorted(files), [f.path for f in world.sources], world.interpreter)
    if trouble:
        made.proven = False
        made.notes.append(f"the tests were not run, because {trouble}.")
    return failing


def put(files: dict[str, str], folder: str, up: str, kit: UnitTests, made: Written) -> None:
    beside = kit.beside(up)
    wanted = {**files, **beside}
    for name in list(wanted):
        path = os.path.join(folder, name)
        if os.path.lexists(path):
            with open(path, encoding="utf-8", errors="replace") as handle:
                if kit.MARK in handle.read():
                    continue
            if name not in beside:
                raise Refused(f"{path}: is there already and not ours; name another folder with --tests.")
            made.notes.append(f"{path}: is there already; see that it makes the project importable.")
            del wanted[name]
    os.makedirs(folder, exist_ok=True)
    for name, text in wanted.items():
        replace(os.path.join(folder, name), text.encode(), None)
        made.files[os.path.join(folder, name)] = text
