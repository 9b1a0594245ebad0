"""Readings of Seals get their addresses: of the seal whose number stands in the old key."""

import re

from django.db import migrations

OF_SEAL = {
    "shaft": "seal-shaft",
    "bore": "seal-bore",
    "kept": "seal-keeps",
    "way": "seal-lip",
    "cite": "page",
    "behind": "bearing-face-depth",
}


def address(ask, seals):
    """The seal, property and clock of an old key; None where it belongs to nothing that is left."""
    found = re.fullmatch(r"(\d+)-(?:d(12|3|6|9)|(\w+))", ask)
    seal = seals.get(int(found[1])) if found else None
    if seal is None:
        return None
    if found[2]:
        return seal, "seal-depth", int(found[2])
    return (seal, OF_SEAL[found[3]], None) if found[3] in OF_SEAL else None


def renamed(ask, seals):
    found = address(ask, seals)
    if found is None:
        return ask
    seal, what, clock = found
    return f"{what}.{seal.uid}" + (f".{clock}h" if clock else "")


def forwards(apps, schema_editor):
    subjects = apps.get_model("engines", "Subject")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="seals").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        card = entry.job.card_id
        seals = {seal.pk: seal for seal in apps.get_model("engines", "Seal").objects.filter(card_id=card)}
        for reading in entry.readings.all():
            found = address(reading.ask, seals)
            if found is None:
                continue
            seal, what, clock = found
            reading.subject, _ = subjects.objects.get_or_create(card_id=card, kind="seal", uid=seal.uid, defaults={"name": seal.name})
            reading.property, reading.clock, reading.ask = what, clock, renamed(reading.ask, seals)
            reading.save(update_fields=["subject", "property", "clock", "ask"])
        choices = dict(entry.choices)
        if "skipped" in choices:
            choices["skipped"] = [renamed(ask, seals) for ask in choices["skipped"]]
        tab = re.fullmatch(r"s(\d+)", str(choices.get("part", "")))
        if tab and int(tab[1]) in seals:
            choices["part"] = seals[int(tab[1])].uid
        if choices != entry.choices:
            entry.choices = choices
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0017_crank_in_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
