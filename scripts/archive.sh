# One shop into an open file, from such a file, or deleted for good: of the installation that the environment names, else of the demo.
. scripts/common.sh
. scripts/database.sh
[ -x .venv/bin/python ] || fail "run ./lumvek demo or ./lumvek serve once first; they set up what this needs."
export PYTHONPATH=core:server
if [ -n "${LUMVEK_DB_PASSWORD:-}" ]; then
  export LUMVEK_MODE=serve
else
  instance demo demo
  [ -d "$DATA" ] || fail "there is no demo here, and LUMVEK_DB_PASSWORD is not set: there is nothing to keep. docs/deploy.md says more."
  export LUMVEK_MODE=demo LUMVEK_DB_NAME=lumvek
  db_answers || trap db_stop EXIT # it was not running: it ends with this
  db_start "$DURABLE"
fi
.venv/bin/python server/manage.py archive "$@"
