# Setting up: Debian packages, Python packages, the built front end. Each step only when it is due.
# The server's core package is enough: we start our own instance, and no system-wide service is wanted.
PACKAGES_RUN="mariadb-server-core mariadb-client-core libmariadb-dev pkg-config gcc libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0"
PACKAGES_TEST="chromium-headless-shell nginx-light openssl"

missing_packages() {
  local package wanted="$*"
  python3 -c 'import ensurepip, venv' 2>/dev/null || wanted="$wanted python3-venv"
  python3 -c 'import sysconfig, pathlib, sys; sys.exit(not pathlib.Path(sysconfig.get_path("include"), "Python.h").exists())' || wanted="$wanted python3-dev"
  for package in $wanted; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' || printf '%s ' "$package"
  done
}

setup_system() {
  local missing root=""
  command -v dpkg-query >/dev/null || fail "this set-up is written for Debian 12; elsewhere install: $* and see docs/deploy.md."
  command -v python3 >/dev/null && python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))' || fail "Python 3.11 or newer is needed: apt-get install python3, then run this again."
  command -v npm >/dev/null || fail "Node.js 20 with npm is needed; install it, then run this again."
  [ "$(node -p 'process.versions.node.split(".")[0]')" -ge 20 ] || fail "Node.js 20 or newer is needed; this one is $(node --version)."
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

# setup_python app|test: test is app and more.
setup_python() {
  local mark; mark="$1 $(fingerprint "requirements/$1.txt") $(python3 --version)"
  if [ "$1" = app ] && stamped python "test $(fingerprint requirements/test.txt) $(python3 --version)"; then return 0; fi
  if stamped python "$mark" && [ -x .venv/bin/python ]; then return 0; fi
  step "Python packages" pip make_venv "$1" || fail "the Python packages could not be installed: is there a network? Run this again; what is done stays done."
  stamp python "$mark"
}

make_venv() {
  .venv/bin/python -c '' 2>/dev/null || { rm -rf .venv && python3 -m venv .venv; }
  [ -x .venv/bin/uv ] || .venv/bin/pip install --disable-pip-version-check --require-hashes -r requirements/tools.txt
  .venv/bin/uv pip sync --require-hashes requirements/tools.txt "requirements/$1.txt"
}

setup_web() {
  local mark
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
