# Two commands do all the set-up on a fresh machine: make demo, make test.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin

.PHONY: demo test lint real-scripts benchmarks clean

$(VENV)/installed: pyproject.toml
	$(PYTHON) -m venv $(VENV)
	$(BIN)/python -m pip install --quiet --upgrade pip
	$(BIN)/python -m pip install --quiet --editable .
	touch $@

$(VENV)/installed-dev: $(VENV)/installed
	$(BIN)/python -m pip install --quiet --editable '.[dev]'
	touch $@

demo: $(VENV)/installed
	$(BIN)/aedifex demo

test: $(VENV)/installed-dev lint
	$(BIN)/python -m pytest

lint: $(VENV)/installed-dev
	$(BIN)/ruff check src tests benchmarks
	$(BIN)/mypy

real-scripts: $(VENV)/installed-dev
	$(BIN)/python benchmarks/real_scripts.py --write

benchmarks: $(VENV)/installed-dev
	$(BIN)/python benchmarks/speed.py

clean:
	rm -rf $(VENV) build *.egg-info src/*.egg-info
