"""Readings of Strip get their addresses."""

import re

from django.db import migrations

CRANK = ("crank", "crank")
WHOLE = {"crank": (CRANK, "crank-out"), "square": (CRANK, "came-evenly"), "note": (("joint", "joint"), "note")}
OF_PART = {None: "part", "-from": "part-from", "-way": "part-way", "-wear": "part-wear"}


def address(ask):
    """Part (kind, uid) and property of an old key; None for one that means nothing."""
    if ask in WHOLE:
        return WHOLE[ask]
    found = re.fullmatch(r"part(\d+)(-from|-way|-wear)?", ask)
    return (("tray", f"strip-{found[1]}"), OF_PART[found[2]]) if found else None


def key_of(part, what):
    return what if part[0] == part[1] else f"{what}.{part[1]}"


def forwards(apps, schema_editor):
    subjects = apps.get_model("engines", "Subject")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="strip").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        for reading in entry.readings.all():
            found = address(reading.ask)
            if found is None:
                continue
            (kind, uid), what = found
            reading.subject, _ = subjects.objects.get_or_create(card_id=entry.job.card_id, kind=kind, uid=uid)
            reading.property, reading.ask = what, key_of((kind, uid), what)
            reading.save(update_fields=["subject", "property", "ask"])
        skipped = entry.choices.get("skipped")
        if skipped:
            entry.choices["skipped"] = [key_of(*found) if (found := address(ask)) else ask for ask in skipped]
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0008_split_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
