"""Readings of Bearings out get their addresses: of the seat in hand, or of the seal in front of it."""

import re

from django.db import migrations

OF_SEAL = {"lip": "seal-lip", "seal_out": "seal-out"}
OF_SEAT = {
    "behind": "bearing-face-depth",
    "retained": "retained-by",
    "bottom": "reach",
    "shields": "shields",
    "faced": "way-round",
    "keep": "bearing-decision",
    "outcome": "came-out",
    "hit": "hit-through-balls",
    "why": "reason",
    "look": "seat-condition",
    "marking": "bearing-marking",
    "note": "note",
}


def seal_in_front(seals, seats, seat):
    """The seal the card puts there, else the only one of its half that is put nowhere."""
    here = next((seal for seal in seals if seal.seat_id == seat.pk), None)
    loose = [seal for seal in seals if seal.seat_id is None and seal.half == seat.half]
    alone = len([each for each in seats if each.half == seat.half]) == 1
    return here or (loose[0] if len(loose) == 1 and alone else None)


def address(ask, seat, seal):
    """Kind, identity and name of the part, property and clock of an old key; None where it belongs to nothing that is left."""
    depth = re.fullmatch(r"depth(12|3|6|9)", ask)
    if depth or ask in OF_SEAL:
        what = "seal-depth" if depth else OF_SEAL[ask]
        return ("seal", seal.uid, seal.name, what, int(depth[1]) if depth else None) if seal else None
    return ("seat", seat.uid, seat.name, OF_SEAT[ask], None) if ask in OF_SEAT else None


def key_of(kind, uid, name, what, clock):
    return f"{what}.{uid}" + (f".{clock}h" if clock else "")


def forwards(apps, schema_editor):
    subjects, seals = apps.get_model("engines", "Subject"), apps.get_model("engines", "Seal")
    of_station = apps.get_model("jobs", "Entry").objects.filter(station__key="bearings-out", seat__isnull=False)
    for entry in of_station.select_related("job", "seat"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        card, seat = entry.job.card_id, entry.seat
        seats = list(apps.get_model("engines", "Seat").objects.filter(card_id=card))
        seal = seal_in_front(list(seals.objects.filter(card_id=card).order_by("pk")), seats, seat)
        for reading in entry.readings.all():
            found = address(reading.ask, seat, seal)
            if found is None:
                continue
            kind, uid, name, what, clock = found
            reading.subject, _ = subjects.objects.get_or_create(card_id=card, kind=kind, uid=uid, defaults={"name": name})
            reading.property, reading.clock, reading.ask = what, clock, key_of(*found)
            reading.save(update_fields=["subject", "property", "clock", "ask"])
        if entry.choices.get("skipped"):
            asks = entry.choices["skipped"]
            entry.choices["skipped"] = [key_of(*found) if (found := address(ask, seat, seal)) else ask for ask in asks]
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0011_flywheel_on_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
