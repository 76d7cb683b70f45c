"""What a step does not do, it refuses in one sentence that says why and what the person can do."""

import pytest
from cases import apply, coded

from aedifex.core.analysis.parallel_arrays import lists_named
from aedifex.core.apply import by_hand as single
from aedifex.core.planning.drafter import draft
from aedifex.core.program.errors import Refused

CLASS = "class Tram:\n    def __init__(self):\n        self.x = 1\n\n    def move(self):\n        self.x += 1\n\n\ntram = Tram()\ntram.move()\n"
MAIN = "def main():\n    n = 1\n    print(n)\n\n\nmain()\n"
WINDOW = """import pyglet


class App:
    def __init__(self):
        self.window = pyglet.window.Window(60, 40)
        self.window.set_handler("on_draw", self.draw_all)

    def draw_all(self):
        self.window.clear()

"""
PANEL = """import java.awt.Graphics;
import javax.swing.JPanel;

public class Line {
    static int helped() { return 3; }

    static class App {
        private int first = helped();
        private JPanel board = new JPanel() {
            @Override
            protected void paintComponent(Graphics g) { g.drawLine(0, 0, 1, 1); }
        };
    }

    public static void main(String[] args) {
        new App();
    }
}
"""


# (step, its words, files, what it says); a text alone is line.py
ALONE = [
    ("rename", ("tram", "tram"), CLASS, "called-so-already"),
    ("rename", ("Tram.x", "move"), CLASS, "member-taken line.py:10"),
    ("rename", ("Tram.__init__", "start"), CLASS, "language-reads-either line.py:1"),
    ("rename", ("Tram.y", "z"), CLASS, "no-member line.py:1"),
    ("rename", ("Tram.x", "z"), CLASS + "print(getattr(tram, 'x'))\n", "members-by-text line.py:11"),
    ("rename", ("Tram.x", "z"), CLASS.replace("    def __init__", "    __slots__ = ('x',)\n\n    def __init__"), "lists-members line.py:1"),
    ("rename", ("Tram.x", "z"), CLASS + "class Car(Tram):\n    pass\n", "class-has-base line.py:11"),
    ("rename", ("Tram.move", "go"), CLASS + "for t in [tram]:\n    t.move()\n", "whose-member line.py:12"),
    ("rename", ("n", "m"), "n = 1\ndef f(m):\n    return n + m\nf(1)\n", "means-else line.py:3"),
    ("rename", ("f.n", "m"), "def f(n):\n    return n + m\nm = 2\nf(1)\n", "means-else line.py:2"),
    ("rename", ("n", "m"), "n = m = 1\n", "name-in-use line.py:1"),
    ("rename", ("n", "m"), "n = 1\nprint(f'{n=}')\n", "spelled-out line.py:2"),
    ("rename", ("f.n", "m"), "def f(n):\n    return eval('n')\nf(1)\n", "names-by-text line.py:2"),
    ("rename", ("f.n", "m"), "def f(n):\n    return n\ndef g(**more):\n    return f(**more)\ng(n=1)\n", "call-by-hand line.py:4 arguments are handed over by names that are not written here"),
    ("rename", ("__all__", "names"), "__all__ = []\n", "language-reads line.py"),
    ("rename", ("n", "m"), {"line.py": "n = 1\n", "other.py": "from line import n\nprint(n)\n"}, "used-by-file other.py:1"),
    ("rename", ("n", "m"), {"line.py": "n = 1\n", "page.py": "from line import *\nprint(n)\n"}, "used-outside page.py:1 everything of line.py is imported by page.py"),
    ("rename", ("line.py", "sub/line.py"), "n = 1\n", "other-folder line.py"),
    ("rename", ("line.py", "2.py"), "n = 1\n", "no-module-name line.py"),
    ("rename", ("line.py", "page.py"), {"line.py": "n = 1\n", "page.py": "m = 1\n"}, "path-exists line.py"),
    ("rename", ("line.py", "json.py"), "n = 1\n", "hides-library-module line.py"),
    ("rename", ("line.py", "pygame.py"), "import pygame\n", "hides-imported-module line.py"),
    ("rename", ("line.js", "page.js"), {"line.js": "let n = 1;\n"}, "files-not-renamed line.js"),
    ("open_main", ("run",), MAIN, "no-function"),
    ("name_handler", ("page.py:1:1", "on_key"), MAIN, "no-place"),
    ("name_handler", ("line.py:1:1", "on_key"), MAIN, "no-handler-here line.py"),
    ("open_stream", ("print", "2"), MAIN, "no-name"),
    ("open_stream", ("input", "console"), CLASS, "no-console-use"),
    ("open_stream", ("print", "console"), "name = input()\nprint(name, eval(name))\n", "dynamic-names line.py:2 'eval()' can reach any name by its text, so no variable or function can move"),
    ("take_part", ("Car", "Log", ["x"]), CLASS, "no-class"),
    ("take_part", ("Tram", "2", ["x"]), CLASS, "no-class-name"),
    ("take_part", ("Tram", "Log", ["y"]), CLASS, "no-such-member line.py:1"),
    ("take_part", ("Tram", "Log", ["x"]), {"line.py": CLASS, "other.py": "from line import Tram\n"}, "used-outside other.py:1 'Tram' is imported by other.py"),
    ("take_part", ("Tram", "tram", ["x"]), CLASS, "part-name-in-use line.py"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("move(self)", "move(self, **more)").replace("+= 1", "+= self.by").replace("= 1\n", "= 1\n        self.by = 2\n        self.by = 3\n", 1), "takes-any-argument line.py:7"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("+= 1", "+= self.by").replace("= 1\n", "= 1\n        self.by = by = 2\n        print(by)\n", 1).replace("move(self)", "move(self, by=1)"), "passed-name-taken line.py:7"),
    ("take_part", ("Tram", "Log", ["x", "__init__"]), CLASS, "no-plain-method line.py:2"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("self.x += 1", "self.x += self.move.__defaults__ is None\n        del self.x"), "used-not-as-part line.py:7"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("self.x += 1", "self.x = self.turn"), "uses-no-field line.py:6"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("    def __init__(self):\n        self.x = 1\n\n", "").replace("tram.move()\n", ""), "no-constructor line.py:1"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("self.x = 1\n", "pass\n").replace("tram.move()\n", ""), "nothing-sets-fields line.py:2"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("self.x += 1", "self.x += 1; yield self.by").replace("= 1\n", "= 1\n        self.by = 2\n\n    def turn(self):\n        self.by = 3\n", 1), "goes-on-later line.py:9"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1; move() { this.x += 1; }\n  stop() {\n    this.move();\n  }\n}\nnew Tram().stop();\n"}, "shares-line line.js:2"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = Date.now();\n  move() {\n    this.x += 1;\n  }\n}\nnew Tram().stop();\n"}, "declared-for-class-only line.js:2"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1;\n  by = this.x + 1;\n  move() {\n    this.x += 1;\n  }\n}\nnew Tram().stop();\n"}, "used-before-part line.js:3"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1;\n  by = 2;\n  turn() {\n    this.by += 1;\n    this.move();\n  }\n  move(by) {\n    this.x += this.by;\n  }\n}\nnew Tram().turn();\n"}, "passed-name-taken line.js:8"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1;\n  by = 2;\n  turn() {\n    this.by += 1;\n    this.move();\n  }\n  move(to) {\n    this.x += this.by;\n  }\n}\nnew Tram().turn();\n"}, "other-argument-count line.js:6"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1;\n  move() {\n    this.x += 1;\n  }\n}\nconst tram = new Tram();\nfunction show(it) {\n  console.log(it);\n}\nshow(tram);\n"}, "used-outside-class line.js:9 an object of Tram gets about, and this may show all that it holds"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1;\n  move() {\n    this.x += 1;\n  }\n}\nconst tram = new Tram();\nfunction show({ x }) {\n  return x;\n}\nshow(tram);\n"}, "used-outside-class line.js:8 'x' may be used outside of Tram"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"Line.java": "public class Line {\n    static int far = 1;\n    static class Tram {\n        int tramX = 1;\n        int x = 2;\n        void move() {\n            x += far;\n        }\n    }\n    public static void main(String[] args) {\n        new Tram().move();\n    }\n}\n"}, "used-outside-class Line.java:11 'move' is used outside of Tram"),
    ("rename", ("nobody", "m"), "n = 1\n", "no-such-name"),
    ("rename", ("n", "m"), "n = 1\nprint(\uff4e)\n", "written-otherwise line.py:2"),
    ("rename", ("Tram.x", "y"), {"Line.java": "public class Line {\n    static class Tram {\n        int x = 1;\n        int sum(int y) {\n            return x + y;\n        }\n    }\n    public static void main(String[] args) {\n        System.out.println(new Tram().sum(2));\n    }\n}\n"}, "means-else Line.java:5"),
    ("rename", ("line.py", "lane.py"), {"line.py": "n = 1\n", "other.py": "import line\nprint(line.n)\n"}, "imported-by other.py:1"),
    ("rename", ("pkg/line.py", "pkg/tram.py"), {"main.py": "import pkg.line\nprint(pkg.line.n)\n", "pkg/line.py": "n = 1\n", "pkg/__init__.py": ""}, "import-not-read main.py:1"),
    ("open_main", ("helped",), {"Line.java": PANEL}, "no-main-function Line.java"),
    ("open_main", ("main",), MAIN.replace("\nmain()", "\nact = main"), "called-elsewhere line.py:1"),
    ("take_part", ("Log", "Lines", ["lines", "add"]), {"line.js": "class Log {\n  constructor() {\n    this.lines = [];\n  }\n  add(n) {\n    this.lines.push(n);\n  }\n  tell() {\n    console.log(1);\n  }\n}\nnew Log().tell();\nconst other = [new Log()];\nother[0].add(2);\n"}, "used-outside-class line.js:14 'add' is used outside of Log"),
    ("take_part", ("Log", "Lines", ["lines", "add"]), {"Line.java": "public class Line {\n    static class Log {\n        int lines = 0;\n        void add(int n) {\n            lines += n;\n            lines();\n        }\n        void tell() {\n            add(2);\n        }\n    }\n    static void lines() {\n        System.out.println(1);\n    }\n    public static void main(String[] args) {\n        new Log().tell();\n    }\n}\n"}, "part-member-meant Line.java:6"),
    ("take_part", ("Log", "Lines", ["lines", "add", "more"]), "class Log:\n    def __init__(self):\n        self.lines = []\n        self.name = 'a'\n\n    def tell(self):\n        self.name = self.name + 'x'\n        self.add(1)\n        return self.more()\n\n    def add(self, n):\n        self.lines.append(self.name * n)\n\n    def more(self):\n        return map(self.add, [1])\n\n\nLog().tell()\n", "method-handed-on line.py:15"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();", "1;\n        int most() { return list(null).size(); }").replace("import java.awt", "import static java.util.Collections.list;\nimport java.awt")}, "library-member-meant Line.java:10"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();", "1;").replace("private JPanel board", "int k = 2; private JPanel board")}, "shares-line Line.java:9"),
    ("open_main", ("main",), MAIN + "print(eval('1'))\n", "dynamic-names line.py:7 'eval()' can reach any name by its text, so no variable or function can move"),
    ("extend", ("App", "window"), WINDOW.replace("    def draw_all", "    def set_caption(self):\n        print(1)\n\n    def draw_all"), "name-of-library-class line.py:9"),
    ("extend", ("App", "window"), WINDOW.replace("on_draw", "on_close").replace("def draw_all(self):\n        self.window.clear()", "def draw_all(self): self.window.clear()"), "on-one-line line.py:9"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();", "1;").replace("new JPanel()", "new JPanel(first > 0)")}, "held-needs-object Line.java:9"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("int first = helped();", "int ui = 1;")}, "name-of-library-class Line.java:8"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("+= 1", "+= self.by").replace("= 1\n", "= 1\n        self.by = 2\n", 1).replace("tram.move()", "tram.act()").replace("    def move", "    def act(self):\n        for f in [self.move]:\n            f()\n        self.by = 3\n\n    def move"), "method-handed-on line.py:7"),
    ("take_part", ("Line", "Log", ["x", "move"]), {"Line.java": "public class Line {\n    int x = 1;\n    int by = 2;\n    void move() {\n        x += 1;\n    }\n    void run() {\n        by += 1;\n        Runnable act = new Runnable() {\n            int log = 1;\n            public void run() {\n                move();\n                System.out.println(log);\n            }\n        };\n        act.run();\n    }\n    public static void main(String[] args) {\n        new Line().run();\n    }\n}\n"}, "part-means-else Line.java:12"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("int first = helped();", "int first = 1;\n        App() {\n            super();\n        }").replace("new JPanel()", "new JPanel(null)")}, "constructor-calls-base Line.java:9"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("int first = helped();", "int first = 1;\n        App() { first = 2; }").replace("new JPanel()", "new JPanel(null)")}, "shares-line Line.java:9"),
    ("extend", ("Car", "x"), CLASS, "no-class"),
    ("extend", ("Tram", "x"), {"line.js": "class Tram {\n  x = 1;\n}\nnew Tram();\n"}, "no-library-classes line.js"),
    ("extend", ("App", "window"), WINDOW + "\napp = App()\nprint(app.window.width)\n", "held-used-outside line.py:6"),
    ("extend", ("App", "window"), WINDOW.replace("class App:", "class App(list):"), "holder-unknown line.py"),
    ("extend", ("App", "window"), WINDOW.replace("self.window.clear()", "del self.window"), "held-used-otherwise line.py:10"),
    ("extend", ("App", "window"), WINDOW.replace("self.window.clear()", "self.window.pop_handlers()"), "held-used-otherwise line.py:10"),
    ("extend", ("App", "window"), WINDOW.replace("on_draw", "on_close") + "    def stop(self):\n        self.draw_all()\n", "nothing-registered line.py:6"),
    ("extend", ("App", "board"), {"Line.java": PANEL}, "would-be-noticed Line.java:8"),
    ("extend", ("App", "first"), {"Line.java": PANEL}, "held-no-library-class Line.java:8"),
    ("extend", ("App", "second"), {"Line.java": PANEL}, "no-field-declared Line.java:7"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("class App", "class App extends Thread")}, "cannot-extend Line.java"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();\n        private JPanel board = ", "1;\n        private JPanel board; JPanel it = ")}, "held-not-set-where-made Line.java:9"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();", "1;").replace("new App();", "System.out.println(new App().board);")}, "held-used-elsewhere Line.java:16"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();", "1;").replace("{ g.draw", "{\n            g.draw").replace("            @Override\n            protected", "protected").replace("JPanel() {\n", "JPanel() { ")}, "shares-line Line.java:9"),
]


@pytest.mark.parametrize(("step", "words", "files", "said"), ALONE, ids=[f"{a[0]}-{i}" for i, a in enumerate(ALONE)])
def test_one_step_says_why_not(folder, step, words, files, said):
    program = folder.read_all(files)
    with pytest.raises(Refused) as refused:
        getattr(single, step)(program, *words)
    assert coded(refused.value.refusal) == said


def design(fields="x", methods=(), objects="tram", name="Tram", more=""):
    """A design of one class. ``fields``: names; ``methods``: (name, keys and values)."""
    text = f'[[class]]\nname = "{name}"\n{more}\n'
    text += "".join(f'[[class.field]]\nname = "{f}"\nfrom = ["{f}"]\n' for f in fields.split())
    text += "".join(f'[[class.method]]\nname = "{m}"\n{rest or f"from = [{chr(34)}{m}{chr(34)}]"}\n' for m, rest in methods)
    return text + "".join(f'[[class.object]]\nname = "{o}"\n' for o in objects.split())


MOVE = "x = 1\n\n\ndef move():\n    global x\n    x += 1\n\n\nmove()\nprint(x)\n"
move = [("move", "")]
dropped = [("move", 'from = ["move"]\ndrop = ["y"]')]
two = '[[class]]\nname = "Tram"\n[[class.field]]\nname = "x"\nfrom = ["a_x", "b_x"]\n[[class.method]]\nname = "move"\nfrom = ["move"]\ndrop = ["y"]\n[[class.object]]\nname = "a"\n[[class.object]]\nname = "b"\n'
pair = "a_x = 1\nb_x = 2\n\n\ndef move(y):\n    print(y)\n\n\n"

# (step, design, files, what it says)
DESIGNED = [
    ("found:Tram", design(), MOVE + "Tram = 1\n", "class-name-in-use line.py"),
    ("found:Tram", design(), MOVE + "tram = 1\n", "object-name-in-use line.py"),
    ("found:Tram", design(), "x = 1\n\n\ndef f(tram):\n    return x + tram\n\n\nf(1)\n", "object-means-else line.py:5"),
    ("method:Tram.move", design(methods=move), MOVE.replace("def move", "@print\ndef move"), "decorated line.py:4 'move' is decorated"),
    ("method:Tram.move", design(methods=move), MOVE.replace("    x += 1", "    self = 2\n    x += self"), "uses-receiver-name line.py:4"),
    ("method:Tram.move", design(methods=move), MOVE.replace("    x += 1", "    x += len(locals())"), "reaches-by-text line.py:6"),
    ("method:Tram.move", design(methods=move), MOVE.replace("print(x)", "if x > 5:\n    move = print\nprint(x)"), "redefined line.py:4 'move' is defined or bound more than once"),
    ("method:Tram.move", design(methods=move), MOVE.replace("print(x)", "print(x, move == print)"), "function-as-value line.py:10 'move' is compared or used as a key"),
    ("method:Tram.move", design(methods=move), MOVE.replace("print(x)", "print(x, move.__name__)"), "function-as-value line.py:10 'move.__name__' asks the function itself"),
    ("method:Tram.move", design(methods=move), MOVE.replace("print(x)", "print(x, f'{move=}'[:4])"), "spelled-out line.py:10"),
    ("method:Tram.move", design(methods=move), MOVE.replace("def move():", "def move(by=print()):"), "default-in-place line.py:4"),
    ("method:Tram.move", design(methods=move), "x = 1\n\n\ndef move():\n    global x\n    x += 1\n\n\ndef move():\n    global x\n    x += 2\n\n\nmove()\n", "not-one-function line.py:9 is defined more than once"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move()", "move(y)", 1).replace("move()", "keep = [move]"), "passed-as-value line.py:9"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("\nmove()\n", "\n"), "nobody-passes line.py:4"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("\nmove()\n", "\nmove(*[x])\n"), "call-spreads line.py:9"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y=1):").replace("\nmove()\n", "\nmove(x)\nmove()\n"), "call-omits line.py:10"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("\nmove()\n", "\nmove(3)\n"), "field-varies line.py:9"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("    x += 1", "    y += 1\n    x = y").replace("\nmove()\n", "\nmove(x)\n"), "parameter-changed line.py:4"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("    x += 1", "    print(f'{y=}')").replace("\nmove()\n", "\nmove(x)\n"), "parameter-spelled-out line.py:6"),
    ("method:Tram.move", two, pair + "move(3)\n", "no-such-object-value line.py:9"),
    ("method:Tram.move", two.replace('drop = ["y"]', ""), pair + "move(a_x)\n", "which-object line.py:9"),
    ("method:Tram.move", two.replace('from = ["move"]\ndrop = ["y"]', 'from = ["move", "go", "run"]'), pair + "def go(y):\n    print(y)\n\n\ndef run(y):\n    print(y)\n\n\nmove(a_x)\ngo(b_x)\nrun(1)\n", "functions-for-objects line.py"),
    ("main:Tram.run", design(fields="", objects="", more='role = "app"'), "def f():\n    return 1\n", "no-main-code line.py"),
    ("file:Tram", design(methods=move, more='file = "2.py"'), MOVE, "no-module-name line.py"),
    ("file:Tram", design(methods=move, more='file = "pygame.py"'), "import pygame\n" + MOVE, "hides-imported-module line.py:1"),
    ("file:Tram", design(methods=move, more='file = "tram.py"'), "import multiprocessing\n" + MOVE, "cannot-move-with line.py:1 can run or find parts of the program by their path"),
    ("share:Tram.x", design(methods=move).replace('from = ["x"]', 'from = ["x"]\nshared = true').replace('name = "x"', 'name = "x"', 1) + '[[class.field]]\nname = "y"\nfrom = ["y"]\n', MOVE.replace("x = 1\n", "x = 1\ny = 2\n", 1).replace("x += 1", "x += y").replace("print(x)", "del x"), "cannot-be-shared line.py:11 is deleted"),
    ("base:list", design(name="Tram", more='base = "list"') + design(fields="y", name="Car", objects="car", more='base = "list"'), "x = 1\ny = 2\nprint(x, y)\n", "name-in-use line.py"),
    ("method:Tram.move", design(methods=move), "x = 1\nif x: \n    pass\n\n\ny = 1; move = lambda: x\nprint(move())\n", "not-one-function line.py is not defined at the top of the file"),
    ("method:Tram.move", design(methods=move), MOVE.replace("move()\nprint(x)", "def show(tram):\n    move()\n\n\nshow(1)\nprint(x)"), "object-means-else line.py:10"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("\nmove()\n", "\nmove(x) if move(x) else [move(x) for _ in '']\nmap(move, [x])\n"), "passed-as-value line.py:10"),
    ("method:Tram.move", two.replace('drop = ["y"]', 'drop = ["y", "z"]').replace('[[class.object]]', '[[class.field]]\nname = "z"\nfrom = ["a_z", "b_z"]\n[[class.object]]', 1), pair.replace("b_x = 2", "b_x = 2\na_z = 3\nb_z = 4").replace("move(y)", "move(y, z)") + "move(a_x, b_z)\n", "different-objects line.py:11"),
    ("method:Tram.move", two.replace('from = ["move"]\ndrop = ["y"]', 'from = ["move", "go"]'), "a_x = 1\nb_x = 2\n\n\ndef move():\n    print(a_x)\n    halt()\n\n\ndef go():\n    print(b_x)\n    halt()\n\n\ndef halt():\n    print('halt')\n\n\nmove()\ngo()\nprint(move is go)\n", "function-as-value line.py:21 'go' is compared or used as a key"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "n", value = "n" }]')]), "n = 1\n" + MOVE.replace("x += 1", "n = 2\n    x += n").replace("global x", "global x, n"), "changed-not-read line.py:7"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "n", value = "n" }]')]), "n = 1\n" + MOVE.replace("x += 1", "print(f'{n=}')\n    x += n"), "spelled-out line.py:7"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "m", value = "n" }]')]), "n = 1\n" + MOVE.replace("x += 1", "m = n\n    x += m"), "means-else line.py:7"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "n", value = "n" }]')]), "n = 1\n" + MOVE.replace("move():", "move(**more):").replace("x += 1", "x += n"), "function-takes-any-argument line.py:5"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "n", value = "n" }]')]), "n = 1\n" + MOVE.replace("x += 1", "x += n").replace("\nmove()\n", "\n\n\ndef show(n):\n    move()\n\n\nshow(2)\n"), "value-means-else line.py:13"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "n", value = "n" }]')]), MOVE.replace("x += 1", "x += n if x > 5 else 1").replace("print(x)", "n = 1\nprint(x)"), "called-before-set line.py:9"),
    ("stream:out", '[[stream]]\nname = "out"\nfrom = ["print", "sorted"]\n', "print(1)\n", "no-one-stream line.py"),
    ("stream:console", '[[stream]]\nname = "console"\nclass = "Console"\nfile = "console.py"\nfrom = ["input"]\n', "x = 1\n", "stream-unused line.py"),
    ("part:Log", '[[part]]\nname = "Log"\nof = "Tram"\nobject = "x"\n[[part.field]]\nname = "y"\nfrom = ["y"]\n', CLASS.replace("self.x = 1", "self.x = 1\n        self.y = 2"), "member-already line.py:1"),
    ("part:Log", '[[part]]\nname = "Log"\nof = "Tram"\nobject = "log"\nkeep = ["x"]\n[[part.field]]\nname = "y"\nfrom = ["y"]\n', CLASS.replace("self.x = 1", "self.x = 1\n        self.y = 2"), "not-set-once-before-part line.py:1"),
    ("part:Log", '[[part]]\nname = "Log"\nof = "Tram"\nobject = "log"\n[[part.field]]\nname = "y"\nfrom = ["z"]\n', CLASS, "no-field line.py:1"),
    ("part:Log", '[[part]]\nname = "Log"\nof = "Tram"\nobject = "log"\n[[part.method]]\nname = "y"\nfrom = ["z"]\n', CLASS, "no-method line.py:1"),
    ("share:Tram.x", design(methods=move).replace('from = ["x"]', 'from = ["x"]\nshared = true'), "def show():\n    print(x)\n\n\n" + MOVE.replace("x = 1\n", "try:\n    show()\nexcept NameError:\n    pass\nx = 1\n", 1), "unset-caught line.py:9"),
]


