#!/usr/bin/env bash
# Runs all tests: Go, the front end, and the real interface in a headless
# Chromium. The last line counts them together.
set -uo pipefail
cd "$(dirname "$0")/.."
log=$(mktemp -d)
trap 'rm -rf "$log"' EXIT
passed=0 failed=0

count() { # name, passed, failed, exit code
  passed=$((passed + $2)) failed=$((failed + $3))
  # A suite that breaks off, or runs nothing, has failed whatever it counted.
  if [ "$3" -eq 0 ] && { [ "$4" -ne 0 ] || [ "$2" -eq 0 ]; }; then
    failed=$((failed + 1))
    echo "$1 broke off (exit $4, $2 passed)"
  fi
}

echo "== lint"
if make --no-print-directory lint; then count lint 1 0 0; else count lint 0 1 1; fi

echo "== charter"
if bin/jantel check . --no-cache; then count charter 1 0 0; else count charter 0 1 1; fi

echo "== Go"
go test -json ./... >"$log/go.json" 2>"$log/go.err"
code=$?
node scripts/go-results.mjs "$log/go.json" "$log/go.count"
cat "$log/go.err"
read -r p f <"$log/go.count"
count Go "$p" "$f" $code

echo "== front end"
npm test -w web -- --reporter=default --reporter=json --outputFile="$log/web.json"
code=$?
read -r p f < <(node -p 'const r = JSON.parse(require("fs").readFileSync(process.argv[1])); `${r.numPassedTests} ${r.numFailedTests}`' "$log/web.json" 2>/dev/null || echo 0 0)
count "front end" "$p" "$f" $code

echo "== interface"
./scripts/chromium.sh
PLAYWRIGHT_JSON_OUTPUT_NAME="$log/e2e.json" npm test -w e2e -- --reporter=list,json
code=$?
read -r p f < <(node -p 'const s = JSON.parse(require("fs").readFileSync(process.argv[1])).stats; `${s.expected} ${s.unexpected + s.flaky}`' "$log/e2e.json" 2>/dev/null || echo 0 0)
count interface "$p" "$f" $code

echo "$passed passed, $failed failed"
[ "$failed" -eq 0 ]
