# A private MariaDB: own data folder, own port on loopback, own socket, stopped with what started it.

# instance NAME: set the variables of the instance .lumvek/NAME and make its secrets once.
instance() {
  INSTANCE=$STATE/$1
  DATA=$INSTANCE/data
  mkdir -p "$INSTANCE/tmp"
  # A socket's path may be about 100 letters long at most, and a project's path may be longer.
  SOCKET=/tmp/lumvek-$(id -u)-$(printf '%s' "$INSTANCE" | cksum | cut -d' ' -f1).sock
  if [ ! -s "$INSTANCE/secrets.env" ]; then
    local made; made=$(mktemp "$INSTANCE/secrets.XXXXXX")
    printf 'LUMVEK_SECRET_KEY=%s-%s\nLUMVEK_DB_PASSWORD=%s-%s\n' "$2" "$(secret)" "$2" "$(secret)" >"$made"
    ln "$made" "$INSTANCE/secrets.env" 2>/dev/null || true # whoever was first; several make the same instance at once
    rm "$made"
  fi
  set -a; . "$INSTANCE/secrets.env"; set +a
}
secret() { python3 -c 'import secrets; print(secrets.token_urlsafe(48))'; }

sql() { mariadb --no-defaults --socket="$SOCKET" --user="$(id -un)" --batch --skip-column-names "$@"; }
db_answers() { sql -e 'SELECT 1' >/dev/null 2>&1; }

DURABLE="--innodb-flush-log-at-trx-commit=1"                                         # every commit is on the disk
RELAXED="--innodb-flush-log-at-trx-commit=0 --innodb-flush-method=nosync --sync-frm=0" # tests, and a first set-up that can be repeated

# db_init: initialise $DATA, if it is not there.
db_init() {
  [ ! -d "$DATA" ] || return 0
  rm -rf "$DATA.init"
  step "Database files" db-init mariadb-install-db --no-defaults --user="$(id -un)" --datadir="$DATA.init" --tmpdir="$INSTANCE/tmp" \
    --auth-root-authentication-method=socket --auth-root-socket-user="$(id -un)" --skip-test-db $RELAXED ||
    fail "MariaDB could not be initialised; .lumvek/logs/db-init.log says why."
  mv "$DATA.init" "$DATA"
}

# db_start OPTIONS: start MariaDB on $DATA; or take over one that a killed start has left running.
db_start() {
  local log tries=0
  # One whose folder was taken away and laid anew under it has nothing that belongs here.
  if db_answers && [ ! -s "$INSTANCE/db.pid" ]; then
    sql -e SHUTDOWN || true
    for _ in $(seq 150); do db_answers || break; sleep 0.1; done
  fi
  log=$LOGS/$(basename "$INSTANCE")-db.log
  if db_answers; then
    LUMVEK_DB_PORT=$(sql -e 'SELECT @@port')
  else
    LUMVEK_DB_PORT=$(free_port "${LUMVEK_DB_PORT:-8521}")
    setsid mariadbd --no-defaults --user="$(id -un)" --datadir="$DATA" --tmpdir="$INSTANCE/tmp" --socket="$SOCKET" --pid-file="$INSTANCE/db.pid" \
      --bind-address=127.0.0.1 --port="$LUMVEK_DB_PORT" --sql-mode=STRICT_ALL_TABLES --character-set-server=utf8mb4 \
      --collation-server=utf8mb4_unicode_ci --skip-name-resolve --max-connections=60 $1 >"$log" 2>&1 </dev/null &
    until db_answers; do
      tries=$((tries + 1))
      [ $tries -lt 300 ] || fail "MariaDB did not start; $log says why."
      sleep 0.1
    done
  fi
  export LUMVEK_DB_HOST=127.0.0.1 LUMVEK_DB_PORT LUMVEK_DB_USER=lumvek
}

# db_allow PATTERN: the application's own account, with rights on databases of that name only.
db_allow() {
  sql -e "CREATE USER IF NOT EXISTS lumvek@'127.0.0.1'; SET PASSWORD FOR lumvek@'127.0.0.1' = PASSWORD('$LUMVEK_DB_PASSWORD'); GRANT ALL ON \`$1\`.* TO lumvek@'127.0.0.1';"
}

