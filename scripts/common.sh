# Shared by the scripts: talking to the person, remembering finished steps, finding ports.
set -euo pipefail
STATE=$PWD/.lumvek
LOGS=$STATE/logs
umask 077
# What Python has compiled lies with the state, whatever the environment says: each start would compile 1,600 files again.
unset PYTHONDONTWRITEBYTECODE
export PYTHONPYCACHEPREFIX=$STATE/pycache

say() { printf '%s\n' "$*"; }
fail() { printf 'lumvek: %s\n' "$*" >&2; exit 1; }

mkdir -p "$LOGS" "$STATE/stamps" 2>/dev/null && [ -w "$LOGS" ] ||
  fail "$STATE cannot be written to: give this account the right to, or put Lumvek into a folder of its own."

# room MB: say so at once where there is less free than that, and not half-way through.
room() {
  local free; free=$(df -Pm "$STATE" | awk 'NR == 2 { print $4 }')
  [ "$free" -ge "$1" ] || fail "only $free MB are free at $STATE, and $1 MB are needed: make room, then run this again."
}

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

# end_leftovers FILE WORD…: end what a killed start has left running, so that its ports are free again. The file holds process
# numbers; only what still runs in this folder and has one of the words in its command is ended.
end_leftovers() {
  local pid word; local file=$1; shift
  for pid in $(cat "$file" 2>/dev/null); do
    case "$(readlink "/proc/$pid/cwd" 2>/dev/null)/" in "$PWD"/*) ;; *) continue ;; esac
    for word in "$@"; do
      tr '\0' ' ' <"/proc/$pid/cmdline" 2>/dev/null | grep -q -- "$word" || continue
      kill "$pid" 2>/dev/null || true
      for _ in $(seq 50); do kill -0 "$pid" 2>/dev/null || break; sleep 0.1; done
      kill -9 "$pid" 2>/dev/null || true
      break
    done
  done
  rm -f "$file"
}

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
