"""``aedifex step`` for what takes several steps of a design: a class of variables and functions, an app, a file, a base, an order."""

import subprocess
import sys

import pytest
from cases import coded, outputs

from aedifex.core.apply import by_hand_more as more
from aedifex.core.apply import by_hand_several as several
from aedifex.core.program.errors import Refused
from aedifex.core.program.language import language_of
from aedifex.core.program.program import read_program

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
SCRIPT = "let tillCash = 0;\nlet tillLog = [];\n\nfunction sell(count) {\n  tillCash += count;\n  tillLog.push(count);\n}\n\nsell(2);\nsell(3);\nconsole.log(tillCash, tillLog.length);\n"
JAVA = """public class Line {
    private static int tillCash = 0;
    private static int tillCount = 0;

    static void sell(int count) {
        tillCash += count;
        tillCount++;
    }

    public static void main(String[] args) {
        sell(2);
        sell(3);
        System.out.println(tillCash + " " + tillCount);
    }
}
"""
LOG = "line = 'north'\n\n\nclass Log:\n    def __init__(self):\n        self.lines = []\n\n    def add(self, text):\n        self.lines.append(line + text)\n        print(self.lines)\n\n\nlog = Log()\nlog.add('a')\n"
LOG_JS = "let line = 'north';\nclass Log {\n  constructor() {\n    this.lines = [];\n  }\n  add(text) {\n    this.lines.push(line + text);\n    console.log(this.lines);\n  }\n}\nconst log = new Log();\nlog.add('a');\n"
LOG_JAVA = "public class Line {\n    static String line = \"north\";\n    static class Log {\n        int n = 0;\n        void add(String text) {\n            n += 1;\n            System.out.println(line + text + n);\n        }\n    }\n    static Log log = new Log();\n    public static void main(String[] args) {\n        log.add(\"a\");\n    }\n}\n"
CARS = "class Car:\n    def __init__(self, x):\n        self.x = x\n\n    def stop(self):\n        print('stop', self.x)\n\n    def move(self):\n        self.x += 1\n        self.stop()\n\n\nclass Bus:\n    def __init__(self, x):\n        self.x = x\n\n    def stop(self):\n        print('stop', self.x)\n\n\nfor it in [Car(1), Bus(2)]:\n    it.stop()\nCar(5).move()\n"


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
    assert folder.read("till.py").startswith("FARE = 2\n\n\nclass Till:\n    def __init__(self):\n        self.cash = 0\n        self._log = []\n")
    assert folder.read("line.py").endswith("LineApp().run()\n") and "class LineApp" in folder.read("line.py")
    assert folder.aedifex("undo", "-q", "--all", ".").returncode == 0
    assert folder.read("line.py") == LINE and not (folder.path / "till.py").exists()


def test_a_preview_writes_nothing(folder):
    folder.write("line.py", LINE)
    shown = folder.aedifex("step", "class", "Till", "till_cash,till_log", "line.py")
    assert (shown.returncode, "+class Till:" in shown.stdout, folder.read("line.py")) == (0, True, LINE)


def worked_out(folder, files, step, *words):
    for name, text in files.items():
        folder.write(name, text)
    return getattr(more if hasattr(more, step) else several, step)(read_program(str(folder.path), list(files)), *words)


# (step, its words, files, what stands in the first file afterwards)
DONE = [
    ("found", ("Till", ["tillCash", "tillLog"]), {"line.js": SCRIPT}, ["class Till {", "const till = new Till();", "till.sell(2);"]),
    ("found", ("Till", ["tillCash", "tillCount"]), {"Line.java": JAVA}, ["static class Till {", "till.sell(2);"]),
    ("found", ("Till", ["till_cash", "till_log", "sell"]), {"line.py": LINE}, ["    def sell(self, count):", "def report():\n    print(till.cash, till.log)"]),
    ("app", ("Line2",), {"line.py": LINE}, ["class Line2:", "        sys.exit(self._till_cash % 5)\n", "Line2().run()"]),
    ("pass_argument", ("Log.add", "where=line"), {"line.py": LOG}, ["def add(self, text, where):", "append(where + text)", "log.add('a', line)"]),
    ("pass_argument", ("Log.add", "line"), {"line.js": LOG_JS}, ["add(text, line) {", "log.add('a', line);"]),
    ("pass_argument", ("Log.add", "line"), {"Line.java": LOG_JAVA}, ["void add(String text, String line) {", 'log.add("a", line);']),
    ("hide", ("Log.lines",), {"line.py": LOG}, ["self._lines.append", "print(self._lines)"]),
    ("hide", ("Log.lines",), {"line.js": LOG_JS}, ["this._lines = [];"]),
    ("split", (["a", "b"],), {"line.js": "let a = 1, b = 2;\nfunction go() {\n  a += b;\n}\ngo();\nconsole.log(a);\n"}, ["let a = 1;\nlet b = 2;\n"]),
    ("app", ("Line2",), {"line.js": SCRIPT}, ["class Line2 {", "new Line2().run();"]),
    ("app", ("App",), {"Line.java": JAVA}, ["new App().run("]),
    ("base", ("Rail", ["Car", "Bus"]), {"line.py": CARS}, ["class Rail:", "class Car(Rail):\n    def move(self):", "class Bus(Rail):\n    pass"]),
    ("order", ("Car",), {"line.py": CARS.replace("    it.stop()", "    print(it.x)")}, ["    def move(self):\n        self.x += 1\n        self.stop()\n\n    def stop(self):"]),
]  # fmt: skip


