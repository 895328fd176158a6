"""A model has an identity of its own, so that adding one can be repeated."""

from uuid import uuid4

from django.db import migrations, models


def identities(apps, schema_editor):
    for model in apps.get_model("fleet", "MachineModel").objects.filter(uuid=None):
        model.uuid = uuid4()
        model.save(update_fields=["uuid"])


class Migration(migrations.Migration):
    dependencies = [("fleet", "0008_machine_particulars")]

    operations = [
        migrations.AddField("machinemodel", "uuid", models.UUIDField(null=True)),
        migrations.RunPython(identities, migrations.RunPython.noop),
        migrations.AlterField("machinemodel", "uuid", models.UUIDField(default=uuid4, unique=True)),
    ]
