"""How a machine stands is kept by place, whichever walk-around each was read in."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("fleet", "0011_machine_priority"), ("inspection", "0012_tallies")]

    operations = [
        migrations.AlterField(
            "walkaroundevent",
            "kind",
            models.CharField(
                choices=[
                    ("begun", "Begun beside another"),
                    ("finished", "Finished"),
                    ("reopened", "Opened again"),
                    ("discarded", "Discarded"),
                    ("restored", "Brought back"),
                ],
                max_length=10,
            ),
        ),
        migrations.AddField("walkaround", "edition", models.PositiveIntegerField(default=0)),
        migrations.CreateModel(
            name="Standing",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("basis", models.CharField(max_length=64)),
                ("summed", models.JSONField(default=dict)),
                (
                    "machine",
                    models.OneToOneField(
                        on_delete=models.deletion.CASCADE, related_name="standing", to="fleet.machine"
                    ),
                ),
            ],
        ),
    ]
