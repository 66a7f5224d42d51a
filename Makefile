.DEFAULT_GOAL := help
.DELETE_ON_ERROR:
SHELL := /bin/bash
export CGO_ENABLED = 0
WEB_SOURCES := $(shell find web/src web/words web/scripts web/public web/*.html web/package-lock.json web/*.ts web/*.json -type f -not -path 'web/src/api/openapi.json' -not -path 'web/src/api/schema.d.ts' -not -path 'web/src/words/made/*')
GO_DIRS := cmd core demo internal letter mail server store studio words
GO_SOURCES := $(shell find $(GO_DIRS) web -name '*.go' -not -name '*_test.go' -not -path 'web/node_modules/*') $(shell find demo letter store -name '*.csv' -o -name '*.abc' -o -name '*.musicxml' -o -name '*.sql' -o -name 'letter.*' -o -name 'report.*') $(wildcard words/*.toml) core/activity/bank.txt go.mod go.sum

help: ## list the targets
	@awk -F ':.*## ' '/^[a-z-]+:.*## / {printf "  make %-12s %s\n", $$1, $$2}' Makefile

demo: bin/ladder ## run the demo studio; Ctrl-C stops it, the data is kept
	@./scripts/need.sh run
	@exec ./bin/ladder demo

demo-reset: ## forget the demo's data, so that the next demo starts over
	@flock -n .data/lock true 2>/dev/null || [ ! -e .data/lock ] || { echo "The demo is running; stop it first." >&2; exit 1; }
	rm -rf .data

test: ## run every check, and every test or a fixed sample of it
	@./scripts/need.sh test
	@$(MAKE) -s -j2 bin/ladder
	@./scripts/test.sh

full: staticcheck ## the same without samples, and lint: all windows, journeys, seeds and damaged files; takes an hour
	@./scripts/need.sh test
	LADDER_FULL=1 LADDER_YEARS=3 TIMEOUT=2h ./scripts/test.sh

quick: check ## the checks, and the unit tests of core and the front end
	cd web && npm run -s test
	go test -vet=off -short $$(go list ./core/... | grep -v -e /notation$$ -e /reading$$ -e /placement$$) ./web

PACKAGE ?= ./core/ladder

mutants: ## small wrong changes to PACKAGE, one at a time: those that no test notices live
	go run ./internal/mutants $(PACKAGE)

YEARS ?= 10

year: bin/ladder ## live nineteen students for forty weeks, YEARS seeds each, and print what held
	@./scripts/need.sh test
	LADDER_YEARS=$(YEARS) go test ./year -run TestAYear -v -count 1 -timeout 40m

HISTORIES ?= 10000

histories: bin/ladder ## HISTORIES random histories of several devices, for each thing that is saved as a whole; takes hours
	@./scripts/need.sh test
	LADDER_HISTORIES=$(HISTORIES) go test ./studio -run 'TestSeveralDevices|TestMergesForm' -v -count 1 -timeout 12h

dev: bin/ladder ## run the demo, reloading both ends on change
	@./scripts/need.sh run
	@./scripts/dev.sh

build: bin/ladder ## build the program with its front end into bin/ladder

check: bin/ladder ## formatting, vet, TypeScript check and front-end lint
	@test -z "$$(gofmt -l $(GO_DIRS) e2e year web/*.go)" || { gofmt -l $(GO_DIRS) e2e year web/*.go; exit 1; }
	go vet ./...
	cd web && npm run -s check && npm run -s lint

lint: check staticcheck ## check, and staticcheck, which looks at every library too

staticcheck: bin/ladder
	go tool staticcheck ./...

bench: bin/ladder ## print speed as ratios against yardsticks
	@./scripts/need.sh test
	@go test -p 1 -count 1 -run '^$$' -bench . -benchtime 1x ./studio ./core/notation ./core/exercise ./core/touch ./e2e | grep 'ratio\|exponent\|plan of'

faults: bin/ladder ## kill, cut, slow down, freeze and fill the program and its database, and print what was lost
	@./scripts/need.sh run
	go run ./internal/faults

cluster: bin/ladder ## the same of several copies on a cluster of three databases
	@./scripts/need.sh cluster
	go run ./internal/cluster

STUDIOS ?= 200
WEEKS ?= 72

load: bin/ladder ## print what a copy bears, with STUDIOS studios of twenty students and WEEKS lessons each (41 MB of disk a studio of 72)
	@./scripts/need.sh run
	go run ./internal/load -studios $(STUDIOS) -weeks $(WEEKS)

screenshots: bin/ladder ## take the pictures in docs/screenshots anew
	@./scripts/need.sh test
	LADDER_SCREENSHOTS=../docs/screenshots go test -count 1 -run TestScreenshots ./e2e

clean: ## remove what was built; the demo's data stays
	rm -rf bin web/node_modules web/dist/assets web/dist/*.html* web/dist/*.js* web/dist/mark.svg* web/src/api/openapi.json web/src/api/schema.d.ts web/src/words/made

# The API's description comes from the Go code, the front end's types from the
# description, its texts from the catalogues, the built front end goes into the program.
web/node_modules/.package-lock.json: web/package-lock.json
	@./scripts/need.sh run
	cd web && npm ci --no-fund --no-audit
	@touch $@

web/src/api/openapi.json: $(GO_SOURCES)
	go run ./cmd/ladder openapi > $@

web/src/api/schema.d.ts: web/src/api/openapi.json web/node_modules/.package-lock.json
	cd web && npm run -s types
	@touch $@

web/src/words/made/takes.ts: $(shell find web/words -name '*.json') web/scripts/words.mjs web/node_modules/.package-lock.json
	cd web && npm run -s words
	@touch $@

web/dist/index.html: $(WEB_SOURCES) web/src/api/schema.d.ts web/src/words/made/takes.ts
	cd web && npm run -s build
	@touch $@

bin/ladder: $(GO_SOURCES) web/dist/index.html
	go build -o $@ ./cmd/ladder

.PHONY: help demo demo-reset test full quick mutants year histories dev build check lint staticcheck bench faults cluster load screenshots clean
