"""Fill the bench's database until it holds half a million readings: copies of a finished walk-around, verdicts and all, on 200
machines.

Run with Django set up, as scripts/bench.sh does. Copying happens inside the database, so it takes seconds and not an hour.
"""

import os
import sys
import uuid

sys.path[:0] = ["core", "server"]
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")

import django  # noqa: E402

django.setup()

from django.db import connection  # noqa: E402

from fleet.models import Machine  # noqa: E402
from inspection.models import Reading, Verdict, WalkAround  # noqa: E402

WANTED, MACHINES = 500_000, 200


def columns(model: type, *but: str) -> list[str]:
    """The columns of a table, but for its number and those that a copy gets anew."""
    return [field.column for field in model._meta.concrete_fields if field.column not in ("id", *but)]


READING = columns(Reading, "uuid", "walk_around_id", "replaces_id")
VERDICT = columns(Verdict, "walk_around_id", "reading_id", "overtaken_id")


def main() -> None:
    source = max(WalkAround.objects.filter(finished_at__isnull=False), key=lambda one: one.readings.count())
    each = source.verdicts.count()
    copies = (WANTED - Reading.objects.count()) // each + 1
    fields = columns(WalkAround)
    listed = ", ".join(fields)
    made = [uuid.uuid4() for _ in range(copies)]
    like = source.machine
    machines = [
        Machine.objects.create(
            shop=like.shop, model=like.model, name=f"{like.name} {n}", rows=like.rows, hours=like.hours, area_ha=like.area_ha
        )
        for n in range(MACHINES)
    ]
    with connection.cursor() as cursor:
        cursor.execute("CREATE TEMPORARY TABLE copies (id UUID PRIMARY KEY, machine BIGINT)")
        owners = [machine.pk for machine in machines]
        cursor.executemany(
            "INSERT INTO copies VALUES (%s, %s)", [(str(one), owners[i % MACHINES]) for i, one in enumerate(made)]
        )
        cursor.execute(
            f"INSERT INTO inspection_walkaround (id, {listed}) SELECT copies.id, "
            f"{', '.join('copies.machine' if f == 'machine_id' else 'w.' + f for f in fields)} "
            "FROM copies JOIN inspection_walkaround w ON w.id = %s",
            [str(source.pk)],
        )
        cursor.execute(
            f"INSERT INTO inspection_reading (uuid, walk_around_id, {', '.join(READING)}) "
            f"SELECT UUID(), copies.id, {', '.join('r.' + f for f in READING)} "
            "FROM copies JOIN inspection_verdict v ON v.walk_around_id = %s JOIN inspection_reading r ON r.id = v.reading_id",
            [str(source.pk)],
        )
        cursor.execute(
            f"INSERT INTO inspection_verdict (walk_around_id, reading_id, {', '.join(VERDICT)}) "
            f"SELECT r.walk_around_id, r.id, {', '.join('v.' + f for f in VERDICT)} "
            "FROM copies JOIN inspection_reading r ON r.walk_around_id = copies.id "
            "JOIN inspection_verdict v ON v.walk_around_id = %s AND v.check_key = r.check_key AND v.position_key = "
            "r.position_key",
            [str(source.pk)],
        )
    print(f"{Reading.objects.count():,} readings in {WalkAround.objects.count():,} walk-arounds")


if __name__ == "__main__":
    main()
