# Every test, from the core's worked examples to the real product in a browser.
. scripts/common.sh
. scripts/setup.sh
. scripts/database.sh
begun=$SECONDS
say "Lumvek tests"
setup_system $PACKAGES_RUN $PACKAGES_TEST
setup_python test
setup_web
instance test test
trap db_stop EXIT
db_init
db_start "$RELAXED"
db_allow 'test\_%'
export LUMVEK_MODE=test LUMVEK_DB_NAME=lumvek PYTHONPATH=core:server
if [ $# -gt 0 ]; then
  .venv/bin/pytest "$@"
  exit
fi

check() { step "$1" "check-$2" "${@:3}" || fail "$1: .lumvek/logs/check-$2.log has all of it."; }
check "Style (ruff)" ruff .venv/bin/ruff check core server e2e bench
check "Layout (ruff format)" format .venv/bin/ruff format --check core server e2e bench
check "Architecture (import-linter)" imports .venv/bin/lint-imports
check "Types (mypy)" mypy .venv/bin/mypy core server
check "Migrations" migrations .venv/bin/python server/manage.py makemigrations --check --dry-run
# Two runs: the browser's driver keeps an event loop in the main thread, in which Django refuses to touch its database.
say "  Core and server tests (pytest), the front end's beside them"
front_end() { npm --prefix web run lint && npm --prefix web run types && npm --prefix web test; }
front_end >"$LOGS/check-web.log" 2>&1 &
beside=$!
.venv/bin/pytest core server
wait "$beside" || { tail -n 30 "$LOGS/check-web.log" >&2; fail "Front end (eslint, vue-tsc, vitest): .lumvek/logs/check-web.log has all of it."; }
grep -E '^ +(Test Files|Tests) ' "$LOGS/check-web.log" | sed 's/\x1b\[[0-9;]*m//g' || true
say "  Browser tests (pytest, Chromium)"
.venv/bin/pytest e2e
say "All passed in $((SECONDS - begun)) s."
