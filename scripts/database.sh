# A private MariaDB: own data folder, own port on loopback, own socket, stopped with what started it.

# instance NAME: set the variables of the instance .lumvek/NAME and make its secrets once.
instance() {
  INSTANCE=$STATE/$1
  mkdir -p "$INSTANCE"
  # A socket's path may be about 100 letters long at most, and a project's path may be longer.
  SOCKET=/tmp/lumvek-$(id -u)-$(printf '%s' "$INSTANCE" | cksum | cut -d' ' -f1).sock
  if [ ! -s "$INSTANCE/secrets.env" ]; then
    printf 'LUMVEK_SECRET_KEY=%s-%s\nLUMVEK_DB_PASSWORD=%s-%s\n' "$2" "$(secret)" "$2" "$(secret)" >"$INSTANCE/secrets.new"
    mv "$INSTANCE/secrets.new" "$INSTANCE/secrets.env"
  fi
  set -a; . "$INSTANCE/secrets.env"; set +a
}
secret() { python3 -c 'import secrets; print(secrets.token_urlsafe(48))'; }

sql() { mariadb --no-defaults --socket="$SOCKET" --user="$(id -un)" --batch --skip-column-names "$@"; }
db_answers() { sql -e 'SELECT 1' >/dev/null 2>&1; }

# db_start DURABLE: initialise the instance if need be and start it; 1 flushes every commit, 2 once a second (tests).
db_start() {
  if [ ! -d "$INSTANCE/data" ]; then
    rm -rf "$INSTANCE/data.new"
    step "Database files" db-init mariadb-install-db --no-defaults --user="$(id -un)" --datadir="$INSTANCE/data.new" \
      --auth-root-authentication-method=socket --auth-root-socket-user="$(id -un)" --skip-test-db || fail "MariaDB could not be initialised; .lumvek/logs/db-init.log says why."
    mv "$INSTANCE/data.new" "$INSTANCE/data"
  fi
  if db_answers; then # left over from a start that was killed
    LUMVEK_DB_PORT=$(sql -e 'SELECT @@port')
  else
    LUMVEK_DB_PORT=$(free_port "${LUMVEK_DB_PORT:-8521}")
    setsid mariadbd --no-defaults --user="$(id -un)" --datadir="$INSTANCE/data" --socket="$SOCKET" --pid-file="$INSTANCE/db.pid" \
      --bind-address=127.0.0.1 --port="$LUMVEK_DB_PORT" --innodb-flush-log-at-trx-commit="$1" --sql-mode=STRICT_ALL_TABLES \
      --character-set-server=utf8mb4 --collation-server=utf8mb4_unicode_ci --skip-name-resolve --max-connections=60 \
      >"$LOGS/$(basename "$INSTANCE")-db.log" 2>&1 </dev/null &
    local tries=0
    until db_answers; do
      tries=$((tries + 1))
      [ $tries -lt 150 ] || fail "MariaDB did not start; $LOGS/$(basename "$INSTANCE")-db.log says why."
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
