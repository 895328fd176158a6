# What a change is likely to break, in under a minute: style and types of what changed, and the tests that lie beside it.
# Sourced by scripts/test.sh, with its database.
# Changed is what differs from the last commit that was pushed, or from the one before this where nothing was pushed.
base=$(git rev-parse --verify --quiet '@{upstream}' 2>/dev/null || git rev-parse HEAD~1)
changed=$(git diff --name-only --diff-filter=d "$base"; git ls-files --others --exclude-standard)
touched() { grep -E "$1" <<<"$changed" || true; }

python=$(touched '\.py$')
[ -z "$python" ] || { .venv/bin/ruff check --quiet $python; .venv/bin/ruff format --check --quiet $python; .venv/bin/lint-imports >/dev/null; }
front=$(touched '^web/src/')
[ -z "$front" ] || { npm --prefix web run --silent layout; npm --prefix web run --silent types; npm --prefix web exec -- vitest run --root web --changed "$base" --passWithNoTests; }

# The tests beside each changed file; of the core and the catalogue, the worked examples that everything rests on.
paths=$(touched '^server/[a-z]+/' | cut -d/ -f1,2 | sort -u | while read -r app; do [ -d "$app/tests" ] && echo "$app/tests"; done || true)
[ -z "$(touched '^(core|catalogue)/')" ] || paths="$paths core/lumvek_core/tests"
if [ -n "${paths// /}" ]; then
  tables >"$LOGS/tables.log" 2>&1 || fail "Tables: .lumvek/logs/tables.log has all of it."
  .venv/bin/pytest $paths -n "$workers" --dist loadfile --reuse-db
fi
say "Quick look done; ./lumvek test has all of it."
