"""How the places of each station stand is stored with the walk-around."""

from collections import Counter, defaultdict

from django.db import migrations, models
from django.db.models import Count


def count(apps, schema_editor):
    verdicts = apps.get_model("inspection", "Verdict").objects
    for walk_around in apps.get_model("inspection", "WalkAround").objects.only("pk", "stations", "tallies").iterator():
        optional = {key for station in walk_around.stations for key in station.get("optional", [])}
        counts = defaultdict(Counter)
        rows = verdicts.filter(walk_around=walk_around).exclude(check_key__in=optional)
        columns = ("station_key", "severity", "ask")
        for station, severity, ask, n in rows.values_list(*columns).annotate(n=Count("id")).order_by():
            counts[station]["asked" if ask else severity.replace("-", "_")] += n
        walk_around.tallies = {station: dict(sorted(one.items())) for station, one in counts.items()}
        walk_around.save(update_fields=["tallies"])


class Migration(migrations.Migration):
    dependencies = [("inspection", "0011_own_checks")]

    operations = [
        migrations.AddField("walkaround", "tallies", models.JSONField(blank=True, default=dict)),
        migrations.RunPython(count, migrations.RunPython.noop),
    ]
