# Write the API's description, the TypeScript types made from it, and the drawings of states. Run after changing an endpoint; a test fails until it is done.
set -euo pipefail
cd "$(dirname "$0")/.."
. scripts/common.sh
. scripts/setup.sh
use_node
export LUMVEK_MODE=test LUMVEK_SECRET_KEY=types LUMVEK_DB_PASSWORD=types PYTHONPATH=core:server
.venv/bin/python server/manage.py export_openapi_schema --api config.api.api --indent 1 --sorted --output web/src/api/openapi.json
npm --prefix web run --silent api
.venv/bin/python -m lumvek_core.vocabulary > web/src/api/vocabulary.ts
.venv/bin/python -m lumvek_core.looks > web/src/design/looks/looks.json
