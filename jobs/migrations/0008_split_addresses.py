"""Readings of Split get their addresses; that the splitter was loaded and the halves came apart become moves."""

import re

from django.db import migrations

JOINT = ("joint", "joint", "")
WHOLE = {
    "lifts": "lifting-half",
    "expected": "expected",
    "counted": "counted",
    "screw_d": "screw-diameter",
    "screw_pitch": "screw-pitch",
    "turns": "screw-turns",
    "note": "note",
}
FASTENERS = ("bolt", "screw", "stud")


def address(ask, marks):
    """Part (kind, uid, name) and property of an old key; None where it belongs to nothing that is left."""
    if ask in WHOLE:
        return JOINT, WHOLE[ask]
    loose = re.fullmatch(r"loose(\d+)(-from|-half)?", ask)
    if loose:
        what = {None: "loose-part", "-from": "loose-from", "-half": "loose-half"}[loose[2]]
        return ("tray", f"split-{loose[1]}", ""), what
    found = re.fullmatch(r"([bg])-(.+)", ask)
    if found and found[1] == "g" and not found[2].isdecimal():
        return ("gap", found[2], found[2]), "gap"
    mark = marks.get(found[2]) if found else None
    if mark is None:
        return None
    kind = "fastener" if found[1] == "b" else "gap"
    return (kind, mark.uid, mark.name), "bolt-length" if kind == "fastener" else "gap"


def key_of(part, what):
    return what if part[0] == part[1] else f"{what}.{part[1]}"


def forwards(apps, schema_editor):
    subjects, moves = apps.get_model("engines", "Subject"), apps.get_model("jobs", "Move")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="split").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        marks = {str(mark.pk): mark for mark in apps.get_model("engines", "Mark").objects.filter(card_id=entry.job.card_id)}
        for reading in entry.readings.all():
            found = address(reading.ask, marks)
            if found is None:
                continue
            part, what = found
            reading.subject, _ = subjects.objects.get_or_create(
                card_id=entry.job.card_id, kind=part[0], uid=part[1], defaults={"name": part[2]}
            )
            reading.property, reading.ask = what, key_of(part, what)
            reading.save(update_fields=["subject", "property", "ask"])
        skipped = entry.choices.get("skipped")
        if skipped:
            entry.choices["skipped"] = [key_of(*found) if (found := address(ask, marks)) else ask for ask in skipped]
        for choice, kind in (("begun", "loaded"), ("apart", "parted")):
            if entry.choices.pop(choice, False):
                moves.objects.create(entry=entry, kind=kind, attempt=entry.attempt, by_id=entry.opened_by_id)
        entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0007_one_truth")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