@pytest.mark.parametrize(("step", "words", "files", "wanted"), DONE, ids=[f"{d[0]}-{next(iter(d[2]))}" for d in DONE])
def test_it_does_the_same(folder, step, words, files, wanted):
    made = worked_out(folder, files, step, *words)
    text = made.after.texts[next(iter(files))].decode()
    assert all(w in text for w in wanted), text
    if language_of(next(iter(files))).name == "python":
        assert outputs({n: t.decode() for n, t in made.after.texts.items()}) == outputs(files)


# (step, its words, files, what it says)
REFUSED = [
    ("found", ("Till", ["till_cash", "nobody"]), {"line.py": LINE}, "'nobody' is not a name of these scripts"),
    ("found", ("Till", ["sell"]), {"line.py": LINE}, "Till would have no variable; name at least one"),
    ("found", ("2", ["till_cash"]), {"line.py": LINE}, "'2'"),
    ("found", ("Till", ["till_cash", "till_log", "sell"]), {"line.py": LINE.replace("report()\nsys", "print(eval('till_log'))\nsys")}, "'eval()' can reach any name by its text"),
    ("app", ("2",), {"line.py": LINE}, "no-class-name"),
    ("app", ("sell",), {"line.py": LINE}, "no-class-name"),
    ("app", ("App",), {"line.py": "def f():\n    return 1\n"}, "no-app no main code starts here"),
    ("app", ("App",), {"line.py": LINE.replace("day = int", "global day\nday = int")}, "a 'global' statement stands in the main code"),
    ("move", ("Car", "bus/car.py"), {"line.py": CARS}, "other-folder line.py"),
    ("move", ("Car", "line.py"), {"line.py": CARS}, "nothing-changes"),
    ("move", ("Car", "other.py"), {"line.py": CARS, "other.py": "print(2)\n"}, "path-exists"),
    ("move", ("Tram", "tram.py"), {"line.py": CARS}, "no-class"),
    ("move", ("Car", "car.mjs"), {"line.mjs": "export function rate(n) {\n  return n * 2;\n}\nclass Car {\n  go() {\n    return rate(2);\n  }\n}\nconsole.log(new Car().go());\n"}, "stays-in-file line.mjs:6 'rate' is offered to other files where it stands"),
    ("base", ("Rail", ["Car"]), {"line.py": CARS}, "base-of-one"),
    ("base", ("2", ["Car", "Bus"]), {"line.py": CARS}, "no-class-name"),
    ("base", ("Rail", ["Car", "Bus"]), {"line.py": CARS.replace("class Bus:", "class Bus(Car):")}, "base-already line.py:13"),
    ("base", ("Rail", ["Car", "Log"]), {"line.py": CARS + "\n\nclass Log:\n    def tell(self):\n        print(1)\n"}, "nothing-in-common line.py"),
    ("base", ("Rail", ["Car", "Log"]), {"line.py": CARS, "log.py": "class Log:\n    pass\n"}, "base-of-several-files line.py"),
    ("order", ("Bus",), {"line.py": CARS}, "nothing-changes"),
    ("pass_argument", ("Log", "line"), {"line.py": LOG}, "no-member-named"),
    ("pass_argument", ("Log.add", "line"), {"line.py": LOG.replace("        print(self", "        global line\n        line = 'x'\n        print(self")}, "changed-not-read line.py:11"),
    ("pass_argument", ("Log.add", "line"), {"line.py": LOG + "for it in [log]:\n    it.add('b')\n"}, "whose-call line.py:16"),
    ("pass_argument", ("Log.add", "line"), {"line.py": LOG + "logs = [log]\nlogs[0].add('b')\n"}, "whose-call line.py:16"),
    ("pass_argument", ("Log.add", "line"), {"line.py": LOG + "def tell(log):\n    log.add('b')\ntell(Log())\n"}, "whose-call line.py:16"),
    ("pass_argument", ("Log.add", "line"), {"line.js": LOG_JS + "[log].forEach((it) => it.add('b'));\n"}, "whose-call line.js:13"),
    ("pass_argument", ("Log.tell", "line"), {"line.py": LOG}, "no-method-yet line.py"),
    ("hide", ("Log.lines",), {"line.py": LOG + "print(log.lines)\n"}, "used-outside-it line.py:15 'lines' is used outside of Log"),
    ("hide", ("Log.n",), {"Line.java": LOG_JAVA}, "hidden-by-a-word"),
    ("hide", ("Log.rows",), {"line.py": LOG}, "no-member-named"),
    ("unify", ("sell", "report"), {"line.py": LINE}, "no-twins"),
    ("branches", ("sell",), {"line.py": LINE}, "no-branches"),
    ("split", (["FARE", "till_cash"],), {"line.py": LINE}, "nothing-to-split"),
    ("register", ("line.py",), {"line.py": CARS}, "nothing-changes"),
    ("register", ("page.py",), {"line.py": CARS}, "no-script"),
]  # fmt: skip


@pytest.mark.parametrize(("step", "words", "files", "said"), REFUSED, ids=[f"{r[0]}-{i}" for i, r in enumerate(REFUSED)])
def test_all_or_nothing(folder, step, words, files, said):
    with pytest.raises(Refused) as refused:
        worked_out(folder, files, step, *words)
    refusal = refused.value.refusal
    assert said in (coded(refusal) if refusal is not None else str(refused.value))


def test_a_file_beside_the_scripts_is_in_the_way(folder):
    folder.write("car.py", "print(2)\n")
    with pytest.raises(Refused) as refused:
        worked_out(folder, {"line.py": CARS}, "move", "Car", "car.py")
    assert coded(refused.value.refusal) == "path-exists line.py"
