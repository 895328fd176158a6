# One shop into an open file, from such a file, or deleted for good: where the environment says (as for serve), else in the demo.
. scripts/common.sh
. scripts/database.sh
manage_installation archive "$@"
