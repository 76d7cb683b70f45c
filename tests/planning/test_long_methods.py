"""A class whose one long method does everything: its jobs become methods, and parts of the class can take them."""

import pytest
from cases import outputs
from conftest import needs

from aedifex.core.apply.sequence import run
from aedifex.core.design.origin import as_origins
from aedifex.core.design.tables import WishDesign
from aedifex.core.design.toml import parse, to_toml
from aedifex.core.planning.drafter import draft
from aedifex.core.planning.validate import validate
from aedifex.core.program.program import read_program

PYTHON = """import random

random.seed(3)


class Line:
    def __init__(self):
        self.tram_x = 3
        self.tram_speed = 2
        self.log = []

    def run(self):
        for key in ["f", "", "s", "f", "", "q", "f"]:
            # what was typed
            if key == "q":
                break
            elif key == "f":
                self.tram_speed += 1
                self.log.append("faster")
            elif key == "s":
                self.tram_speed -= 1
                self.log.append("slower")

            # move the tram
            self.tram_x += self.tram_speed
            if self.tram_x > 9:
                self.tram_x = 9
                self.tram_speed = -self.tram_speed
            if self.tram_x < 0:
                self.tram_x = 0
                self.tram_speed = -self.tram_speed

            # the row
            row = ["."] * 10
            row[self.tram_x] = "#"
            print("".join(row), key)
            for entry in self.log[-3:]:
                print("  ", entry)
        print("bye", random.randint(0, 9))


Line().run()
"""
RUN = """        for key in ["f", "", "s", "f", "", "q", "f"]:
            if key == "q":
                break
            self._handle_key(key)

            self._move_tram()

            self._show_row(key)
        print("bye", random.randint(0, 9))

    def _handle_key(self, key):
        # what was typed
        if key == "f":
"""
SCRIPT = """class Line {
  constructor() {
    this.tramX = 3;
    this.tramSpeed = 2;
    this.log = [];
  }

  run() {
    for (const key of ["f", "", "s", "f", "", "f"]) {
      if (key === "f") {
        this.tramSpeed += 1;
        this.log.push("faster");
      } else if (key === "s") {
        this.tramSpeed -= 1;
        this.log.push("slower");
      } else if (key === "x") {
        this.tramSpeed = 0;
      }

      // move the tram
      this.tramX += this.tramSpeed;
      if (this.tramX > 9) {
        this.tramX = 9;
        this.tramSpeed = -this.tramSpeed;
      }

      // draw the line
      const row = Array(10).fill(".");
      row[this.tramX] = "#";
      console.log(row.join(""), key);
      for (const entry of this.log.slice(-3)) {
        console.log("  ", entry);
      }
    }
  }
}

new Line().run();
"""
JAVA = """public class Line {
    private int tramX = 3;
    private int tramSpeed = 2;

    void run(String[] keys) {
        for (String key : keys) {
            if (key.equals("f")) {
                tramSpeed += 1;
                System.out.println("faster");
            } else if (key.equals("s")) {
                tramSpeed -= 1;
                System.out.println("slower");
            } else if (key.equals("x")) {
                tramSpeed = 0;
            }

            // move the tram
            tramX += tramSpeed;
            if (tramX > 9) {
                tramX = 9;
                tramSpeed = -tramSpeed;
            }

            // draw the line
            char[] row = "..........".toCharArray();
            row[tramX] = '#';
            System.out.println(new String(row) + " " + key);
            System.out.println(tramSpeed);
        }
    }

    public static void main(String[] args) {
        new Line().run(new String[] {"f", "", "s", "f", ""});
    }
}
"""


def rearranged(folder, name, text):
    """(the design, the file after all its steps)."""
    folder.write(name, text)
    program = read_program(str(folder.path), [name])
    design, lines, problems = parse("design", to_toml(draft(program)))
    assert not problems and not validate("design", design, lines, program)
    last = program
    for outcome, after in run(design, program):
        assert outcome.result in ("done", "nothing"), (
            outcome.step.id,
            str(outcome.refusal),
            [str(p) for p in outcome.problems],
        )
        last = after
    return design, last.texts[name].decode()


@pytest.mark.parametrize(
    ("name", "text", "made"),
    [
        ("line.py", PYTHON, ["_handle_key", "_move_tram", "_show_row"]),
        ("line.js", SCRIPT, ["_handleKey", "_moveTram", "_drawLine"]),
        ("Line.java", JAVA, ["handleKey", "moveTram", "drawLine"]),
    ],
    ids=["python", "javascript", "java"],
)
def test_each_job_of_a_long_method_becomes_a_method(folder, name, text, made):
    design, after = rearranged(folder, name, text)
    assert [x.name for x in design.lifts] == made and {x.of for x in design.lifts} == {"Line.run"}
    assert RUN in after or name != "line.py"
    assert outputs({name: after}) == outputs({name: text})


def test_what_somebody_keeps_is_not_cut(folder):
    folder.write("line.py", PYTHON)
    program = read_program(str(folder.path), ["line.py"])
    assert draft(program, wishes=[WishDesign(keep=as_origins("Line"))]).lifts == []


