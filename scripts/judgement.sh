#!/usr/bin/env bash
# Holds what Jantel judges of real programs against what was written down by
# hand before it was run (scripts/judgement/labels). Trees are fetched from the
# package sources this machine is set up with, and kept in $JUDGEMENT_TREES;
# one that can not be had is left out, and said so.
#
#   scripts/judgement.sh [-locked] [-misses N] [KIND]…
set -euo pipefail
cd "$(dirname "$0")/.."
trees=${JUDGEMENT_TREES:-${TMPDIR:-/tmp}/jantel-judgement}
labels=scripts/judgement/labels
options=()
while [[ ${1:-} == -* ]]; do
  options+=("$1")
  if [ "$1" = -misses ]; then options+=("$2"); shift; fi
  shift
done
files=()
for kind in ${*:-origin roles entries features purposes cut patterns}; do files+=("$labels/$kind.txt"); done
mkdir -p "$trees/.apt/lists/partial" "$trees/.apt/cache/archives/partial"
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT

# Sources of packages are asked for beside the programs this machine may
# install, without a change to how it is set up.
apt_sources() {
  local list=/etc/apt/sources.list.d/debian.sources own=$trees/.apt
  [ -f "$own/apt.conf" ] && return
  [ -f "$list" ] || return
  sed 's/^Types:.*/Types: deb deb-src/' "$list" > "$own/all.sources"
  printf 'Dir::Etc::SourceList "%s/all.sources";\nDir::Etc::SourceParts "-";\nDir::State::Lists "%s/lists";\nDir::Cache "%s/cache";\nAPT::Sandbox::User "root";\n' \
    "$own" "$own" "$own" > "$own/apt.conf"
  APT_CONFIG=$own/apt.conf apt-get update -qq >/dev/null 2>&1 || rm -f "$own/apt.conf"
}

fetch() { # kind name into
  local at=$work/$2
  mkdir -p "$at"
  case $1 in
    apt)
      apt_sources
      (cd "$at" && APT_CONFIG=$trees/.apt/apt.conf apt-get source --download-only -qq "$2" && dpkg-source --no-check -x ./*.dsc tree) >/dev/null 2>&1
      rm -rf "$at/tree/debian" "$at/tree/.pc"
      ;;
    deb) # the files of a package that carries source, and where its code lies
      local package=$2 below=
      case $2 in
        hyperkitty) package=python3-django-hyperkitty below=usr/lib/python3/dist-packages/hyperkitty ;;
        gajim) below=usr/lib/python3/dist-packages/gajim ;;
        backuppc) below=usr/share/backuppc ;;
      esac
      (cd "$at" && apt-get download -qq "$package" && dpkg -x ./*.deb files && mv "files/$below" tree) >/dev/null 2>&1
      ;;
    npm)
      (cd "$at" && npm pack "$2" --ignore-scripts --silent && mkdir tree && tar -xzf ./*.tgz -C tree --strip-components=1 --no-same-owner) >/dev/null 2>&1
      ;;
    go)
      local dir
      dir=$(cd "$at" && GOFLAGS=-mod=mod go mod download -json "${2//_//}" 2>/dev/null | sed -n 's/.*"Dir": "\(.*\)".*/\1/p')
      cp -r "$dir" "$at/tree" && chmod -R u+w "$at/tree"
      ;;
  esac
  mv "$at/tree" "$3"
}

cut -f1 "${files[@]}" | grep -v '^#' | grep . | sort -u | while read -r kind name; do
  [ -e "$trees/$kind $name" ] || fetch "$kind" "$name" "$trees/$kind $name" 2>/dev/null || echo "left out: $kind $name can not be fetched"
done
go build -o "$work/judgement" ./scripts/judgement
"$work/judgement" "${options[@]}" -small scripts/judgement/small
"$work/judgement" -jantel bin/jantel "${options[@]}" "$trees" "${files[@]}"
