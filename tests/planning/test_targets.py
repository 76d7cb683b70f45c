"""The demo programs as we would divide them by hand; the draft is held against that.

A class: its role, its fields (those that others touch marked with a star), its methods with what they are handed, its objects.
"""

import shutil
from pathlib import Path

import pytest

import aedifex.demo
from aedifex.core.planning.drafter import draft
from aedifex.core.program.program import find_sources, read_program

PROGRAMS = Path(aedifex.demo.__file__).parent / "programs"
BY_HAND = {
    "tramline.py": {
        "Tram": (
            "model",
            "x* speed doors_open* riders*",
            "move(signal) board draw stop_name toggle_doors",
            "tram1 tram2",
        ),
        "Fare": ("model", "box* tickets history", "sell collect report", "fare"),
        "Service": (
            "app",
            "signal frames_drawn",
            "handle_key draw switch_signal draw_line send_to_depot",
            "app",
        ),
    },
    "tramwindow.py": {
        "Tram": ("model", "x* speed doors_open* riders* color", "push toggle_doors move(signal) draw(screen)", "tram"),
        "Signal": ("model", "green* switched x*", "switch draw(screen)", "signal"),
        "Waiting": ("model", "places left_behind*", "add board draw(screen)", "waiting"),
        "TramwindowGame": ("app", "screen score clock", "handle_keydown update draw", "app"),
    },
    "fares.py": {
        "Till": ("model", "cash sold* open* console", "open_till sell_ticket close", "till"),
        "Card": ("model", "owner rides used*", "fill stamp show(console)", "card"),
        "Lost": ("model", "items returned*", "hand_in(console) give_back", "lost"),
        "FaresApp": ("app", "console", "ask_number sell handle_card handle_command", "app"),
    },
    "ticketwindow.py": {
        "TicketwindowApp": (
            "app",
            "sold takings minutes is_open log root clock_label takings_label state_label",
            "run set_up show sell close_window tick on_print",
            "app",
        ),
    },
    "TicketDesk.java": {
        "TicketDeskApp": (
            "app",
            "sold takings minutes open clockLabel takingsLabel stateLabel nameField frame",
            "makeTop makeButtons show sell onShutter onPrint onClock",
            "app",
        ),
    },
    "tramcanvas.js": {
        "Tram": ("model", "x speed open riders*", "move(signal) board draw(ctx)", "tram1 tram2"),
        "Fare": ("model", "tickets box", "collect(tram1,tram2) show", "fare"),
        "TramcanvasApp": ("app", "ctx signal frames", "drawLine loop onKeydown", "app"),
    },
    "tramsketch.pde": {
        "Tram": ("model", "x speed open riders*", "move(signalGo) board draw", "tram1 tram2 tram3"),
        "Fare": ("model", "tickets* box*", "collect", "fare"),
    },
    "TramDesk.java": {
        "Tram": ("model", "place* speed out", "move send", "tram1 tram2"),
        "Till": ("model", "cash* tickets log", "sell(day) report print(out)", "till"),
        "TramDeskApp": ("app", "day luck input out", "closeDay send hours handleWords", "app"),
    },
}


@pytest.mark.parametrize("name", BY_HAND)
def test_the_draft_is_what_we_would_have_written(name, tmp_path):
    for path in PROGRAMS.glob("*.pde" if name.endswith(".pde") else name):
        shutil.copy(path, tmp_path)
    root, files = find_sources([str(tmp_path / name)])
    design = draft(read_program(root, files))
    found = {
        c.name: (
            c.role,
            {f.name + ("" if f.hidden else "*") for f in c.fields},
            {m.name + (f"({','.join(a['name'] for a in m.add)})" if m.add else "") for m in c.methods},
            [o.name for o in c.objects],
        )
        for c in design.classes
    }
    wanted = {
        n: (role, set(fields.split()), set(methods.split()), objects.split())
        for n, (role, fields, methods, objects) in BY_HAND[name].items()
    }
    assert found == wanted


def test_the_parts_of_a_class_that_does_it_all_are_what_we_would_have_taken_out(tmp_path):
    shutil.copy(PROGRAMS / "depot.py", tmp_path)
    design = draft(read_program(str(tmp_path), ["depot.py"]))
    found = {
        p.name: (p.of, p.object, [f.name + ("" if f.hidden else "*") for f in p.fields], [m.name for m in p.methods])
        for p in design.parts
    }
    assert not design.classes and found == {
        "Track": ("DepotEvening", "track", ["places", "moves*"], ["park", "leave", "draw"]),
        "Cash": ("DepotEvening", "cash", ["total*", "counts"], ["count", "mean"]),
        "Log": ("DepotEvening", "log", ["lines", "number"], ["write", "print"]),
    }
