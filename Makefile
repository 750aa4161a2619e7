# Two commands do everything: `make demo` and `make test`. The rest are their parts.
PYTHON ?= $(shell command -v python3.11 || echo python3)
PORT ?= 8765
export PYTHON
# What was compiled once is not compiled again by each of the many processes that tests start.
unexport PYTHONDONTWRITEBYTECODE
# Studios that last for a test need no disk: each of their changes would wait for it.
export PYTEST_DEBUG_TEMPROOT := $(shell test -w /dev/shm && echo /dev/shm || echo $${TMPDIR:-/tmp})
VENV := .venv/bin
STAMPS := .stamps
SOURCES := $(shell find frontend/src frontend/public -type f 2>/dev/null)

.PHONY: setup demo run build dist check check-python check-pages checks-beside test test-pages test-sound search corpus told attack mutants fmt types words fonts lock bench by-hand truth shots e2e clean

demo: build ## Start with an invented studio; nothing is kept.
	@$(VENV)/ripresa serve --demo --port $(PORT)

run: build ## Start with your own data.
	@$(VENV)/ripresa serve --port $(PORT)

dist: build ## One file to install where there is neither Node nor this project: dist/ripresa-….whl
	$(VENV)/python -m tools.dist dist

setup: $(STAMPS)/dev $(STAMPS)/node

build: $(STAMPS)/python ripresa/web/static/index.html

check: setup build
	@$(MAKE) --no-print-directory -j2 check-python check-pages

check-python:
	$(VENV)/ruff check .
	$(VENV)/ruff format --check .
	$(VENV)/mypy
	$(VENV)/lint-imports

check-pages:
	cd frontend && npm run --silent lint && npm run --silent tsc
	$(VENV)/python -m tools.drift

test: setup build
	@GOAL=test tools/need.sh browser
	@tools/need.sh band
	@$(MAKE) --no-print-directory -j2 test-sound checks-beside
	$(VENV)/pytest -n 2 --dist worksteal --ignore tests/e2e --ignore tests/install
	# Three on two cores: a journey that is played waits for its music while another works.
	$(VENV)/pytest -n 3 --dist worksteal tests/install tests/e2e --ignore tests/e2e/test_sound.py

# What is recorded is held to the sample: only what makes way for it at once runs beside it.
test-sound:
	$(VENV)/pytest tests/e2e/test_sound.py

checks-beside:
	@nice -n 19 $(MAKE) --no-print-directory -j2 check-python test-pages

test-pages: check-pages
	cd frontend && npm run --silent test

e2e: setup build
	@GOAL=e2e tools/need.sh browser
	$(VENV)/pytest tests/e2e

fmt: setup
	$(VENV)/ruff check --fix --quiet . && $(VENV)/ruff format .
	cd frontend && npx biome check --write src

types: setup ## Make the API's description and its TypeScript types, and the drill file's schema, anew.
	$(VENV)/python -m tools.drift --write

search: setup ## Let the properties look for drills that break them, other ones each time; before a release.
	RIPRESA_SEARCH=1 $(VENV)/pytest -n 2 --dist worksteal -m hypothesis tests/core tests/formats tests/web

corpus: setup ## Draw the drills anew that the tests share, and write down what is said of them.
	$(VENV)/python -m tools.corpus --drills

told: setup ## Write down anew what is said, line by line, after a change that was meant to change it.
	$(VENV)/python -m tools.corpus

attack: setup build ## Attack the app for up to ten minutes: hostile requests and files, kills, full disks.
	$(VENV)/python -m tools.attack

mutants: setup ## Change the core a little, again and again, and see which changes no test notices.
	$(VENV)/python -m tools.mutants

words: setup ## Make the spoken words that ship, anew; needs Debian’s espeak-ng.
	@GOAL=words tools/need.sh voice
	$(VENV)/python -m tools.words

fonts: setup ## Make the fonts that paper is set in, anew, of those that the screen has.
	$(VENV)/python -m tools.fonts

bench: setup ## Time against size, as ratios in one run.
	$(VENV)/python -m tools.bench

by-hand: setup build ## How quick the app is to the hand: a browser types, starts and plays, slowed too; five minutes.
	@GOAL=by-hand tools/need.sh browser
	$(VENV)/python -m tools.by_hand

truth: setup ## How true the measuring and the listening are, where the truth is known; a quarter of an hour.
	@tools/need.sh large-band
	$(VENV)/python -m tools.truth
	$(VENV)/python -m tools.hearing

shots: setup build ## Take the pictures of docs/screenshots from the demo studio.
	@GOAL=shots tools/need.sh browser
	$(VENV)/python tools/shots.py

clean:
	rm -rf .venv $(STAMPS) frontend/node_modules ripresa/web/static ripresa/web/practice

# What is installed is what the lock files say, to the byte; `make lock` chooses anew within pyproject.toml.
PIP := $(VENV)/pip --quiet --disable-pip-version-check install
$(STAMPS)/python: pyproject.toml requirements/tools.txt requirements/run.txt
	@GOAL=demo tools/need.sh python
	@tools/need.sh speech
	@mkdir -p $(STAMPS)
	test -x $(VENV)/python || $(PYTHON) -m venv .venv
	$(PIP) --require-hashes -r requirements/tools.txt
	$(PIP) --require-hashes -r requirements/run.txt
	$(PIP) --no-deps --no-build-isolation -e .
	@touch $@

$(STAMPS)/dev: $(STAMPS)/python requirements/dev.txt
	$(PIP) --require-hashes -r requirements/dev.txt
	@touch $@

COMPILE := $(STAMPS)/lock/bin/pip-compile --quiet --upgrade --generate-hashes --allow-unsafe --strip-extras \
	--no-emit-index-url --no-emit-trusted-host --no-emit-options --no-header --annotation-style line
lock: ## Choose the versions of all Python packages anew, within the bounds of pyproject.toml.
	@mkdir -p $(STAMPS)
	$(PYTHON) -m venv $(STAMPS)/lock
	$(STAMPS)/lock/bin/pip --quiet --disable-pip-version-check install 'pip-tools>=7.6,<8'
	$(COMPILE) -o requirements/tools.txt requirements/tools.in
	$(COMPILE) -o requirements/run.txt pyproject.toml
	$(COMPILE) -c requirements/run.txt --extra dev -o requirements/dev.txt pyproject.toml

# `npm ci` refuses a lock without the optional packages of every platform; `npm install` keeps to the lock as well.
$(STAMPS)/node: frontend/package.json frontend/package-lock.json
	@GOAL=demo tools/need.sh node
	@mkdir -p $(STAMPS)
	cd frontend && npm install --no-audit --no-fund --loglevel=error
	@touch $@

ripresa/web/static/index.html: $(STAMPS)/node frontend/index.html frontend/vite.config.ts \
		frontend/practice.html frontend/vite.practice.config.ts $(SOURCES)
	cd frontend && npm run --silent build -- --logLevel warn
	@touch $@
