"""Records in keyed tables become objects only where everything that happens to them can be followed: each reason why not, by the use that has it."""

import pytest

from aedifex.core.program.language import language_of
from aedifex.core.program.program import read_program

PYTHON = 'car = {"x": 1, "y": 2}\nprint(car["x"])\n'
LIST = 'cars = [{"x": 1, "y": 2}, {"x": 3, "y": 4}]\nfor c in cars:\n    print(c["x"])\n'
SCRIPT = "let car = { x: 1, y: 2 };\nconsole.log(car.x);\n"
ARRAY = "const cars = [{ x: 1, y: 2 }, { x: 3, y: 4 }];\nfor (const c of cars) {\n  console.log(c.x);\n}\n"
TYPED = "interface Car {\n  x: number;\n  y: number;\n}\nlet car: Car = { x: 1, y: 2 };\nconsole.log(car.x);\n"

# (script, why the records stay as they are)
IN_PYTHON = [
    (PYTHON + "print(car + 1)\n", "is used in a way that an object could not be"),
    (PYTHON + 'car = {"x": 3, "z": 4}\n', "has other keys than those before it"),
    (PYTHON + "car = {**{}}\n", "is no record of the same keys"),
    (PYTHON + 'print(car["z"])\n', "is asked for a key that is not one of its own"),
    (PYTHON + 'del car["x"]\n', "loses a key"),
    (PYTHON + "print(car == car == car)\n", "is compared with several things at once"),
    (PYTHON + "print(car < 3)\n", "is compared in a way that an object could not be"),
    (PYTHON + 'table = {}\ntable[1] = {"x": 5, "y": 6}\n', "is put where it cannot be followed"),
    (PYTHON + "def car():\n    pass\n", "'car' holds other things too"),
    (PYTHON + "print(f'{car[\"x\"]=}')\n", "'car' is spelled out by a self-documenting format"),
    (PYTHON + "with open('x') as car:\n    pass\n", "is bound in a way that cannot be followed"),
    (PYTHON + "for i, car in [(1, 2)]:\n    pass\n", "is bound in a way that cannot be followed"),
    (PYTHON + "for i, car in zip([1], [2]):\n    pass\n", "is bound in a way that cannot be followed"),
    (
        "class Line:\n    def run(self, c):\n        print(c['x'])\n        self.run({'x': 1, 'y': 2})\n",
        "is passed to code that was not read",
    ),
    ("def move(c=None):\n    print(c)\n\n\n" + PYTHON + "move(car)\n", "'c' may be left out in calls of 'move'"),
    (PYTHON + "car = 3\n", "may be something else"),
    (PYTHON + "car = nobody\n", "comes from code that was not read"),
    (
        PYTHON + "class Line:\n    def run(self, c):\n        c = car\n",
        "'c' is a parameter of a function that may be called from elsewhere",
    ),
    (
        'async def make():\n    return {"x": 1, "y": 2}\n\n\n' + PYTHON + "car = make()\n",
        "comes from code that was not read",
    ),
    (PYTHON + "cars = []\ncars.insert(car, 0)\n", "is used in a way that an object could not be"),
    (PYTHON + "car = input()\n", "comes from code that was not read"),
    (
        'def make():\n    return {"x": 1, "y": 2}\n\n\ncar = make()\nprint(car["x"], make)\n',
        "'make' is used other than by calling it",
    ),
    (PYTHON + "\n\nclass Line:\n    def run(self):\n        return car\n", "is returned where it cannot be followed"),
    (PYTHON + "def move(*c):\n    print(c)\n\n\nmove(car)\n", "is passed to 'move' as one of many"),
    (
        PYTHON + "def move(c):\n    print(c['x'])\n\n\nmove(car)\nprint(move)\n",
        "'move' is used other than by calling it",
    ),
    (
        PYTHON + "def move(c):\n    print(c['x'])\n\n\nfew = [1]\nmove(car, *few)\n",
        "is passed to code that was not read",
    ),
    (
        PYTHON + "def move(c):\n    print(c['x'])\n\n\nmove(car)\nmove(*[1])\n",
        "nothing tells what this call hands to 'move'",
    ),
    (
        PYTHON + "car = None\ntry:\n    print(car['x'])\nexcept TypeError:\n    pass\n",
        "may be nothing, and the program catches TypeError",
    ),
    (PYTHON + "both = [car, 3]\n", "stands in a list with other things"),
    (LIST + "print(cars == cars)\n", "is a list that is compared"),
    (LIST + "print(cars[0, 1])\n", "is asked for more than one item"),
    (LIST + "print(cars + cars)\n", "is a list that is used in a way that cannot be followed"),
    (LIST + "push = cars.append\n", "is a list that is used in a way that cannot be followed"),
    (LIST + "cars.extend(cars)\n", "is in a list of which 'extend' is asked"),
    (LIST + "cars.sort(key=len)\n", "is sorted in a way that cannot be followed"),
    (LIST + "print(map(str, cars))\n", "is in a list that is passed to code that was not read"),
    (LIST + "def cars():\n    pass\n", "'cars' holds other things too"),
    (LIST + "cars = 3\n", "is a list that may hold other things"),
    (LIST + "cars = sorted()\n", "is a list that may hold other things"),
]
IN_SCRIPTS = [
    (SCRIPT + "car = nobody;\n", "comes from code that was not read"),
    (SCRIPT + "let place = {};\nplace.now = car;\n", "is put where it cannot be followed"),
    (
        "function move(c) {\n  console.log(c.x);\n}\n" + SCRIPT + "move(car);\nconsole.log(move);\n",
        "'move' is used other than by calling it",
    ),
    (SCRIPT + "go((c) => {\n  c = car;\n});\n", "'c' is a parameter of a function that may be called from elsewhere"),
    (SCRIPT + "console.log(car + 1);\n", "is used in a way that an object of a class could not be"),
    (SCRIPT + "car = { ...{} };\n", "is no record of the same keys"),
    (SCRIPT + "car = { y: 3, x: 4 };\n", "has other keys than those before it, or in another order"),
    (SCRIPT + "console.log(car.z);\n", "is asked for a key that is not one of its own"),
    (SCRIPT + "delete car.x;\n", "loses a key"),
    (SCRIPT + "console.log((car = { x: 3, y: 4 }));\n", "is given on where it is set"),
    (SCRIPT + "function car2() {}\ncar2 = car;\n", "'car2' holds other things too"),
    (SCRIPT + "const both = { car };\n", "'car' is put into another object"),
    (SCRIPT + "for (car in [1]) {\n}\n", "is bound in a way that cannot be followed"),
    (SCRIPT + "class Line {\n  run(c) {\n    return c.x;\n  }\n}\nnew Line().run(car);\n", "code that was not read"),
    (SCRIPT + "function move(c = 1) {\n  console.log(c.x);\n}\nmove(car);\n", "'c' may be left out in calls of 'move'"),
    (SCRIPT + "car = 3;\n", "may be something else"),
    (
        "async function make() {\n  return { x: 1, y: 2 };\n}\n" + SCRIPT + "car = make();\n",
        "comes from code that was not read",
    ),
    (ARRAY + "cars.push(...[]);\n", "is an array that is used in a way that cannot be followed"),
    (SCRIPT + "car = prompt();\n", "comes from code that was not read"),
    (
        "function make() {\n  return { x: 1, y: 2 };\n}\nlet car = make();\nconsole.log(car.x, make);\n",
        "'make' is used other than by calling it",
    ),
    (SCRIPT + "const show = [1].map(() => {\n  return car;\n});\n", "is returned where it cannot be followed"),
    (
        SCRIPT + "function move({ x, y }) {\n  console.log(x, y);\n}\nmove(car);\n",
        "is taken apart where 'move' is passed it",
    ),
    (SCRIPT + "function move(...c) {\n  console.log(c);\n}\nmove(car);\n", "is passed to 'move' as one of many"),
    (
        SCRIPT + "function move(c) {\n  console.log(c.x);\n}\nmove(car);\nmove();\n",
        "nothing tells what this call hands to 'move'",
    ),
    ("const cars = [{ x: 1, y: 2 }, 3];\n", "stands in an array with other things"),
    (ARRAY + "console.log(cars + 1);\n", "is an array that is used in a way that cannot be followed"),
    (ARRAY + "console.log(cars[0, 1].z);\n", "is asked for a key that is not one of its own"),
    (ARRAY + "const push = cars.push;\n", "is an array that is used in a way that cannot be followed"),
    (ARRAY + "cars.copyWithin(0, 1);\n", "is an array that is used in a way that cannot be followed"),
    (ARRAY + "cars.forEach(console.log);\n", "goes to a function that cannot be followed"),
    (ARRAY + "cars.forEach(({ x }) => console.log(x));\n", "goes to a function that cannot be followed"),
    ("let cars = [{ x: 1, y: 2 }];\ncars = 3;\n", "may be something else"),
    (SCRIPT + "function cars() {}\ncars = [car];\n", "'cars' holds other things too"),
]
WITH_TYPES = [
    (TYPED.replace(": Car =", ": { x: number; y: number } ="), "has a type that is written out where it is used"),
    (
        TYPED
        + "interface Bus {\n  x: number;\n  y: number;\n}\nfunction move(c: Bus) {\n  console.log(c.x);\n}\nmove(car);\n",
        "is of more than one type",
    ),
    (TYPED.replace("  x: number;", "  x?: number;"), "is of a type, 'Car', whose place a class could not take"),
    (
        TYPED.replace("interface Car {", "export interface Car {"),
        "is of a type, 'Car', whose place a class could not take",
    ),
    (TYPED + "interface Car {\n  z: number;\n}\n", "is of a type, 'Car', whose place a class could not take"),
    (
        TYPED.replace("  y: number;\n", "  y: number; // metres\n"),
        "is of a type, 'Car', with other keys or remarks of its own",
    ),
    ("let car = { x: 1, y: [] };\nconsole.log(car.x);\n", "has a key, 'y', whose type is not told"),
]


def reasons(folder, name, text):
    folder.write(name, text)
    program = read_program(str(folder.path), [name])
    return [k.trouble[0] if k.trouble else "" for k in language_of(name).keyed(program.files[name])]


@pytest.mark.parametrize(
    ("name", "text", "said"),
    [
        (n, *row)
        for n, rows in [("line.py", IN_PYTHON), ("line.js", IN_SCRIPTS), ("line.ts", WITH_TYPES)]
        for row in rows
    ],
)
def test_records_that_cannot_be_followed_have_a_reason(folder, name, text, said):
    found = reasons(folder, name, text)
    assert any(said in why for why in found), found
