"""Unit tests from what was seen: which calls are worth a test, the files, and proof that they run."""

from __future__ import annotations

import os
import subprocess
import tempfile
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from ..program.atomic import replace
from ..program.errors import Refused
from .check import observe
from .scenarios import Scenario
from .world import World

EACH = 12  # tests of one method
Call = dict[str, Any]


@dataclass
class Written:
    """Files by path, how many tests each holds, and what there is to say about the rest."""

    files: dict[str, str] = field(default_factory=dict)
    counts: dict[str, int] = field(default_factory=dict)
    notes: list[str] = field(default_factory=list)
    proven: bool = True  # whether they were run


def write_tests(
    scenarios: list[Scenario],
    world: World,
    homes: dict[str, str],
    folder: str,
    tell: Callable[[str], None] | None = None,
) -> Written:
    """Tests of the classes in ``homes`` (class → file) below ``folder``, made of calls that the scenarios bring about.

    Raises Refused if a file of another hand stands in the way; nothing is written then.
    """
    launch = world.language.launch
    if launch.unit_tests is None:
        raise Refused(f"tests cannot be written for {world.language.name} yet; build without --tests.")
    made = Written()
    usable = {c: path for c, path in homes.items() if importable(c, path, world, made)}
    calls: list[Call] = []
    for scenario in scenarios if usable else []:
        seen = observe(scenario, world.wishing(calls=sorted(usable)))
        calls += [launch.unit_tests.read_call(text) for text in seen.calls]
        if tell is not None:
            tell(scenario.name)
    modules = {c: os.path.splitext(path)[0].replace("/", ".") for c, path in usable.items()}
    chosen = {c: choose([k for k in calls if k["class"] == c]) for c in usable}
    files = rendered(chosen, modules, launch)
    failing = prove(files, world, launch, made)
    if failing:
        chosen = {c: [(t, k) for t, k in tests if t not in failing] for c, tests in chosen.items()}
        files = rendered(chosen, modules, launch)
        made.notes.append(
            f"{len(failing)} calls depend on more than their object and arguments; no test is made of them."
        )
    for c, tests in chosen.items():
        if tests:
            made.counts[launch.unit_tests.file_name(modules[c].rsplit(".", 1)[-1])] = len(tests)
        else:
            made.notes.append(f"{c}: no call of it could be made a test.")
    if files:
        put(files, folder, world, launch, made)
    return made


def importable(name: str, path: str, world: World, made: Written) -> bool:
    if world.language.launch.unit_tests.importable(text_of(path, world)):
        return True
    made.notes.append(
        f"{name}: stands in {path}, which starts the program when it is imported; it gets no tests there."
    )
    return False


def text_of(path: str, world: World) -> bytes:
    data = world.overlay.get(path)
    if data is None:
        with open(os.path.join(world.root, path), "rb") as handle:
            data = handle.read()
    return data


def choose(calls: list[Call]) -> list[tuple[str, Call]]:
    """For each method the calls that differ most, with the name of the test that each becomes."""
    found: list[tuple[str, Call]] = []
    for method in dict.fromkeys(c["method"] for c in calls):
        kept = telling([c for c in calls if c["method"] == method])
        found += [(f"test_{method.strip('_')}_{n}", c) for n, c in enumerate(kept, 1)]
    return found


def telling(calls: list[Call]) -> list[Call]:
    """New ways through the lines first, then new outcomes, then the smallest and largest numbers, then some from all over."""
    kept: list[Call] = []
    ways: set[Any] = set()
    outcomes: set[str] = set()

    def take(call: Call) -> None:
        if call not in kept and len(kept) < EACH:
            kept.append(call)
            ways.update(call["lines"])
            outcomes.add(outcome(call))

    for call in calls:
        if set(call["lines"]) - ways:
            take(call)
    for call in calls:
        if outcome(call) not in outcomes and len(kept) < EACH // 2:
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


def outcome(call: Call) -> str:
    return repr([call["result"], call["raised"], call["changed"], call["printed"], call["things"], call["pictures"]])


def rendered(chosen: dict[str, list[tuple[str, Call]]], modules: dict[str, str], launch: Any) -> dict[str, str]:
    made = {}
    for c, tests in chosen.items():
        if tests:
            made[launch.unit_tests.file_name(modules[c].rsplit(".", 1)[-1])] = launch.unit_tests.test_file(
                c, modules, tests
            )
    return made


def prove(files: dict[str, str], world: World, launch: Any, made: Written) -> set[str]:
    """Run the tests on a copy of the project; the names of those that fail."""
    if not files:
        return set()
    failing: set[str] = set()
    with tempfile.TemporaryDirectory(prefix="aedifex-") as top:
        place = os.path.join(top, "work")
        world.lay_out(place, [], pinned=False)
        tests = os.path.join(place, "aedifex_tests")
        os.makedirs(tests)
        for name, text in {**files, "conftest.py": launch.unit_tests.sheet("..")}.items():
            with open(os.path.join(tests, name), "w", encoding="utf-8") as handle:
                handle.write(text)
        done = subprocess.run(
            [world.interpreter, "-m", "pytest", "-q", "-rfE", "-p", "no:cacheprovider", "--tb=no", tests], cwd=place,
            capture_output=True, text=True, timeout=600, env={**os.environ, "PYTEST_ADDOPTS": "", "PYTHONDONTWRITEBYTECODE": "1"},
        )  # fmt: skip
        if "No module named pytest" in done.stderr:
            made.proven = False
            made.notes.append(
                f"pytest is not installed for {world.interpreter}, so the tests were not run; install it there."
            )
        failing = launch.unit_tests.failures(done.stdout)
    return failing


def put(files: dict[str, str], folder: str, world: World, launch: Any, made: Written) -> None:
    mark = launch.unit_tests.MARK
    inside = os.path.relpath(world.root, folder).replace(os.sep, "/")
    wanted = dict(files)
    if inside != ".":
        wanted["conftest.py"] = launch.unit_tests.sheet(inside)
    for name in list(wanted):
        path = os.path.join(folder, name)
        if os.path.lexists(path):
            with open(path, encoding="utf-8", errors="replace") as handle:
                if mark in handle.read():
                    continue
            if name != "conftest.py":
                raise Refused(f"{path}: is there already and not ours; name another folder with --tests.")
            made.notes.append(f"{path}: is there already; see that it makes the project importable.")
            del wanted[name]
    os.makedirs(folder, exist_ok=True)
    for name, text in wanted.items():
        replace(os.path.join(folder, name), text.encode(), None)
        made.files[os.path.join(folder, name)] = text
