# Every target does its own set-up; see the README for the two that matter.
SHELL := /bin/bash
.DEFAULT_GOAL := help
VERSION := $(shell git describe --always --dirty 2>/dev/null || echo dev)
GO_FILES := $(shell find cmd core internal web -name '*.go' -not -path '*/node_modules/*' 2>/dev/null) go.mod go.sum $(wildcard core/*/*.json) $(wildcard internal/*/*.json) $(wildcard internal/store/migrations/*) $(wildcard internal/export/fonts/*.ttf)
WEB_FILES := $(shell find web/src web/public -type f -not -name firescreen.wasm -not -name wasm_exec.js 2>/dev/null) web/index.html web/vite.config.ts web/tsconfig.json web/package.json $(wildcard internal/text/??.json)
export CGO_ENABLED ?= 0

.PHONY: help abuse package licences demo test dev build lint screenshots bench client browser fuzz fuzz-long sweep practice long formats mutants unit race e2e clean

help: ## this list
	@grep -hE '^[a-z-]+:.*## ' $(MAKEFILE_LIST) | sed -E 's/:.*## /\t/' | expand -t 14

demo: build ## set up and start with demo data
	@bin/coldember demo

build: bin/coldember ## the one binary, front end embedded

bin/coldember: web/dist/index.html $(GO_FILES)
	@tools/need go
	go build -trimpath -ldflags "-s -w -X main.version=$(VERSION)" -o $@ ./cmd/coldember

web/node_modules/.ready: web/package.json web/package-lock.json
	@tools/need node
	cd web && npm ci --no-audit --no-fund --loglevel=error --prefer-offline
	@touch $@

# the core's fold of a session, for the page
web/public/firescreen.wasm: cmd/firescreen/main.go $(shell find core -name '*.go' -not -name '*_test.go') $(wildcard core/*/*.json) go.mod
	@tools/need go
	GOOS=js GOARCH=wasm go build -trimpath -ldflags "-s -w" -o $@ ./cmd/firescreen
	cp "$$(go env GOROOT)/lib/wasm/wasm_exec.js" web/public/wasm_exec.js

web/dist/index.html: web/node_modules/.ready web/public/firescreen.wasm $(WEB_FILES)
	cd web && npx vite build --logLevel warn

package: build ## static binaries for every system, Debian packages, checksums: in dist/
	@tools/package $(VERSION)

dev: build ## the pages with live reload, over a demo server
	@tools/dev

client: ## the API document and the client made from it
	go run ./cmd/coldember openapi > docs/openapi.json
	go run ./cmd/coldember schema > docs/pattern.schema.json
	go run ./cmd/coldember schema shop > docs/shop.schema.json
	go run ./cmd/coldember schema session > docs/session.schema.json
	go run ./cmd/coldember schema piece > docs/piece.schema.json
	$(MAKE) web/node_modules/.ready
	cd web && npm run -s client

