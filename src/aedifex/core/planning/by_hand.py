"""Steps by hand for which a draft works out what is to be done."""

from __future__ import annotations

from ..analysis.parallel_arrays import lists_named
from ..design.origin import Origin, as_origins
from ..design.tables import ClassDesign, Design, LiftDesign, MethodDesign, WishDesign
from ..program.errors import Refused
from ..program.model import SourceFile, Symbol
from ..program.program import Program
from ..program.surroundings import read_neighbours
from ..rewrites import mistakes
from ..rewrites.by_hand import Asked, HandCommand, SmallDesign, empty_design, home_of, names_in
from ..rewrites.extract_class.rewrite import TakePart
from ..rewrites.name_listeners.bases import base_trouble
from ..rewrites.standing_class import handed_objects, standing_scope
from . import messages
from .classes.facts import Task, origin_in
from .collections import class_of_lists, collect, keyed_class, records_of, roots_of
from .drafter import draft
from .extraction.extracted_classes import wished_part
from .extraction.listeners import listeners_of_standing
from .extraction.long_methods import dispatched
from .extraction.standing_classes import method_name
from .extraction.traveling_values import Proposal, traveling_values
from .wishes import Placed, unfulfilled, wish_mistakes


def ask_class(program: Program, name: str, members: str) -> Asked:
    wish = WishDesign(as_origins(*names_in(members)), name, kept_apart(program, as_origins(*names_in(members))))
    design = wished_design(program, [wish], name, "asked")
    design.classes = [c for c in design.classes if c.name == name]
    return Asked(
        SmallDesign(
            "class", name, f"{', '.join(map(str, wish.together))} become the class {name}", without_files(design)
        )
    )


def ask_app(program: Program, name: str, fields: str = "") -> Asked:
    """``fields``: variables of the main code that are to be fields, though no function shares them."""
    check_class_name(program, name)
    design = wished_design(
        program, [WishDesign(as_origins(*names_in(fields)), name)] if names_in(fields) else [], name, "app"
    )
    return Asked(SmallDesign("app", name, f"the main code becomes the class {name}", without_files(design)))


def wished_design(program: Program, wishes: list[WishDesign], name: str, idea: str) -> Design:
    """A design that does what is wished, and of an app only that. Raises Refused with all that it cannot do."""
    asked = [Placed(w, "") for w in wishes]
    if wrong := wish_mistakes(program, asked):
        raise Refused("\n".join(r.told() for r in wrong))
    design = draft(program, wishes=wishes, idea=idea)
    if idea == "app":
        design.classes = [c for c in design.classes if c.role == "app"][:1]
        if not design.classes:
            raise messages.NO_APP.in_file(
                why=next((s.why for s in design.stays if s.name == "main"), "no main code starts here")
            )
        design.classes[0].name = name
    if lost := unfulfilled(design, asked):
        raise Refused("\n".join(r.told() for r in lost))
    return design


def kept_apart(program: Program, members: list[Origin]) -> list[Origin]:
    """All other functions, if some were asked for."""
    named = {m.local for m in members}
    functions = [n for f in program.files.values() for n, s in f.scope.symbols.items() if "function" in s.kinds]
    return as_origins(*(n for n in functions if n not in named)) if named & {*functions} else []


def without_files(design: Design) -> Design:
    """The design with its classes in the file where their variables and functions stand."""
    for c in design.classes:
        c.file, c.kept_in, c.branches, c.set_up = "", "", [], False  # each is a step of its own
    for stay in design.stays:
        stay.file = ""
    design.streams, design.parts = [], []
    return design


def ask_list(program: Program, name: str, lists: str) -> Asked:
    check_class_name(program, name)
    file, symbols = symbols_named(program, names_in(lists))
    found = lists_named(file, program.language, names_in(lists))
    if isinstance(found, str):
        raise messages.LISTS_STAY.in_file(file.path, why=found)
    known = class_of_lists(program, file, found, set(), name)
    made = [c for c in collect(program, file, symbols, set(), [known])[0] if c.name == name]
    if not made:
        raise messages.LISTS_STAY.in_file(
            file.path, why=f"no lines use {', '.join(names_in(lists))} with the same index"
        )
    return objects_of(program, made, "list", name, lists)


