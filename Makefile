# Level Run: `make demo` serves the demo, `make test` runs every test. Both set up what they need.
PY := .venv/bin/python
PORT ?= $(or $(LEVELRUN_PORT),8765)
DATA ?= demo-data
STAMPS := .make
WORKERS ?= 2
# What does not wait for each other is set up and checked side by side: most of it waits for the net or has one core.
MAKEFLAGS += --jobs=3
PYSRC := $(shell find levelrun -name '*.py' -o -name '*.csv' -o -name '*.toml' -o -name '*.json' | grep -v web_dist)
WEBSRC := $(shell find web/src web/public -type f -not -name schema.d.ts) web/index.html web/vite.config.ts

.PHONY: demo test lint lint-python lint-web bench fuzz screenshots dev docs clean
.DELETE_ON_ERROR:

demo: $(STAMPS)/python $(STAMPS)/web
	.venv/bin/levelrun serve --demo --data $(DATA) --port $(PORT)

# Files of tests lie in memory where there is room; what was compiled is kept for the many processes of the tests.
ROOM := $(shell df --output=avail -m /dev/shm 2>/dev/null | tail -1)
test: export PYTEST_DEBUG_TEMPROOT = $(shell [ 0$(ROOM) -gt 2000 ] && echo /dev/shm || echo /tmp)
test: export PYTHONDONTWRITEBYTECODE =
test: $(STAMPS)/python-dev $(STAMPS)/web $(STAMPS)/chromium
	cd web && npx vitest run --reporter dot
	$(PY) -m pytest -n $(WORKERS) --dist worksteal

lint: lint-python lint-web

lint-python: $(STAMPS)/python-dev
	.venv/bin/ruff check levelrun tests
	.venv/bin/ruff format --check -q levelrun tests
	.venv/bin/mypy
	.venv/bin/lint-imports

lint-web: $(STAMPS)/web
	cd web && npx eslint src tests && npx prettier --check --log-level warn src tests && npx vue-tsc --noEmit

bench: $(STAMPS)/python-dev
	$(PY) -W ignore -m tests.bench

fuzz: $(STAMPS)/python-dev
	LEVELRUN_FUZZ=180 $(PY) -m pytest tests/api/test_fuzz.py tests/core/test_mends.py tests/core/test_kept_plans.py

screenshots: $(STAMPS)/python-dev $(STAMPS)/web $(STAMPS)/chromium
	$(PY) -m tests.screenshots

docs: $(STAMPS)/python
	.venv/bin/levelrun docs docs

dev: $(STAMPS)/python-dev $(STAMPS)/npm $(STAMPS)/types
	.venv/bin/levelrun serve --demo --data $(DATA) & cd web && npx vite

$(STAMPS)/venv:
	@mkdir -p $(STAMPS)
	python3 -m venv .venv
	@touch $@

$(STAMPS)/python: requirements.lock pyproject.toml | $(STAMPS)/venv
	.venv/bin/pip install -q --disable-pip-version-check -r requirements.lock
	.venv/bin/pip install -q --disable-pip-version-check --no-deps -e .
	@touch $@

$(STAMPS)/python-dev: requirements-dev.lock $(STAMPS)/python
	.venv/bin/pip install -q --disable-pip-version-check -r requirements-dev.lock
	@touch $@

$(STAMPS)/npm: web/package-lock.json | $(STAMPS)/venv
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

$(STAMPS)/types: $(STAMPS)/python $(STAMPS)/npm $(PYSRC)
	.venv/bin/levelrun openapi > web/openapi.json
	cd web && npx openapi-typescript openapi.json -o src/api/schema.d.ts
	@touch $@

$(STAMPS)/web: $(STAMPS)/types $(WEBSRC)
	cd web && npx vite build --logLevel warn
	@touch $@

$(STAMPS)/chromium: | $(STAMPS)/venv
	@command -v chromium-headless-shell >/dev/null || (apt-get update && \
	  (apt-get install -y --no-install-recommends chromium-headless-shell || \
	   apt-get install -y --no-install-recommends chromium))
	@touch $@

clean:
	rm -rf .venv $(STAMPS) web/node_modules levelrun/web_dist
