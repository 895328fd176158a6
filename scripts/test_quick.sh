# What a change is likely to break, in under a minute: style and types of what changed, and the tests nearest to it, as many of them
# as there is time for (server/testing/quick_look.py). Sourced by scripts/test.sh, with its database.
# Changed is what differs from the last commit that was pushed, or from the one before this where nothing was pushed.
TESTS_BEGIN_WITHIN=38
base=$(git rev-parse --verify --quiet '@{upstream}' 2>/dev/null || git rev-parse HEAD~1)
changed=$(git diff --name-only --diff-filter=d "$base"; git ls-files --others --exclude-standard)
touched() { grep -E "$1" <<<"$changed" || true; }

python=$(touched '\.py$')
[ -z "$python" ] || { .venv/bin/ruff check --quiet $python; .venv/bin/ruff format --check --quiet $python; .venv/bin/lint-imports >/dev/null; }
front() {
  npm --prefix web run --silent layout && npm --prefix web run --silent types &&
    npm --prefix web exec -- vitest run --root web --changed "$base" --passWithNoTests
}
beside= failed=
[ -z "$(touched '^web/src/')" ] || { front >"$LOGS/quick-web.log" 2>&1 & beside=$!; }

nearest=$(.venv/bin/python -m testing.quick_look "$base")
if [ -n "$nearest" ]; then
  tables >"$LOGS/tables.log" 2>&1 || fail "Tables: .lumvek/logs/tables.log has all of it."
  left=$((TESTS_BEGIN_WITHIN - SECONDS + begun))
  .venv/bin/pytest $nearest -n "$workers" --dist loadfile --no-loadscope-reorder --reuse-db -p testing.quick_look \
    --within $((left > 10 ? left : 10)) || failed=yes
fi
if [ -n "$beside" ]; then
  wait "$beside" || { cat "$LOGS/quick-web.log"; fail "Front end: see above."; }
  vitest_said "$LOGS/quick-web.log"
fi
[ -z "$failed" ] || exit 1
say "Quick look done; ./lumvek test has all of it."
