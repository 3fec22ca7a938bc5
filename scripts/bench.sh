#!/usr/bin/env bash
# Measures the budgets; further folders may be named after make bench's own.
set -euo pipefail
cd "$(dirname "$0")/.."
exec go run ./scripts/bench "$@"
