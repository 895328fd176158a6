"""./lumvek calc as a person at a shell meets it, and what the verdict path may import."""

import json
import subprocess
import sys
from pathlib import Path

import pytest

from lumvek_core import registry

ROOT = Path(__file__).resolve().parents[3]


def calc(*arguments, text=""):
    return subprocess.run([str(ROOT / "lumvek"), "calc", *arguments], input=text, capture_output=True, text=True, check=False)


def test_json_in_json_out():
    done = calc("chain_stretch", text='{"pitch_mm": 41.4, "pitches": 20, "measured_mm": 846}')
    assert done.returncode == 0
    assert json.loads(done.stdout)["stretch_pct"] == pytest.approx(2.1739, abs=5e-5)
    assert done.stderr == ""


@pytest.mark.parametrize(
    ("arguments", "text", "field"),
    [
        (["chain_stretch"], '{"pitch_mm": 0, "pitches": 20, "measured_mm": 846}', "pitch_mm"),
        (["wear_used"], '{"new": NaN, "limit": 1, "reading": 1}', "new"),
        (["wear_used"], '{"new": 1e999, "limit": 1, "reading": 1}', "new"),
        (["wear_used"], "not json", ""),
        (["wear_used"], "", ""),
        (["wear_used"], "[" * 20_000, ""),
        (["nothing_of_the_kind"], "{}", ""),
        (["wear_used", "too", "many"], "{}", ""),
    ],
)
def test_bad_input_is_one_object_on_stderr_and_exit_2(arguments, text, field):
    done = calc(*arguments, text=text)
    assert (done.returncode, done.stdout) == (2, "")
    error = json.loads(done.stderr)["error"]
    assert error["field"] == field
    assert error["message"]


def test_the_list_names_every_calculator():
    done = calc("--list")
    names = [line.split()[0] for line in done.stdout.splitlines()]
    assert names == sorted(registry.calculators())
    assert {"wear_used", "opener_contact", "source_parts", "posture_route"} <= set(names)
    assert all(len(line.split()) > 3 for line in done.stdout.splitlines())


SOURCING = {
    "start": "2026-11-28T13:10",
    "labour_rate": 60,
    "lines": [{"id": "1", "part": "D", "qty": 3, "need_by": "2026-12-01"}],
    "suppliers": [{"name": "Northmere Depot", "deliveries": [{"name": "van", "lead_days": 1, "cutoff": "15:00", "price": 18}]}],
    "offers": [{"supplier": "Northmere Depot", "part": "D", "unit_price": 48.9, "pack": 2, "stock": 20}],
}


def test_sourcing_speaks_json_on_the_command_line_as_everything_else():
    done = calc("source_parts", text=json.dumps(SOURCING))
    assert done.returncode == 0, done.stderr
    plans = json.loads(done.stdout)["plans"]
    assert [plan["kind"] for plan in plans] == ["cheapest", "surest", "quickest"]
    assert plans[0]["cost"]["total"] == 4 * 48.9 + 18 and plans[0]["last_arrival"] == "2026-12-01" and plans[0]["optimal"]
    wrong = calc("source_parts", text=json.dumps(SOURCING | {"lines": [{"id": "1", "part": "D", "qty": 0}]}))
    assert (wrong.returncode, json.loads(wrong.stderr)["error"]["field"]) == (2, "lines.0.qty")


def test_help_explains_one():
    assert "watch_from" in calc("--help", "wear_used").stdout


def test_the_verdict_path_needs_the_standard_library_only():
    """Run without site-packages: the same Python is to run in a browser one day."""
    program = (
        f"import sys; sys.path.insert(0, {str(ROOT / 'core')!r})\n"
        "import lumvek_core.registry, lumvek_core.units, lumvek_core.judgement.verdicts, lumvek_core.judgement.companions\n"
        "import lumvek_core.judgement.describe, lumvek_core.catalogue.in_force, lumvek_core.forecast.one_place\n"
        "lumvek_core.registry.calculators()\n"
        "print([name for name, module in sys.modules.items() if 'site-packages' in (getattr(module, '__file__', '') or '')])"
    )
    done = subprocess.run([sys.executable, "-I", "-S", "-c", program], capture_output=True, text=True, check=False)
    assert (done.stdout.strip(), done.stderr) == ("[]", "")
