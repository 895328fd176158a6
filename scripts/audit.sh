# Asks lists of known weaknesses about every package that is locked; where none is in reach it says so.
. scripts/common.sh
. scripts/setup.sh
[ -x .venv/bin/pip-audit ] || fail "run ./lumvek test once first, it installs what asks."
use_node
found=0
# asked NAME COMMAND…: what the list says; 1 where it names weaknesses, and a word where it cannot be asked.
asked() {
  local name=$1 log=$LOGS/audit.log; shift
  say "$name"
  if "$@" >"$log" 2>&1; then
    say "  No known weakness."
  elif grep -qiE 'found [0-9]+ known vulnerabilit|[0-9]+ (low|moderate|high|critical) severity|[0-9]+ vulnerabilit' "$log"; then
    sed 's/^/  /' "$log"
    found=1
  else
    say "  The list cannot be asked from here: nothing is known about these packages. .lumvek/logs/audit.log says why."
    cp "$log" "$LOGS/audit-${name%% *}.log"
  fi
}
asked "Python packages" .venv/bin/pip-audit --require-hashes --disable-pip --requirement requirements/test.txt
asked "Front-end packages" npm --prefix web audit --audit-level low
exit $found
