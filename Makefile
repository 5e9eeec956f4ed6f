# What people type: make demo, make test. The rest is for those who work on it.
SHELL := /bin/bash
.DEFAULT_GOAL := help
CHROMIUM := /usr/bin/chromium
PDFTOPPM := /usr/bin/pdftoppm
GO_FILES := $(shell find . -name '*.go' -not -path './web/node_modules/*' -not -path './internal/adhoc/*')
WEB_FILES := $(shell find web/src web/public web/scripts -type f) web/index.html web/vite.config.ts web/tsconfig.json web/package.json

.PHONY: help demo serve build test lint types check-types bench screenshots fuzz soak tools clean

help:
	@echo "make demo         install, build and start the app with demo cards and stand-ins"
	@echo "make test         install, lint, run every test, and every benchmark once"
	@echo "make serve        start the app with your own cards"
	@echo "make bench        run the benchmarks"
	@echo "make soak         run the long properties of the geometry (an hour or two)"
	@echo "make screenshots  make the pictures of the docs anew"
	@echo "make types        make the schema and the TypeScript types anew"

demo: bin/sectilis
	@bin/sectilis demo

serve: bin/sectilis
	@bin/sectilis serve

build: bin/sectilis

web/node_modules/.installed: web/package.json web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	@touch $@

web/dist/index.html: web/node_modules/.installed $(WEB_FILES)
	cd web && npm run --silent build -- --logLevel warn

bin/sectilis: web/dist/index.html $(GO_FILES) $(shell find core/document/lettering/fonts store/migrations -type f)
	go build -o $@ ./cmd/sectilis

# The types of the API follow from the Go structs.
types: web/node_modules/.installed
	go run ./cmd/sectilis schema > docs/api.schema.json
	cd web && npm run --silent types

check-types: web/node_modules/.installed
	@go run ./cmd/sectilis schema | diff -q - docs/api.schema.json > /dev/null || { echo "docs/api.schema.json is stale: run make types"; exit 1; }
	@cp web/src/api/types.ts web/node_modules/.types.before && cd web && npm run --silent types && \
	  cmp -s src/api/types.ts node_modules/.types.before || { echo "web/src/api/types.ts is stale: run make types"; exit 1; }

lint: web/dist/index.html check-types
	@test -z "$$(gofmt -l $(GO_FILES))" || { echo "not gofmt'd:"; gofmt -l $(GO_FILES); exit 1; }
	go vet ./...
	go tool depguard ./...
	go tool staticcheck ./...
	go mod tidy -diff
	go run ./internal/errdoc app core cmd demo device server store
	go tool gocognit -over 30 -test=false app core cmd demo device server store internal
	cd web && npm run --silent lint && npm run --silent check && node scripts/check-size.mjs

# What tests need of Debian: a browser, and readers of PDF and SVG to compare with.
tools:
	@test -x $(CHROMIUM) && test -x $(PDFTOPPM) && command -v rsvg-convert >/dev/null || { \
	  echo "Installing Chromium, Poppler and librsvg for the tests …"; \
	  if [ "$$(id -u)" = 0 ]; then apt-get update -qq && apt-get install -y -qq --no-install-recommends chromium poppler-utils librsvg2-bin; \
	  elif sudo -n true 2>/dev/null; then sudo apt-get update -qq && sudo apt-get install -y -qq --no-install-recommends chromium poppler-utils librsvg2-bin; \
	  else false; fi; } || { \
	  echo "Chromium, Poppler or librsvg is missing and may not be installed from here. Run:  sudo apt-get install chromium poppler-utils librsvg2-bin"; exit 1; }

test: web/dist/index.html tools lint
	cd web && npm run --silent test
	go test -timeout 30m ./...
	@echo "Every benchmark, once …"
	go test -run '^$$' -bench . -benchtime 1x ./...

bench: web/dist/index.html tools
	go test -run '^$$' -bench . -benchtime 1s ./...

# Each fuzz target for a short while; TIME=20m for long.
TIME ?= 20s
fuzz:
	@for p in $$(grep -rl --include='*_test.go' 'func Fuzz' core device); do \
	  for f in $$(grep -o 'func Fuzz[A-Za-z]*' $$p | cut -c6-); do \
	    echo "$$f in $$(dirname $$p)"; go test -run '^$$' -fuzz "^$$f$$" -fuzztime $(TIME) ./$$(dirname $$p) || exit 1; done; done

# The properties of the geometry on all their random cases.
soak:
	SOAK=1 go test -timeout 12h ./app ./core/ground/geom ./core/folding/fold ./core/format/... ./core/production/nest ./core/production/cut ./core/production/registration ./device/...

screenshots: web/dist/index.html tools
	go run ./internal/shots docs/screenshots

clean:
	rm -rf bin web/node_modules web/dist/assets web/dist/index.html web/dist/mark.svg
