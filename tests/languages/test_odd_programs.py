"""Programs that are written oddly, and files that are no plain files: the job is done, or refused, and nothing else is touched."""

import os
import re
import subprocess

import pytest
from conftest import needs

COUNTER = "import sys\ncount = 0\nlimit_reached = False\n\n\ndef add(n):\n    global count, limit_reached\n    count += n\n    limit_reached = count > 5\n\n\ndef show():\n    print(count, limit_reached)\n\n\nadd(3)\nadd(4)\nshow()\n"
ODD = {
    "a form feed between functions": COUNTER.replace("\n\n\ndef show", "\n\x0c\ndef show").encode(),
    "an import that shares its line": COUNTER.replace("import sys\ncount = 0", "import sys; count = 0").encode(),
    "a mark at the beginning": b"\xef\xbb\xbf" + COUNTER.encode(),
    "another encoding": ("# -*- coding: latin-1 -*-\n" + COUNTER.replace("show():\n", "show():\n    # zählt\n")).encode(
        "latin-1"
    ),
    "a next-line sign in a text": COUNTER.replace("print(count", 'print("a\x85b", count').encode(),
    "calls that share a line": COUNTER.replace("add(3)\nadd(4)\n", "add(3); add(4)\n").encode(),
}


@pytest.mark.parametrize("text", ODD.values(), ids=list(ODD))
def test_oddly_written_programs_become_classes_and_do_the_same(folder, text):
    folder.write("line.py", text)
    before = folder.run("line.py")
    assert before[0] == 0
    drafted = folder.aedifex("draft", "line.py", "-o", "line.design.toml")
    assert drafted.returncode == 0, drafted.stderr
    built = folder.aedifex("build", "line.design.toml", "--unchecked")
    assert built.returncode == 0, built.stdout + built.stderr
    assert folder.run("line.py") == before
    assert any(b"class " in p.read_bytes() for p in folder.path.glob("*.py"))


def test_output_that_is_no_text_is_compared_as_it_is(folder):
    script = "import sys\ncount = 0\ndef add(n):\n    global count\n    count += n\n    sys.stdout.buffer.write(bytes([200 + count, 10]))\nadd(1)\nadd(2)\n"
    folder.write("line.py", script)
    folder.aedifex("draft", "-q", "line.py", "-o", "line.design.toml")
    folder.write("line.scenarios.toml", '[[scenario]]\nname = "bytes"\nrun = ["python", "line.py"]\n')
    assert folder.aedifex("record", "-q", "line.scenarios.toml").returncode == 0
    assert folder.aedifex("check", "-q", "line.scenarios.toml").returncode == 0
    assert folder.aedifex("build", "-q", "line.design.toml").returncode == 0
    assert folder.aedifex("check", "-q", "line.scenarios.toml").returncode == 0
    at = next(p for p in folder.path.glob("*.py") if "200" in p.read_text())
    at.write_text(at.read_text().replace("200", "201"))
    assert folder.aedifex("check", "-q", "line.scenarios.toml").returncode == 1


def renamed(folder):
    return folder.aedifex("step", "rename", "--yes", "--unchecked", "count", "total", "line.py")


def test_a_link_that_leads_out_of_the_folder_is_not_written_through(folder):
    outside = folder.write("elsewhere/line.py", COUNTER)
    (folder.path / "here").mkdir()
    (folder.path / "here" / "line.py").symlink_to(outside)
    done = folder.aedifex("step", "rename", "--yes", "--unchecked", "count", "total", "here/line.py")
    assert done.returncode in (1, 2) and "line.py" in done.stderr
    assert outside.read_text() == COUNTER


def test_undo_gives_back_texts_and_times_and_tells_of_a_file_that_is_gone(folder):
    path = folder.write("line.py", COUNTER)
    os.utime(path, (1_000_000_000, 1_000_000_000))
    assert renamed(folder).returncode == 0 and "total" in folder.read("line.py")
    assert folder.aedifex("undo", "--all").returncode == 0
    assert folder.read("line.py") == COUNTER and int(path.stat().st_mtime) == 1_000_000_000
    assert renamed(folder).returncode == 0
    path.unlink()
    gone = folder.aedifex("undo", "--all")
    assert "line.py" in gone.stdout + gone.stderr


