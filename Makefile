# The commands of the project; README.md says what each is for.
export CGO_ENABLED = 0
GO ?= go
SHELL := /bin/bash

.PHONY: build demo test bench screenshots lint types self clean

build: server/web/dist/index.html
	$(GO) build -trimpath -ldflags "-s -w" -o bin/jantel ./cmd/jantel

web/node_modules/.package-lock.json: web/package-lock.json
	cd web && npm ci --no-audit --no-fund

server/web/dist/index.html: web/node_modules/.package-lock.json $(shell find web/src web/index.html web/vite.config.ts -type f 2>/dev/null)
	cd web && npm run build

demo: build
	bin/jantel demo

# The types of the front end follow from the server's own description of its API.
types: web/node_modules/.package-lock.json
	$(GO) run ./cmd/jantel openapi > server/openapi.json
	cd web && npm run types

lint: web/node_modules/.package-lock.json
	@test -z "$$(gofmt -l $$(git ls-files '*.go'))" || { echo "gofmt would change:"; gofmt -l $$(git ls-files '*.go'); exit 1; }
	$(GO) vet ./...
	$(GO) tool staticcheck ./...
	cd web && npx tsc --noEmit && npm run lint

test: build
	./scripts/test.sh

bench: build
	./scripts/bench.sh

screenshots: build
	./scripts/chromium.sh
	cd web && npx playwright test --config ../e2e/screenshots.config.ts

# What Jantel has to say about itself.
self: build
	bin/jantel survey .

clean:
	rm -rf bin server/web/dist/assets server/web/dist/index.html e2e/results
