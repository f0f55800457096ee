# Epitrope. The two commands a newcomer needs: make demo, make test.

SHELL := /bin/bash
export CGO_ENABLED := 0
LINT := go tool -modfile=tools/go.mod golangci-lint
WEB := web/node_modules/.package-lock.json
ALONG := web/core/along.wasm
E2E := e2e/node_modules/.package-lock.json

.PHONY: demo test check crash bench screenshots generate build lint clean

demo: build ## Run it with demo data; prints the address and keeps running
	@scripts/demo.sh

build: bin/epitrope ## Build the one binary with the web application inside

bin/epitrope: web/dist/index.html $(shell find cmd core internal testdata -name '*.go' -o -name '*.sql' -o -name '*.json') go.mod go.sum
	go build -trimpath -o $@ ./cmd/epitrope

web/dist/index.html: $(WEB) $(ALONG) $(shell find web/src web/public -type f) web/index.html web/vite.config.ts web/finish.mjs
	rm -rf web/dist/assets
	cd web && npm run --silent build

# The core for devices that are away from the server.
$(ALONG): scripts/along.sh $(shell find cmd/along core internal/answers internal/pack internal/said internal/settings -name '*.go') go.mod
	scripts/along.sh web/core

# npm ci only where the lock file has changed, so that a second run needs no network.
$(WEB): web/package-lock.json
	cd web && npm ci --no-audit --no-fund --loglevel=error && touch ../$(WEB)

$(E2E): e2e/package-lock.json
	cd e2e && npm ci --no-audit --no-fund --loglevel=error && touch ../$(E2E)

test: build $(E2E) ## Everything: lint, types, Go, web and browser tests
	@scripts/test.sh

check: ## The long version of the tests, all or some: make check PARTS="circuits jobs"
	@scripts/check.sh $(PARTS)

crash: build ## Kill server and database 100 times under load: nothing acknowledged is lost or doubled
	@EPITROPE_KILLS=$${KILLS:-100} go test -count=1 -timeout 60m -v -run NothingAcknowledged ./internal/load

bench: build $(E2E) ## Speed: decisions, the screen, the first load
	@scripts/bench.sh

screenshots: build $(E2E) ## Renew docs/screenshots from the demo data
	@scripts/screenshots.sh

generate: $(WEB) ## Write the API's document, the schemas and the client's types
	mkdir -p docs/schema
	go run ./cmd/epitrope openapi > docs/openapi.json
	go run ./cmd/epitrope schema job > docs/schema/job.json
	go run ./cmd/epitrope schema plan > docs/schema/plan.json
	cd web && npm run --silent generate

lint: $(WEB) $(E2E) ## Linters and type checks alone
	$(LINT) run ./...
	cd web && npm run --silent lint && npm run --silent types
	cd e2e && npm run --silent types

clean:
	rm -rf bin web/core web/dist/assets web/dist/*.html web/dist/*.svg web/dist/*.json web/dist/sw.js
