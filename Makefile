# make demo   install what is needed, build, start the app with the demo farm
# make test   install what the tests need, run all of them
# The rest are steps of these two, and helps for working on the code.

PORT ?= 8420
NPM := npm ci --no-fund --no-audit --loglevel=error
WEB_SOURCES := $(shell find web/src web/public locales -type f 2>/dev/null) web/index.html web/vite.config.ts web/package-lock.json

.PHONY: demo test check check-core check-web bench fuzz pictures types practice dist try-dist deps need need-chromium clean

demo: need web/dist/index.html
	cargo build --release --quiet
	@mkdir -p data
	./target/release/zymarch demo --data data/demo.sqlite --port $(PORT) $(if $(KEEP),--keep)

test: need need-chromium web/dist/index.html e2e/node_modules/.package-lock.json
	cargo test --workspace

# Formatting, lints and types; warnings are errors.
check: check-core check-web

check-core: need web/dist/index.html
	cargo fmt --all --check
	cargo clippy --workspace --all-targets --quiet -- -D warnings

check-web: need web/node_modules/.package-lock.json e2e/node_modules/.package-lock.json
	cd web && npm run --silent check
	cd e2e && npx --no-install tsc --noEmit

# Speed of the sums, of the server over a small and a full farm, and of its pages in a browser.
bench: need need-chromium web/dist/index.html e2e/node_modules/.package-lock.json
	cargo bench -p zymarch-core
	cargo bench -p zymarch-farm --bench tick
	cargo bench -p zymarch-farm --bench today
	cargo bench -p zymarch-farm --bench worst
	cargo build --release --quiet
	cargo bench -p zymarch --bench served

# Every operation of the API asked wildly, every parser given mutated documents; some minutes.
fuzz: need web/dist/index.html
	./tools/fuzz $(SECONDS) $(EXAMPLES)

# The pictures of docs/screenshots, from the demo farm.
pictures: need need-chromium web/dist/index.html e2e/node_modules/.package-lock.json
	cargo build --release --quiet
	./e2e/pictures.sh

# The API's description and the web client's types, after a change of the API.
types: need web/node_modules/.package-lock.json
	cargo run --quiet -- openapi > web/src/api/openapi.json
	cd web && npm run --silent types
	for format in recipe mix working test formulate confidence thumb correct say heat hygiene diagnose apply; do cargo run --quiet -- schema zymarch-$$format/1 > docs/schemas/zymarch-$$format-1.json; done

# How mixes of practice are judged, after a change of a rule or a material.
practice:
	cargo run --quiet -p zymarch-farm --example practice > docs/practice.md.new && mv docs/practice.md.new docs/practice.md

# One archive and one Debian package for this kind of machine.
dist: need web/dist/index.html target/tools/bin/cargo-deb
	cargo build --release --quiet
	./tools/dist

# The package installed into a clean Debian folder, used there, updated, and taken away; as root.
try-dist: dist
	./tools/try-dist

target/tools/bin/cargo-deb:
	cargo install cargo-deb --version 3.8.0 --locked --quiet --root target/tools

deps: web/node_modules/.package-lock.json e2e/node_modules/.package-lock.json

web/dist/index.html: web/node_modules/.package-lock.json $(WEB_SOURCES)
	cd web && npm run --silent build -- --logLevel warn

web/node_modules/.package-lock.json: web/package-lock.json
	cd web && $(NPM)
	@touch $@

e2e/node_modules/.package-lock.json: e2e/package-lock.json
	cd e2e && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 $(NPM)
	@touch $@

need:
	@./tools/need cargo node npm

need-chromium:
	@./tools/need chromium

clean:
	cargo clean
	rm -rf web/dist web/node_modules e2e/node_modules e2e/test-results data
