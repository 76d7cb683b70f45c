"""What a step does not do, it refuses in one sentence that says why and what the person can do."""

import pytest
from cases import apply

from aedifex.core.analysis.parallel_arrays import wanted
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
    ("rename", ("tram", "tram"), CLASS, "tram is called so already"),
    ("rename", ("Tram.x", "move"), CLASS, "class Tram has a member 'move' already; choose another name"),
    ("rename", ("Tram.__init__", "start"), CLASS, "the language itself reads '__init__' or 'start'"),
    ("rename", ("Tram.y", "z"), CLASS, "class Tram has no member 'y'"),
    ("rename", ("Tram.x", "z"), CLASS + "print(getattr(tram, 'x'))\n", "'getattr' can reach members by their text"),
    ("rename", ("Tram.x", "z"), CLASS.replace("    def __init__", "    __slots__ = ('x',)\n\n    def __init__"), "class Tram lists its members by their text"),
    ("rename", ("Tram.x", "z"), CLASS + "class Car(Tram):\n    pass\n", "class Tram has a base, or is one; rename its members by hand"),
    ("rename", ("Tram.move", "go"), CLASS + "for t in [tram]:\n    t.move()\n", "it cannot be told whose 'move' this is"),
    ("rename", ("n", "m"), "n = 1\ndef f(m):\n    return n + m\nf(1)\n", "'m' means something else here; choose another name"),
    ("rename", ("f.n", "m"), "def f(n):\n    return n + m\nm = 2\nf(1)\n", "'m' means something else here; choose another name"),
    ("rename", ("n", "m"), "n = m = 1\n", "'m' is in use already; choose another name"),
    ("rename", ("n", "m"), "n = 1\nprint(f'{n=}')\n", "'n' is spelled out by a self-documenting format; write it out"),
    ("rename", ("f.n", "m"), "def f(n):\n    return eval('n')\nf(1)\n", "'eval()' can reach 'n' by its text"),
    ("rename", ("f.n", "m"), "def f(n):\n    return n\ndef g(**more):\n    return f(**more)\ng(n=1)\n", "arguments are handed over by names that are not written here"),
    ("rename", ("__all__", "names"), "__all__ = []\n", "the language itself reads '__all__'"),
    ("rename", ("n", "m"), {"line.py": "n = 1\n", "other.py": "from line import n\nprint(n)\n"}, "'n' is used by other.py; name that file too, so that it may be changed"),
    ("rename", ("n", "m"), {"line.py": "n = 1\n", "page.py": "from line import *\nprint(n)\n"}, "everything of line.py is imported by page.py"),
    ("rename", ("line.py", "sub/line.py"), "n = 1\n", "'sub/line.py' lies in another folder; name a file beside it"),
    ("rename", ("line.py", "2.py"), "n = 1\n", "'2.py' is not a name that can be imported; choose another"),
    ("rename", ("line.py", "page.py"), {"line.py": "n = 1\n", "page.py": "m = 1\n"}, "'page.py' already exists; choose another name"),
    ("rename", ("line.py", "json.py"), "n = 1\n", "'json.py' would hide the library's module of that name"),
    ("rename", ("line.py", "pygame.py"), "import pygame\n", "'pygame.py' would hide the module 'pygame' that line.py imports"),
    ("rename", ("line.js", "page.js"), {"line.js": "let n = 1;\n"}, "files of this language are not renamed; rename it by hand"),
    ("open_main", ("run",), MAIN, "'run' is no function of these scripts"),
    ("name_handler", ("page.py:1:1", "on_key"), MAIN, "'page.py:1:1' is in none of these scripts; write file:line:column of the handler"),
    ("name_handler", ("line.py:1:1", "on_key"), MAIN, "no handler whose lines could stand elsewhere begins at 1:1"),
    ("open_stream", ("print", "2"), MAIN, "'2' cannot be a name; choose another"),
    ("open_stream", ("input", "console"), CLASS, "nothing in these scripts asks or tells through 'input'"),
    ("open_stream", ("print", "console"), "name = input()\nprint(name, eval(name))\n", "'eval()' can reach any name by its text, so no variable or function can move"),
    ("take_part", ("Car", "Log", ["x"]), CLASS, "'Car' is no class of these scripts"),
    ("take_part", ("Tram", "2", ["x"]), CLASS, "'2' cannot be the name of a class; choose another"),
    ("take_part", ("Tram", "Log", ["y"]), CLASS, "Tram has no member 'y'"),
    ("take_part", ("Tram", "Log", ["x"]), {"line.py": CLASS, "other.py": "from line import Tram\n"}, "other.py:1: 'Tram' is imported by other.py; leave it in its class"),
    ("take_part", ("Tram", "tram", ["x"]), CLASS, "'tram' is in use already"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("move(self)", "move(self, **more)").replace("+= 1", "+= self.by").replace("= 1\n", "= 1\n        self.by = 2\n        self.by = 3\n", 1), "'move' takes any named argument"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("+= 1", "+= self.by").replace("= 1\n", "= 1\n        self.by = by = 2\n        print(by)\n", 1).replace("move(self)", "move(self, by=1)"), "'by', which 'move' would be handed, is a name of its own there"),
    ("take_part", ("Tram", "Log", ["x", "__init__"]), CLASS, "'__init__' is no plain method"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("self.x += 1", "self.x += self.move.__defaults__ is None\n        del self.x"), "'x' is used here in a way that it could not be as a part's"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("self.x += 1", "self.x = self.turn"), "'move' uses 'turn' of Tram, which is no field"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("    def __init__(self):\n        self.x = 1\n\n", "").replace("tram.move()\n", ""), "Tram has no constructor in which the part could be made"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("self.x = 1\n", "pass\n").replace("tram.move()\n", ""), "nothing in the constructor of Tram sets what the part would hold"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("self.x += 1", "self.x += 1; yield self.by").replace("= 1\n", "= 1\n        self.by = 2\n\n    def turn(self):\n        self.by = 3\n", 1), "'move' goes on later, when 'by' may be another"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1; move() { this.x += 1; }\n  stop() {\n    this.move();\n  }\n}\nnew Tram().stop();\n"}, "it shares a line with others of its class"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = Date.now();\n  move() {\n    this.x += 1;\n  }\n}\nnew Tram().stop();\n"}, "'x' is declared here in a way that only Tram can"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1;\n  by = this.x + 1;\n  move() {\n    this.x += 1;\n  }\n}\nnew Tram().stop();\n"}, "'x' is used where Tram declares its fields, when the part may not be there"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1;\n  by = 2;\n  turn() {\n    this.by += 1;\n    this.move();\n  }\n  move(by) {\n    this.x += this.by;\n  }\n}\nnew Tram().turn();\n"}, "'by', which 'move' would be handed, is a name of its own there"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1;\n  by = 2;\n  turn() {\n    this.by += 1;\n    this.move();\n  }\n  move(to) {\n    this.x += this.by;\n  }\n}\nnew Tram().turn();\n"}, "'move' is called with another number of arguments than it takes"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1;\n  move() {\n    this.x += 1;\n  }\n}\nconst tram = new Tram();\nfunction show(it) {\n  console.log(it);\n}\nshow(tram);\n"}, "an object of Tram gets about, and this may show all that it holds"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"line.js": "class Tram {\n  x = 1;\n  move() {\n    this.x += 1;\n  }\n}\nconst tram = new Tram();\nfunction show({ x }) {\n  return x;\n}\nshow(tram);\n"}, "'x' may be used outside of Tram"),
    ("take_part", ("Tram", "Log", ["x", "move"]), {"Line.java": "public class Line {\n    static int far = 1;\n    static class Tram {\n        int tramX = 1;\n        int x = 2;\n        void move() {\n            x += far;\n        }\n    }\n    public static void main(String[] args) {\n        new Tram().move();\n    }\n}\n"}, "'move' is used outside of Tram"),
    ("rename", ("nobody", "m"), "n = 1\n", "'nobody' is not a name of these scripts; write file::name"),
    ("rename", ("n", "m"), "n = 1\nprint(\uff4e)\n", "'n' is written in another way here"),
    ("rename", ("Tram.x", "y"), {"Line.java": "public class Line {\n    static class Tram {\n        int x = 1;\n        int sum(int y) {\n            return x + y;\n        }\n    }\n    public static void main(String[] args) {\n        System.out.println(new Tram().sum(2));\n    }\n}\n"}, "'y' means something else here; choose another name"),
    ("rename", ("line.py", "lane.py"), {"line.py": "n = 1\n", "other.py": "import line\nprint(line.n)\n"}, "line.py is imported by other.py"),
    ("rename", ("pkg/line.py", "pkg/tram.py"), {"main.py": "import pkg.line\nprint(pkg.line.n)\n", "pkg/line.py": "n = 1\n", "pkg/__init__.py": ""}, "main.py imports pkg/line.py in a way that was not read; change that import by hand first"),
    ("open_main", ("helped",), {"Line.java": PANEL}, "there is no one function 'helped' whose lines could be the main code"),
    ("open_main", ("main",), MAIN.replace("\nmain()", "\nact = main"), "'main' is not called by the main code alone; the function stays as it is"),
    ("take_part", ("Log", "Lines", ["lines", "add"]), {"line.js": "class Log {\n  constructor() {\n    this.lines = [];\n  }\n  add(n) {\n    this.lines.push(n);\n  }\n  tell() {\n    console.log(1);\n  }\n}\nnew Log().tell();\nconst other = [new Log()];\nother[0].add(2);\n"}, "'add' is used outside of Log"),
    ("take_part", ("Log", "Lines", ["lines", "add"]), {"Line.java": "public class Line {\n    static class Log {\n        int lines = 0;\n        void add(int n) {\n            lines += n;\n            lines();\n        }\n        void tell() {\n            add(2);\n        }\n    }\n    static void lines() {\n        System.out.println(1);\n    }\n    public static void main(String[] args) {\n        new Log().tell();\n    }\n}\n"}, "'lines' would mean a member of the part here"),
    ("take_part", ("Log", "Lines", ["lines", "add", "more"]), "class Log:\n    def __init__(self):\n        self.lines = []\n        self.name = 'a'\n\n    def tell(self):\n        self.name = self.name + 'x'\n        self.add(1)\n        return self.more()\n\n    def add(self, n):\n        self.lines.append(self.name * n)\n\n    def more(self):\n        return map(self.add, [1])\n\n\nLog().tell()\n", "'add' is handed on here, so nobody could hand it name"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();", "1;\n        int most() { return list(null).size(); }").replace("import java.awt", "import static java.util.Collections.list;\nimport java.awt")}, "'list' would mean a member of javax.swing.JPanel here"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();", "1;").replace("private JPanel board", "int k = 2; private JPanel board")}, "it shares a line with others of its class"),
    ("open_main", ("main",), MAIN + "print(eval('1'))\n", "'eval()' can reach any name by its text"),
    ("extend", ("App", "window"), WINDOW.replace("    def draw_all", "    def set_caption(self):\n        print(1)\n\n    def draw_all"), "'set_caption' is a name that pyglet.window.Window has for something else"),
    ("extend", ("App", "window"), WINDOW.replace("on_draw", "on_close").replace("def draw_all(self):\n        self.window.clear()", "def draw_all(self): self.window.clear()"), "'draw_all' is written on one line"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();", "1;").replace("new JPanel()", "new JPanel(first > 0)")}, "'board' is made with what is not there before the object is"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("int first = helped();", "int ui = 1;")}, "'ui' is a name that javax.swing.JPanel has for something else"),
    ("take_part", ("Tram", "Log", ["x", "move"]), CLASS.replace("+= 1", "+= self.by").replace("= 1\n", "= 1\n        self.by = 2\n", 1).replace("tram.move()", "tram.act()").replace("    def move", "    def act(self):\n        for f in [self.move]:\n            f()\n        self.by = 3\n\n    def move"), "'move' is handed on here, so nobody could hand it by"),
    ("take_part", ("Line", "Log", ["x", "move"]), {"Line.java": "public class Line {\n    int x = 1;\n    int by = 2;\n    void move() {\n        x += 1;\n    }\n    void run() {\n        by += 1;\n        Runnable act = new Runnable() {\n            int log = 1;\n            public void run() {\n                move();\n                System.out.println(log);\n            }\n        };\n        act.run();\n    }\n    public static void main(String[] args) {\n        new Line().run();\n    }\n}\n"}, "'log' means something else here"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("int first = helped();", "int first = 1;\n        App() {\n            super();\n        }").replace("new JPanel()", "new JPanel(null)")}, "the constructor hands something up already"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("int first = helped();", "int first = 1;\n        App() { first = 2; }").replace("new JPanel()", "new JPanel(null)")}, "it shares a line with others of its class"),
    ("extend", ("Car", "x"), CLASS, "'Car' is no class of these scripts"),
    ("extend", ("Tram", "x"), {"line.js": "class Tram {\n  x = 1;\n}\nnew Tram();\n"}, "no class of a library is extended in javascript"),
    ("extend", ("App", "window"), WINDOW + "\napp = App()\nprint(app.window.width)\n", "'window' of App is used elsewhere"),
    ("extend", ("App", "window"), WINDOW.replace("class App:", "class App(list):"), "the members of App cannot be told"),
    ("extend", ("App", "window"), WINDOW.replace("self.window.clear()", "del self.window"), "'window' is used here in a way that the object itself could not be"),
    ("extend", ("App", "window"), WINDOW.replace("self.window.clear()", "self.window.pop_handlers()"), "'window' is used here in a way that the object itself could not be"),
    ("extend", ("App", "window"), WINDOW.replace("on_draw", "on_close") + "    def stop(self):\n        self.draw_all()\n", "no method of App is registered with 'window' that it could call by its name"),
    ("extend", ("App", "board"), {"Line.java": PANEL}, "this comes before 'board' is made, and could be noticed"),
    ("extend", ("App", "first"), {"Line.java": PANEL}, "'first' is not set to an object with methods of its own that a class of a library would call"),
    ("extend", ("App", "second"), {"Line.java": PANEL}, "App has no field 'second' with a declaration of its own"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("class App", "class App extends Thread")}, "App is no class that could extend another"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();\n        private JPanel board = ", "1;\n        private JPanel board; JPanel it = ")}, "'board' is not set where App is made"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();", "1;").replace("new App();", "System.out.println(new App().board);")}, "'board' is used elsewhere"),
    ("extend", ("App", "board"), {"Line.java": PANEL.replace("helped();", "1;").replace("{ g.draw", "{\n            g.draw").replace("            @Override\n            protected", "protected").replace("JPanel() {\n", "JPanel() { ")}, "it shares a line with others of its class"),
]


