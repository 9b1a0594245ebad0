"""Readings of Heat and drop get their addresses; what one heat wrote into a seat's entry is linked to where it was said.

A part that went into the cold was kept among the choices of its entry; now it is something that hands did.
"""

import re
from datetime import datetime

from django.db import migrations

HEAT = {"room": "air-temperature", "heat": "heater-setting", "target": "heat-target", "stay": "chill-stay", "note": "note"}
SEAT = {
    "seat": "seat-size",
    "ring": "ring-size",
    "case": "hot-temperature",
    "partner": "cold-temperature",
    "outcome": "fit-outcome",
    "circlip": "circlip",
    "cold": "seating-gap-cold",
}
CLOCKS = {"gap": "seating-gap", "depth": "seating-depth"}
FITTED = {
    "soap": ("bush-lubricant", ""),
    "out1": ("stands-out", "inside"),
    "out2": ("stands-out", "outside"),
    "order": ("pieces-order", ""),
    "angle": ("direction", ""),
    "depth": ("end-depth", ""),
    "play": ("spindle-play", ""),
}
MEANS = {
    "paint dot": "paint",
    "masking tape": "tape",
    "marker ink": "marker",
    "bare aluminium": "bare",
    "weathered aluminium": "weathered",
    "bright steel": "bright",
    "water drop": "drop",
}
ENGINE = ("engine", "engine")


class Names:
    """Seats and fitted parts of one card by their numbers."""

    def __init__(self, apps, card_id):
        seats = apps.get_model("engines", "Seat").objects.filter(card_id=card_id)
        fitted = apps.get_model("engines", "Fitted").objects.filter(card_id=card_id)
        self.of = {"s": {each.pk: ("seat", each.uid) for each in seats}, "f": {each.pk: ("fitted", each.uid) for each in fitted}}
        self.of["c"] = self.of["s"]
        self.called = {("fitted", each.uid): each.name for each in fitted}

    def part(self, key):
        """Kind and identity of `s12`, `c12` or `f3`."""
        found = re.fullmatch(r"([scf])(\d+)", key)
        return self.of[found[1]].get(int(found[2])) if found else None

    def key(self, key):
        """What a heat calls a part now."""
        part = self.part(key)
        return key if part is None else f"{part[1]}.circlip" if key[0] == "c" else part[1]


def of_seat(ask, seat, words):
    """Part, property, end and clock of an old key of one seat."""
    if ask in HEAT:
        return ENGINE, HEAT[ask], "", None
    if ask in SEAT:
        return ("seat", seat.uid), "water-drop" if words and ask == "case" else SEAT[ask], "", None
    found = re.fullmatch(r"(gap|depth)(\d+)", ask)
    return (("seat", seat.uid), CLOCKS[found[1]], "", int(found[2])) if found else None


def of_half(ask, names, words):
    """The same of a whole half."""
    if ask in HEAT:
        return ENGINE, HEAT[ask], "", None
    if ask == "case":
        return ENGINE, "water-drop" if words else "hot-temperature", "", None
    found = re.fullmatch(r"(home|way)-([scf]\d+)", ask)
    part = names.part(found[2]) if found else None
    if part:
        what = "way-settled" if found[1] == "way" else "circlip" if found[2][0] == "c" else "fit-outcome"
        return part, what, "", None
    found = re.fullmatch(r"(f\d+)-(\w+)", ask)
    part = names.part(found[1]) if found else None
    return (part, *FITTED[found[2]], None) if part and found[2] in FITTED else None


def key_of(found):
    (kind, uid), what, end, clock = found
    return ".".join(filter(None, (what, "" if kind == uid else uid, end, f"{clock}h" if clock else "")))


def chosen_anew(choices, names, renamed):
    """Choices with the parts called as they are now; and what went into the cold, by attempt."""
    left, cold = {}, choices.get("cold", {})
    for key, value in choices.items():
        if key.startswith("part-"):
            left[f"part-{names.key(key.removeprefix('part-'))}"] = value
        elif key == "tab":
            left[key] = names.key(str(value))
        elif key == "turns":
            left[key] = {turn: names.key(str(part)) for turn, part in value.items()}
        elif key == "skipped":
            left[key] = [renamed(ask) for ask in value]
        elif key == "times":
            left[key] = {renamed(ask): times for ask, times in value.items()}
        elif key != "cold":
            left[key] = value
    return left, cold


def is_home(entry):
    """Whether a signed entry of one seat has its bearing home: what other stations go by from now on."""
    if not (entry.signed_at and entry.seat):
        return False
    said = [each.text for each in entry.readings.filter(property="fit-outcome", withdrawn_at=None, attempt=entry.attempt).order_by("pk")]
    return bool(said) and said[-1] in ("dropped", "tapped") and entry.result.get("seated_state") != "out"


def notes(apps):
    """Notes that were written down without an address belong to the engine."""
    subjects = apps.get_model("engines", "Subject")
    for reading in apps.get_model("jobs", "Reading").objects.filter(ask="note", property="").select_related("entry__job"):
        reading.subject, _ = subjects.objects.get_or_create(card_id=reading.entry.job.card_id, kind="engine", uid="engine")
        reading.property = "note"
        reading.save(update_fields=["subject", "property"])


def forwards(apps, schema_editor):
    subjects, moves = apps.get_model("engines", "Subject"), apps.get_model("jobs", "Move")
    entries, readings = apps.get_model("jobs", "Entry"), apps.get_model("jobs", "Reading")
    for entry in entries.objects.filter(station__key="heat-and-drop").select_related("job", "seat"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        names, card_id = Names(apps, entry.job.card_id), entry.job.card_id

        def placed(ask, words=False, entry=entry, names=names):
            return of_seat(ask, entry.seat, words) if entry.seat else of_half(ask, names, words)

        def renamed(ask, placed=placed):
            found = placed(ask)
            return key_of(found) if found else ask

        def subject(part, card_id=card_id, names=names):
            name = {"name": names.called.get(part, "")}
            return subjects.objects.get_or_create(card_id=card_id, kind=part[0], uid=part[1], defaults=name)[0]

        for reading in entry.readings.all():
            found = placed(reading.ask, reading.kind == "words")
            if found is None:
                continue
            part, reading.property, reading.end, reading.clock = found
            reading.subject, reading.ask = subject(part), key_of(found)
            source = reading.extra.pop("sheet", None)
            if source and readings.objects.filter(pk=source, entry__job_id=entry.job_id).exists():
                reading.carried_from_id = source
            if "means" in reading.extra:
                reading.extra["means"] = MEANS.get(reading.extra["means"], reading.extra["means"])
            reading.save(update_fields=["subject", "property", "end", "clock", "ask", "carried_from", "extra"])
        if is_home(entry):
            row = {"subject": subject(("seat", entry.seat.uid)), "property": "bearing-home", "text": "yes", "kind": "words"}
            apps.get_model("jobs", "DerivedFact").objects.create(entry=entry, **row)
        choices, cold = chosen_anew(entry.choices, names, renamed)
        for attempt, parts in cold.items():
            for key, at in parts.items():
                part = names.part(key)
                if part:
                    more = {"subject": subject(part), "property": "cold-temperature", "at": datetime.fromisoformat(at)}
                    moves.objects.create(entry=entry, kind="chilled", attempt=int(attempt), by_id=entry.opened_by_id, **more)
        if choices != entry.choices:
            entry.choices = choices
            entry.save(update_fields=["choices"])
    notes(apps)


class Migration(migrations.Migration):
    dependencies = [("jobs", "0022_true_addresses"), ("engines", "0010_spec_held")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
