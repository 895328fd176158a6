"""That a header was coupled is kept of the machine, not among what calls for calibrations."""

from django.db import migrations


def apart(apps, schema_editor):
    happened, coupling = apps.get_model("calibration", "Happened"), apps.get_model("fleet", "Coupling")
    rows = happened.objects.filter(what="header")
    kept = ("uuid", "machine_id", "header_id", "at", "by_id", "taken_back_at", "taken_back_by_id")
    coupling.objects.bulk_create(coupling(**row) for row in rows.values(*kept))
    rows.delete()


def together(apps, schema_editor):
    happened, coupling = apps.get_model("calibration", "Happened"), apps.get_model("fleet", "Coupling")
    kept = ("uuid", "machine_id", "header_id", "at", "by_id", "taken_back_at", "taken_back_by_id")
    happened.objects.bulk_create(happened(what="header", **row) for row in coupling.objects.values(*kept))
    coupling.objects.all().delete()


class Migration(migrations.Migration):
    dependencies = [("calibration", "0001_initial"), ("fleet", "0012_coupling")]

    operations = [
        migrations.RunPython(apart, together),
        migrations.RemoveField(model_name="happened", name="header"),
    ]
