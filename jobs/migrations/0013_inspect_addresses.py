"""Readings of Inspect get their addresses: of the crank, of a rod, or of the seat whose number stands in the old key."""

import re

from django.db import migrations

CRANK, ROD = ("crank", "crank", ""), ("rod", "1", "rod 1")
WHOLE = {
    "small": (*ROD, "small-end-play", None, ""),
    "cracks": (*CRANK, "damage", None, ""),
    "damage": (*CRANK, "damage-where", None, ""),
    "masses": (*CRANK, "masses", None, ""),
    "hung": (*CRANK, "hung-mass", None, ""),
    "smallend": (*ROD, "small-end-mass", None, ""),
    "recip": (*CRANK, "reciprocating-mass", None, ""),
    "before": (*CRANK, "reciprocating-mass-before", None, ""),
    "width-pin": (*CRANK, "width-over-webs", 0.0, ""),
    "width-90": (*CRANK, "width-over-webs", 90.0, ""),
    "width-180": (*CRANK, "width-over-webs", 180.0, ""),
    "width-270": (*CRANK, "width-over-webs", 270.0, ""),
}
PLAYS = {"radial": "big-end-radial-play", "side": "big-end-side-play"}
OF_SEAT = {
    "mark": "bearing-marking",
    "hit": "hit-through-balls",
    "known": "bearing-history",
    "feel": "bearing-feel",
    "races": "races",
    "slow": "slow-and-hidden",
    "warm": "seat-temperature",
    "vee": "vee-runout",
    "ring": "ring-diameter",
    "wall": "wall-thickness",
    "mend": "seat-mend",
}
DEPTHS = {"m": "mouth", "b": "bottom"}


def address(ask, seats):
    """Kind, identity and name of the part, property, angle and depth of an old key; None where it belongs to nothing that is left."""
    if ask in WHOLE:
        return WHOLE[ask]
    if play := re.fullmatch(r"(radial|side)-([12])", ask):
        return ("rod", play[2], f"rod {play[2]}", PLAYS[play[1]], None, "")
    found = re.fullmatch(r"(\d+)-(?:([mb])(0|60|120)|(\w+))", ask)
    seat = seats.get(int(found[1])) if found else None
    if seat is None:
        return None
    if found[2]:
        return ("seat", seat.uid, seat.name, "seat-diameter", float(found[3]), DEPTHS[found[2]])
    return ("seat", seat.uid, seat.name, OF_SEAT[found[4]], None, "") if found[4] in OF_SEAT else None


def key_of(kind, uid, name, what, angle, depth):
    part = "" if uid == kind else uid
    return ".".join(filter(None, (what, part, "" if angle is None else f"{angle:g}", depth)))


def renamed(ask, seats):
    found = address(ask, seats)
    return key_of(*found) if found else ask


def forwards(apps, schema_editor):
    subjects = apps.get_model("engines", "Subject")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key="inspect").select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        card = entry.job.card_id
        seats = {seat.pk: seat for seat in apps.get_model("engines", "Seat").objects.filter(card_id=card)}
        for reading in entry.readings.all():
            found = address(reading.ask, seats)
            if found is None:
                continue
            kind, uid, name, what, angle, depth = found
            reading.subject, _ = subjects.objects.get_or_create(card_id=card, kind=kind, uid=uid, defaults={"name": name})
            reading.property, reading.angle_deg, reading.depth, reading.ask = what, angle, depth, key_of(*found)
            reading.save(update_fields=["subject", "property", "angle_deg", "depth", "ask"])
        choices = dict(entry.choices)
        if "skipped" in choices:
            choices["skipped"] = [renamed(ask, seats) for ask in choices["skipped"]]
        if "times" in choices:
            choices["times"] = {renamed(ask, seats): times for ask, times in choices["times"].items()}
        tab = re.fullmatch(r"s(\d+)", str(choices.get("part", "")))
        if tab and int(tab[1]) in seats:
            choices["part"] = seats[int(tab[1])].uid
        if choices != entry.choices:
            entry.choices = choices
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0012_bearings_out_addresses"), ("engines", "0008_small_end_play")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
