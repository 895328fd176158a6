"""What somebody ordered by word has no price yet."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("supply", "0004_supplier_uuid")]

    operations = [
        migrations.AlterField(
            "orderline", "unit_price", models.DecimalField(blank=True, decimal_places=2, max_digits=10, null=True)
        ),
    ]