def test_a_class_in_another_file_keeps_its_method(folder):
    folder.write(
        "other.py",
        "from line import Line\n\n\nclass Night(Line):\n    def _move_tram(self):\n        print('never')\n\n\nNight().run()\n",
    )
    design, _ = rearranged(folder, "line.py", PYTHON)
    assert [x.name for x in design.lifts] == ["_handle_key", "_move_tram2", "_show_row"]


def test_a_class_whose_members_are_found_by_their_text_is_not_cut(folder):
    design, _ = rearranged(
        folder,
        "line.py",
        PYTHON.replace(
            "            # what was typed",
            "            if hasattr(self, '_move_' + key):\n                getattr(self, '_move_' + key)()\n            # what was typed",
        ),
    )
    assert design.lifts == []


def test_a_class_that_may_inherit_is_not_cut(folder):
    _, after = rearranged(
        folder,
        "line.py",
        PYTHON.replace("class Line:", "class Line(random.Random):").replace(
            "        self.tram_x = 3\n", "        super().__init__()\n        self.tram_x = 3\n"
        ),
    )
    assert "_move_tram" not in after


def test_jobs_that_are_methods_can_be_a_part(folder):
    """Lines of two jobs in one method: those of one go to the part with it."""
    text = PYTHON.replace("self.log = []\n", "self.log = []\n        self.log_count = 0\n        self.log_most = 2\n")
    text = text.replace(
        "            # the row",
        "            # tell the log\n            self.log_count += 1\n            self.log_most = max(self.log_most, len(self.log))\n            self.log = self.log[-self.log_most:]\n            print('log', self.log_count, self.log_most)\n\n            # the row",
    )
    text = text.replace(
        "    def run(self):",
        "    def add_log(self, entry):\n        self.log.append(entry)\n        self.log_count += 1\n\n    def clear_log(self):\n        self.log.clear()\n        self.log_count = 0\n\n    def run(self):",
    ).replace('self.log.append("', 'self.add_log("')
    design, after = rearranged(folder, "line.py", text)
    assert "_tell_log" in [x.name for x in design.lifts]
    assert outputs({"line.py": after}) == outputs({"line.py": text})


QUEUE = """queue = []
served = 0
shut = False


def handle(line):
    global served, shut
    command, *rest = line.split()
    if command == "add":
        if len(queue) > 2:
            print("the platform is full")
        elif shut:
            print("the gate is shut")
        else:
            queue.append(rest[0])
    elif command == "next":
        if queue:
            served += 1
            print("boards:", queue.pop(0))
        else:
            print("nobody waits")
    elif command == "shut":
        shut = not shut
        print("shut" if shut else "open")
    elif command == "tell":
        print(queue, served)
    elif command == "count":
        for number, name in enumerate(queue):
            print(number, name)
        print("served", served)
    else:
        print("what is", command + "?")


for line in ["add Mill", "next", "next", "add Ford", "shut", "add Weir", "count", "sing"]:
    handle(line)
print(len(queue), served)
"""


@pytest.mark.parametrize("local", [True, False], ids=["told from what was read", "handed over"])
def test_branches_of_a_long_function_become_methods_beside_it(folder, local):
    """What a branch needs of the function is handed over; what is called like a builtin is handled; a line or two stay."""
    text = (
        QUEUE
        if local
        else QUEUE.replace("def handle(line):", "def handle(command, *rest):")
        .replace("    command, *rest = line.split()\n", "")
        .replace("    handle(line)", "    handle(*line.split())")
    )
    program = folder.program("queue_line.py", text)
    design = draft(program)
    made = {m.name: m.lines for c in design.classes for m in c.methods if m.lines}
    assert list(made) == ["add", "handle_next", "count"] and all(
        m.hidden for c in design.classes for m in c.methods if m.lines
    )
    *_, (_, after) = run(parse("design", to_toml(design))[0], program)
    built = {n: t.decode() for n, t in after.texts.items()}
    assert outputs(built) == outputs({"queue_line.py": text})
    assert '            self._add(rest)\n        elif command == "next":\n            self._handle_next()\n' in "".join(
        built.values()
    )


SWITCH = """let queue = [];
let served = 0;
let open = true;

function handle(line) {
  const [command, ...rest] = line.split(" ");
  switch (command) {
    case "add":
      if (queue.length > 2) {
        console.log("full");
      } else {
        queue.push(rest[0]);
        console.log("added");
      }
      break;
    case "next": {
      const first = queue.shift();
      served += first ? 1 : 0;
      console.log("boards", first);
      break;
    }
    case "shut":
      open = !open;
      break;
    case "count":
      for (const [n, name] of queue.entries()) {
        console.log(n, name);
      }
      console.log(served, open);
      break;
    default:
      console.log("what is", command);
  }
  return queue.length;
}

for (const line of ["add Mill", "add Ford", "next", "count", "shut", "sing", "next", "next"]) {
  console.log(handle(line));
}
"""


def test_cases_of_a_long_switch_become_methods_and_their_breaks_stay(folder):
    needs("node")
    program = folder.program("queue.js", SWITCH)
    design = draft(program)
    assert [m.name for c in design.classes for m in c.methods if m.lines] == ["add", "next", "count"]
    *_, (_, after) = run(parse("design", to_toml(design))[0], program)
    built = {n: x.decode() for n, x in after.texts.items()}
    assert outputs(built) == outputs({"queue.js": SWITCH})
    assert '      case "next": {\n        this._next();\n        break;\n      }\n' in "".join(built.values())
