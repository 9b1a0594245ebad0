"""Readings of Flywheel on get their addresses; each lapping becomes a move."""

from django.db import migrations

FLYWHEEL = {
    "blue": "contact-share",
    "large": "contact-at-large-end",
    "key": "key-condition",
    "step": "key-step",
    "cone": "cone-diameter",
    "asked": "torque-to-carry",
    "torque": "nut-torque",
    "runout": "rim-runout",
    "gap": "air-gap",
}


def forwards(apps, schema_editor):
    subjects, moves = apps.get_model("engines", "Subject"), apps.get_model("jobs", "Move")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="flywheel-on").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        wheel, _ = subjects.objects.get_or_create(card_id=entry.job.card_id, kind="flywheel", uid="flywheel")
        for reading in entry.readings.all():
            what = FLYWHEEL.get(reading.ask)
            if what:
                reading.subject, reading.property, reading.ask = wheel, what, what
                reading.text = "sheared" if what == "key-condition" and reading.text == "worn" else reading.text
                reading.save(update_fields=["subject", "property", "ask", "text"])
        if entry.choices.get("skipped"):
            entry.choices["skipped"] = [FLYWHEEL.get(ask, ask) for ask in entry.choices["skipped"]]
        for _ in range(int(entry.choices.pop("lapped", 0) or 0)):
            moves.objects.create(entry=entry, kind="lapped", attempt=entry.attempt, by_id=entry.opened_by_id)
        entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0010_flywheel_off_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
