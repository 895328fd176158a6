# Write the locks anew from what requirements/*.in ask for: exact versions with hashes, nothing about where they came from.
# Versions that are locked stay; `scripts/relock.sh --upgrade` takes newer ones, `--upgrade-package NAME` one of them.
set -euo pipefail
cd "$(dirname "$0")/.."
for name in tools node app test; do
  .venv/bin/uv pip compile --quiet --python-version 3.11 --generate-hashes --no-emit-index-url --no-emit-find-links \
    --custom-compile-command "bash scripts/relock.sh" "$@" "requirements/$name.in" -o "requirements/$name.txt"
done
