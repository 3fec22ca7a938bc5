#!/usr/bin/env bash
# Compares what Jantel reads with what each language's own tools say, over
# trees not written here. A language whose tool is missing is left out, with
# the Debian package that has it. Trees are kept in $ACCURACY_TREES.
#
#   scripts/accuracy.sh [-misses N] [LANGUAGE]…
set -euo pipefail
cd "$(dirname "$0")/.."
trees=${ACCURACY_TREES:-${TMPDIR:-/tmp}/jantel-accuracy}
misses=0
if [ "${1:-}" = -misses ]; then misses=$2; shift 2; fi
wanted=${*:-go python typescript java php ruby perl go-calls typescript-calls java-calls}
mkdir -p "$trees"
tool=$(mktemp)
trap 'rm -f "$tool"' EXIT
go build -o "$tool" ./scripts/accuracy
compare() { "$tool" -misses "$misses" "$@"; }
needs() { command -v "$1" >/dev/null || { echo "left out: $1 is missing (Debian's $2)"; return 1; }; }
debian() { # package: its files, below $trees/debian/package
  local at=$trees/debian/$1
  [ -d "$at" ] && return
  (cd "$(mktemp -d)" && apt-get download -qq "$1" >/dev/null 2>&1 && mkdir -p "$at" && dpkg -x ./*.deb "$at") || { echo "left out: Debian's $1 can not be fetched"; return 1; }
}

for language in $wanted; do
  case $language in
    go)
      cache=$(go env GOMODCACHE)
      compare go "$(go env GOROOT)/src"
      for m in github.com/go-chi/chi/v5 github.com/yuin/goldmark gonum.org/v1/gonum github.com/klauspost/compress; do
        compare go "$(go list -m -f '{{.Dir}}' "$m")"
      done
      ;;
    python)
      needs python3 python3 || continue
      lib=$(python3 -c 'import sysconfig; print(sysconfig.get_path("stdlib"))')
      rm -rf "$trees/python" && mkdir -p "$trees/python"
      cp -r "$lib" "$trees/python/stdlib" && rm -rf "$trees/python/stdlib/site-packages" "$trees/python/stdlib/dist-packages" "$trees"/python/stdlib/config-*
      compare python "$trees/python/stdlib"
      for p in python3-docutils python3-sympy python3-flask python3-django python3-sphinx; do
        debian "$p" && compare python "$trees/debian/$p/usr/lib/python3/dist-packages"
      done
      ;;
    typescript)
      for p in @tanstack zod @types @zag-js react-router @ark-ui @chakra-ui; do
        rm -rf "$trees/npm" && mkdir -p "$trees/npm/node_modules" && cp -r "node_modules/$p" "$trees/npm/node_modules/"
        echo "$p"
        compare typescript "$trees/npm/node_modules"
      done
      ;;
    java)
      needs javac openjdk-17-jdk || continue
      zip=/usr/lib/jvm/openjdk-17/src.zip
      [ -f "$zip" ] || { echo "left out: $zip is missing (Debian's openjdk-17-source)"; continue; }
      [ -d "$trees/java" ] || (mkdir -p "$trees/java" && cd "$trees/java" && python3 -m zipfile -e "$zip" .)
      for m in java.net.http jdk.compiler java.xml java.desktop java.logging; do compare java "$trees/java/$m" "$m"; done
      ;;
    php)
      needs php php-cli || continue
      php -r 'require_once "PhpParser/autoload.php";' 2>/dev/null || { echo "left out: PHP's parser is missing (Debian's php-parser)"; continue; }
      for p in php-twig wordpress phpmyadmin php-doctrine-orm php-symfony-http-kernel php-symfony-form php-monolog; do
        debian "$p" && compare php "$trees/debian/$p"
      done
      ;;
    ruby)
      needs ruby ruby || continue
      compare ruby "$(ruby -e 'puts RbConfig::CONFIG["rubylibdir"]')"
      for p in ruby-activerecord ruby-activesupport ruby-rack ruby-thor; do
        debian "$p" && compare ruby "$trees/debian/$p/usr/share"
      done
      ;;
    perl)
      perl -MPPI -e 1 2>/dev/null || { echo "left out: Perl's document parser is missing (Debian's libppi-perl)"; continue; }
      for p in perl-modules-5.36 libmoose-perl libmojolicious-perl libcatalyst-perl libppi-perl libdbix-class-perl; do
        debian "$p" && compare perl "$trees/debian/$p"
      done
      ;;
    go-calls)
      # What a module needs is fetched by the go command, so each is checked in a copy.
      for m in github.com/go-chi/chi/v5 github.com/spf13/cobra; do
        at=$trees/go-calls/$(basename "$m")
        rm -rf "$at" && mkdir -p "$(dirname "$at")" && cp -r "$(go list -m -f '{{.Dir}}' "$m")" "$at" && chmod -R u+w "$at"
        compare go-calls "$at"
      done
      ;;
    typescript-calls)
      rm -rf "$trees/ts-calls" && mkdir -p "$trees/ts-calls"
      cp -r node_modules/@tanstack/query-core/src "$trees/ts-calls/query-core" && compare typescript-calls "$trees/ts-calls/query-core"
      cp -r web/src "$trees/ts-calls/interface" && compare typescript-calls "$trees/ts-calls/interface"
      ;;
    java-calls)
      needs javac openjdk-17-jdk || continue
      for m in java.net.http java.logging; do [ -d "$trees/java/$m" ] && compare java-calls "$trees/java/$m" "$m"; done
      ;;
    *) echo "there is no truth program for $language" >&2; exit 2 ;;
  esac
done
