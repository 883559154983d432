# Two commands do all: `make demo` builds, seeds and serves; `make test` runs every check.

LISTEN ?= 127.0.0.1:8420
DEMO_DB ?= target/demo.db

.PHONY: demo release test explore setup setup-browser web api shots bench bench-nest bench-plan bench-load bench-attacks bench-scale fmt

# The tests are built under clippy, where it is installed; the demo is, too, so that what the one has built the other uses.
export RUSTC_WORKSPACE_WRAPPER := $(shell command -v clippy-driver)

# The pages are made while all that the program rests on is compiled. They are done long before it holds them; were they not, the second build puts
# it right: what is in the program is watched by cargo.
demo:
	cargo build --locked & rust=$$!; $(MAKE) web && { wait $$rust || true; }
	cargo build --locked
	./target/debug/ready-slab serve --demo --db $(DEMO_DB) --listen $(LISTEN)

# One file to give away: optimised through and through, stripped, with the licences of all that is in it.
release: web
	RUSTC_WORKSPACE_WRAPPER= cargo build --release --locked
	scripts/licences > target/release/LICENCES.txt
	ls -l target/release/ready-slab target/release/LICENCES.txt

# Node packages of the front end; remade when the lock file changes.
web/node_modules/.installed: web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	touch $@

e2e/node_modules/.installed: e2e/package-lock.json
	cd e2e && npm ci --no-audit --no-fund
	touch $@

setup: web/node_modules/.installed e2e/node_modules/.installed

# Debian's Chromium without a window, for the journeys and the pictures; one that is there already will do where it cannot be had.
setup-browser:
	@command -v chromium-headless-shell >/dev/null || { \
	  if [ "$$(id -u)" = 0 ]; then SUDO=; else SUDO=sudo; fi; \
	  { $$SUDO apt-get update -qq && $$SUDO apt-get install -y -qq chromium-headless-shell >/dev/null; } || command -v chromium; }

web: web/node_modules/.installed
	cd web && npm run -s build

# The API's description and the browser's types, both made from the Rust types.
api:
	cargo run -q --locked -p ready-slab -- openapi > docs/openapi.json
	cd web && npm run -s api

# Each check by itself, so that what a change cannot touch is not run again after it (scripts/once; AGAIN=1 runs all).
RUST = Cargo.toml Cargo.lock .cargo crates demo docs/openapi.json
WEB = web docs/openapi.json

test: setup setup-browser
	cargo fmt --all --check
	node scripts/circles.mjs
	scripts/once web $(WEB) -- sh -c 'cd web && npm run -s format && npm run -s check && npm run -s lint && npm test'
	$(MAKE) web
	scripts/once rust $(RUST) $(WEB) scripts -- scripts/linted-tests
# The tests of the command line have built the program already; a plain build would unite features anew and take minutes.
	scripts/once api $(RUST) $(WEB) scripts -- sh scripts/check-api-drift
	scripts/once journeys $(RUST) $(WEB) e2e -- sh -c 'cd e2e && npx playwright test'

# Property tests with other cases each time, and more of them. What fails is kept beside the tests; the seed brings the run back.
explore:
	@seed=$${SEED:-$$(od -An -N6 -tu8 /dev/urandom | tr -d ' ')}; echo "SEED=$$seed"; \
	PROPTEST_RNG_SEED=$$seed PROPTEST_CASES=$${CASES:-2048} cargo test -p ready-slab-core --locked --no-fail-fast

shots: setup setup-browser web
	cargo build --locked
	cd e2e && node shots.mjs ../docs/screenshots

bench: setup setup-browser web
	cargo build --release --locked
	cargo build --release --locked -p ready-slab-core --example measure --example day
	cd e2e && node ../bench/run.mjs

# Our nesting beside a strip packer from PyPI, which is no part of the product: about half an hour on two cores.
bench-nest:
	cargo build --release --locked -p ready-slab-core --example nest
	python3 -m venv bench/.venv
	bench/.venv/bin/pip install -q -r bench/requirements.txt
	bench/.venv/bin/python bench/nest_against_reference.py target/release/examples/nest

# Our planner beside a general constraint solver from PyPI, which is no part of the product: about half an hour on two cores.
bench-plan:
	cargo build --release --locked
	python3 -m venv bench/.venv
	bench/.venv/bin/pip install -q -r bench/requirements.txt
	bench/.venv/bin/python bench/plan_against_reference.py target/release/ready-slab

# A plan quiet and under load; what small requests that ask for much cost; a small bakery beside ten years of a busy one.
bench-load bench-attacks: setup web
	cargo build --release --locked
	READY_SLAB_BIN=$(CURDIR)/target/release/ready-slab node bench/$(@:bench-%=%).mjs

bench-scale: web
	cargo build --release --locked
	python3 bench/scale.py target/release/ready-slab

fmt: setup
	cargo fmt --all
	cd web && npx prettier --log-level warn --write src vite.config.ts
