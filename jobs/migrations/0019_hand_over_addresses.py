"""Readings of Hand over, and notes of what was done by hand, get their address: they are of the engine."""

from django.db import migrations

OF_ENGINE = {"parts": "parts-used", "advice": "against-advice", "unknown": "stays-unknown", "note": "note"}


def forwards(apps, schema_editor):
    subjects = apps.get_model("engines", "Subject")
    entries = apps.get_model("jobs", "Entry").objects
    by_hand = entries.filter(result__schema__startswith="by-hand") | entries.filter(station__key__in=("book-in", "seals", "true"))
    for entry in (entries.filter(station__key="hand-over") | by_hand).select_related("job", "station"):
        engine, _ = subjects.objects.get_or_create(card_id=entry.job.card_id, kind="engine", uid="engine")
        names = OF_ENGINE if entry.station.key == "hand-over" else {"note": "note"}
        for reading in entry.readings.all():
            if reading.ask in names and reading.subject_id is None:
                reading.subject, reading.property, reading.ask = engine, names[reading.ask], names[reading.ask]
                reading.save(update_fields=["subject", "property", "ask"])
        if entry.choices.get("skipped"):
            entry.choices["skipped"] = [names.get(ask, ask) for ask in entry.choices["skipped"]]
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0018_seals_addresses"), ("engines", "0009_engine_subject")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
