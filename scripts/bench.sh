# Figures as ratios, on an instance of its own with durable settings.
. scripts/common.sh
. scripts/setup.sh
. scripts/database.sh
setup_system $PACKAGES_RUN $PACKAGES_TEST
setup_python test
setup_web
instance bench test
db_stop
rm -rf "$DATA"
server=""
trap '[ -z "$server" ] || kill "$server" 2>/dev/null || true; db_stop' EXIT
db_init
db_start "$RELAXED"
sql -e 'CREATE DATABASE lumvek CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci'
db_allow lumvek
export LUMVEK_MODE=test LUMVEK_DB_NAME=lumvek PYTHONPATH=core:server
step "Tables and demo data" bench-data bash -c '.venv/bin/python server/manage.py migrate --no-input && .venv/bin/python server/manage.py load_demo'
step "Half a million readings" bench-many .venv/bin/python benchmarks/many_readings.py
tail -n 1 "$LOGS/bench-many.log"
db_stop
db_start "$DURABLE"
port=$(free_port 8820)
.venv/bin/gunicorn --config server/gunicorn.conf.py --bind "127.0.0.1:$port" --workers 2 >"$LOGS/bench-server.log" 2>&1 &
server=$!
.venv/bin/python benchmarks/slice.py "http://127.0.0.1:$port"
.venv/bin/python benchmarks/board.py "http://127.0.0.1:$port"
.venv/bin/python benchmarks/keystroke.py "http://127.0.0.1:$port"
.venv/bin/python benchmarks/neighbours.py "http://127.0.0.1:$port"
.venv/bin/python benchmarks/wear_forecast.py
.venv/bin/python benchmarks/sourcing.py
.venv/bin/python benchmarks/season_plan.py
