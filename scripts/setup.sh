# Setting up: Debian packages, Python packages, the built front end. Each step only when it is due.
# The server's core package is enough: we start our own instance, and no system-wide service is wanted.
PACKAGES_RUN="mariadb-server-core mariadb-client-core libmariadb-dev pkg-config gcc libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0"
PACKAGES_TEST="chromium-headless-shell nginx-light openssl git"

missing_packages() {
  local package wanted="$*"
  command -v python3 >/dev/null || wanted="python3 $wanted"
  python3 -c 'import ensurepip, venv' 2>/dev/null || wanted="$wanted python3-venv"
  python3 -c 'import sysconfig, pathlib, sys; sys.exit(not pathlib.Path(sysconfig.get_path("include"), "Python.h").exists())' 2>/dev/null || wanted="$wanted python3-dev"
  for package in $wanted; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' || printf '%s ' "$package"
  done
}

setup_system() {
  command -v dpkg-query >/dev/null || fail "this set-up is written for Debian 12 and 13; elsewhere install: python3 (3.11 or newer) with venv and headers, $* and see docs/deploy.md."
  install_missing "$@"
  python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))' || fail "Python 3.11 or newer is needed; this one is $(python3 --version)."
}

install_missing() {
  local missing root=""
  missing=$(missing_packages "$@")
  [ -n "${missing// /}" ] || return 0
  if [ "$(id -u)" != 0 ]; then
    command -v sudo >/dev/null && sudo -v || fail "these Debian packages are missing and this account may not install them. Ask for: sudo apt-get install -y --no-install-recommends $missing"
    root=sudo
  fi
  step "Debian packages ($missing)" apt install_packages "$root" $missing ||
    fail "the packages could not be installed: is there a network? Once there is, run this again, or install by hand: $missing"
}

install_packages() {
  local root=$1; shift
  $root apt-get update && DEBIAN_FRONTEND=noninteractive $root apt-get install -y --no-install-recommends "$@"
}

# Node.js builds the front end. The machine's is taken where it is new enough, else one of our own lies in the virtual environment.
NODE_FROM=22
node_of_the_machine() {
  local found; found=$(command -v node) || return 1
  case "$found" in "$STATE"/node/*) return 1 ;; esac
  command -v npm >/dev/null && [ "$(node -p 'process.versions.node.split(".")[0]' 2>/dev/null || echo 0)" -ge $NODE_FROM ]
}
use_node() {
  local tool
  node_of_the_machine && return 0
  mkdir -p "$STATE/node"
  for tool in node npm npx; do ln -sf "$PWD/.venv/bin/$tool" "$STATE/node/$tool"; done
  export PATH="$STATE/node:$PATH"
}

# setup_python app|test: test is app and more.
setup_python() {
  local mark of="$(python3 --version)" node=requirements/node.txt text="Python packages"
  if node_of_the_machine; then node=""; else text="$text, Node.js of our own among them (none here is $NODE_FROM or newer)"; fi
  mark="$1 $(fingerprint "requirements/$1.txt" $node) $of"
  if [ "$1" = app ] && stamped python "test $(fingerprint requirements/test.txt $node) $of"; then return 0; fi
  if stamped python "$mark" && [ -x .venv/bin/python ]; then return 0; fi
  step "$text" pip make_venv "$1" $node || fail "the Python packages could not be installed: is there a network? Run this again; what is done stays done."
  stamp python "$mark"
}

make_venv() {
  .venv/bin/python -c '' 2>/dev/null || { rm -rf .venv && python3 -m venv .venv; }
  [ -x .venv/bin/uv ] || .venv/bin/pip install --disable-pip-version-check --require-hashes -r requirements/tools.txt
  .venv/bin/uv pip sync --require-hashes requirements/tools.txt "requirements/$1.txt" ${2:-}
}

setup_web() {
  local mark
  use_node
  mark=$(fingerprint web/package-lock.json)
  if ! stamped npm "$mark" || [ ! -d web/node_modules ]; then
    step "Front-end packages" npm npm --prefix web ci --no-audit --no-fund || fail "the front-end packages could not be installed: is there a network? Run this again; what is done stays done."
    stamp npm "$mark"
  fi
  mark="$mark $(find web/src web/index.html web/vite.config.ts web/public -type f -print0 2>/dev/null | sort -z | xargs -0 cat | sha256sum | cut -c1-20)"
  if ! stamped web "$mark" || [ ! -f web/dist/index.html ]; then
    step "Front end" build npm --prefix web run build || fail "the front end could not be built; .lumvek/logs/build.log says why."
    stamp web "$mark"
  fi
}
