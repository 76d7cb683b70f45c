"""What a sketch runs on here: its words calculate and record as a sketch expects, frame by frame."""

import pytest
from conftest import needs
from test_curly_corners import ran

from aedifex.core.program.program import read_program

# an expression of a sketch, and what println shows of it
CALCULATED = [
    ('nf(7, 3) + " " + nf(-7, 3) + " " + nf(3.14159, 2, 2)', "007 -007 03.14"),
    ('nfp(4, 2) + nfs(4, 2) + " " + nfc(1234567) + " " + nf(2.0)', "+04 04 1,234,567 2"),
    ('join(split("mill,bridge,,depot", ","), "|")', "mill|bridge||depot"),
    ('join(splitTokens(" mill  bridge\\tdepot "), "|")', "mill|bridge|depot"),
    ('join(trim(split(" a ; b ", ";")), "")', "ab"),
    ('match("tram 12 at 3", "([0-9]+) at")[1] + (match("tram", "x") == null)', "12true"),
    ('matchAll("t1 t22", "t([0-9]+)")[1][1]', "22"),
    ('int("12") + int(3.9) + int(\'A\') + int(true) + int("none")', "81"),
    ('float("2.5") + float(int("4"))', "6.5"),
    ('int(split("3 4", " "))[1] + float(split("1.5 2", " "))[0]', "5.5"),
    ("str(3) + char(65) + boolean(1) + byte(300)", "3Atrue44"),
    ('hex(255) + hex(255, 2) + unhex("ff") + binary(5, 4) + unbinary("101")', "000000FFFF25501015"),
    ("append(new int[] {1, 2}, 3).length + expand(new float[4]).length + shorten(new String[3]).length", "13"),
    ("subset(new int[] {5, 6, 7, 8}, 1, 2)[1] * 10 + reverse(new int[] {1, 2, 3})[0]", "73"),
    ('join(concat(new String[] {"a"}, splice(new String[] {"b", "d"}, "c", 1)), "")', "abcd"),
    ('join(sort(new String[] {"mill", "depot"}), " ") + sort(new int[] {3, 1, 2}, 2)[0]', "depot mill1"),
    ("constrain(12, 0, 10) + max(1, 5, 3) + min(new int[] {4, 2}) + abs(-3)", "20"),
    ("round(map(5, 0, 10, 100, 200)) + floor(-1.5) + ceil(1.2) + sq(3)", "159.0"),
    ("dist(0, 0, 3, 4) + dist(0, 0, 0, 2, 3, 6) + mag(3, 4)", "17.0"),
    ("lerp(0, 10, 0.25) + norm(5, 0, 10) + degrees(PI)", "183.0"),
    ("bezierPoint(0, 0, 30, 30, 0.5) + curvePoint(0, 10, 20, 30, 0.5)", "30.0"),
    ("red(#FF8040) + green(#FF8040) + blue(#FF8040) + alpha(#FF8040)", "702.0"),
    (
        "hex(color(255)) + hex(color(10, 20, 30, 40)) + hex(lerpColor(#000000, #FF8000, 0.5))",
        "FFFFFFFF280A141EFF804000",
    ),
    ("hue(#00FF00) + saturation(#808080) + round(brightness(#808080))", "213.0"),
    ("new PVector(3, 4).mag() + PVector.add(new PVector(1, 2), new PVector(3, 4)).y", "11.0"),
    ("new PVector(1, 2, 3).cross(new PVector(4, 5, 6))", "[ -3.0, 6.0, -3.0 ]"),
    (
        "new PVector(9, 0).limit(2).x + PVector.dist(new PVector(), new PVector(0, 7)) + round(2 * new PVector(0, 1).heading())",
        "12.0",
    ),
    ('loadStrings("stops.txt").length + loadStrings("board.txt")[0]', "2open"),
    ('createImage(4, 2, RGB).get(1, 1) + loadImage("none.png").width', "64"),
    ("textWidth(\"tram\") > textWidth('t')", "true"),
]


