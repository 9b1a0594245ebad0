"""Whose engine a job is about, and why one was closed without being finished."""

from django.db import migrations, models

FIELDS = {
    "customer": models.CharField("owner of the engine", max_length=80, blank=True, default=""),
    "registration": models.CharField("registration", max_length=30, blank=True, default=""),
    "frame_number": models.CharField("frame number", max_length=40, blank=True, default=""),
    "engine_number": models.CharField("engine number", max_length=40, blank=True, default=""),
    "ended_because": models.CharField(max_length=240, blank=True, default=""),
}


class Migration(migrations.Migration):
    dependencies = [("jobs", "0024_next_said")]
    operations = [migrations.AddField("job", name, field.clone()) for name, field in FIELDS.items()]
