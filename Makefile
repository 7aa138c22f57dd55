# Two commands on a fresh machine: `make demo` and `make test`.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
SITE := src/lyrandis/site/index.html
CHROMIUM := /usr/bin/chromium
ON := $(if $(PORT),--port $(PORT))
export UV_COMPILE_BYTECODE = 1
export VIRTUAL_ENV = $(CURDIR)/$(VENV)
unexport PYTHONDONTWRITEBYTECODE

.PHONY: demo serve test check bench mutants pictures api clean

demo: $(VENV)/.ready $(SITE)
	$(BIN)/lyrandis demo $(ON)

serve: $(VENV)/.ready $(SITE)
	$(BIN)/lyrandis serve $(ON)

$(VENV)/.ready: requirements.lock pyproject.toml
	test -x $(BIN)/python || $(PYTHON) -m venv $(VENV)
	$(BIN)/python -m pip install --quiet --disable-pip-version-check uv
	$(BIN)/uv pip install --quiet --require-hashes -r requirements.lock
	$(BIN)/uv pip install --quiet --no-deps -e .
	touch $@

web/node_modules/.ready: web/package.json web/package-lock.json
	cd web && npm ci --no-audit --no-fund --loglevel=error
	touch $@

$(SITE): web/node_modules/.ready $(shell find web/src web/static -type f) web/svelte.config.js web/vite.config.ts
	cd web && npm run --silent build
	touch $@

$(CHROMIUM):
	apt-get update -qq
	apt-get install -y -qq --no-install-recommends chromium

api: $(VENV)/.ready web/node_modules/.ready
	$(BIN)/lyrandis openapi docs/openapi.json
	cd web && npm run --silent api
	$(BIN)/python tests/web_answers.py

check: $(VENV)/.ready web/node_modules/.ready
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/lint-imports
	cd web && npm run --silent check
	cd web && npm run --silent lint
	cd web && npm run --silent format:check
	cd web && npm test --silent

test: $(CHROMIUM) check $(SITE)
	$(BIN)/python -m pytest -n 2 --dist loadfile

bench: $(VENV)/.ready
	$(BIN)/python bench/whole_rig.py
	$(BIN)/python bench/arrows.py
	$(BIN)/python bench/flex.py
	$(BIN)/python bench/aim.py
	$(BIN)/python bench/sound.py
	$(BIN)/python bench/serving.py
	$(BIN)/python bench/histories.py

# Small faults put into the numeric core, one at a time: about an hour. ARGS="--sample 300" tries some.
mutants: $(VENV)/.ready
	$(BIN)/python bench/mutants.py $(ARGS)

pictures: $(CHROMIUM) $(VENV)/.ready $(SITE)
	$(BIN)/python docs/screenshots/take.py
