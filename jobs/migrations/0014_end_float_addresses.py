"""Readings of End float get their addresses: of a case half, of the joint, or of the crank."""

import re

from django.db import migrations

LEFT, RIGHT, JOINT, CRANK = ("case", "left"), ("case", "right"), ("joint", "joint"), ("crank", "crank")
WHOLE = {
    "warm": (*JOINT, "case-temperature", None),
    "left": (*LEFT, "face-to-bearing", None),
    "right": (*RIGHT, "face-to-bearing", None),
    "gasket": (*JOINT, "gasket-crushed", None),
    "crank": (*CRANK, "crank-shoulders", None),
    "fitted": (*CRANK, "shims-fitted", None),
    "low": (*CRANK, "end-float-least", None),
    "high": (*CRANK, "end-float-most", None),
    "side": (*CRANK, "shim-side", None),
    "distance": (*JOINT, "table-distance", None),
    "table": (*JOINT, "table", None),
    "row": (*CRANK, "table-row", None),
}


def address(ask):
    """Kind and identity of the part, property and number of an old key; None where it means nothing."""
    shim = re.fullmatch(r"shim-(\d)", ask)
    return (*CRANK, "shim-thickness", int(shim[1])) if shim else WHOLE.get(ask)


def renamed(ask):
    found = address(ask)
    if found is None:
        return ask
    kind, uid, what, stage = found
    return ".".join(filter(None, (what, "" if uid == kind else uid, f"s{stage}" if stage else "")))


def forwards(apps, schema_editor):
    subjects = apps.get_model("engines", "Subject")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="end-float").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        for reading in entry.readings.all():
            found = address(reading.ask)
            if found is None:
                continue
            kind, uid, what, stage = found
            reading.subject, _ = subjects.objects.get_or_create(card_id=entry.job.card_id, kind=kind, uid=uid)
            reading.property, reading.stage, reading.ask = what, stage, renamed(reading.ask)
            reading.save(update_fields=["subject", "property", "stage", "ask"])
        choices = dict(entry.choices)
        if "skipped" in choices:
            choices["skipped"] = [renamed(ask) for ask in choices["skipped"]]
        if "times" in choices:
            choices["times"] = {renamed(ask): times for ask, times in choices["times"].items()}
        if choices != entry.choices:
            entry.choices = choices
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0013_inspect_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
