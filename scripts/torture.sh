# Faults while everything is under way, and what came of it: ./lumvek torture [--faults 1000] [--seed 17]; --upgrades: killed at every
# migration from every state that went out; --tabs 40: tabs killed and clocks set back without a signal.
case "${1:-}" in
  --upgrades) LUMVEK_BREAK_OFF=all exec bash scripts/test.sh server/keeping/tests/test_upgrade.py ;;
  --tabs) LUMVEK_TABS=${2:-40} LUMVEK_SEED=${LUMVEK_SEED:-$RANDOM} exec bash scripts/test.sh e2e/test_torture_tabs.py ;;
esac
. scripts/common.sh
. scripts/setup.sh
setup_system $PACKAGES_RUN
setup_python app
setup_web
exec .venv/bin/python e2e/torture.py "$@"