@pytest.mark.parametrize(("step", "words", "files", "said"), ALONE, ids=[f"{a[0]}-{i}" for i, a in enumerate(ALONE)])
def test_one_step_says_why_not(folder, step, words, files, said):
    program = folder.read_all(files)
    with pytest.raises(Refused) as refused:
        getattr(single, step)(program, *words)
    assert said in str(refused.value) and "\n" not in str(refused.value)


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
    ("found:Tram", design(), MOVE + "Tram = 1\n", "the name 'Tram' is already used; choose another class name"),
    ("found:Tram", design(), MOVE + "tram = 1\n", "the name 'tram' is already used; rename the object in the design"),
    ("found:Tram", design(), "x = 1\n\n\ndef f(tram):\n    return x + tram\n\n\nf(1)\n", "'tram' means something else here; rename the object in the design"),
    ("method:Tram.move", design(methods=move), MOVE.replace("def move", "@print\ndef move"), "'move' is decorated; it stays a function"),
    ("method:Tram.move", design(methods=move), MOVE.replace("    x += 1", "    self = 2\n    x += self"), "function 'move' already uses the name 'self'; rename that"),
    ("method:Tram.move", design(methods=move), MOVE.replace("    x += 1", "    x += len(locals())"), "'locals()' reaches names by their text; it stays a function"),
    ("method:Tram.move", design(methods=move), MOVE.replace("print(x)", "if x > 5:\n    move = print\nprint(x)"), "'move' is defined or bound more than once; it stays a function"),
    ("method:Tram.move", design(methods=move), MOVE.replace("print(x)", "print(x, move == print)"), "is compared or used as a key; it stays a function"),
    ("method:Tram.move", design(methods=move), MOVE.replace("print(x)", "print(x, move.__name__)"), "'move.__name__' asks the function itself; it stays a function"),
    ("method:Tram.move", design(methods=move), MOVE.replace("print(x)", "print(x, f'{move=}'[:4])"), "'move' is spelled out by a self-documenting format; write it out"),
    ("method:Tram.move", design(methods=move), MOVE.replace("def move():", "def move(by=print()):"), "the default of 'by' is worked out where 'move' stands; it stays a function"),
    ("method:Tram.move", design(methods=move), "x = 1\n\n\ndef move():\n    global x\n    x += 1\n\n\ndef move():\n    global x\n    x += 2\n\n\nmove()\n", "function 'move' is defined more than once"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move()", "move(y)", 1).replace("move()", "keep = [move]"), "function 'move' is handed on, so its parameters cannot change"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("\nmove()\n", "\n"), "nobody hands 'y' to 'move'; do not drop it"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("\nmove()\n", "\nmove(*[x])\n"), "this call of 'move' spreads its arguments; write them out"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y=1):").replace("\nmove()\n", "\nmove(x)\nmove()\n"), "this call of 'move' leaves out a parameter that is to go; write it out"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("\nmove()\n", "\nmove(3)\n"), "'y' does not always receive the same field; do not drop it"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("    x += 1", "    y += 1\n    x = y").replace("\nmove()\n", "\nmove(x)\n"), "'move' changes its parameter 'y'; do not drop it"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("    x += 1", "    print(f'{y=}')").replace("\nmove()\n", "\nmove(x)\n"), "'y' is spelled out by a self-documenting format; do not drop it"),
    ("method:Tram.move", two, pair + "move(3)\n", "'y' is given '3', which no object of Tram holds; do not drop this parameter"),
    ("method:Tram.move", two.replace('drop = ["y"]', ""), pair + "move(a_x)\n", "nothing tells which object 'move' is for here; leave it a function"),
    ("method:Tram.move", two.replace('from = ["move"]\ndrop = ["y"]', 'from = ["move", "go", "run"]'), pair + "def go(y):\n    print(y)\n\n\ndef run(y):\n    print(y)\n\n\nmove(a_x)\ngo(b_x)\nrun(1)\n", "3 functions for 2 objects; give one function for each object"),
    ("main:Tram.run", design(fields="", objects="", more='role = "app"'), "def f():\n    return 1\n", "there is no main code left to wrap"),
    ("file:Tram", design(methods=move, more='file = "2.py"'), MOVE, "'2.py' is not a name that can be imported; choose another file name"),
    ("file:Tram", design(methods=move, more='file = "pygame.py"'), "import pygame\n" + MOVE, "'pygame.py' would hide the module 'pygame' that line.py imports; choose another file name"),
    ("file:Tram", design(methods=move, more='file = "tram.py"'), "import multiprocessing\n" + MOVE, "class Tram stays in line.py"),
    ("share:Tram.x", design(methods=move).replace('from = ["x"]', 'from = ["x"]\nshared = true').replace('name = "x"', 'name = "x"', 1) + '[[class.field]]\nname = "y"\nfrom = ["y"]\n', MOVE.replace("x = 1\n", "x = 1\ny = 2\n", 1).replace("x += 1", "x += y").replace("print(x)", "del x"), "variable 'x' is deleted"),
    ("base:list", design(name="Tram", more='base = "list"') + design(fields="y", name="Car", objects="car", more='base = "list"'), "x = 1\ny = 2\nprint(x, y)\n", "'list' is in use already; choose another name for the base"),
    ("method:Tram.move", design(methods=move), "x = 1\nif x: \n    pass\n\n\ny = 1; move = lambda: x\nprint(move())\n", "function 'move' is not defined at the top of the file"),
    ("method:Tram.move", design(methods=move), MOVE.replace("move()\nprint(x)", "def show(tram):\n    move()\n\n\nshow(1)\nprint(x)"), "'tram' means something else here; rename the object in the design"),
    ("method:Tram.move", design(methods=dropped), MOVE.replace("move():", "move(y):").replace("\nmove()\n", "\nmove(x) if move(x) else [move(x) for _ in '']\nmap(move, [x])\n"), "function 'move' is handed on, so its parameters cannot change"),
    ("method:Tram.move", two.replace('drop = ["y"]', 'drop = ["y", "z"]').replace('[[class.object]]', '[[class.field]]\nname = "z"\nfrom = ["a_z", "b_z"]\n[[class.object]]', 1), pair.replace("b_x = 2", "b_x = 2\na_z = 3\nb_z = 4").replace("move(y)", "move(y, z)") + "move(a_x, b_z)\n", "the arguments belong to different objects; do not drop these parameters"),
    ("method:Tram.move", two.replace('from = ["move"]\ndrop = ["y"]', 'from = ["move", "go"]'), "a_x = 1\nb_x = 2\n\n\ndef move():\n    print(a_x)\n    halt()\n\n\ndef go():\n    print(b_x)\n    halt()\n\n\ndef halt():\n    print('halt')\n\n\nmove()\ngo()\nprint(move is go)\n", "is compared or used as a key"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "n", value = "n" }]')]), "n = 1\n" + MOVE.replace("x += 1", "n = 2\n    x += n").replace("global x", "global x, n"), "'n' is changed here, not only read; keep it where it is"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "n", value = "n" }]')]), "n = 1\n" + MOVE.replace("x += 1", "print(f'{n=}')\n    x += n"), "'n' is spelled out by a self-documenting format; write it out"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "m", value = "n" }]')]), "n = 1\n" + MOVE.replace("x += 1", "m = n\n    x += m"), "'m' means something else here; choose another name"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "n", value = "n" }]')]), "n = 1\n" + MOVE.replace("move():", "move(**more):").replace("x += 1", "x += n"), "'move' takes any named argument; leave it a function"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "n", value = "n" }]')]), "n = 1\n" + MOVE.replace("x += 1", "x += n").replace("\nmove()\n", "\n\n\ndef show(n):\n    move()\n\n\nshow(2)\n"), "'n' means something else here; rename it first"),
    ("pass:Tram.move", design(methods=[("move", 'from = ["move"]\nadd = [{ name = "n", value = "n" }]')]), MOVE.replace("x += 1", "x += n if x > 5 else 1").replace("print(x)", "n = 1\nprint(x)"), "'move' is called before 'n' is set; set it earlier"),
    ("stream:out", '[[stream]]\nname = "out"\nfrom = ["print", "sorted"]\n', "print(1)\n", "print and sorted cannot be one stream; take the stream out of the design"),
    ("stream:console", '[[stream]]\nname = "console"\nclass = "Console"\nfile = "console.py"\nfrom = ["input"]\n', "x = 1\n", "nothing outside its classes uses input; take the stream out of the design"),
    ("part:Log", '[[part]]\nname = "Log"\nof = "Tram"\nobject = "x"\n[[part.field]]\nname = "y"\nfrom = ["y"]\n', CLASS.replace("self.x = 1", "self.x = 1\n        self.y = 2"), "Tram has a member 'x' already; leave it in its class"),
    ("part:Log", '[[part]]\nname = "Log"\nof = "Tram"\nobject = "log"\nkeep = ["x"]\n[[part.field]]\nname = "y"\nfrom = ["y"]\n', CLASS.replace("self.x = 1", "self.x = 1\n        self.y = 2"), "'x' is not set once and for all before log is made, so Log cannot keep it"),
    ("part:Log", '[[part]]\nname = "Log"\nof = "Tram"\nobject = "log"\n[[part.field]]\nname = "y"\nfrom = ["z"]\n', CLASS, "Tram has no field 'z'"),
    ("part:Log", '[[part]]\nname = "Log"\nof = "Tram"\nobject = "log"\n[[part.method]]\nname = "y"\nfrom = ["z"]\n', CLASS, "Tram has no method 'z'"),
    ("share:Tram.x", design(methods=move).replace('from = ["x"]', 'from = ["x"]\nshared = true'), "def show():\n    print(x)\n\n\n" + MOVE.replace("x = 1\n", "try:\n    show()\nexcept NameError:\n    pass\nx = 1\n", 1), "the program catches NameError, and 'x' would be set from the start; "),
]


