"""Put faults into the built demo programs and see whether suggested scenarios alone find them; docs/evidence.md.

python benchmarks/faults.py [--write]
"""

from __future__ import annotations

import argparse
import json
import shutil
import subprocess
import sys
import tempfile
import tomllib
from pathlib import Path

ROOT = Path(__file__).parent.parent
PROGRAMS = ROOT / "src" / "aedifex" / "demo" / "programs"
AEDIFEX = [sys.executable, "-m", "aedifex.cli.main"]
WANTED = 29  # of 30


def aedifex(folder: Path, *args: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run([*AEDIFEX, *args], cwd=folder, capture_output=True, text=True)


def built(program: str, top: Path) -> Path:
    """A folder with the program built and its suggested scenarios recorded."""
    folder = top / program
    folder.mkdir()
    shutil.copy(PROGRAMS / f"{program}.py", folder)
    for args in (
        ["record", "--suggest", f"{program}.py"],
        ["draft", f"{program}.py"],
        ["build", f"{program}.design.toml"],
    ):
        done = aedifex(folder, *args, "--quiet")
        if done.returncode:
            raise SystemExit(f"{program}: aedifex {' '.join(args)}: {done.stdout}{done.stderr}")
    if aedifex(folder, "check", "--quiet").returncode:
        raise SystemExit(f"{program}: differs before any fault is put in")
    return folder


def tried(fault: dict[str, str], folder: Path) -> str:
    """Where the fault shows first; "" if nothing differs."""
    path = folder / fault["file"]
    whole = path.read_text()
    if whole.count(fault["old"]) != 1:
        raise SystemExit(
            f"{fault['program']}: {fault['old']!r} stands {whole.count(fault['old'])} times in {fault['file']}"
        )
    path.write_text(whole.replace(fault["old"], fault["new"]))
    try:
        done = aedifex(folder, "check", "--json")
    finally:
        path.write_text(whole)
    found = json.loads(done.stdout)["differences"]
    if not found:
        return ""
    first = found[0]
    state = next((f"{d['field'].split(' ')[0]} at {d['moment']}" for d in found if d["where"] == "state"), "")
    where = first["where"] + (f", line {first['line']}" if first["line"] else "")
    where = where if first["where"] != "state" else "nothing that shows"
    return f"{first['scenario']}: {where}" + (f"; {state}" if state else "")


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--write", action="store_true")
    parser.add_argument("--only", default="")
    faults = tomllib.loads((Path(__file__).parent / "faults.toml").read_text())["fault"]
    rows, found = [], 0
    with tempfile.TemporaryDirectory() as top:
        folders = {p: built(p, Path(top)) for p in dict.fromkeys(f["program"] for f in faults)}
        for number, fault in enumerate(faults, 1):
            where = tried(fault, folders[fault["program"]])
            found += bool(where)
            change = " / ".join(x.strip() for x in fault["old"].strip().splitlines())
            rows.append(
                f"| {number} | {fault['program']} | {fault['kind']} | `{change[:70]}` | {where or '**not found**'} |"
            )
            print(number, fault["program"], fault["kind"], "->", where or "NOT FOUND", flush=True)
    print(f"{found} of {len(faults)} found")
    if parser.parse_args().write:
        page = ROOT / "docs" / "evidence.md"
        text = page.read_text() if page.exists() else ""
        head = text.split("<!-- table -->")[0] if text else "# Evidence\n\n"
        table = ["| | program | kind of fault | in | found by |", "|---|---|---|---|---|", *rows]
        page.write_text(f"{head}<!-- table -->\n\n{found} of {len(faults)} were found.\n\n" + "\n".join(table) + "\n")
    raise SystemExit(found < WANTED)


if __name__ == "__main__":
    main()
