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

# (design, the line that is told, what is told)
MISTAKES = [
    (HEAD.replace('"python"', '"java"'), 2, "language 'java' is not that of the sources"),
    (HEAD.replace('["line.py"]', '["page.py"]'), 3, "entry 'page.py' is not among the sources"),
    (HEAD.replace('["line.py"]', "[1]"), 3, "'entries' must be a list of texts"),
    (HEAD + '[[class]]\nname = "2"\n', 6, "'2' cannot be the name of a class"),
    (HEAD + CLASS + CLASS, 8, "class 'Tram' is given twice"),
    (HEAD + CLASS + '[[class.field]]\nname = "2"\nfrom = ["x"]\n', 8, "'2' cannot be the name of a member"),
    (HEAD + CLASS + FIELD.replace('["x"]', '["x", "y"]') + "shared = true\n" + OBJECT, 9, "field 'x' is shared by all objects, so it comes from one variable"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\n', 7, "method 'go' comes from no function and no lines"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nfrom = ["move"]\nlines = ["line.py:4"]\n', 10, "method 'go' comes from functions and from lines; take one of them out"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nlines = ["line.py:99"]\n', 9, "line.py:99: there are no lines 99 to 99; the file has 23"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nlines = ["line.py:8-9"]\n', 9, ""),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nlines = ["line.py:8-12"]\n', 9, "line.py:8-12 cuts a statement in two"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nlines = ["line.py:13"]\n', 9, "line.py:13 stands in a function inside another one; lift it there by 'aedifex step lift'"),
    (HEAD + CLASS + '[[class.method]]\nname = "go"\nfrom = ["move"]\nadd = [{ name = "z", value = "z" }]\n', 10, "'z' does not exist in the sources"),
    (HEAD + CLASS + FIELD + 'extends = "window"\n', 10, "unknown key 'extends'"),
    (HEAD + CLASS + 'extends = "window"\n' + FIELD + OBJECT, 7, "'window' is no field of Tram, so it cannot extend what that holds"),
    (HEAD + CLASS + 'base = "2"\n' + FIELD + OBJECT, 7, "'2' cannot be the name of a class"),
    (HEAD + CLASS + 'base = "Tram"\n' + FIELD + OBJECT, 7, "base 'Tram' is a class of this design"),
    (HEAD + CLASS + 'base = "Car"\n' + FIELD + OBJECT, 7, "only Tram has the base 'Car'; name it in two classes at least"),
    (HEAD + CLASS + FIELD + OBJECT + 'collection = "2"\n', 12, "'2' cannot be the name of a list"),
    (HEAD + CLASS + FIELD + OBJECT + 'collection = "y"\n', 12, "'y' is in use already; give the list another name"),
    (HEAD + CLASS + FIELD.replace('["x"]', '["x", "y"]') + 2 * (OBJECT + 'collection = "trams"\n'), 12, "objects that have a variable each are not kept in a list; leave 'collection' out"),
    (HEAD + CLASS + '[[class.field]]\nname = "a"\nfrom = ["bus[a]"]\n' + OBJECT + 'collection = "cars"\n', 12, "'cars' does not exist in the sources"),
    (HEAD + CLASS + '[[class.field]]\nname = "a"\nfrom = ["bus[a]"]\n' + OBJECT, 9, "'bus' does not exist in the sources"),
    (HEAD + CLASS + '[[class.field]]\nname = "a"\nfrom = ["car[c]"]\n' + OBJECT, 9, "'car' holds no records with the key 'c'"),
    (HEAD + '[[stay]]\nname = "z"\nwhy = ""\n', 6, "'z' does not exist in the sources"),
    (HEAD + '[[stream]]\nname = "out"\nfrom = ["print", "len"]\n', 7, "print and len cannot be one stream"),
    (HEAD + '[[stream]]\nname = "out"\nfrom = []\n', 7, "nothing cannot be one stream"),
    (HEAD + '[[stream]]\nname = "out"\nfrom = ["print"]\n', 5, "stream 'out' needs a class; give it a name with 'class'"),
    (HEAD + '[[stream]]\nname = "2"\nclass = "Console"\nfrom = ["print"]\n', 6, "'2' cannot be the name of a stream"),
    (HEAD + '[[part]]\nname = "2"\nof = "Log"\nobject = "part"\n', 6, "'2' cannot be the name of a class"),
    (HEAD + '[[part]]\nname = "Part"\nof = "Log"\nobject = "2"\n', 6, "'2' cannot be the name of a member"),
    (HEAD + '[[part]]\nname = "Part"\nof = "Bus"\nobject = "part"\n', 7, "'Bus' is no class of the sources"),
    (HEAD + '[[part]]\nname = "Part"\nof = "Log"\nobject = "part"\n[[part.field]]\nname = "a"\nfrom = []\n', 11, "field 'a' comes from one member of Log"),
    (HEAD + '[[lift]]\nname = "2"\nof = "Log.run"\nlines = ["line.py:8"]\n', 6, "'2' cannot be the name of a method"),
    (HEAD + '[[lift]]\nname = "go"\nof = "Log.run"\nlines = ["line.py:8"]\n', 7, "line.py:8 is no part of a method 'Log.run'"),
    (HEAD + '[[lift]]\nname = "go"\nof = "Log.run"\nlines = []\n', 8, "method 'go' comes from one stretch of lines"),
    (HEAD + '[[lift]]\nname = "go"\nlines = ["line.py:8"]\n', 5, "'of' is missing in [[lift]]"),
    (HEAD + '[[rename]]\nfrom = "line.py"\nto = "page.py"\n', 5, "'line.py' is a file; rename it with 'aedifex step rename'"),
    (HEAD + '[[rename]]\nfrom = "x"\nto = "2"\n', 5, "'2' cannot be a name"),
    (HEAD + '[[rename]]\nfrom = "z"\nto = "w"\n', 5, "'z' does not exist in the sources"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "line", "said"), MISTAKES, ids=[f"{i}-{m[2][:30]}" for i, m in enumerate(MISTAKES)])
def test_a_mistake_is_told_with_its_line(folder, text, line, said):
    folder.write("line.py", LINE)
    design, lines, problems = parse("line.design.toml", text)
    found = [*problems, *validate("line.design.toml", design, lines, read_program(str(folder.path), ["line.py"]))]
    assert any(p.line == line and said in p.message for p in found) if said else not found, [str(p) for p in found]
