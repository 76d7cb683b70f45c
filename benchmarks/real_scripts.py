"""Run the whole path on scripts that others wrote, and write the table in docs/real-scripts.md.

    python benchmarks/real_scripts.py [--only WORD] [--keep FOLDER]

Each script is copied to a folder of its own, drafted, built with all checks, and compared once more at the end.
"""

from __future__ import annotations

import argparse
import json
import shutil
import subprocess
import sys
import sysconfig
import tempfile
from pathlib import Path

ROOT = Path(__file__).parent.parent
LIBRARY = Path(sysconfig.get_paths()["stdlib"])
AEDIFEX = [sys.executable, "-m", "aedifex.cli.main"]

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
SAMPLE = "import os\n\n\nclass Tram:\n    def move(self, by):\n        return by * 2\n\n\nprint(Tram().move(21))\n"


def cases() -> list[tuple[str, Path, list[tuple[list[str], str]]]]:
    """(name, script, scenarios) of every script, the demo folder first."""
    found = [
        (f"turtledemo/{p.name}", p, [([], "")])
        for p in sorted((LIBRARY / "turtledemo").glob("*.py"))
        if not p.name.startswith("_")
    ]
    found += [(name, LIBRARY / name, runs) for name, runs in MODULES.items() if (LIBRARY / name).exists()]
    for tool in sorted((LIBRARY.parent.parent / "share").glob("aedifex-none/*.py")):
        found.append((tool.name, tool, [([], "")]))
    return found


def one(name: str, script: Path, runs: list[tuple[list[str], str]], folder: Path) -> dict[str, object]:
    """Draft and build one script in ``folder``; a row of the table."""
    folder.mkdir(parents=True)
    target = folder / (script.name if not (LIBRARY / script.name).exists() else f"{script.stem}_script.py")
    shutil.copy(script, target)
    (folder / "sample.py").write_text(SAMPLE)
    design = target.with_suffix(".design.toml")
    rows = []
    for number, (args, typed) in enumerate(runs):
        command = ["{python}", "{entry}", *args]
        rows.append(
            f"[[scenario]]\nname = 'run {number}'\nrun = {json.dumps(command)}\nstdin = {json.dumps(typed)}\nseconds = 60\n"
        )
    target.with_suffix(".scenarios.toml").write_text("\n".join(rows))
    row: dict[str, object] = {"script": name, "lines": target.read_text(errors="replace").count("\n")}
    drafted = subprocess.run([*AEDIFEX, "draft", "-q", str(target)], capture_output=True, text=True)
    if drafted.returncode:
        return {**row, "why": last_line(drafted.stderr)}
    seen = json.loads(
        subprocess.run([*AEDIFEX, "preview", "--json", str(design)], capture_output=True, text=True).stdout
    )
    built = subprocess.run([*AEDIFEX, "build", "--json", str(design)], capture_output=True, text=True)
    if not built.stdout.strip():
        return {**row, "why": last_line(built.stderr)}
    outcome = json.loads(built.stdout)
    checked = subprocess.run([*AEDIFEX, "check", str(design)], capture_output=True, text=True)
    refused = [
        f"{s['id']}: {s['because']}"
        for s in outcome["steps"]
        if s["result"] in ("refused", "wrong", "different", "skipped")
    ]
    stays = [line for line in design.read_text().splitlines() if line.startswith("why = ") and "constant" not in line]
    stopped = outcome["stopped"]
    return {
        **row, "globals": (seen["before"]["globals"], seen["after"]["globals"]),
        "main": (seen["before"]["main_statements"], seen["after"]["main_statements"]),
        "done": sum(1 for s in outcome["steps"] if s["result"] == "done"), "refused": refused,
        "stays": stays, "same": checked.returncode == 0 and not stopped,
        "why": "; ".join(outcome["difference"][:2]) if stopped else last_line(checked.stderr) if checked.returncode else "",
    }  # fmt: skip


def last_line(text: str) -> str:
    return (text.strip().splitlines() or ["?"])[-1].replace("aedifex: ", "")


def main() -> int:
    parser = argparse.ArgumentParser()
    parser.add_argument("--only", default="")
    parser.add_argument("--keep")
    parser.add_argument("--write", action="store_true", help="write docs/real-scripts.md")
    options = parser.parse_args()
    top = Path(options.keep or tempfile.mkdtemp(prefix="aedifex-real-"))
    rows = []
    for name, script, runs in cases():
        if options.only in name:
            rows.append(one(name, script, runs, top / name.replace("/", "_").removesuffix(".py")))
            print(json.dumps(rows[-1]), flush=True)
    if options.write:
        (ROOT / "docs" / "real-scripts.md").write_text(document(rows))
    if not options.keep:
        shutil.rmtree(top)
    return 1 if any(r.get("same") is False for r in rows) else 0


def document(rows: list[dict[str, object]]) -> str:
    lines = [
        "# Real scripts", "",
        "Scripts that we did not write, taken as they are, drafted and built with every step checked by running the",
        "program before and after. Made by `make real-scripts`.", "",
        "| script | lines | globals | main | steps | refused or staying, and why | same |", "|---|---|---|---|---|---|---|",
    ]  # fmt: skip
    for r in rows:
        if "globals" not in r:
            lines.append(f"| {r['script']} | {r['lines']} | | | | not built: {clean(r['why'])} | - |")
            continue
        (g1, g2), (m1, m2) = r["globals"], r["main"]  # type: ignore[misc]
        reasons = [*r["refused"], *(s.removeprefix("why = ").strip('"') for s in r["stays"])]  # type: ignore[misc]
        why = "; ".join(dict.fromkeys(clean(x) for x in reasons)) or "-"
        lines.append(
            f"| {r['script']} | {r['lines']} | {g1} → {g2} | {m1} → {m2} | {r['done']} | {why} | {'yes' if r['same'] else 'NO'} |"
        )
    same = sum(1 for r in rows if r.get("same"))
    changed = sum(1 for r in rows if r.get("done"))
    lines += ["", f"{len(rows)} scripts; {same} built and the same; {changed} of them rearranged."]
    return "\n".join(lines) + "\n"


def clean(text: object) -> str:
    return str(text).replace("|", "/").replace("\\", "")


if __name__ == "__main__":
    sys.exit(main())