lint: web/node_modules/.ready ## vet, linters, formatting, types
	@tools/need go
	go vet ./...
	@out=$$(go run -modfile=tools/go.mod mvdan.cc/gofumpt -l cmd core internal e2e web/*.go); if [ -n "$$out" ]; then echo "gofumpt would change:"; echo "$$out"; exit 1; fi
	go run -modfile=tools/go.mod github.com/golangci/golangci-lint/v2/cmd/golangci-lint run --allow-parallel-runners ./...
	@go -C tools run ./licences -root .. | diff -q - docs/licences.md > /dev/null || { echo "docs/licences.md is stale, or terms are not known: run make licences"; exit 1; }
	cd web && npm run -s lint && npm run -s types

licences: web/node_modules/.ready ## list what is shipped, and under which terms
	go -C tools run ./licences -root .. > docs/licences.md

unit: web/dist/index.html ## Go and front-end tests without the browser
	RAPID_SEED=$${RAPID_SEED:-1} go test $$(go list ./... | grep -v /e2e)
	cd web && npm run -s test

race: ## the core and the server under the race detector
	CGO_ENABLED=1 go test -race -run Bands ./core/whatif
	CGO_ENABLED=1 go test -race -skip "Stockroom|StockIsEdited|EveryPaper" ./internal/server # those go one by one

formats: build ## every export read by programs that are not ours
	@tools/formats

e2e: build browser ## the real interface in a real browser
	go test -count=1 -timeout 20m ./e2e/...

browser:
	@tools/need browser

test: ## set up and run every test
	@tools/need go node browser paper cc
	$(MAKE) build
	@tools/fresh
	$(MAKE) lint
	$(MAKE) unit
	$(MAKE) race
	$(MAKE) e2e

screenshots: build browser ## one picture of each main view, from demo data
	@mkdir -p docs/screenshots
	go run ./e2e/shots -out docs/screenshots

bench: web/dist/index.html ## the figures, on this machine
	go test -run xxx -bench . -benchmem ./core/... ./internal/...
	$(MAKE) browser
	go test -run xxx -bench . -benchtime 1x ./e2e

long: ## whole plans at length: two thousand plausible and a thousand hostile requests, two thousand worlds, every paper of every piece
	LONG=1 go test -count=1 -timeout 30m -run 'RequestsAreAnswered|FourInFive|EveryPaper|CommandLineWrites' -v ./core/planner ./core/whatif ./internal/server ./cmd/coldember

sweep: ## even steps of eight figures over six pieces: a plot of each in sweep/
	SWEEP=$(CURDIR)/sweep go test -count=1 -run WithoutSteps -v ./core/planner

practice: ## what working smiths take, beside what is planned
	go test -count=1 -run TestPractice -v ./core/planner | grep -E 'heats|inside|ok|FAIL'

SEED ?= 1
SITES ?= 60
mutants: ## change the core at SITES places drawn by SEED, one at a time: which change do the tests notice?
	go -C tools run ./mutants -root .. -seed $(SEED) -sites $(SITES)

abuse: build browser ## hostile requests and files, many at once, a full disk, kills at any moment: all of it, some minutes
	ABUSE=long go test -count=1 -timeout 30m -v ./internal/abuse ./internal/store
	ABUSE=long go test -count=1 -timeout 30m -v -run 'Kill' ./e2e
	$(MAKE) fuzz N=10000000x M=1000000x

fuzz-long: ## properties on draws never seen before, a thousand of each, and the parsers for a minute
	RAPID_SEED=0 RAPID_CHECKS=1000 go test -count=1 -timeout 60m $$(grep -rl --include=*_test.go 'rapid.Check' core internal | xargs -n1 dirname | sort -u | sed 's,^,./,')
	$(MAKE) fuzz

# The readers of drawings shorten no find (1x): Go's fuzzer spends up to a minute on shortening each
# input that is new, and runs next to nothing else meanwhile; most of what a reader is given is new.
N ?= 60s
M ?= $(N)
fuzz: ## explore the parsers, each for a minute; or N inputs of figures and M of each file (N=10000000x M=1000000x)
	go test -run xxx -fuzz FuzzParse -fuzztime $(N) ./core/quantity
	go test -run xxx -fuzz FuzzFold -fuzztime $(M) ./core/session
	go test -run xxx -fuzz FuzzReadPattern -fuzztime $(M) ./internal/export
	go test -run xxx -fuzz FuzzReadCode -fuzztime $(M) ./internal/export
	go test -run xxx -fuzz FuzzReadRackCSV -fuzztime $(M) -fuzzminimizetime 1x ./internal/work
	go test -run xxx -fuzz FuzzReadShared -fuzztime $(M) -fuzzminimizetime 1x ./internal/work
	go test -run xxx -fuzz FuzzReadDXF -fuzztime $(M) -fuzzminimizetime 1x ./internal/drawing
	go test -run xxx -fuzz FuzzReadSVG -fuzztime $(M) -fuzzminimizetime 1x ./internal/drawing

clean: ## forget everything that was built
	rm -rf bin web/dist/* web/node_modules
	@cp web/public/.gitkeep web/dist/.gitkeep
