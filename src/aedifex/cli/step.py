"""``aedifex step``: one step without a design."""

from __future__ import annotations

import sys
from collections.abc import Callable
from typing import TYPE_CHECKING, Any

import click

from .common import QUIET, as_json, progress, say

if TYPE_CHECKING:
    from ..core.apply.by_hand import Single
    from ..core.program.program import Program


@click.group(name="step")
def command() -> None:
    """Do one step without a design. It is shown first, and the program is run before and after.

    \b
    Example: aedifex step rename tick turn tramline.py
    """


def one_step(run: Callable[..., None]) -> Callable[..., None]:
    """The options that all steps have."""
    for option in reversed([
        click.argument("paths", nargs=-1, required=True),
        click.option("--yes", is_flag=True, help="Write it without asking."),
        click.option("--scenarios", metavar="FILE", help="Scenario file (default: the one beside each script)."),
        click.option("--unchecked", is_flag=True, help="Do not run the program; read it again only."),
        click.option("--json", "json_", is_flag=True, help="Print what changes as JSON."),
        QUIET,
    ]):  # fmt: skip
        run = option(run)
    return run


@command.command(name="rename", short_help="A new name, wherever the old one is used.")
@click.argument("old")
@click.argument("new")
@one_step
def rename(old: str, new: str, paths: tuple[str, ...], **options: Any) -> None:
    """Call OLD by the name NEW, wherever it is used in the scripts at PATHS; their designs follow.

    OLD is a name, function.local, Class.member or a file; write file.py::name where several files have it. Only the scripts
    named are changed. Without --yes the change is shown and you are asked.

    \b
    Example: aedifex step rename tram1_x first_x tramline.py
    """
    from ..core.apply.by_hand import rename as worked_out

    program = read(paths)
    done(worked_out(program, old, new), program.root, "Renamed", old, **options)


@command.command(name="lift", short_help="Lines, or an expression, become a function.")
@click.argument("lines")
@click.argument("name")
@one_step
def lift(lines: str, name: str, paths: tuple[str, ...], **options: Any) -> None:
    """Make the LINES of a script a function NAME, which is called where they stood.

    LINES are whole statements, file.py:10-14, or one expression, file.py:10:8-10:40 (line and column, both in). What they need is
    handed over, what they set comes back; the same lines elsewhere call the function too. Lines of a method become a method; those of a
    function inside another one become a function beside it.

    \b
    Example: aedifex step lift tramline.py:151-152 draw_trams tramline.py
    """
    from ..core.apply.by_hand import lift as worked_out

    program = read(paths)
    done(worked_out(program, lines, name), program.root, "Lifted", lines, **options)


@command.command(name="open", short_help="A long main function becomes the main code.")
@click.argument("name")
@one_step
def open_(name: str, paths: tuple[str, ...], **options: Any) -> None:
    """Make the lines of the function NAME, with which the script starts, its main code.

    Its variables are the script's own then, so that they can become fields of objects. It must be called just once, by the main code.

    \b
    Example: aedifex step open main ticketwindow.py
    """
    from ..core.apply.by_hand import open_main as worked_out

    program = read(paths)
    done(worked_out(program, name), program.root, "Opened", name, **options)


@command.command(name="handler", short_help="A handler written in place gets a name.")
@click.argument("place")
@click.argument("name")
@one_step
def handler(place: str, name: str, paths: tuple[str, ...], **options: Any) -> None:
    """Make the lines of a handler that is written in place a function NAME; what registers it names that.

    PLACE is file:line:column of the function as it is written in the call, both counted from one.

    \b
    Example: aedifex step handler tramcanvas.js:93:38 onKeydown tramcanvas.js
    """
    from ..core.apply.by_hand import name_handler as worked_out

    program = read(paths)
    done(worked_out(program, place, name), program.root, "Named", place, **options)


@command.command(name="part", short_help="Members of a class become a class that it keeps.")
@click.argument("whole")
@click.argument("name")
@click.argument("members")
@one_step
def part(whole: str, name: str, members: str, paths: tuple[str, ...], **options: Any) -> None:
    """Take MEMBERS out of the class WHOLE into a class NAME, an object of which the first one keeps and calls.

    MEMBERS are fields and methods with commas between them. What the methods need of WHOLE besides is handed over at each call.

    \b
    Example: aedifex step part DepotEvening Log log_lines,log_number,write_log depot.py
    """
    from ..core.apply.by_hand import take_part

    program = read(paths)
    done(take_part(program, whole, name, listed(members)), program.root, "Changed", whole, **options)


