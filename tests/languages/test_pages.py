"""A page's script in a function that is made and called at once: seen, decided, moved, checked and put back through the commands."""

import json
import re

import pytest
from conftest import needs

HTML = '<!doctype html>\n<html><body>\n<canvas id="line" width="300" height="120"></canvas>\n<button id="ring">Ring</button>\n<p id="told"></p>\n<script src="page.js"></script>\n</body></html>\n'
PAGE = """(function () {
  "use strict";

  const canvas = document.getElementById("line");
  const ctx = canvas.getContext("2d");
  const told = document.getElementById("told");

  // where the tram is, and how fast it goes
  let tramX = 10;
  let tramSpeed = 2;
  let rung = 0;
  const riders = [];

  function drawTram() {
    ctx.fillStyle = riders.length > 2 ? "green" : "red";
    ctx.fillRect(tramX, 50, 40, 20);
  }

  function moveTram() {
    tramX += tramSpeed;
    if (tramX > 260 || tramX < 0) {
      tramSpeed = -tramSpeed;
    }
  }

  document.getElementById("ring").addEventListener("click", function () {
    rung += 1;
    riders.push(rung);
    told.textContent = "rung " + rung;
  });

  document.addEventListener("keydown", (e) => {
    if (e.key === "ArrowRight") {
      tramSpeed = Math.abs(tramSpeed);
    } else if (e.key === "ArrowLeft") {
      tramSpeed = -Math.abs(tramSpeed);
    }
  });

  function frame() {
    ctx.clearRect(0, 0, canvas.width, canvas.height);
    moveTram();
    drawTram();
    requestAnimationFrame(frame);
  }

  frame();
})();
"""


@pytest.fixture
def page(folder):
    needs("node")
    folder.write("page.html", HTML)
    folder.write("page.js", PAGE)
    return folder


def test_what_the_wrapper_holds_is_shown(page):
    shown = json.loads(page.aedifex("survey", "--json", "page.js").stdout)["files"][0]
    assert [v["name"] for v in shown["variables"]] == ["canvas", "ctx", "told", "tramX", "tramSpeed", "rung", "riders"]
    asked = page.aedifex("ask", "tramX", "page.js").stdout
    assert "main.tramX" in asked and "first set in line 9" in asked


def test_it_becomes_an_app_that_does_the_same(page):
    assert page.aedifex("draft", "-q", "page.js").returncode == 0
    assert page.aedifex("record", "--suggest", "-q", "page.design.toml").returncode == 0
    built = page.aedifex("build", "--unchecked", "--json", "page.design.toml")
    outcome = json.loads(built.stdout)
    assert outcome["stopped"] is None and {s["result"] for s in outcome["steps"]} <= {"done", "nothing"}, built.stdout
    text = page.read("page.js")
    assert text.startswith('"use strict";\n') and text.endswith("}\n\nnew PageApp().run();\n")
    assert re.findall(r"^  (\w+)\(.*\) \{$", text, re.M) == [
        "constructor",
        "run",
        "_onClick",
        "_onKeydown",
        "_frame",
        "constructor",
        "move",
        "draw",
    ]
    assert "    // where the tram is, and how fast it goes\n    this._tram = new Tram(10, 2);\n" in text
    assert page.aedifex("check", "page.design.toml").returncode == 0
    page.write("page.js", text.replace("this._x += this.speed", "this._x -= this.speed"))
    wrong = page.aedifex("check", "page.design.toml")
    assert wrong.returncode == 1 and "frame 1: the picture is another" in wrong.stdout
    page.write("page.js", text)
    assert page.aedifex("undo", "-q", "--all", "page.design.toml").returncode == 0
    assert page.read("page.js") == PAGE


def test_it_is_opened_by_hand_and_lines_of_its_handlers_are_lifted(page):
    lifted = page.aedifex("step", "lift", "page.js:33-37", "turn", "page.js")
    assert lifted.returncode == 0 and "+  function turn(e) {\n" in lifted.stdout, lifted.stderr
    opened = page.aedifex("step", "open", "main", "page.js", "--unchecked", "--yes")
    assert opened.returncode == 0, opened.stderr
    assert page.read("page.js").startswith('"use strict";\n\nconst canvas = document.getElementById("line");\n')


def test_a_name_that_the_window_has_keeps_it_closed(page):
    page.write("page.js", PAGE.replace("rung", "status"))
    said = page.aedifex("draft", "page.js")
    assert said.returncode == 0
    assert (
        "what it holds stays its own: line 11: its variable 'status' has a name that means something else outside of it"
        in said.stdout
    )
