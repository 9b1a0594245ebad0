"""Readings of Crank in get their addresses: all are of the crank; what hands did stands apart from what was chosen."""

from django.db import migrations

CRANK = {
    "thread_d": ("end-thread-diameter", ""),
    "thread_pitch": ("end-thread-pitch", ""),
    "hand": ("adapter-turns", ""),
    "travel": ("travel", ""),
    "turns": ("screw-turns-done", ""),
    "torque": ("screw-torque", ""),
    "gap-left": ("home-gap", "left"),
    "gap-right": ("home-gap", "right"),
}


def renamed(ask):
    return ".".join(filter(None, CRANK[ask])) if ask in CRANK else ask


def forwards(apps, schema_editor):
    subjects, moves = apps.get_model("engines", "Subject"), apps.get_model("jobs", "Move")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="crank-in").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        crank, _ = subjects.objects.get_or_create(card_id=entry.job.card_id, kind="crank", uid="crank")
        for reading in entry.readings.all():
            if reading.ask in CRANK:
                what, end = CRANK[reading.ask]
                reading.subject, reading.property, reading.end, reading.ask = crank, what, end, renamed(reading.ask)
                reading.save(update_fields=["subject", "property", "end", "ask"])
        choices = dict(entry.choices)
        if "skipped" in choices:
            choices["skipped"] = [renamed(ask) for ask in choices["skipped"]]
        for kind in ("begun", "home"):
            if choices.pop(kind, False):
                moves.objects.create(entry=entry, kind=kind, attempt=entry.attempt, by_id=entry.opened_by_id)
        if choices != entry.choices:
            entry.choices = choices
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0016_close_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