def ask_records(program: Program, name: str, holders: str) -> Asked:
    file, symbols = symbols_named(program, names_in(holders))
    found = [k for k in program.language.keyed(file) if k.names & set(names_in(holders))]
    if found and found[0].trouble is not None:
        raise messages.RECORD_CANNOT.at(
            file, found[0].trouble[1], keys=", ".join(found[0].keys), why=found[0].trouble[0]
        )
    roots = roots_of(file, found[0]) if found else []
    if not roots:
        raise messages.NO_RECORDS_IN.in_file(file.path, names=holders)
    if found[0].named is None or found[0].named.name != name:
        check_class_name(program, name)
    known = keyed_class(program, file, found[0], roots, set(), name)
    symbols |= {s for s in file.scope.symbols.values() if s.name in found[0].names}
    made = [c for c in records_of(program, file, symbols, set(), [known])[0] if c.name == name]
    if not made:
        raise messages.NO_RECORDS_IN.in_file(file.path, names=holders)
    return objects_of(program, made, "records", name, holders)


def ask_wrap(program: Program, name: str, parameter: str) -> Asked:
    check_class_name(program, name)
    for file in program.files.values():
        for row in traveling_values(file, program.language, asked=parameter):
            found = Proposal(program, file, row, set(), name).made()
            if found is not None:
                return objects_of(program, [found[0]], "wrap", name, parameter)
    raise messages.NOT_HANDED_ON.in_file(name=parameter)


def ask_method(program: Program, class_: str, functions: str) -> Asked:
    wanted = names_in(functions)
    home = next((f for f in program.files.values() if standing_scope(f, class_) is not None), None)
    if home is None:
        raise mistakes.NO_CLASS_STANDS.in_file(name=class_)
    handed = {f.name: p for f, p in handed_objects(home, program.language, class_).items()}
    design = ClassDesign(class_, existing=True)
    for name in wanted:
        if name not in handed:
            f = home.function(name)
            where = home.line(f.start) if f is not None else 0
            raise messages.NOT_HANDED_OBJECT.in_file(home.path, where, function=name, class_=class_)
        short = method_name(program.language, class_, name, handed[name], set())
        design.methods.append(MethodDesign(short, [origin_in(program, home, name)], drop=[handed[name]]))
    return objects_of(program, [design], "method", f"{class_}.{design.methods[-1].name}", functions)


def ask_listeners(program: Program, class_: str) -> Asked:
    home = next((f for f in program.files.values() if standing_scope(f, class_) is not None), None)
    if home is None:
        raise mistakes.NO_CLASS_STANDS.in_file(name=class_)
    task = Task(home.path, read_neighbours(program), [], [], set(), False, "use")
    made = [c for c in listeners_of_standing(program, task)[0] if c.name == class_]
    if not made:
        scope = standing_scope(home, class_)
        why = base_trouble(program, home, scope) if scope is not None else ""
        raise messages.NO_LISTENERS.in_file(home.path, class_=class_, why=f": {why}" if why else "")
    design = empty_design(program)
    design.classes = made
    names = ", ".join(m.name for m in made[0].methods)
    return Asked(SmallDesign("listeners", class_, f"listeners of {class_} become methods: {names}", design))


def objects_of(program: Program, made: list[ClassDesign], kind: str, name: str, given: str) -> Asked:
    design = empty_design(program)
    design.classes = made
    return Asked(SmallDesign(kind, name, f"{given} become objects of the class {name}", design))


def symbols_named(program: Program, wanted: list[str]) -> tuple[SourceFile, set[Symbol]]:
    """The file that has variables of these names, and these. Raises Refusal if no one file has them all."""
    for file in program.files.values():
        if wanted and all(n in file.scope.symbols and file.scope.symbols[n].kinds == {"variable"} for n in wanted):
            return file, {file.scope.symbols[n] for n in wanted}
    raise messages.NO_VARIABLES.in_file(names=", ".join(wanted))


def check_class_name(program: Program, name: str) -> None:
    if not program.language.write.is_name(name) or any(name in f.scope.symbols for f in program.files.values()):
        raise messages.NO_CLASS_NAME.in_file(name=name)


def ask_part(program: Program, whole: str, name: str, members: str) -> Asked:
    path = home_of(program, whole)
    if not program.language.write.is_name(name):
        raise messages.NO_CLASS_NAME.in_file(name=name)
    part = wished_part(program.files[path], program.language, whole, name, names_in(members))
    return Asked(TakePart(path, part, read_neighbours(program)))


