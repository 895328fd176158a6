"""What counted guesses before kept them in tables of its own."""

from django.db import migrations

TABLES = ("axes_accessattempt", "axes_accesslog", "axes_accessfailurelog", "axes_accessattemptexpiration")


class Migration(migrations.Migration):
    dependencies = [("guarding", "0001_counted")]
    operations = [
        migrations.RunSQL([f"DROP TABLE IF EXISTS {', '.join(TABLES)}", "DELETE FROM django_migrations WHERE app = 'axes'"])
    ]
