# Shared by the scripts: talking to the person, remembering finished steps, finding ports.
set -euo pipefail
STATE=$PWD/.lumvek
LOGS=$STATE/logs
mkdir -p "$LOGS" "$STATE/stamps"
umask 077

say() { printf '%s\n' "$*"; }
fail() { printf 'lumvek: %s\n' "$*" >&2; exit 1; }

# step TEXT LOG COMMAND…: run with one line on screen and the rest in a log; on failure say where to look.
step() {
  local text=$1 log=$LOGS/$2.log begun=$SECONDS; shift 2
  printf '  %s …' "$text"
  if "$@" >"$log" 2>&1; then
    printf ' done (%s s)\n' $((SECONDS - begun))
  else
    printf ' failed\n'
    tail -n 12 "$log" | sed 's/^/    | /' >&2
    return 1
  fi
}

# Stamps remember what a step was done for, so that a changed lock file makes it due again and a broken-off one is repeated.
fingerprint() { cat "$@" | sha256sum | cut -c1-20; }
stamped() { [ "$(cat "$STATE/stamps/$1" 2>/dev/null)" = "$2" ]; }
stamp() { printf '%s' "$2" >"$STATE/stamps/$1"; }

port_free() {
  python3 -c 'import socket,sys; s=socket.socket(); s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1); s.bind(("127.0.0.1", int(sys.argv[1])))' "$1" 2>/dev/null
}
# free_port FIRST: the first free port from FIRST on.
free_port() {
  local port=$1
  while ! port_free "$port"; do
    port=$((port + 1))
    [ "$port" -lt $(($1 + 100)) ] || fail "no free port between $1 and $port; set LUMVEK_PORT to one that is free."
  done
  printf '%s' "$port"
}
