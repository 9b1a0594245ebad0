"""Readings of Apart and Together get their addresses: of the first throw's joint, of the crank, or of its rod."""

from django.db import migrations

THROW, CRANK, ROD = ("throw", "1", "throw 1"), ("crank", "crank", ""), ("rod", "1", "rod 1")
ADDRESSES = {
    "d": (*THROW, "pin-shown", None),
    "pin": (*THROW, "pin-diameter", None),
    "hole": (*THROW, "pin-hole", None),
    "length": (*THROW, "pin-length", None),
    "bore": (*THROW, "pin-bore", None),
    "wall": (*THROW, "web-wall", None),
    "web": (*THROW, "web-width", None),
    "ratio": (*THROW, "pin-taper", None),
    "web_c": (*THROW, "web-temperature", None),
    "pin_c": (*THROW, "pin-temperature", None),
    "peak": (*THROW, "press-peak", None),
    "phase": (*CRANK, "throw-angle", None),
    "order": (*CRANK, "parts-order", None),
    "hurt": (*CRANK, "scored", None),
    "going": (*CRANK, "width-as-it-goes", None),
    "side": (*ROD, "big-end-side-play", None),
    "width-pin": (*CRANK, "width-over-webs", 0.0),
    "width-90": (*CRANK, "width-over-webs", 90.0),
    "width-180": (*CRANK, "width-over-webs", 180.0),
    "width-270": (*CRANK, "width-over-webs", 270.0),
}


def renamed(ask):
    if ask not in ADDRESSES:
        return ask
    kind, uid, _name, what, angle = ADDRESSES[ask]
    return ".".join(filter(None, (what, "" if uid == kind else uid, "" if angle is None else f"{angle:g}")))


def forwards(apps, schema_editor):
    subjects = apps.get_model("engines", "Subject")
    for entry in apps.get_model("jobs", "Entry").objects.filter(station__key__in=("apart", "together")).select_related("job"):
        if str(entry.result.get("schema", "")).startswith("by-hand"):
            continue
        for reading in entry.readings.all():
            if reading.ask not in ADDRESSES:
                continue
            kind, uid, name, what, angle = ADDRESSES[reading.ask]
            card = entry.job.card_id
            reading.subject, _ = subjects.objects.get_or_create(card_id=card, kind=kind, uid=uid, defaults={"name": name})
            reading.property, reading.angle_deg, reading.ask = what, angle, renamed(reading.ask)
            reading.save(update_fields=["subject", "property", "angle_deg", "ask"])
        if entry.choices.get("skipped"):
            entry.choices["skipped"] = [renamed(ask) for ask in entry.choices["skipped"]]
            entry.save(update_fields=["choices"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0019_hand_over_addresses")]
    operations = [migrations.RunPython(forwards, migrations.RunPython.noop)]
