# What every package that is installed says of its own licence; parts under the GPL stand first.
. scripts/common.sh
. scripts/setup.sh
[ -x .venv/bin/python ] || fail "run ./lumvek test or ./lumvek demo once first, they install what is listed here."
.venv/bin/python - <<'PYTHON'
from importlib.metadata import distributions

rows = []
for one in distributions():
    about = one.metadata
    classified = [line.split("::")[-1].strip() for line in about.get_all("Classifier") or [] if line.startswith("License ::")]
    said = about.get("License-Expression") or "; ".join(classified) or (about.get("License") or "not said").splitlines()[0]
    rows.append(("GPL" not in said.replace("LGPL", "") and "GNU General" not in said, about["Name"].lower(), one.version, said))
print("Python")
for _, name, version, said in sorted(rows):
    print(f"  {name} {version}: {said}")
PYTHON
say "Front end"
use_node
node -e '
const lock = require("./web/package-lock.json").packages
for (const [path, one] of Object.entries(lock)) if (path) console.log(`  ${path.replace(/^.*node_modules\//, "")} ${one.version}: ${one.license ?? "not said"}${one.dev ? " (to build and test only)" : ""}`)
' | sort -u
