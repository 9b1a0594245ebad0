"""Readings of Balance get their addresses: all are of the flywheel, the depths of its holes by number."""

import re

from django.db import migrations

FLYWHEEL = {
    "shook": "shook",
    "sound": "wheel-sound",
    "mass": "wheel-mass",
    "rpm": "wheel-speed",
    "rim": "rim-diameter",
    "stop": "stop-angle",
    "arm": "trial-radius",
    "stays": "trial-stays",
    "turns": "trial-turns",
    "radius": "drill-radius",
    "finish": "finish-radius",
    "thick": "rim-depth",
    "keepout": "keep-out",
    "drills": "drills",
    "note": "note",
}


def address(ask):
    """Property and number of an old key; None where it means nothing."""
    hole = re.fullmatch(r"d(\d+)", ask)
    return ("hole-depth", int(hole[1])) if hole else (FLYWHEEL[ask], None) if ask in FLYWHEEL else None


def renamed(ask):
    found = address(ask)
    return ".".join(filter(None, (found[0], f"s{found[1]}" if found[1] else ""))) if found else ask


def forwards(apps, schema_editor):
    subjects = apps.get_model("engines", "Subject")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="balance").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        wheel, _ = subjects.objects.get_or_create(card_id=entry.job.card_id, kind="flywheel", uid="flywheel")
        for reading in entry.readings.all():
            found = address(reading.ask)
            if found:
                reading.subject, (reading.property, reading.stage), reading.ask = wheel, found, renamed(reading.ask)
                reading.save(update_fields=["subject", "property", "stage", "ask"])
        if entry.choices.get("skipped"):
            entry.choices["skipped"] = [renamed(ask) for ask in entry.choices["skipped"]]
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0020_press_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
