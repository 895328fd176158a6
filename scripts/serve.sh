# The real thing: no set-up of a database and no data of its own. Refuses demo secrets (server/config/settings.py).
. scripts/common.sh
. scripts/setup.sh
setup_system $PACKAGES_RUN
setup_python app
setup_web
export LUMVEK_MODE=serve PYTHONPATH=core:server
checked() { # what the settings themselves refuse, then what they stand on
  local problem
  problem=$(.venv/bin/python server/manage.py check --deploy --fail-level ERROR 2>&1) ||
    fail "$(printf '%s' "$problem" | tail -n 1 | sed 's/^.*ImproperlyConfigured: //')"
}
if [ "${1:-}" = --check ]; then
  say "Lumvek, before it serves"
  checked
  .venv/bin/python server/manage.py check_serving || fail "put right what is missing; docs/deploy.md says how."
  say "  It can serve."
  exit
fi
checked
.venv/bin/python server/manage.py upgrade 2>"$LOGS/upgrade.log" || fail "$(sed -n '$s/^CommandError: //p' "$LOGS/upgrade.log")"
key=$(.venv/bin/python server/manage.py set_up_key)
[ -z "$key" ] || say "  Nobody works here yet. Open the address below and type this key once: $key"
say "  Serving on ${LUMVEK_BIND:-127.0.0.1:${LUMVEK_PORT:-8420}}"
exec .venv/bin/gunicorn --config server/gunicorn.conf.py --bind "${LUMVEK_BIND:-127.0.0.1:${LUMVEK_PORT:-8420}}" \
  --workers "${LUMVEK_WORKERS:-3}" --access-logfile "$LOGS/access.log" --error-logfile -