@pytest.mark.parametrize(("step", "designed", "text", "said"), DESIGNED, ids=[f"{d[0]}-{i}" for i, d in enumerate(DESIGNED)])
def test_a_step_of_a_design_says_why_not(step, designed, text, said):
    after, refusal = apply({f"step {step}": "", "design": designed, "before line.py": text})
    assert not after and said == refusal


MAINS = "import sys\n\n\ndef main({params}):\n    lanes = []\n    load = 0\n\n    def add(n):\n        nonlocal load\n        load += n\n        lanes.append(n)\n\n    def tell():\n        print(load, lanes)\n\n    add(1)\n    add(2)\n{more}    tell()\n\n\n{call}\n"


def main(params="", more="", call="main()"):
    return MAINS.format(params=params, more=more, call=call)


LISTS = "xs = [1, 2]\nspeeds = [3, 4]\n{more}\n\ndef move(i):\n    xs[i] += speeds[i]\n    print(xs[i])\n\n\nfor i in range(len(xs)):\n    move(i)\nprint(xs, speeds)\n"


def lists(more="", **changes):
    text = LISTS.format(more=more)
    for old, new in changes.values():
        assert old in text
        text = text.replace(old, new)
    return text


# (script, what a draft says of something that stays)
DRAFTED = [
    (main(call="print(main())\nprint(2)").replace("    tell()\n\n\n", "    tell()\n    return 3\n\n\n"), "the result of 'main' is used for more than the end of the program"),
    (main(params="*more", call="main(1)"), "it takes any number of arguments"),
    (main(params="by=print(1)"), "the default of 'by' is worked out where the function stands"),
    (main(more="    class Bell:\n        pass\n"), "a class is defined inside it"),
    (main(more="    print(len(locals()))\n"), "'locals()' reaches names by their text"),
    ("from math import *\n" + main(), "a star import may bind any name"),
    ("class Bell:\n    def __del__(self):\n        print('gone')\n\n\n" + main(more="    bell = Bell()\n    print(bell is None)\n"), "objects that do something when they die would die later"),
    (main().replace("    tell()\n\n\n", "    tell()\n\n\ntry:\n    print(1)\nexcept NameError:\n    pass\n"), "the program catches the error of a name that is not set"),
    (main(call="main()\n\n\ndef other():\n    pass"), "functions stand after the main code"),
    (main(call="main()\nprint(2)").replace("    add(2)\n", "    add(2)\n    if load > 9:\n        return\n"), "it returns early"),
    (main().replace("    tell()\n\n\n", "    tell()\n    return print(3)\n\n\n"), "it returns a value that is worked out, and no caller takes it"),
    (main(more="    lanes: list[late] = []\n"), "a variable's type is looked up where it stands, once it is no function's own"),
    ("load = 5\nprint(load)\n" + main(), "its variable 'load' has a name that means something else outside of it"),
]


