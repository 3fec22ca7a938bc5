#!/usr/bin/env bash
# Makes sure that a Chromium is there for the tests that use the interface as
# a person would; on Debian it is installed when it is missing.
set -euo pipefail
if command -v chromium >/dev/null; then exit 0; fi
sudo=""
if [ "$(id -u)" -ne 0 ]; then
  command -v sudo >/dev/null || { echo "chromium is missing and only root can install it: apt-get install chromium" >&2; exit 1; }
  sudo=sudo
fi
command -v apt-get >/dev/null || { echo "chromium is missing; install it and run this again" >&2; exit 1; }
$sudo apt-get update -qq
DEBIAN_FRONTEND=noninteractive $sudo apt-get install -y -qq --no-install-recommends chromium >/dev/null
