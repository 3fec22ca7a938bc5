# The commands of the project; README.md says what each is for.
export CGO_ENABLED = 0
GO ?= go
SHELL := /bin/bash

.PHONY: build demo test bench profile accuracy judgement calibrate hostile screenshots lint types self clean

# Our own packages are compiled by what a survey calls most; the libraries are not,
# for to compile those once more would double the first build.
build: server/web/dist/index.html
	$(GO) build -trimpath -gcflags="jantel/...='-pgoprofile=$(CURDIR)/scripts/profile/calls.txt'" -ldflags "-s -w" -o bin/jantel ./cmd/jantel

# Anew from surveys of FOLDERS, when the code has moved on.
profile:
	$(GO) run ./scripts/profile bin/calls.pprof $(FOLDERS)
	$(GO) tool preprofile -i bin/calls.pprof -o scripts/profile/calls.txt

node_modules/.package-lock.json: package-lock.json
	npm ci

server/web/dist/index.html: node_modules/.package-lock.json $(shell find web/src web/public web/index.html web/vite.config.ts -type f 2>/dev/null)
	rm -rf server/web/dist/assets
	npm run build -w web

demo: build
	bin/jantel demo

# The types of the front end follow from the server's own description of its API.
types: node_modules/.package-lock.json
	$(GO) run ./cmd/jantel openapi > server/openapi.json
	npm run types -w web

lint: node_modules/.package-lock.json
	@test -z "$$(gofmt -l $$(git ls-files '*.go'))" || { echo "gofmt would change:"; gofmt -l $$(git ls-files '*.go'); exit 1; }
	$(GO) vet ./...
	$(GO) tool staticcheck ./...
	npm run check

test: build
	./scripts/test.sh

bench: build
	./scripts/bench.sh

# What a stranger may hand over, whole: `make test` runs a part of it.
hostile: build
	HOSTILE=1 $(GO) test -count=1 -timeout 60m ./hostile ./server ./core/syntax/languages

# What the languages' own tools say of real trees, beside what Jantel reads.
accuracy: build
	./scripts/accuracy.sh

# What was written down by hand of real programs, beside what Jantel judges.
judgement: build
	./scripts/judgement.sh

# Faults planted in clean trees and what only looks like them, rule by rule.
calibrate:
	@$(GO) test ./core/smells -count=1 -run Planted -v | sed -n 's/^ *planted_test.go:[0-9]*: //p'

screenshots: build
	./scripts/chromium.sh
	npm run screenshots -w e2e

# What Jantel has to say about itself.
self: build
	bin/jantel survey .

clean:
	rm -rf bin server/web/dist/assets server/web/dist/index.html e2e/results