def ask_branches(program: Program, name: str) -> Asked:
    for file in program.files.values():
        f = file.function(name)
        taken = {n for s in file.scope.walk() for n in s.symbols} | set(program.language.builtins)
        found = dispatched(file, program.language, f, taken, 0) if f is not None else []
        if found:
            design = empty_design(program)
            design.lifts = [LiftDesign(p.name, "", [p.lines]) for p in found]
            return Asked(
                SmallDesign(
                    "branches", name, f"the branches of {name} become {', '.join(p.name for p in found)}", design
                )
            )
    raise messages.NO_BRANCHES.in_file(name=name)


PLANNED: tuple[HandCommand, ...] = (
    HandCommand(
        "class",
        ("NAME", "MEMBERS"),
        "Variables and functions become a class.",
        """Make a class NAME of MEMBERS, variables and functions with commas between them; an object of it takes their
        place.

        Where only variables are named, the functions that work on them come along. What a method needs of others is
        passed to it. Numbered
        copies become several objects.""",
        "class Fare fare_box,fare_tickets,sell_fares tramline.py",
        "Made",
        ask_class,
    ),
    HandCommand(
        "app",
        ("NAME",),
        "The main code becomes a class.",
        """Make the main code of a script a class NAME that is made and run in two lines.

        What functions share with the main code becomes its fields, those functions its methods. Arguments and exit
        status pass through.
        Name further variables in --fields where methods that you are going to lift out of the main code need them.""",
        "app TramlineApp --fields tick tramline.py",
        "Made",
        ask_app,
        (("fields", "NAMES", "Variables that become fields too, with commas between them."),),
    ),
    HandCommand(
        "list",
        ("NAME", "LISTS"),
        "Lists with one index become a list of objects.",
        """Make LISTS that are used with the same index, names with commas between them, one list of objects of a class
        NAME.

        Functions that get an index only to work on that one object become its methods; loops go through the
        objects.""",
        "list Stop names,waiting stops.py",
        "Made",
        ask_list,
    ),
    HandCommand(
        "records",
        ("NAME", "HOLDERS"),
        "Records in keyed tables become objects.",
        """Make the records that HOLDERS keep, a list of them or variables with one each, objects of a class NAME.

        Keys become fields; functions that are passed a record at every call become methods.""",
        "records Bird birds flock.py",
        "Made",
        ask_records,
    ),
    HandCommand(
        "method",
        ("CLASS", "FUNCTIONS"),
        "Functions that are handed an object of a class become its methods.",
        """Make FUNCTIONS, with commas between them, methods of a CLASS that stands.

        Each is handed an object of it at every call; that parameter goes, and calls ask the object.""",
        "method Tram stop,turn trams.py",
        "Changed",
        ask_method,
    ),
    HandCommand(
        "listeners",
        ("CLASS",),
        "Listeners written in a class become its methods.",
        """Make the listeners that are written in the methods of a CLASS methods of their own.

        The registration keeps one line; what listeners share with the method in which they stood becomes fields.""",
        "listeners DepotWindow depot_window.py",
        "Changed",
        ask_listeners,
    ),
    HandCommand(
        "wrap",
        ("NAME", "PARAMETER"),
        "What functions hand to each other becomes an object, and they its methods.",
        """Make what functions are handed as PARAMETER an object of a class NAME, which holds it.

        Functions that look into it or change it, and need nothing else, become its methods; others are handed the
        object.""",
        "wrap Yard yard sidings.py",
        "Made",
        ask_wrap,
    ),
    HandCommand(
        "part",
        ("CLASS", "NAME", "MEMBERS"),
        "Members of a class become a class that it keeps.",
        """Take MEMBERS out of a CLASS into a class NAME, an object of which the first one keeps and calls.

        MEMBERS are fields and methods with commas between them. What the methods need of it besides is passed at each
        call.""",
        "part DepotEvening Log log_lines,log_number,write_log depot.py",
        "Changed",
        ask_part,
    ),
    HandCommand(
        "branches",
        ("FUNCTION",),
        "The branches of a long function become functions.",
        "Make a function of each branch in which a long FUNCTION answers one command; the branch calls it.",
        "branches serve desk_book.py",
        "Changed",
        ask_branches,
    ),
)
