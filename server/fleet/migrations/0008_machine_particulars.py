"""What else a machine has: an identity of its own, folded size, the combines a header goes with, how it came and went."""

from uuid import uuid4

from django.db import migrations, models


def identities(apps, schema_editor):
    for machine in apps.get_model("fleet", "Machine").objects.filter(uuid=None):
        machine.uuid = uuid4()
        machine.save(update_fields=["uuid"])


class Migration(migrations.Migration):
    dependencies = [("fleet", "0007_stated_limits")]

    operations = [
        migrations.AddField("machine", "uuid", models.UUIDField(null=True)),
        migrations.RunPython(identities, migrations.RunPython.noop),
        migrations.AlterField("machine", "uuid", models.UUIDField(default=uuid4, unique=True)),
        migrations.AddField(
            "machine", "goes_with", models.ManyToManyField(blank=True, related_name="headers_of", to="fleet.machine")
        ),
        migrations.AddField("machine", "row_spacing_mm", models.FloatField(blank=True, null=True)),
        migrations.AddField("machine", "folded_width_mm", models.FloatField(blank=True, null=True)),
        migrations.AddField("machine", "folded_height_mm", models.FloatField(blank=True, null=True)),
        migrations.AddField("machine", "new_at", models.FloatField(blank=True, null=True)),
        migrations.AddField(
            "machine",
            "gone",
            models.CharField(blank=True, choices=[("sold", "Sold"), ("scrapped", "Scrapped")], max_length=8, default=""),
            preserve_default=False,
        ),
        migrations.AddField("machine", "gone_on", models.DateField(blank=True, null=True)),
    ]
