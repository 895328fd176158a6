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
workers=$(nproc)
# Tables for the core and server tests' workers.
tables() {
  local worker
  for worker in $(seq 0 $((workers - 1))); do tables_fill "test_lumvek_gw$worker" || return 1; done
}
# vitest_said LOG: how many passed, without the colours.
vitest_said() { sed 's/\x1b\[[0-9;]*m//g' "$1" | grep -E '^ +(Test Files|Tests) ' || true; }
if [ "${1:-}" = --quick ]; then
  . scripts/test_quick.sh
  exit
elif [ $# -gt 0 ]; then
  .venv/bin/pytest "$@"
  exit
fi

# check NAME LOG COMMAND…: one line when it is done; several go on side by side.
check() {
  local name=$1 log=$LOGS/check-$2.log begun=$SECONDS
  if "${@:3}" >"$log" 2>&1; then
    say "  $name: done ($((SECONDS - begun)) s)"
  else
    tail -n 12 "$log" | sed 's/^/    | /' >&2
    fail "$name: .lumvek/logs/check-$2.log has all of it."
  fi
}
export LUMVEK_TEST_RUN=$$-$begun-$RANDOM
(
  set -e
  check "Tables" tables tables
  check "Style (ruff)" ruff .venv/bin/ruff check core server e2e benchmarks
  check "Layout (ruff format)" format .venv/bin/ruff format --check core server e2e benchmarks
  check "Architecture (import-linter)" imports .venv/bin/lint-imports
  check "Types (mypy)" mypy .venv/bin/mypy core server
  check "Migrations" migrations .venv/bin/python server/manage.py makemigrations --check --dry-run
  check "Demo for the browser tests" demo demo_lay "$LUMVEK_TEST_RUN"
) &
beside=$!
check "Front end: layout and style (prettier, eslint)" web-style bash -c 'npm --prefix web run layout && npm --prefix web run lint'
check "Front end: types (vue-tsc)" web-types npm --prefix web run types
check "Front end: tests (vitest)" web npm --prefix web test
vitest_said "$LOGS/check-web.log"
wait "$beside" || exit 1
# Each worker has a database of its own, and a file stays with one worker: what it stands on is laid once.
# Two runs: the browser's driver keeps an event loop in the main thread, in which Django refuses to touch its database.
say "  Core and server tests (pytest, $workers workers)"
.venv/bin/pytest core server -n "$workers" --dist loadfile --reuse-db --durations 10
# A product and its browser leave about half of two cores idle: as many of them as there are cores. Each test has the demo as it was
# loaded, so that any of them may go to whoever is free.
say "  Browser tests (pytest, Chromium, $workers products)"
.venv/bin/pytest e2e -n "$workers" --dist worksteal --durations 10
say "All passed in $((SECONDS - begun)) s."
