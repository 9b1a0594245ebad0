"""Readings of True get their addresses: all are of the crank, at an end and an angle."""

import re

from django.db import migrations

SIDES = {"l": "left", "r": "right"}
WHOLE = {"stroke": "stroke", "rim": "rim-radius", "phase": "throw-angle", "joint": "joint-lock", "note": "note"}


def address(ask):
    """Property, end and angle of an old key; None where it means nothing."""
    if ask in WHOLE:
        return (WHOLE[ask], "", None)
    if place := re.fullmatch(r"(support|gauge)-(left|right)", ask):
        return (f"{place[1]}-place", place[2], None)
    found = re.fullmatch(r"([lr])-(swing|high|\d+)", ask)
    if found is None:
        return None
    if found[2].isdecimal():
        return ("shaft-reading", SIDES[found[1]], float(found[2]))
    return ("shaft-tir" if found[2] == "swing" else "high-spot", SIDES[found[1]], None)


def renamed(ask):
    found = address(ask)
    return ".".join(filter(None, (found[0], found[1], "" if found[2] is None else f"{found[2]:g}"))) if found else ask


def forwards(apps, schema_editor):
    subjects = apps.get_model("engines", "Subject")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="true").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand") or entry.job.card.crank == "one_piece":
            continue
        crank, _ = subjects.objects.get_or_create(card_id=entry.job.card_id, kind="crank", uid="crank")
        for reading in entry.readings.all():
            found = address(reading.ask)
            if found:
                reading.subject, (reading.property, reading.end, reading.angle_deg) = crank, found
                reading.ask = renamed(reading.ask)
                reading.save(update_fields=["subject", "property", "end", "angle_deg", "ask"])
        if entry.choices.get("skipped"):
            entry.choices["skipped"] = [renamed(ask) for ask in entry.choices["skipped"]]
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0021_balance_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