@command.command(name="extend", short_help="A class extends the library's class that it holds.")
@click.argument("whole")
@click.argument("member")
@one_step
def extend(whole: str, member: str, paths: tuple[str, ...], **options: Any) -> None:
    """Make the class WHOLE extend the library's class of which its MEMBER holds an object.

    The library then calls its methods by their names, so they need not be registered any more. What the constructor made the object with
    goes to that of the library's class.

    \b
    Example: aedifex step extend PanelApp window panel_app.py
    """
    from ..core.apply.by_hand import extend as worked_out

    program = read(paths)
    done(worked_out(program, whole, member), program.root, "Changed", whole, **options)


@command.command(name="class", short_help="Variables and functions become a class.")
@click.argument("name")
@click.argument("members")
@one_step
def class_(name: str, members: str, paths: tuple[str, ...], **options: Any) -> None:
    """Make a class NAME of MEMBERS, variables and functions with commas between them; an object of it takes their place.

    Where only variables are named, the functions that work on them come along. What a method needs of others is handed to it. Lists
    that are as long as each other become a list of objects, numbered copies several objects.

    \b
    Example: aedifex step class Fare fare_box,fare_tickets,sell_fares tramline.py
    """
    from ..core.apply.by_hand_several import found

    program = read(paths)
    done(found(program, name, listed(members)), program.root, "Made", name, **options)


@command.command(name="app", short_help="The main code becomes a class.")
@click.argument("name")
@click.option("--fields", metavar="NAMES", default="", help="Variables that become fields too, with commas between them.")
@one_step
def app(name: str, fields: str, paths: tuple[str, ...], **options: Any) -> None:
    """Make the main code of a script a class NAME that is made and run in two lines.

    What functions share with the main code becomes its fields, those functions its methods. Arguments and exit status pass through.
    Name further variables in --fields where methods that you are going to lift out of the main code need them.

    \b
    Example: aedifex step app TramlineApp --fields turn,riding tramline.py
    """
    from ..core.apply.by_hand_several import app as worked_out

    program = read(paths)
    done(worked_out(program, name, listed(fields)), program.root, "Made", name, **options)


@command.command(name="file", short_help="A class gets a file of its own.")
@click.argument("class_", metavar="CLASS")
@click.argument("file")
@one_step
def file(class_: str, file: str, paths: tuple[str, ...], **options: Any) -> None:
    """Move a CLASS with what it needs to a new FILE beside its own; imports follow.

    \b
    Example: aedifex step file Fare fare.py tramline.py
    """
    from ..core.apply.by_hand_several import move

    program = read(paths)
    done(move(program, class_, file), program.root, "Moved", class_, **options)


@command.command(name="base", short_help="What classes have in common becomes their base.")
@click.argument("name")
@click.argument("classes")
@one_step
def base(name: str, classes: str, paths: tuple[str, ...], **options: Any) -> None:
    """Make a class NAME of what CLASSES have in common, fields and methods, and let them extend it.

    CLASSES are names with commas between them.

    \b
    Example: aedifex step base Vehicle Tram,Bus vehicles.py
    """
    from ..core.apply.by_hand_several import base as worked_out

    program = read(paths)
    done(worked_out(program, name, listed(classes)), program.root, "Changed", classes, **options)


@command.command(name="order", short_help="Methods stand in the order in which they are met.")
@click.argument("class_", metavar="CLASS")
@one_step
def order(class_: str, paths: tuple[str, ...], **options: Any) -> None:
    """Put the methods of a CLASS in the order in which a reader meets them: the constructor, what starts the program, what that calls.

    \b
    Example: aedifex step order TramlineApp tramline_app.py
    """
    from ..core.apply.by_hand_several import order as worked_out

    program = read(paths)
    done(worked_out(program, class_), program.root, "Changed", class_, **options)


@command.command(name="register", short_help="Functions are registered by a call, not a decoration.")
@click.argument("script")
@one_step
def register(script: str, paths: tuple[str, ...], **options: Any) -> None:
    """Let the functions of a SCRIPT that a decoration registers with an object be registered by a call behind them.

    They are plain functions then, which can become methods.

    \b
    Example: aedifex step register panel.py panel.py
    """
    from ..core.apply.by_hand_several import register as worked_out

    program = read(paths)
    done(worked_out(program, script), program.root, "Changed", script, **options)


@command.command(name="stream", short_help="The console becomes a variable that can be handed in.")
@click.argument("word")
@click.argument("name")
@one_step
def stream(word: str, name: str, paths: tuple[str, ...], **options: Any) -> None:
    """Let the script ask and tell through a variable NAME, so that another console can stand in its place.

    WORD is what the script calls its console now: input or print, System.in or System.out, console, process.stdin or process.stdout.

    \b
    Example: aedifex step stream print console fares.py
    """
    from ..core.apply.by_hand import open_stream

    program = read(paths)
    done(open_stream(program, word, name), program.root, "Changed", word, **options)


