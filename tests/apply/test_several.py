"""``aedifex step`` for what takes several steps of a design: a class of variables and functions, an app, a file, a base, an order."""

import subprocess
import sys

LINE = """import sys

FARE = 2
till_cash = 0
till_log = []


def sell(count):
    global till_cash
    till_cash += count * FARE
    till_log.append(count)


def report():
    print(till_cash, till_log)


day = int(sys.argv[1]) if len(sys.argv) > 1 else 1
for count in range(day + 2):
    sell(count)
report()
sys.exit(till_cash % 5)
"""


def ran(folder, *args):
    done = subprocess.run([sys.executable, "line.py", *args], cwd=folder.path, capture_output=True, text=True)
    return done.returncode, done.stdout


def test_one_after_the_other_and_back(folder):
    folder.write("line.py", LINE)
    before = ran(folder), ran(folder, "4")
    for step in (["class", "Till", "till_cash,till_log,sell,report"], ["file", "Till", "till.py"], ["app", "LineApp"]):
        files = [p.name for p in folder.path.glob("*.py")]
        done = folder.aedifex("step", *step, "--yes", "-q", *files)
        assert done.returncode == 0, done.stderr
        assert (ran(folder), ran(folder, "4")) == before
    assert folder.read("till.py").startswith(
        "FARE = 2\n\n\nclass Till:\n    def __init__(self):\n        self.cash = 0\n        self._log = []\n"
    )
    assert folder.read("line.py").endswith("LineApp().run()\n") and "class LineApp" in folder.read("line.py")
    assert folder.aedifex("undo", "-q", "--all", ".").returncode == 0
    assert folder.read("line.py") == LINE and not (folder.path / "till.py").exists()


def test_a_preview_writes_nothing(folder):
    folder.write("line.py", LINE)
    shown = folder.aedifex("step", "class", "Till", "till_cash,till_log", "line.py")
    assert (shown.returncode, "+class Till:" in shown.stdout, folder.read("line.py")) == (0, True, LINE)
