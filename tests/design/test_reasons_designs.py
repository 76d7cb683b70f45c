"""What is wrong in a design is told with its line: each mistake in a small design of its own."""

import pytest

from aedifex.core.design.toml import parse
from aedifex.core.planning.validate import validate
from aedifex.core.program.program import read_program

LINE = 'x = 1\ny = [1]\ncar = {"a": 1, "b": 2}\nprint(car["a"], y)\n\n\ndef move(n):\n    print(x + n)\n\n\ndef stop():\n    def tell():\n        print(x)\n\n    tell()\n\n\nclass Log:\n    pass\n\n\nmove(2)\nstop()\n'
HEAD = 'format = 1\nlanguage = "python"\nentries = ["line.py"]\nsources = { "line.py" = "" }\n'
CLASS = '[[class]]\nname = "Tram"\n'
FIELD = '[[class.field]]\nname = "x"\nfrom = ["x"]\n'
OBJECT = '[[class.object]]\nname = "tram"\n'

# (design, the line that is told, the code)
MISTAKES = [
    (HEAD.replace('"python"', '"java"'), 2, "other-language"),
    (HEAD.replace('["line.py"]', '["page.py"]'), 3, "no-source"),
    (HEAD.replace('["line.py"]', "[1]"), 3, "other-type"),
    (HEAD + '[[class]]\nname = "2"\n', 6, "no-class-name"),
    (HEAD + CLASS + CLASS, 8, "given-twice"),
    (HEAD + CLASS + '[[class.field]]\nname = "2"\nfrom = ["x"]\n', 8, "no-name"),
    (HEAD + CLASS + FIELD.replace('["x"]', '["x", "y"]') + "shared = true\n" + OBJECT, 9, "shared-of-several"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\n', 7, "from-nothing"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nfrom = ["move"]\nlines = ["line.py:4"]\n', 10, "from-both"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nlines = ["line.py:99"]\n', 9, "no-such-lines"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nlines = ["line.py:8-9"]\n', 9, ""),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nlines = ["line.py:8-12"]\n', 9, "cut-in-two"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nlines = ["line.py:13"]\n', 9, "in-inner-function"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nfrom = ["move"]\nadd = [{ name = "z", value = "z" }]\n', 10, "not-in-sources"),
    (HEAD + CLASS + FIELD + 'extends = "window"\n', 10, "unknown-key"),
    (HEAD + CLASS + 'extends = "window"\n' + FIELD + OBJECT, 7, "no-field-to-extend"),
    (HEAD + CLASS + 'base = "2"\n' + FIELD + OBJECT, 7, "no-class-name"),
    (HEAD + CLASS + 'base = "Tram"\n' + FIELD + OBJECT, 7, "base-is-a-class"),
    (HEAD + CLASS + 'base = "Car"\n' + FIELD + OBJECT, 7, "base-of-one-class"),
    (HEAD + CLASS + FIELD + OBJECT + 'collection = "2"\n', 12, "no-name"),
    (HEAD + CLASS + FIELD + OBJECT + 'collection = "y"\n', 12, "name-in-use"),
    (HEAD + CLASS + FIELD.replace('["x"]', '["x", "y"]') + 2 * (OBJECT + 'collection = "trams"\n'), 12, "variable-each"),
    (HEAD + CLASS + '[[class.field]]\nname = "a"\nfrom = ["bus[a]"]\n' + OBJECT + 'collection = "cars"\n', 12, "not-in-sources"),
    (HEAD + CLASS + '[[class.field]]\nname = "a"\nfrom = ["bus[a]"]\n' + OBJECT, 9, "not-in-sources"),
    (HEAD + CLASS + '[[class.field]]\nname = "a"\nfrom = ["car[c]"]\n' + OBJECT, 9, "no-record-key"),
    (HEAD + '[[stay]]\nname = "z"\nwhy = ""\n', 6, "not-in-sources"),
    (HEAD + '[[stream]]\nname = "out"\nfrom = ["print", "len"]\n', 7, "no-one-stream"),
    (HEAD + '[[stream]]\nname = "out"\nfrom = []\n', 7, "no-one-stream"),
    (HEAD + '[[stream]]\nname = "out"\nfrom = ["print"]\n', 5, "stream-needs-class"),
    (HEAD + '[[stream]]\nname = "2"\nclass = "Console"\nfrom = ["print"]\n', 6, "no-name"),
    (HEAD + '[[part]]\nname = "2"\nof = "Log"\nobject = "part"\n', 6, "no-class-name"),
    (HEAD + '[[part]]\nname = "Part"\nof = "Log"\nobject = "2"\n', 6, "no-name"),
    (HEAD + '[[part]]\nname = "Part"\nof = "Bus"\nobject = "part"\n', 7, "no-class-of-sources"),
    (HEAD + '[[part]]\nname = "Part"\nof = "Log"\nobject = "part"\n[[part.field]]\nname = "a"\nfrom = []\n', 11, "not-one-member"),
    (HEAD + '[[lift]]\nname = "2"\nof = "Log.run"\nlines = ["line.py:8"]\n', 6, "no-name"),
    (HEAD + '[[lift]]\nname = "go"\nof = "Log.run"\nlines = ["line.py:8"]\n', 7, "other-method"),
    (HEAD + '[[lift]]\nname = "go"\nof = "Log.run"\nlines = []\n', 8, "not-one-stretch"),
    (HEAD + '[[lift]]\nname = "go"\nlines = ["line.py:8"]\n', 5, "missing-key"),
    (HEAD + '[[rename]]\nfrom = "line.py"\nto = "page.py"\n', 5, "renames-a-file"),
    (HEAD + '[[rename]]\nfrom = "x"\nto = "2"\n', 5, "no-name"),
    (HEAD + '[[rename]]\nfrom = "z"\nto = "w"\n', 5, "not-in-sources"),
    (HEAD + '[[constant]]\nname = "2"\nfrom = ["line.py:1:5"]\n', 6, "no-name"),
    (HEAD + '[[constant]]\nname = "ONE"\nfrom = ["line.py:1:1"]\n', 7, "no-literal"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "line", "said"), MISTAKES, ids=[f"{i}-{m[2][:30]}" for i, m in enumerate(MISTAKES)])
def test_a_mistake_is_told_with_its_line(folder, text, line, said):
    folder.write("line.py", LINE)
    design, lines, problems = parse("line.design.toml", text)
    found = [*problems, *validate("line.design.toml", design, lines, read_program(str(folder.path), ["line.py"]))]
    assert (line, said) in [(r.line, r.code) for r in found] if said else not found, [str(r) for r in found]
