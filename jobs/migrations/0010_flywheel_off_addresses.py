"""Readings of Flywheel off get their addresses; that the taper released becomes a move."""

from django.db import migrations

FLYWHEEL = {
    "puller_d": "puller-diameter",
    "puller_pitch": "puller-pitch",
    "puller_hand": "puller-hand",
    "boss_d": "boss-diameter",
    "boss_pitch": "boss-pitch",
    "boss_hand": "boss-hand",
    "boss_depth": "boss-depth",
    "turns": "puller-turns",
    "screw_d": "centre-screw-diameter",
    "screw_pitch": "centre-screw-pitch",
    "nut_torque": "nut-torque-wanted",
    "nut_d": "nut-thread",
    "torque": "pulling-torque",
    "moved": "moved",
    "taper": "taper-condition",
    "key": "key-condition",
    "step": "key-step",
    "magnets": "magnets",
    "coils": "coils",
    "note": "note",
}


def forwards(apps, schema_editor):
    subjects, moves = apps.get_model("engines", "Subject"), apps.get_model("jobs", "Move")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="flywheel-off").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        wheel, _ = subjects.objects.get_or_create(card_id=entry.job.card_id, kind="flywheel", uid="flywheel")
        for reading in entry.readings.all():
            what = FLYWHEEL.get(reading.ask)
            if what:
                # the only part of its kind: the property alone is its key
                reading.subject, reading.property, reading.ask = wheel, what, what
                reading.save(update_fields=["subject", "property", "ask"])
        if entry.choices.get("skipped"):
            entry.choices["skipped"] = [FLYWHEEL.get(ask, ask) for ask in entry.choices["skipped"]]
        if entry.choices.get("asking"):
            entry.choices["asking"] = FLYWHEEL.get(entry.choices["asking"], "")
        if entry.choices.pop("free", False):
            moves.objects.create(entry=entry, kind="freed", attempt=entry.attempt, by_id=entry.opened_by_id)
        entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0009_strip_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
