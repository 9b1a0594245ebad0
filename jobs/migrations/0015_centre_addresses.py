"""Readings of Centre get their addresses: of the crank, or of the closed joint."""

import re

from django.db import migrations

JOINT, CRANK = ("joint", "joint"), ("crank", "crank")
WHOLE = {
    "left": (*CRANK, "side-gap", "left", "", None),
    "right": (*CRANK, "side-gap", "right", "", None),
    "spin": (*CRANK, "spin", "", "", None),
    "drag": (*CRANK, "drag", "", "", None),
    "float": (*CRANK, "end-float", "", "", None),
    "minutes": (*JOINT, "test-time", "", "", None),
    "why": (*JOINT, "reason", "", "", None),
}


def address(ask):
    """Kind and identity of the part, property, end, test and number of an old key; None where it means nothing."""
    test = re.fullmatch(r"(pressure|vacuum)-([12])", ask)
    return (*JOINT, "test-pressure", "", test[1], int(test[2])) if test else WHOLE.get(ask)


def renamed(ask):
    found = address(ask)
    if found is None:
        return ask
    _kind, _uid, what, end, test, stage = found
    return ".".join(filter(None, (what, end, test, f"s{stage}" if stage else "")))


def forwards(apps, schema_editor):
    subjects = apps.get_model("engines", "Subject")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="centre").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        for reading in entry.readings.all():
            found = address(reading.ask)
            if found is None:
                continue
            kind, uid, what, end, test, stage = found
            reading.subject, _ = subjects.objects.get_or_create(card_id=entry.job.card_id, kind=kind, uid=uid)
            reading.property, reading.end, reading.depth, reading.stage = what, end, test, stage
            reading.ask = renamed(reading.ask)
            reading.save(update_fields=["subject", "property", "end", "depth", "stage", "ask"])
        if entry.choices.get("skipped"):
            entry.choices["skipped"] = [renamed(ask) for ask in entry.choices["skipped"]]
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0014_end_float_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
