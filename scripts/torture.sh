# Faults while everything is under way, and what came of it: ./lumvek torture [--faults 1000] [--seed 17].
. scripts/common.sh
. scripts/setup.sh
setup_system $PACKAGES_RUN
setup_python app
setup_web
exec .venv/bin/python e2e/torture.py "$@"