@command.command(name="pass", short_help="A method is passed a value at every call.")
@click.argument("method", metavar="CLASS.METHOD")
@click.argument("value")
@one_step
def pass_(method: str, value: str, paths: tuple[str, ...], **options: Any) -> None:
    """Pass the variable VALUE to a method at every call, instead of letting it read that from outside.

    NAME=VALUE calls the parameter otherwise. It is refused where the value may change while the method runs.

    \b
    Example: aedifex step pass Log.add line log_book.py
    """
    from ..core.apply.by_hand_more import pass_argument

    program = read(paths)
    done(pass_argument(program, method, value), program.root, "Changed", method, **options)


@command.command(name="hide", short_help="A member that only its class uses is hidden.")
@click.argument("member", metavar="CLASS.MEMBER")
@one_step
def hide(member: str, paths: tuple[str, ...], **options: Any) -> None:
    """Give a field or method the name that hides it, wherever it is used; refused if anything outside its class uses it.

    \b
    Example: aedifex step hide Log.lines log_book.py
    """
    from ..core.apply.by_hand_more import hide as worked_out

    program = read(paths)
    done(worked_out(program, member), program.root, "Hidden", member, **options)


@command.command(name="unify", short_help="Two near-twins become the same but for a number.")
@click.argument("first")
@click.argument("second")
@one_step
def unify(first: str, second: str, paths: tuple[str, ...], **options: Any) -> None:
    """Make the functions FIRST and SECOND, numbered copies that differ in some lines, the same but for their number.

    They can then be one method of two objects.

    \b
    Example: aedifex step unify ring_bell1 ring_bell2 bells.py
    """
    from ..core.apply.by_hand_more import unify as worked_out

    program = read(paths)
    done(worked_out(program, first, second), program.root, "Changed", f"{first}, {second}", **options)


@command.command(name="branches", short_help="The branches of a long function become functions.")
@click.argument("function")
@one_step
def branches(function: str, paths: tuple[str, ...], **options: Any) -> None:
    """Make a function of each branch in which a long FUNCTION answers one command; the branch calls it.

    \b
    Example: aedifex step branches serve desk_book.py
    """
    from ..core.apply.by_hand_more import branches as worked_out

    program = read(paths)
    done(worked_out(program, function), program.root, "Changed", function, **options)


@command.command(name="split", short_help="Variables set in one statement get one each.")
@click.argument("names")
@one_step
def split(names: str, paths: tuple[str, ...], **options: Any) -> None:
    """Give each of the variables NAMES, with commas between them, a statement of its own.

    \b
    Example: aedifex step split left,right switches.py
    """
    from ..core.apply.by_hand_more import split as worked_out

    program = read(paths)
    done(worked_out(program, listed(names)), program.root, "Changed", names, **options)


def listed(text: str) -> list[str]:
    return [m.strip() for m in text.split(",") if m.strip()]


def read(paths: tuple[str, ...]) -> Program:
    from ..core.program.errors import Refused
    from ..core.program.program import find_sources, read_program

    root, files = find_sources(paths)
    program = read_program(root, files)
    for problem in program.problems[:1]:
        raise Refused(f"{problem}; nothing is changed in a file that cannot be read whole.")
    return program


def done(
    single: Single, root: str, verb: str, what: str, yes: bool, scenarios: str | None, unchecked: bool, json_: bool, quiet: bool
) -> None:
    """Show the step, ask, run the program before and after, and write it."""
    from ..core.program.errors import Refused

    written = yes
    if not json_ and not quiet:
        click.echo(single.diff, nl=False)
    if not yes and not json_ and sys.stdin.isatty():
        written = click.confirm("Write it?", err=True)
    if written:
        with progress(2, "run", quiet or json_) as advance:
            differed = [] if unchecked else single.check(scenarios, advance)
        if differed:
            raise Refused("\n".join([f"{what}: stays, because the program would do something else:", *differed]))
        single.write()
    if json_:
        as_json({"step": single.step.id, "files": sorted(single.changes), "written": written, "diff": single.diff})
    elif written:
        said = "It was not run (--unchecked)." if unchecked else "The program did the same."
        say(f"{verb} in {', '.join(sorted(single.changes))}. {said} Put back: aedifex undo {root}", quiet)
    else:
        say("Nothing was written; add --yes to write it.", quiet)
