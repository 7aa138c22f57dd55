# Two commands on a fresh machine: `make demo` and `make test`.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
SITE := src/lyrandis/site/index.html
CHROMIUM := /usr/bin/chromium-headless-shell
ON := $(if $(PORT),--port $(PORT))
export UV_COMPILE_BYTECODE = 1
export VIRTUAL_ENV = $(CURDIR)/$(VENV)
unexport PYTHONDONTWRITEBYTECODE

.PHONY: demo serve test check check-python lint-web types-web test-web bench mutants soundness pictures api

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
	cd web && npm ci --no-audit --no-fund --loglevel=error && npx --no-install svelte-kit sync
	touch $@

$(SITE): web/node_modules/.ready $(shell find web/src web/static -type f) web/svelte.config.js web/vite.config.ts
	cd web && npm run --silent build
	touch $@

$(CHROMIUM):
	apt-get update -qq
	apt-get install -y -qq --no-install-recommends chromium-headless-shell

# What is built from the server for the pages' tools: its document, their types, answers for their tests.
API := web/src/lib/api/schema.d.ts
ANSWERS := web/src/lib/tests/answers.ts
api: $(API) $(ANSWERS)

web/openapi.json: $(VENV)/.ready $(shell find src/lyrandis -name '*.py')
	$(BIN)/lyrandis openapi $@

$(API): web/openapi.json web/node_modules/.ready
	cd web && npm run --silent api >/dev/null
	touch $@

$(ANSWERS): web/openapi.json tests/web_answers.py
	$(BIN)/python tests/web_answers.py

check: check-python lint-web types-web test-web

check-python: $(VENV)/.ready
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/lint-imports
	! $(BIN)/vulture | grep -v "unused variable"

lint-web: web/node_modules/.ready $(API) $(ANSWERS)
	cd web && npx --no-install eslint .
	cd web && npm run --silent format:check
	cd web && npm run --silent unused

types-web: web/node_modules/.ready $(API) $(ANSWERS)
	cd web && npx --no-install svelte-kit sync
	cd web && npx --no-install svelte-check --tsconfig ./tsconfig.json --fail-on-warnings

test-web: web/node_modules/.ready $(API) $(ANSWERS)
	cd web && npx --no-install vitest run

# The checks of both languages and the build stand side by side; then each test goes to whoever is free.
test:
	$(MAKE) --jobs=3 --output-sync=target $(CHROMIUM) check $(SITE)
	$(BIN)/python -m pytest -n 2 --dist worksteal

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

# All worlds, rounds and kills that `make test` runs a fifth of: an hour. Writes docs/mechanics/soundness.md.
soundness: $(CHROMIUM) $(VENV)/.ready $(SITE)
	$(BIN)/python bench/soundness.py $(ARGS)

pictures: $(CHROMIUM) $(VENV)/.ready $(SITE)
	$(BIN)/python docs/screenshots/take.py