def observed(folder, text: str):
    needs("javac")
    folder.write("line.pde", text)
    program = read_program(str(folder.path), ["line.pde"])
    assert not program.problems
    return ran(program, str(folder.path), "line.pde")


def test_words_calculate_as_a_sketch_expects(folder):
    folder.write("stops.txt", "mill\nbridge\n")
    folder.write("data/board.txt", "open\n")
    lines = "\n".join(f"  println({expression});" for expression, _ in CALCULATED)
    output, _, _ = observed(folder, f"void setup() {{\n{lines}\n  noLoop();\n}}\nvoid draw() {{ }}\n")
    assert list(zip(output.splitlines(), [e for e, _ in CALCULATED], strict=True)) == [(v, e) for e, v in CALCULATED]


@pytest.mark.parametrize(
    ("drawing", "shown"),
    [
        ("fill(#FF8000); rect(1, 2, 30, 40);", ["fill(-32768)", "rect(1, 2, 30, 40)"]),
        ("colorMode(HSB, 360, 100, 100); fill(color(120, 100, 100));", ["colorMode(3, 360)", "fill(-16711936)"]),
        ('text("mill", 3, 4); text(7, 1, 2); text(1.5, 0, 0);', ["text mill(3, 4)", "text 7(1, 2)", "text 1.5(0, 0)"]),
        ("pushMatrix(); rotateX(PI); translate(1, 2, 3); box(4); popMatrix();", ["rotateX(3.1415927)", "translate(1, 2, 3)", "box(4)"]),
        ("set(2, 3, #0000FF); println(get(2, 3) == #0000FF);", ["set(2, 3, -16776961)"]),
        ("PGraphics g = createGraphics(9, 9); g.beginDraw(); g.line(1, 2, 3, 4); g.endDraw(); image(g, 5, 6);", ["image graphics 9x9"]),
        ("beginShape(TRIANGLE_STRIP); vertex(1, 2); vertex(3, 4, 5); endShape(CLOSE);", ["beginShape(10)", "vertex(3, 4, 5)", "endShape(2)"]),
    ],
)  # fmt: skip
def test_words_that_draw_are_recorded(folder, drawing, shown):
    _, shots, _ = observed(folder, f"void setup() {{ size(90, 60); }}\nvoid draw() {{\n  {drawing}\n  noLoop();\n}}\n")
    said = "\n".join(shots.values())
    assert "size(90, 60)" in said
    assert [s for s in shown if s not in said] == []


def test_what_is_drawn_aside_is_told_by_what_was_drawn(folder):
    text = "PGraphics g;\nvoid setup() {{ g = createGraphics(9, 9); }}\nvoid draw() {{ g.line(1, 2, 3, {}); image(g, 0, 0); noLoop(); }}\n"
    first, second = (observed(folder, text.format(n))[1] for n in (4, 5))
    assert first != second


def test_arrays_are_told_line_by_line_and_objects_alike_every_time(folder):
    output, _, _ = observed(
        folder,
        'class Stop { }\nvoid setup() {\n  println(new int[] {4, 5});\n  println("a", 2, 1.0);\n  println(new Stop());\n'
        "  HashSet<Object> all = new HashSet<Object>();\n  for (int i = 0; i < 3; i++) all.add(new Stop());\n  println(all.size());\n}\n",
    )
    assert output.splitlines() == ["[0] 4", "[1] 5", "a 2 1.0", "line$Stop@1", "3"]


@pytest.mark.parametrize(
    "text",
    [
        "float w = 12.0 - 6.0 + 3.0;\nprintln(w); // without a line's end",
        "import processing.core.*;\nimport processing.pdf.*;\nvoid setup() { println(PApplet.max(4, 9.0)); }\n",
        "// only a remark, then words\nsize(20, 20);\nprintln(float(width) - 11);\n",
    ],
)
def test_a_sketch_without_functions_and_one_that_names_its_libraries(folder, text):
    assert observed(folder, text)[0] == "9.0\n"
