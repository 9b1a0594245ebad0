"""What was done between two rounds at True, and the holes of earlier goes at Balance, were lists among the choices; they are moves."""

from django.db import migrations


def moved(apps, schema_editor):
    entries = apps.get_model("jobs", "Entry").objects.filter(station__key__in=("true", "balance")).select_related("job")
    for entry in entries.order_by("pk"):
        rows = list(rows_of(entry.choices))
        if not rows and not ({"moves", "holes", "amounts"} & entry.choices.keys()):
            continue
        for kind, part, row in rows:
            subject, _ = apps.get_model("engines", "Subject").objects.get_or_create(card_id=entry.job.card_id, kind=part, uid=part)
            apps.get_model("jobs", "Move").objects.create(entry=entry, kind=kind, subject=subject, by_id=entry.opened_by_id, **row)
        entry.choices = {name: value for name, value in entry.choices.items() if name not in ("moves", "holes", "amounts")}
        entry.save(update_fields=["choices"])


def rows_of(choices):
    """Each move of an entry's choices: what was done, the part, its columns."""
    for number, done in enumerate(choices.get("moves") or [], 1):
        detail = {name: value for name, value in done.items() if name not in ("round", "kind", "web")}
        where = {"property": "crank-runout", "end": done.get("web", ""), "angle_deg": done.get("at_deg")}
        yield "trued", "crank", {**where, "attempt": done.get("round", number), "text": done.get("kind", "strike"), "detail": detail}
    goes = sorted({*(choices.get("holes") or {}), *(choices.get("amounts") or {})}, key=int)
    for go in goes:
        for hole in (choices.get("holes") or {}).get(go) or []:
            detail = {name: value for name, value in hole.items() if name not in ("deg", "depth_mm")}
            where = {"property": "hole-depth", "angle_deg": hole.get("deg"), "amount": hole.get("depth_mm"), "amount_kind": "length"}
            yield "drilled", "flywheel", {**where, "attempt": int(go), "detail": detail}
        found = (choices.get("amounts") or {}).get(go)
        gmm, uncertainty = found or (None, None)
        where = {"property": "unbalance", "amount": gmm, "amount_kind": "unbalance" if found else ""}
        yield "rolled", "flywheel", {**where, "attempt": int(go), "detail": {"uncertainty": uncertainty}}


class Migration(migrations.Migration):
    dependencies = [("jobs", "0026_chained"), ("engines", "0010_spec_held")]
    operations = [migrations.RunPython(moved, migrations.RunPython.noop)]