TOGETHER = [
    (lists(a=("xs[i] += speeds[i]\n    print(xs[i])", "print(xs[i], speeds[i])")), "nothing changes xs, speeds: they are a table of constants"),
    (lists(a=("speeds = [3, 4]", "speeds = [3, len(input())]")), "the items of speeds are made where they stand"),
    (lists(a=("\nspeeds", "\nprint(xs)\nspeeds")), "something happens between the first statements of xs, speeds"),
    (lists(a=("xs = [1, 2]\n", "xs = [1, 2]; n = 1\n")), "line 1 holds more than one statement"),
    (lists(more="xs.append(1)\nspeeds.append(len(xs))"), "line 3: what is added to speeds looks at the lists"),
    (lists(more="xs.append(1)\nspeeds.append(int(input()))"), "line 3: what is added to speeds is worked out after the first has grown"),
    (lists(more="del xs[0]\ndel speeds[1]"), "line 3: different items are taken out"),
]


@pytest.mark.parametrize(("text", "said"), TOGETHER, ids=[f"lists-{i}" for i in range(len(TOGETHER))])
def test_lists_that_cannot_be_one_say_why(folder, text, said):
    program = folder.read_all({"line.py": text})
    assert lists_named(program.files["line.py"], program.language, ["xs", "speeds"]) == said


@pytest.mark.parametrize(("text", "said"), DRAFTED, ids=[f"draft-{i}" for i in range(len(DRAFTED))])
def test_a_draft_says_why_something_stays(folder, text, said):
    reasons = [s.why for s in draft(folder.read_all({"line.py": text})).stays]
    assert any(said in why for why in reasons), reasons
