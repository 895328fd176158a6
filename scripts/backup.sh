# Keep everything in one file: of the shop that the environment names (as for serve), else of the demo.
. scripts/common.sh
. scripts/database.sh
manage_installation backup "$@"
