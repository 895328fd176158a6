# The tables as this version wants them, without serving; --back: what was there before an upgrade that broke off.
. scripts/common.sh
. scripts/database.sh
manage_installation upgrade "$@"