CURLY = {
    "arrows": ("line.js", "let count = 0;\nlet open = true;\nconst add = (n) => {\n  if (open) count += n;\n};\nconst close = () => {\n  open = false;\n  count += 1;\n};\nadd(2);\nclose();\nadd(3);\nconsole.log(count, open);\n"),
    "lines asked for": ("line.js", "const readline = require('readline');\nlet count = 0;\nconst seen = [];\nfunction take(n) {\n  count += n;\n  seen.push(n);\n}\nfunction tell() {\n  console.log(count, seen);\n}\nconst rl = readline.createInterface({ input: process.stdin });\nrl.on('line', (row) => {\n  take(Number(row));\n});\nrl.on('close', () => {\n  tell();\n});\n"),
}  # fmt: skip


@pytest.mark.parametrize(("name", "text"), CURLY.values(), ids=list(CURLY))
def test_oddly_written_scripts_do_the_same_under_node(folder, name, text):
    needs("node")
    folder.write(name, text)
    run = lambda: subprocess.run(  # noqa: E731
        ["node", name], cwd=folder.path, input="3\n4\n", capture_output=True, text=True, timeout=30
    )
    before = run()
    assert before.returncode == 0 and folder.aedifex("draft", name, "-o", "line.design.toml").returncode == 0
    built = folder.aedifex("build", "line.design.toml", "--unchecked")
    assert built.returncode == 0, built.stdout + built.stderr
    after = run()
    assert (after.stdout, after.returncode) == (before.stdout, 0), after.stderr
    assert any("class " in p.read_text() for p in folder.path.glob("*.*js"))


FERRY = """public class Ferry {
    static volatile boolean running = true;
    static int crossings = 0;
    static void cross(int n) { crossings += n; if (crossings > 4) running = false; }
    static void tell() { System.out.println(crossings + " " + running); }
    public static void main(String[] args) { cross(2); cross(3); tell(); }
}
"""


def test_words_that_declare_a_variable_go_along_and_a_main_of_one_line_stays_whole(folder):
    needs("javac")
    folder.write("Ferry.java", FERRY)
    run = lambda: subprocess.run(  # noqa: E731
        "javac -d out *.java && java -cp out Ferry",
        shell=True,
        cwd=folder.path,
        capture_output=True,
        text=True,
        timeout=90,
    )
    before = run()
    assert before.stdout == "5 false\n"
    assert folder.aedifex("draft", "Ferry.java", "-o", "line.design.toml").returncode == 0
    assert folder.aedifex("build", "line.design.toml", "--unchecked").returncode == 0
    assert run().stdout == before.stdout
    texts = "".join(p.read_text() for p in folder.path.glob("*.java"))
    assert "volatile boolean" in texts and texts.count("class ") > 1


def test_names_that_differ_only_in_case_do_not_share_a_file(folder):
    folder.write("line.py", COUNTER)
    folder.aedifex("draft", "-q", "line.py", "-o", "line.design.toml")
    text = folder.read("line.design.toml")
    assert "[[class]]\n" in text
    folder.write(
        "line.design.toml", re.sub('file = ".*"\n', "", text).replace("[[class]]\n", '[[class]]\nfile = "Line.py"\n', 1)
    )
    done = folder.aedifex("build", "line.design.toml", "--unchecked")
    assert done.returncode == 1 and "Line.py" in done.stderr + done.stdout
    assert [p.name for p in folder.path.glob("*.py")] == ["line.py"] and "class " in folder.read("line.py")


def test_what_a_person_wrote_into_a_design_is_kept_beside_it_when_it_is_drafted_anew(folder):
    folder.write("line.py", COUNTER)
    folder.aedifex("draft", "-q", "line.py")
    edited = folder.read("line.design.toml") + "# mine\n"
    folder.write("line.design.toml", edited)
    assert folder.aedifex("draft", "line.py").returncode == 1 and folder.read("line.design.toml") == edited
    for _ in range(2):
        assert folder.aedifex("draft", "line.py", "--again").returncode == 0
    assert [p.read_text() for p in folder.path.glob("*.old*")] == [edited]
