"""Readings of Close get their addresses: of the joint, or of a fastener in a round; that closing has begun is something hands did."""

import re

from django.db import migrations

OF_JOINT = {
    "gears": "gears",
    "which": "gear-fault",
    "torque": "bolt-torque-wanted",
    "more": "bolt-torque-instead",
    "why": "reason",
}


def address(ask, marks):
    """Kind, identity and name of the part, property and round of an old key; None where it belongs to nothing that is left."""
    if ask in OF_JOINT:
        return ("joint", "joint", "", OF_JOINT[ask], None)
    bolt = re.fullmatch(r"s(\d)-(\d+)", ask)
    mark = marks.get(int(bolt[2])) if bolt else None
    return (kind_of(mark), mark.uid, mark.name, "bolt-torque", int(bolt[1]) + 1) if mark else None


def kind_of(mark):
    return mark.what if mark.what in ("dowel", "gap") else "fastener"


def renamed(ask, marks):
    found = address(ask, marks)
    if found is None:
        return ask
    kind, uid, _name, what, stage = found
    return ".".join(filter(None, (what, "" if uid == kind else uid, f"s{stage}" if stage else "")))


def forwards(apps, schema_editor):
    subjects, moves = apps.get_model("engines", "Subject"), apps.get_model("jobs", "Move")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="close").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        card = entry.job.card_id
        marks = {mark.pk: mark for mark in apps.get_model("engines", "Mark").objects.filter(card_id=card)}
        for reading in entry.readings.all():
            found = address(reading.ask, marks)
            if found is None:
                continue
            kind, uid, name, what, stage = found
            reading.subject, _ = subjects.objects.get_or_create(card_id=card, kind=kind, uid=uid, defaults={"name": name})
            reading.property, reading.stage, reading.ask = what, stage, renamed(reading.ask, marks)
            reading.save(update_fields=["subject", "property", "stage", "ask"])
        choices = dict(entry.choices)
        if "skipped" in choices:
            choices["skipped"] = [renamed(ask, marks) for ask in choices["skipped"]]
        if choices.pop("sealed", False):
            moves.objects.create(entry=entry, kind="closing", attempt=entry.attempt, by_id=entry.opened_by_id)
        if choices != entry.choices:
            entry.choices = choices
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0015_centre_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
