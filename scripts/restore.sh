# A new server from a backup: into the database that the environment names (as for serve), on which nobody works yet.
. scripts/common.sh
. scripts/setup.sh
[ $# -eq 1 ] || fail "say which file to restore."
setup_system $PACKAGES_RUN
setup_python app
[ -n "${LUMVEK_DB_PASSWORD:-}" ] || fail "LUMVEK_DB_PASSWORD is not set: docs/deploy.md lists what serve and restore need."
export LUMVEK_MODE=serve PYTHONPATH=core:server
exec .venv/bin/python server/manage.py restore "$1"
