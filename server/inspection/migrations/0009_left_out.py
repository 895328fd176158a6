from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("inspection", "0008_places_before")]

    operations = [
        migrations.AddField(
            model_name="walkaround",
            name="left_out",
            field=models.JSONField(blank=True, default=list),
        ),
    ]
