"""A station's next move is kept by its code and values; the words stay where no code says it."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("jobs", "0023_heat_addresses")]
    operations = [migrations.AddField("runstation", "next_said", models.JSONField(blank=True, default=dict))]
