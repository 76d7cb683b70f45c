"""The Python scripts of others that benchmarks/real_scripts.py builds: the standard library's, Debian's, and those of packages."""

from __future__ import annotations

import shutil
import subprocess
import sys
import sysconfig
from collections.abc import Callable
from pathlib import Path

from real_case import Case

LIBRARY = Path(sysconfig.get_paths()["stdlib"])

# Command-line modules of the standard library: script → arguments of each scenario, and what is typed.
MODULES: dict[str, list[tuple[list[str], str]]] = {
    "calendar.py": [(["2026", "3"], ""), (["--type", "html", "2026", "3"], ""), (["2026"], "")],
    "base64.py": [(["-e"], "a tram\n"), (["-d"], "YSB0cmFt\n"), (["-t"], "")],
    "quopri.py": [([], "a tram = full\n"), (["-d"], "a=20tram\n")],
    "tabnanny.py": [(["-v", "sample.py"], "")],
    "pyclbr.py": [(["sample.py"], "")],
    "tokenize.py": [(["sample.py"], ""), ([], "x = 1\n")],
    "dis.py": [(["sample.py"], "")],
    "ast.py": [(["sample.py"], ""), (["-i", "1"], "x = 1\n")],
    "textwrap.py": [([], "")],
    "filecmp.py": [([".", "."], "")],
    "shlex.py": [([], "open 'the doors' now\n")],
    "cProfile.py": [(["-s", "ncalls", "none.py"], "")],
    "mimetypes.py": [(["sample.py"], ""), (["-e", "text/html"], "")],
    "keyword.py": [([], "")],
    "this.py": [([], "")],
    "getopt.py": [(["-a", "1"], "")],
    "gettext.py": [([], "")],
    "netrc.py": [([], "")],
    "fileinput.py": [(["sample.py"], "")],
    "symtable.py": [([], "")],
    "webbrowser.py": [([], "")],
    "platform.py": [([], ""), (["terse"], "")],
    "sysconfig.py": [([], "")],
    "site.py": [(["--user-base"], "")],
    "encodings/rot_13.py": [([], "tram\n")],
    "json/tool.py": [([], '{"line": 3}\n'), (["--sort-keys"], '{"b": 1, "a": [2, 3]}\n')],
    "pydoc.py": [(["keyword"], "")],
    "timeit.py": [(["-n", "2", "-r", "1", "1+1"], "")],
    "zipfile.py": [(["-c", "made.zip", "sample.py"], "")],
    "tarfile.py": [(["-c", "made.tar", "sample.py"], "")],
    "inspect.py": [(["keyword"], "")],
    "pprint.py": [([], "")],
    "locale.py": [([], "")],
    "difflib.py": [([], "")],
    "bdb.py": [([], "")],
    "trace.py": [(["--count", "--missing", "sample.py"], "")],
}
# Scripts of Debian's python3.11-examples: script → as above.
EXAMPLES: dict[str, list[tuple[list[str], str]]] = {
    "demo/beer.py": [(["5"], "")],
    "demo/eiffel.py": [([], "")],
    "demo/queens.py": [([], "")],
    "demo/vector.py": [([], "")],
    "scripts/byext.py": [(["."], "")],
    "scripts/byteyears.py": [(["-m", "sample.py"], "")],
    "scripts/cleanfuture.py": [(["-v", "sample.py"], "")],
    "scripts/combinerefs.py": [(["sample.txt"], "")],
    "scripts/copytime.py": [(["sample.py", "sample.txt"], "")],
    "scripts/crlf.py": [(["sample.txt"], "")],
    "scripts/diff.py": [(["sample.py", "sample.txt"], ""), (["-c", "sample.py", "sample.txt"], "")],
    "scripts/dutree.py": [([], "3\t./a/b\n5\t./a\n9\t.\n")],
    "scripts/eptags.py": [(["sample.py"], "")],
    "scripts/find-uname.py": [(["tram"], "")],
    "scripts/finddiv.py": [(["sample.txt"], "")],
    "scripts/findlinksto.py": [(["x", "."], "")],
    "scripts/findnocoding.py": [(["."], "")],
    "scripts/fixcid.py": [(["-s", "subst.txt", "sample.c"], "")],
    "scripts/fixdiv.py": [(["sample.txt"], "")],
    "scripts/fixheader.py": [(["sample.c"], "")],
    "scripts/fixnotice.py": [(["sample.c"], "")],
    "scripts/google.py": [([], "")],
    "scripts/highlight.py": [(["sample.py"], ""), (["-a", "sample.py"], "")],
    "scripts/ifdef.py": [(["-Dx", "sample.c"], "")],
    "scripts/import_diagnostics.py": [([], "")],
    "scripts/lfcr.py": [(["sample.txt"], "")],
    "scripts/linktree.py": [(["one", "two"], "")],
    "scripts/lll.py": [(["."], "")],
    "scripts/make_ctype.py": [([], "")],
    "scripts/md5sum.py": [(["sample.py", "sample.txt"], ""), ([], "tram")],
    "scripts/mkreal.py": [(["sample.txt"], "")],
    "scripts/ndiff.py": [(["sample.py", "sample.txt"], ""), (["-q", "sample.py", "sample.txt"], "")],
    "scripts/nm2def.py": [([], "T x\n")],
    "scripts/pathfix.py": [(["-i", "/usr/bin/tram", "-n", "sample.py"], "")],
    "scripts/pdeps.py": [(["sample.py"], "")],
    "scripts/pindent.py": [(["-c"], "if x:\n    y = 1\nelse:\n    y = 2\n")],
    "scripts/ptags.py": [(["sample.py"], "")],
    "scripts/pysource.py": [(["."], "")],
    "scripts/reindent.py": [(["-d", "-v", "sample.py"], "")],
    "scripts/rgrep.py": [(["tram", "sample.txt"], ""), (["-i", "TRAM", "sample.txt"], "")],
    "scripts/suff.py": [(["a.py", "b.txt", "c.py"], "")],
    "scripts/texi2html.py": [(["sample.texi", "out"], "")],
    "scripts/untabify.py": [(["sample.txt"], "")],
    "scripts/which.py": [(["sh"], "")],
    "i18n/makelocalealias.py": [(["--glibc-supported", "sample.txt"], "")],
    "i18n/msgfmt.py": [(["-o", "out.mo", "sample.po"], "")],
    "i18n/pygettext.py": [(["-o", "-", "sample.py"], ""), (["-D", "-o", "out.pot", "sample.py"], "")],
    "unicode/listcodecs.py": [([], "")],
    "stringbench/stringbench.py": [(["--help"], "")],
}
DEBIAN = Path("/usr/share/doc/python3.11/examples")
# Examples that ship in source packages: (package, glob); each is run without arguments.
# Examples that pygame-ce installs with itself; what needs a device that a run has not says so in its row.
GAMES = "pygame/examples/*.py"
# Games of a package whose scripts name that package: they are laid out beside it.
TURTLES = ("freegames", "**/freegames/*.py")
PACKAGES = [("simpy", "docs/examples/code/*.py"), ("colorama", "demos/demo*.py")]