db_stop() {
  local pid; pid=$(cat "$INSTANCE/db.pid" 2>/dev/null) || return 0
  kill "$pid" 2>/dev/null || return 0
  for _ in $(seq 150); do kill -0 "$pid" 2>/dev/null || return 0; sleep 0.1; done
  say "MariaDB is still writing; it will end by itself."
}

# What makes the tables; as long as it stays, tables that were laid once are copied.
tables_mark() { find server -path '*/migrations/*.py' -print0 | sort -z | xargs -0 cat requirements/app.txt | sha256sum | cut -c1-20; }

# tables_fill DATABASE: the tables in a new database of this instance, copied from its database test_tables.
tables_fill() {
  local mark table new="CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci"
  mark=$(tables_mark)
  if ! stamped tables "$mark" || ! sql test_tables -e 'SELECT 1 FROM django_migrations LIMIT 1' >/dev/null 2>&1; then
    sql -e "DROP DATABASE IF EXISTS test_tables; CREATE DATABASE test_tables $new"
    LUMVEK_DB_NAME=test_tables .venv/bin/python server/manage.py migrate --no-input || return 1
    stamp tables "$mark"
  fi
  {
    printf 'DROP DATABASE IF EXISTS %s; CREATE DATABASE %s %s; USE %s; SET FOREIGN_KEY_CHECKS = 0;\n' "$1" "$1" "$new" "$1"
    for table in $(sql test_tables -e 'SHOW TABLES'); do
      sql test_tables --raw -e "SHOW CREATE TABLE $table" | cut -f2-
      printf ';\nINSERT INTO %s SELECT * FROM test_tables.%s;\n' "$table" "$table"
    done
  } | sql
}

# demo_lay RUN: the demo, migrated and loaded in the instance browser-demo, once for all that say the same run.
demo_lay() (
  instance browser-demo test
  exec 9>"$INSTANCE/lock"
  flock 9
  [ "$(cat "$INSTANCE/run" 2>/dev/null)" != "$1" ] || exit 0
  db_stop
  rm -rf "$DATA" "$INSTANCE/run"
  export LUMVEK_MODE=test LUMVEK_DB_NAME=lumvek PYTHONPATH=core:server
  mark=$(tables_mark)
  if stamped demo-tables "$mark" && [ -d "$INSTANCE/tables" ]; then
    cp -r --reflink=auto "$INSTANCE/tables" "$DATA"
    db_start "$RELAXED" 9>&-
    db_allow lumvek
  else
    db_init
    db_start "$RELAXED" 9>&-
    sql -e 'CREATE DATABASE lumvek CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci'
    db_allow lumvek
    .venv/bin/python server/manage.py migrate --no-input || exit 1
    db_stop
    rm -rf "$INSTANCE/tables"
    cp -r --reflink=auto "$DATA" "$INSTANCE/tables"
    stamp demo-tables "$mark"
    db_start "$RELAXED" 9>&-
  fi
  .venv/bin/python server/manage.py load_demo || exit 1
  db_stop
  printf '%s' "$1" >"$INSTANCE/run"
)

# demo_copy: the data of this instance become a copy of it.
demo_copy() {
  local name; name=$(basename "$INSTANCE")
  rm -rf "$DATA"
  cp -r --reflink=auto "$STATE/browser-demo/data" "$DATA"
  cp "$STATE/browser-demo/secrets.env" "$INSTANCE/secrets.env"
  instance "$name" test
}

# Django of the installation that the environment names (as for serve), else of the demo, whose database is started for it.
manage_installation() {
  [ -x .venv/bin/python ] || fail "run ./lumvek demo or ./lumvek serve once first; they set up what this needs."
  export PYTHONPATH=core:server
  if [ -n "${LUMVEK_DB_PASSWORD:-}" ]; then
    export LUMVEK_MODE=serve
  else
    instance demo demo
    [ -d "$DATA" ] || fail "there is no demo here, and LUMVEK_DB_PASSWORD is not set: there is nothing to keep. docs/deploy.md says more."
    export LUMVEK_MODE=demo LUMVEK_DB_NAME=lumvek LUMVEK_BACKUPS=${LUMVEK_BACKUPS:-$INSTANCE/backups}
    db_answers || trap db_stop EXIT # it was not running: it ends with this
    db_start "$DURABLE"
    db_allow 'lumvek%' # a drill has a database beside
  fi
  .venv/bin/python server/manage.py "$@"
}
