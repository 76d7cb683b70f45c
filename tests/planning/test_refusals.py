"""A draft says why something stays, and why lists cannot become objects."""

import pytest

from aedifex.core.analysis.parallel_arrays import lists_named
from aedifex.core.planning.drafter import draft

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
    (
        main(call="print(main())\nprint(2)").replace("    tell()\n\n\n", "    tell()\n    return 3\n\n\n"),
        "the result of 'main' is used for more than the end of the program",
    ),
    (main(params="*more", call="main(1)"), "it takes any number of arguments"),
    (main(params="by=print(1)"), "the default of 'by' is worked out where the function stands"),
    (main(more="    class Bell:\n        pass\n"), "a class is defined inside it"),
    (main(more="    print(len(locals()))\n"), "'locals()' reaches names by their text"),
    ("from math import *\n" + main(), "a star import may bind any name"),
    (
        "class Bell:\n    def __del__(self):\n        print('gone')\n\n\n"
        + main(more="    bell = Bell()\n    print(bell is None)\n"),
        "objects that do something when they die would die later",
    ),
    (
        main().replace("    tell()\n\n\n", "    tell()\n\n\ntry:\n    print(1)\nexcept NameError:\n    pass\n"),
        "the program catches the error of a name that is not set",
    ),
    (main(call="main()\n\n\ndef other():\n    pass"), "functions stand after the main code"),
    (
        main(call="main()\nprint(2)").replace("    add(2)\n", "    add(2)\n    if load > 9:\n        return\n"),
        "it returns early",
    ),
    (
        main().replace("    tell()\n\n\n", "    tell()\n    return print(3)\n\n\n"),
        "it returns a value that is worked out, and no caller takes it",
    ),
    (
        main(more="    lanes: list[late] = []\n"),
        "a variable's type is looked up where it stands, once it is no function's own",
    ),
    ("load = 5\nprint(load)\n" + main(), "its variable 'load' has a name that means something else outside of it"),
]


TOGETHER = [
    (
        lists(a=("xs[i] += speeds[i]\n    print(xs[i])", "print(xs[i], speeds[i])")),
        "nothing changes xs, speeds: they are a table of constants",
    ),
    (lists(a=("speeds = [3, 4]", "speeds = [3, len(input())]")), "the items of speeds are made where they stand"),
    (lists(a=("\nspeeds", "\nprint(xs)\nspeeds")), "something happens between the first statements of xs, speeds"),
    (lists(a=("xs = [1, 2]\n", "xs = [1, 2]; n = 1\n")), "line 1 holds more than one statement"),
    (lists(more="xs.append(1)\nspeeds.append(len(xs))"), "line 3: what is added to speeds looks at the lists"),
    (
        lists(more="xs.append(1)\nspeeds.append(int(input()))"),
        "line 3: what is added to speeds is worked out after the first has grown",
    ),
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
