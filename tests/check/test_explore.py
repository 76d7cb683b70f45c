"""How far scenarios reach: what nothing runs is said, --strict drops it, and check --explore looks where no scenario did."""

import json

TILL = """import sys
cash = 0
log = []

def sell(n):
    global cash
    cash += n
    log.append(cash)

def refund(n):
    global cash
    cash -= n
    log.append(-n)

while True:
    line = input("> ")
    if line == "sell":
        sell(int(input("how many? ")))
    elif line == "refund":
        refund(int(input("how many? ")))
    elif line == "quit":
        break
print(cash, log)
"""
SCENARIOS = '[[scenario]]\nname = "a sale"\nrun = ["python", "till.py"]\nstdin = """sell\n3\nquit\n"""\n'


def test_a_fault_that_no_scenario_shows_is_found_and_kept_as_a_scenario(folder):
    folder.write("till.py", TILL)
    folder.write("till.scenarios.toml", SCENARIOS)
    assert folder.aedifex("draft", "-q", "till.py", "-o", "till.design.toml").returncode == 0
    assert folder.aedifex("record", "-q", "till.scenarios.toml").returncode == 0
    same = folder.aedifex("check", "till.scenarios.toml", "--explore", "6", "--json")
    assert same.returncode == 0 and json.loads(same.stdout)["explored"]["scenario"] is None
    assert folder.aedifex("build", "-q", "--unchecked", "till.design.toml").returncode == 0
    at = next(p for p in folder.path.glob("*.py") if "-= n" in p.read_text())
    at.write_text(at.read_text().replace("-= n", "-= n + 1"))
    assert folder.aedifex("check", "-q", "till.scenarios.toml").returncode == 0, "no scenario runs it"
    found = folder.aedifex("check", "till.scenarios.toml", "--explore", "60", "--json")
    assert found.returncode == 1 and json.loads(found.stdout)["explored"]["scenario"]
    assert "refund" in folder.read("till.scenarios.toml").removeprefix(SCENARIOS)
    assert folder.aedifex("check", "-q", "till.scenarios.toml").returncode == 1, "it is a scenario from now on"


def test_what_moves_and_no_scenario_runs_is_said_and_strict_makes_no_class_of_it(folder):
    folder.write("till.py", TILL)
    folder.write("till.scenarios.toml", SCENARIOS)
    assert folder.aedifex("draft", "-q", "till.py", "-o", "till.design.toml").returncode == 0
    assert folder.aedifex("record", "-q", "till.scenarios.toml").returncode == 0
    seen = json.loads(folder.aedifex("preview", "till.design.toml", "--json").stdout)["reach"]
    assert seen["moving"] > seen["reached"] and "refund" in {s["name"] for s in seen["never"]}
    strict = folder.aedifex("build", "till.design.toml", "--strict", "--dry-run")
    loose = folder.aedifex("build", "till.design.toml", "--dry-run")
    assert "refund" in loose.stdout and "refund" in strict.stdout + strict.stderr
    assert (loose.returncode, strict.returncode) == (0, 1)
    assert folder.aedifex("build", "till.design.toml", "--strict", "--unchecked").returncode == 2
