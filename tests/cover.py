"""Which lines of the core the text cases and the small tests reach: printed at the end where ``--cover`` is given.

Tracing all tests would take half as long again, and most of the others reach the core in processes of their own. Counted are lines
inside of functions: all others run when a module is read.
"""

import ast
import os
import shutil
import tempfile
from collections import Counter
from pathlib import Path

import coverage
import pytest

import aedifex

CORE = Path(aedifex.__file__).parent / "core"
TRACED = (
    "rewrites/test_steps.py",
    "design/",
    "naming/",
    "planning/test_planning.py",
    "apply/test_messages.py",
    "analysis/",
)
RUNS_APART = ("pinned", "standins")  # beside the programs that are run


class Tracer:
    """In each worker: the tests that are traced, one file of lines a worker."""

    def __init__(self, folder: str) -> None:
        self.cover = coverage.Coverage(
            data_file=os.path.join(folder, f"lines.{os.getpid()}"), include=[f"{CORE}/*"], config_file=False
        )

    @pytest.hookimpl(wrapper=True)
    def pytest_runtest_protocol(self, item):
        traced = str(item.path.relative_to(Path(__file__).parent)).startswith(TRACED)
        if traced:
            self.cover.start()
        try:
            return (yield)
        finally:
            if traced:
                self.cover.stop()

    def pytest_sessionfinish(self):
        self.cover.save()


class Summary:
    """In the process that the workers report to."""

    def __init__(self, folder: str) -> None:
        self.folder = folder

    def pytest_terminal_summary(self, terminalreporter):
        found = reached(self.folder)
        shutil.rmtree(self.folder)
        terminalreporter.section("lines of core/ that cases and small tests reach")
        for package, (lines, all_lines) in found.items():
            terminalreporter.write_line(f"{package:<12} {lines * 100 // max(1, all_lines):>3} % of {all_lines}")


def reached(folder: str) -> dict[str, tuple[int, int]]:
    """Package → (lines of functions that ran, all of them); the whole comes last."""
    data = coverage.CoverageData(os.path.join(folder, "all"))
    for part in Path(folder).glob("lines.*"):
        more = coverage.CoverageData(str(part))
        more.read()
        data.update(more)
    ran, known = Counter(), Counter()
    reader = coverage.Coverage(data_file=None, config_file=False)
    for path in [p for p in sorted(CORE.rglob("*.py")) if not set(RUNS_APART) & {*p.parts}]:
        inside = {
            n
            for f in ast.walk(ast.parse(path.read_text()))
            if isinstance(f, ast.FunctionDef)
            for s in f.body
            for n in range(s.lineno, (s.end_lineno or 0) + 1)
        }
        lines = {*reader.analysis(str(path))[1]} & inside
        package = path.relative_to(CORE).parts[0]
        for name in (package, "core"):
            known[name] += len(lines)
            ran[name] += len(lines & {*(data.lines(str(path)) or ())})
    return {name: (ran[name], known[name]) for name in sorted(known, key=lambda n: (n == "core", n)) if known[name]}


def pytest_addoption(parser):
    parser.addoption("--cover", action="store_true", help="say which lines of the core the cases and small tests reach")


def pytest_configure(config):
    worker = getattr(config, "workerinput", None)
    if worker is not None and "cover" in worker:
        config.pluginmanager.register(Tracer(worker["cover"]))
    elif worker is None and config.getoption("cover"):
        config.cover_folder = tempfile.mkdtemp(prefix="aedifex-cover-")
        config.pluginmanager.register(Summary(config.cover_folder))


@pytest.hookimpl(optionalhook=True)
def pytest_configure_node(node):
    if hasattr(node.config, "cover_folder"):
        node.workerinput["cover"] = node.config.cover_folder