@pytest.mark.parametrize(("step", "designed", "text", "said"), DESIGNED, ids=[f"{d[0]}-{i}" for i, d in enumerate(DESIGNED)])
def test_a_step_of_a_design_says_why_not(step, designed, text, said):
    after, refusal = apply({f"step {step}": "", "design": designed, "before line.py": text})
    assert not after and said in refusal


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
    (main(call="print(main())\nprint(2)").replace("    tell()\n\n\n", "    tell()\n    return 3\n\n\n"), "what 'main' gives is used for more than the end of the program"),
    (main(params="*more", call="main(1)"), "it takes any number of arguments"),
    (main(params="by=print(1)"), "the default of 'by' is worked out where the function stands"),
    (main(more="    class Bell:\n        pass\n"), "a class is defined inside it"),
    (main(more="    print(len(locals()))\n"), "'locals()' reaches names by their text"),
    ("from math import *\n" + main(), "a star import may bind any name"),
    ("class Bell:\n    def __del__(self):\n        print('gone')\n\n\n" + main(more="    bell = Bell()\n    print(bell is None)\n"), "objects that do something when they die would die later"),
    (main().replace("    tell()\n\n\n", "    tell()\n\n\ntry:\n    print(1)\nexcept NameError:\n    pass\n"), "the program catches the error of a name that is not set"),
    (main(call="main()\n\n\ndef other():\n    pass"), "functions stand after the main code"),
    (main(call="main()\nprint(2)").replace("    add(2)\n", "    add(2)\n    if load > 9:\n        return\n"), "it ends early"),
    (main().replace("    tell()\n\n\n", "    tell()\n    return print(3)\n\n\n"), "it gives a value that is worked out, and nobody takes it"),
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
    assert wanted(program.files["line.py"], program.language, ["xs", "speeds"]) == said


@pytest.mark.parametrize(("text", "said"), DRAFTED, ids=[f"draft-{i}" for i in range(len(DRAFTED))])
def test_a_draft_says_why_something_stays(folder, text, said):
    reasons = [s.why for s in draft(folder.read_all({"line.py": text})).stays]
    assert any(said in why for why in reasons), reasons
