# Two commands do all the set-up on a fresh machine: make demo, make test.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin

# Each command that a test runs would compile all modules again: half of the time that it takes.
export PYTHONDONTWRITEBYTECODE :=

# What a change is most likely to break, in well under a minute.
FAST := tests/test_imports.py $(addprefix tests/,apply/test_messages.py apply/test_verify.py apply/test_several.py design/test_origin.py design/test_schema.py naming rewrites/test_adding.py\
    check/test_state.py planning/test_planning.py languages/test_toy.py)

.PHONY: demo test check tools lint real-scripts benchmarks faults clean

$(BIN)/python:
	$(PYTHON) -m venv $(VENV)

$(VENV)/installed: pyproject.toml | $(BIN)/python
	$(BIN)/python -m pip install --quiet --disable-pip-version-check --editable .
	touch $@

$(VENV)/installed-dev: pyproject.toml | $(BIN)/python
	$(BIN)/python -m pip install --quiet --disable-pip-version-check --editable '.[dev]'
	touch $@ $(VENV)/installed

demo: $(VENV)/installed
	$(BIN)/aedifex demo

# Types are checked beside the tests, which leave a part of the machine idle.
test: $(VENV)/installed-dev tools
	$(BIN)/ruff check src tests benchmarks
	$(BIN)/ruff format --check --quiet src tests
	@$(BIN)/mypy & TYPES=$$!; $(BIN)/python -m pytest --cover; TESTS=$$?; wait $$TYPES && exit $$TESTS

# A screen that nobody sees, the libraries for windows and what is drawn in them, a JDK, JUnit and Node: from Debian, where they are missing
# and can be installed.
tools:
	@WANTED=""; \
	command -v Xvfb >/dev/null || WANTED="$$WANTED xvfb"; \
	$(PYTHON) -c "import tkinter" 2>/dev/null || WANTED="$$WANTED python3-tk"; \
	ldconfig -p 2>/dev/null | grep -q libGL.so.1 || WANTED="$$WANTED libgl1 libgl1-mesa-dri"; \
	command -v javac >/dev/null || WANTED="$$WANTED default-jdk-headless"; \
	command -v node >/dev/null || WANTED="$$WANTED nodejs"; \
	test -e /usr/share/java/junit-platform-console-standalone.jar || WANTED="$$WANTED junit5"; \
	if [ -n "$$WANTED" ]; then \
	  SUDO=$$(test "$$(id -u)" = 0 || echo sudo -n); \
	  $$SUDO apt-get -qq update && $$SUDO apt-get -qq install -y --no-install-recommends $$WANTED >/dev/null || \
	  echo "$$WANTED cannot be installed here; the tests that need it will say so"; fi

check: lint
	$(BIN)/python -m pytest $(FAST)

lint: $(VENV)/installed-dev
	$(BIN)/ruff check src tests benchmarks
	$(BIN)/ruff format --check --quiet src tests
	$(BIN)/mypy

real-scripts: $(VENV)/installed-dev
	$(BIN)/python benchmarks/real_scripts.py --write

benchmarks: $(VENV)/installed-dev
	$(BIN)/python benchmarks/speed.py
	$(BIN)/python benchmarks/overhead.py

faults: $(VENV)/installed-dev
	$(BIN)/python benchmarks/faults.py --write

clean:
	rm -rf $(VENV) build *.egg-info src/*.egg-info
