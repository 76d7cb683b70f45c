"""What checking a run costs, as ratios to running the program plainly, all in one go.

    python benchmarks/overhead.py

Limits: 1.3 without comparing fields, 2.0 with it, on runs of a second or more. Each figure is the least of several runs.
"""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable

from aedifex.core.apply.watch_list import watched
from aedifex.core.check.check import observe
from aedifex.core.check.run_environment import World
from aedifex.core.check.scenarios import Scenario
from aedifex.core.planning.drafter import draft
from aedifex.core.program.program import read_program

ROUNDS = 3
LINES = 300
HEAD = "\n".join(f"tram{n}_x = {n}.0\ntram{n}_riders = {n}\ntram{n}_log = []" for n in range(1, 9))
MOVES = "\n\n\n".join(
    f"def move_tram{n}(dt):\n    global tram{n}_x, tram{n}_riders\n    for i in range(2500):\n        tram{n}_x = (tram{n}_x * 1.0001 + dt) % 97\n"
    f"    tram{n}_riders += 1\n    tram{n}_log.append(round(tram{n}_x))\n    del tram{n}_log[:-20]"
    for n in range(1, 9)
)
MAIN = (
    "for line in sys.stdin:\n    "
    + "\n    ".join(f"move_tram{n}(0.5)" for n in range(1, 9))
    + "\n    print(tram1_x, tram8_log[-3:])"
)
CONSOLE = f"import sys\n\n{HEAD}\n\n\n{MOVES}\n\n\n{MAIN}\n"
WINDOW = f"""import pygame

pygame.init()
screen = pygame.display.set_mode((640, 480))
clock = pygame.time.Clock()
{HEAD}


{MOVES}


for frame in range({LINES}):
    for event in pygame.event.get():
        pass
    screen.fill((20, 20, 20))
    {MAIN.split(chr(10), 1)[1].rsplit(chr(10), 1)[0].strip()}
    pygame.draw.circle(screen, (200, 60, 50), (int(tram1_x) * 5, 200), 20)
    pygame.display.flip()
    clock.tick()
"""


def least(run: Callable[[], object]) -> float:
    found = []
    for _ in range(ROUNDS):
        start = time.perf_counter()
        run()
        found.append(time.perf_counter() - start)
    return min(found)


def measure(name: str, text: str, runner: str, typed: str) -> list[tuple[str, float, float]]:
    with tempfile.TemporaryDirectory() as folder:
        path = os.path.join(folder, "line.py")
        with open(path, "w", encoding="utf-8") as handle:
            handle.write(text)
        program = read_program(folder, ["line.py"])
        rows = watched(draft(program), program)
        world = World(folder, "line.py", program.language, {}, list(program.files.values()))
        scenario = Scenario("line", runner, stdin=typed, turns=10**6, seconds=120)
        env = {**os.environ, "SDL_VIDEODRIVER": "dummy", "SDL_AUDIODRIVER": "dummy", "PYTHONDONTWRITEBYTECODE": "1"}

        def plain() -> None:
            subprocess.run([sys.executable, path], input=typed.encode(), capture_output=True, env=env, check=True)

        def checked(watch: list) -> None:
            world.watch = watch
            seen = observe(scenario, world)
            assert seen.status == 0 and not seen.trouble and bool(seen.state) == bool(watch), seen

        base = least(plain)
        print(f"{name}: {base:.2f} s plainly")
        return [
            (f"{name}, checked", least(lambda: checked([])) / base, 1.3),
            (f"{name}, checked with its fields", least(lambda: checked(rows)) / base, 2.0),
        ]


def main() -> None:
    rows = measure("console", CONSOLE, "process", "x\n" * LINES)
    try:
        import pygame  # noqa: F401

        rows += measure("window", WINDOW, "frames", "")
    except ImportError:
        print("pygame is not installed (pip install 'aedifex[frames]'); windows are not measured")
    for name, ratio, limit in rows:
        print(f"{name:<34} {ratio:5.2f}  (limit {limit}){'' if ratio <= limit else '  TOO SLOW'}")
    sys.exit(any(ratio > limit for _, ratio, limit in rows))


if __name__ == "__main__":
    main()