TEXT = "the tram stops at the mill\n\tthe tram opens\nthe tram goes on to the bridge, x / 2\n" * 4
FILES = {
    "sample.py": "import os\n\n\nclass Tram:\n    def move(self, by):\n        return by * 2\n\n\nprint(Tram().move(21), _('stop'))\n",
    "sample.txt": TEXT,
    "sample.c": "/* tram */\n#ifdef x\nint tram = 1; /* stop */\n#else\nint stop;\n#endif\n",
    "subst.txt": "tram depot\n",
    "sample.po": 'msgid ""\nmsgstr "Content-Type: text/plain; charset=UTF-8\\n"\n\nmsgid "stop"\nmsgstr "halt"\n',
    "sample.texi": "@settitle Trams\n@chapter The line\nA @emph{tram} on @code{rails}.\n@itemize\n@item one\n@end itemize\n@bye\n",
}


def cases(cache: Path) -> list[Case]:
    """Every script that this machine has, the demo folder first."""
    found = [
        (f"turtledemo/{p.name}", p, [([], "")])
        for p in sorted((LIBRARY / "turtledemo").glob("*.py"))
        if not p.name.startswith("_")
    ]
    for package, pattern in PACKAGES:
        found += [(f"{package}/{p.name}", p, [([], "")]) for p in unpacked(package, pattern, cache)]
    found += [(f"examples/{name}", DEBIAN / name, runs) for name, runs in EXAMPLES.items() if (DEBIAN / name).exists()]
    found += [(name, LIBRARY / name, runs) for name, runs in MODULES.items() if (LIBRARY / name).exists()]
    games = sorted(Path(sysconfig.get_paths()["purelib"]).glob(GAMES))
    return [Case(name, "Python", entry(script), laid_out(script), runs) for name, script, runs in found] + [
        Case(f"pygame-ce/{p.name}", "Python", p.name, laid_out(p, "data"), None) for p in games if not p.name.startswith("_")
    ] + [
        Case(f"{TURTLES[0]}/{p.name}", "Python", f"game_{p.name}", beside_package(p), None)
        for p in unpacked(*TURTLES, cache) if not p.name.startswith("_") and p.name != "utils.py"
    ]  # fmt: skip


def beside_package(script: Path) -> Callable[[Path], None]:
    """The script under another name than its module's, with its package beside it."""

    def fill(folder: Path) -> None:
        shutil.copy(script, folder / f"game_{script.name}")
        shutil.copytree(script.parent, folder / script.parent.name)

    return fill


def entry(script: Path) -> str:
    """The name of the copy: none that would hide a module of the library."""
    return script.name if not (LIBRARY / script.name).exists() else f"{script.stem}_script.py"


def laid_out(script: Path, beside: str = "") -> Callable[[Path], None]:
    """``beside``: a folder next to the script that it reads from."""

    def fill(folder: Path) -> None:
        shutil.copy(script, folder / entry(script))
        if beside:
            shutil.copytree(script.parent / beside, folder / beside)
        for helper in script.parent.glob("fixpath.py"):
            shutil.copy(helper, folder)
        for other, text in FILES.items():
            (folder / other).write_text(text)

    return fill


def unpacked(package: str, pattern: str, cache: Path) -> list[Path]:
    """Scripts of a source package, fetched with pip; none if it cannot be had."""
    pip = [sys.executable, "-m", "pip", "-q"]
    subprocess.run([*pip, "install", package], capture_output=True)
    subprocess.run(
        [*pip, "download", "--no-deps", "--no-binary", ":all:", "-d", str(cache), package], capture_output=True
    )
    for archive in cache.glob(f"{package}-*.tar.gz"):
        shutil.unpack_archive(archive, cache)
    return sorted(p for folder in cache.glob(f"{package}-*") if folder.is_dir() for p in folder.glob(pattern))
