# The demo: everything set up, a private database, made-up data, one address to log in at.
. scripts/common.sh
. scripts/setup.sh
. scripts/database.sh
begun=$SECONDS
fresh=""
case "${1:-}" in
  "") ;;
  --fresh) fresh=yes ;;
  *) fail "demo knows only --fresh, not $1." ;;
esac

name=${LUMVEK_INSTANCE:-demo} # another one has a database, an address and a desk of its own
running=$(cat "$STATE/$name/run" 2>/dev/null || true)
if [ -n "$running" ] && kill -0 "${running%% *}" 2>/dev/null; then
  fail "the demo is running already at ${running#* }; stop that one first with Ctrl-C."
fi

say "Lumvek demo"
room 700
setup_system $PACKAGES_RUN
setup_python app
setup_web
instance "$name" demo
# The same address as before: what waits in a browser belongs to it.
end_leftovers "$STATE/$name/pids" gunicorn supplier_desk
server="" desk=""
stop() {
  trap - EXIT INT TERM
  [ -z "$desk" ] || kill "$desk" 2>/dev/null || true
  [ -z "$server" ] || { kill "$server" 2>/dev/null && wait "$server" 2>/dev/null; } || true
  db_stop
  rm -f "$STATE/$name/run" "$STATE/$name/pids"
  say "Stopped."
}
trap stop EXIT
trap 'exit 0' INT TERM

export LUMVEK_MODE=demo LUMVEK_DB_NAME=lumvek LUMVEK_BACKUPS=$STATE/$name/backups PYTHONPATH=core:server
schema=$(find server -path '*/migrations/*.py' -print0 | sort -z | xargs -0 cat | sha256sum | cut -c1-20)
make_tables() { step "Tables" migrate .venv/bin/python server/manage.py upgrade || fail "the tables could not be made; .lumvek/logs/migrate.log says why."; }

if [ -n "$fresh" ] || [ ! -d "$DATA" ]; then
  # Built aside without waiting for the disk, and put in place only when it is whole: a broken-off set-up leaves nothing behind.
  db_stop
  rm -rf "$DATA" "$DATA.building" "$STATE/$name/desk.json"
  DATA=$DATA.building
  db_init
  db_start "$RELAXED"
  sql -e 'CREATE DATABASE lumvek CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci'
  db_allow lumvek
  make_tables
  step "Demo data" demo-data .venv/bin/python server/manage.py load_demo || fail "the demo data could not be loaded; .lumvek/logs/demo-data.log says why."
  db_stop
  printf '%s' "$schema" >"$DATA/schema"
  sync -f "$DATA/schema"
  mv "$DATA" "${DATA%.building}"
  DATA=${DATA%.building}
fi
db_start "$DURABLE"
if [ "$(cat "$DATA/schema" 2>/dev/null)" != "$schema" ]; then
  make_tables
  printf '%s' "$schema" >"$DATA/schema"
fi

# The simulated suppliers' desk: it stands for the suppliers, and keeps its orders in a file of its own.
answers() { python3 -c 'import sys, urllib.request; urllib.request.urlopen(sys.argv[1], timeout=2)' "$1" 2>/dev/null; }
desk_port=8460
for _ in 1 2 3; do
  desk_port=$(free_port "$desk_port")
  setsid .venv/bin/python server/manage.py supplier_desk --port "$desk_port" --state "$STATE/$name/desk.json" </dev/null >"$LOGS/desk.log" 2>&1 &
  desk=$!
  for _ in $(seq 100); do answers "http://127.0.0.1:$desk_port/health" && break 2; kill -0 "$desk" 2>/dev/null || break; sleep 0.1; done
  # Somebody else took the port between looking and binding: the next one.
  kill "$desk" 2>/dev/null || true
  desk="" desk_port=$((desk_port + 1))
done
[ -n "$desk" ] || fail "the simulated suppliers' desk did not start; .lumvek/logs/desk.log says why."
export LUMVEK_DESK_URL="http://127.0.0.1:$desk_port" LUMVEK_TELEMATICS_URL="http://127.0.0.1:$desk_port/telematics"
export LUMVEK_FORECAST_URL="http://127.0.0.1:$desk_port/forecast"

wanted=${LUMVEK_PORT:-8420}
# What a kill has orphaned gives the port back within seconds; devices know this address, and keep by it what waits for it.
for _ in $(seq 200); do
  if port_free "$wanted" || ! grep -qs ":$wanted$" "$STATE/$name/run"; then break; fi
  sleep 0.1
done
port=$(free_port "$wanted")
[ "$port" = "$wanted" ] || say "  Port $wanted is in use by another program, so this runs on $port; LUMVEK_PORT chooses another."
setsid .venv/bin/gunicorn --config server/gunicorn.conf.py --bind "127.0.0.1:$port" --workers 2 --access-logfile "$LOGS/access.log" \
  --error-logfile "$LOGS/server.log" --capture-output </dev/null >/dev/null 2>&1 &
server=$!
printf '%s %s' "$server" "$desk" >"$STATE/$name/pids"
for _ in $(seq 150); do
  answers "http://127.0.0.1:$port/health" && break
  kill -0 "$server" 2>/dev/null || fail "the server did not start; .lumvek/logs/server.log says why."
  sleep 0.1
done
printf '%s http://127.0.0.1:%s' $$ "$port" >"$STATE/$name/run"

say ""
say "  Ready after $((SECONDS - begun)) s:  http://127.0.0.1:$port"
.venv/bin/python - <<'P'
import sys; sys.path.insert(0, "server")
from demo.people import EMPTY_SHOP, NEWCOMER, PASSWORD, PEOPLE
for person in PEOPLE:
    print(f"    log in as  {person.username:7} {PASSWORD}    {person.first} {person.last}, {person.role}")
print(f"    log in as  {NEWCOMER.username:7} {PASSWORD}    {NEWCOMER.first} {NEWCOMER.last}, lead of {EMPTY_SHOP}: an empty shop, to begin one")
P
say "  Ctrl-C stops it."
wait "$server" || fail "the server ended by itself; .lumvek/logs/server.log says why."
