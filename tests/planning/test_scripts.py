"""Scripts with the hazards that real ones have: each is rearranged or refused with a reason, and does the same."""

import json
import re
from pathlib import Path

import pytest

SCRIPTS = Path(__file__).parents[1] / "scripts"
NAMES = sorted(p.stem for p in SCRIPTS.glob("*.py") if not p.stem.endswith("_module"))
# What must be said of those that stay as they are; all others are rearranged.
STAYS = {
    "builtin_shadowed": "named like a builtin",
    "decorated": "is decorated",
    "deleted_global": "is deleted",
    "dynamic_names": r"'globals\(\)' reaches names by their text",
    "functions_as_values": "asks the function itself",
    "late_defaults": "worked out where the function stands",
    "locals_read": r"'locals\(\)' reaches names by their text",
    "loop_variable_read_later": "cannot be a field",
    "mangled_names": "would be another name inside a class",
    "patched_from_outside": "is used by",
    "private_members": "would be another name inside a class",
    "redefined": "more than once",
    "registry_names": "sys.modules",
    "scopes": "class Board uses",
    "self_documenting": "spelled out",
    "shadowing_locals": "class self_like uses",
    "some_paths": "may not be set yet",
    "walrus_and_friends": "inside an expression",
}


@pytest.mark.parametrize("name", NAMES)
def test_the_script_does_the_same(folder, name):
    folder.write(f"{name}.py", (SCRIPTS / f"{name}.py").read_bytes())
    for helper in SCRIPTS.glob("*_module.py"):
        folder.write(helper.name, helper.read_bytes())
    before = folder.run(f"{name}.py")
    assert folder.aedifex("draft", "-q", f"{name}.py").returncode == 0
    apart = [] if name in STAYS or NAMES.index(name) % 6 == 0 else ["--unchecked"]  # run before and after all the same
    built = folder.aedifex("build", *apart, "--json", f"{name}.design.toml")
    outcome = json.loads(built.stdout)
    assert outcome["stopped"] is None, outcome["difference"]
    assert folder.run(f"{name}.py") == before
    done = [s["id"] for s in outcome["steps"] if s["result"] == "done"]
    if name in STAYS:
        assert re.search(STAYS[name], folder.read(f"{name}.design.toml"))
        assert not done
    else:
        assert any(step.startswith("found:") for step in done)
    again = folder.sources()
    assert folder.aedifex("build", "-q", *apart, f"{name}.design.toml").returncode == 0
    assert folder.sources() == again, "building a built program changes nothing"
    assert folder.aedifex("undo", "-q", "--all", f"{name}.design.toml").returncode == (0 if done else 1)
    assert (folder.path / f"{name}.py").read_bytes() == (SCRIPTS / f"{name}.py").read_bytes()
