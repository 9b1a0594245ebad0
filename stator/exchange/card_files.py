"""Import and export of engine cards: complete as JSON, limits and the mating surface as CSV.

Described in docs/data-formats.md.

A file is accepted or refused as a whole, with the line and the reason. Values may have any unit; plain numbers are in the unit in the name.
"""

from __future__ import annotations

import csv
import io
import json
import re
from collections.abc import Iterator
from typing import Any

from django import forms
from django.db import transaction
from django.utils.translation import gettext as _

from shopmath.validation import BadInput
from stator.engines.models import CasePart, EngineCard, Mark, Seal, Seat, Spec
from stator.engines.models.case import case_part
from stator.engines.parts import HALVES
from stator.engines.properties import Property
from stator.exchange.csv_escape import plain
from stator.exchange.limit_names import held_for, limits_of
from stator.shop.data_format import FORMAT
from stator.ui import strict_json
from stator.ui.fields import QuantityField
from stator.ui.number_format import exact, show
from stator.ui.units import METRIC, Units, reading_in
from stator.workbench.check_in.card_forms import FactsForm, FittedForm, FlywheelForm, MarkForm, SealForm
from stator.workbench.check_in.case_forms import CasePartForm, JointForm
from stator.workbench.check_in.forms import SeatForm
from stator.workbench.check_in.limit_form import SpecForm

SCHEMA, VERSION = "stator-card", 5
LARGEST_BYTES = 1_000_000
MOST = 500  # of one part on one card
FACTS, WHEEL = tuple(FactsForm.base_fields), tuple(FlywheelForm.base_fields)
SEAT = (*SeatForm.base_fields, "x_mm", "y_mm")
SEAT_MARKED = ("code_assumed", "role_assumed", "marking_assumed")
SEAL, MARK, SPEC = tuple(SealForm.base_fields), tuple(MarkForm.base_fields), tuple(SpecForm.base_fields)
FITTED = tuple(FittedForm.base_fields)
CASE, JOINT = tuple(CasePartForm.base_fields), tuple(JointForm.base_fields)
CSV_COLUMNS = {"figures": SPEC, "bolts": MARK}
SHOWN = "_shown"  # ends the name of a column that says a value in the units of whoever takes the file; not read in
MEASURED = {
    "figures": {"low": "", "high": ""},  # of the figure's own kind
    "bolts": {name: field.kind for name, field in MarkForm.base_fields.items() if isinstance(field, QuantityField) and not field.fixed},
}


# out


def card_as_json(card: EngineCard) -> dict[str, Any]:
    """A card and everything on it as plain values."""

    def values(thing: Any, names: Any) -> dict[str, Any]:
        return {name: getattr(thing, name) for name in names}

    seats, seals, fitted = {seat.pk: seat for seat in card.seats.all()}, list(card.seals.all()), list(card.fitted.all())
    for seal in seals:  # the seats that have been read already, not each asked for once more
        seal.seat = seats.get(seal.seat_id or 0)
    for part in fitted:
        part.after = seats.get(part.after_id or 0)
    return {
        "schema": SCHEMA,
        "version": VERSION,
        "stator_format": FORMAT,
        "card_version": card.version,
        "engine": {**values(card, FACTS), "case_material_assumed": card.case_material_assumed, "face_assumed": card.face_assumed},
        "flywheel": values(card, WHEEL),
        "case_parts": [values(part, (*CASE, "uid")) for part in card.case_parts.all() if part.what != CasePart.What.HALF],
        "joints": [values(joint, (*JOINT, "uid")) for joint in card.joints.all() if not joint.is_first],
        "seats": [{**values(seat, (*SEAT, "uid", *SEAT_MARKED))} for seat in card.seats.all()],
        "seals": [
            {
                **values(seal, (*SEAL, "uid")),
                "seat": seal.seat.name if seal.seat else None,
                **values(seal, ("depth_assumed", "sizes_assumed")),
            }
            for seal in seals
        ],
        "fitted": [{**values(part, (*FITTED, "uid")), "after": part.after.name if part.after else None} for part in fitted],
        "marks": [values(mark, (*MARK, "uid", "assumed")) for mark in card.marks.all()],
        "figures": [values(spec, (*SPEC, "property_assumed", "held_assumed")) for spec in card.specs.all()],
    }


def card_as_csv(card: EngineCard, what: str) -> str:
    """Return the limits or the marks of a card as CSV, one per line after a line of names."""
    things: list[Spec] | list[Mark] = list(card.specs.all()) if what == "figures" else list(card.marks.all())
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    measured = MEASURED[what]
    writer.writerow([*CSV_COLUMNS[what], *(f"{name}{SHOWN}" for name in measured)])
    for thing in things:
        found = [getattr(thing, name) for name in CSV_COLUMNS[what]]
        cells = ["" if value is None else f"{value:g}" if isinstance(value, float) else plain(str(value)) for value in found]
        writer.writerow([*cells, *(_shown(getattr(thing, name), kind or getattr(thing, "kind", "")) for name, kind in measured.items())])
    return out.getvalue()


def _shown(value: float | None, kind: str) -> str:
    return "" if value is None or kind not in METRIC else show(exact(value, kind))


# in


def _text(data: bytes) -> str:
    if len(data) > LARGEST_BYTES:
        raise BadInput("file", _("That file is over 1 MB: no engine card is that large."))
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise BadInput(
            "file", _("That file is no UTF-8 text (byte {start}). Save it as UTF-8 and send it again.").format(start=error.start)
        ) from error


def _children(text: str, start: int) -> Iterator[tuple[str | int, int]]:
    """Names or numbers of the values inside the JSON value at `start`, each with where it begins."""
    decoder, i = json.JSONDecoder(), start + 1
    index = 0
    while True:
        while text[i] in " \t\r\n,":
            i += 1
        if text[i] in "]}":
            return
        key: str | int = index
        if text[start] == "{":
            key, i = decoder.raw_decode(text, i)
            i = text.index(":", i) + 1
            while text[i] in " \t\r\n":
                i += 1
        yield key, i
        _, i = decoder.raw_decode(text, i)
        index += 1


def line_of(text: str, *path: str | int) -> int:
    """Return the line of a value in a JSON text, or of the nearest enclosing value if it is missing."""
    at = len(text) - len(text.lstrip())
    for step in path:
        found = next((start for key, start in (_children(text, at) if text[at] in "[{" else ()) if key == step), None)
        if found is None:
            break
        at = found
    return text.count("\n", 0, at) + 1


class _Reader:
    """Reads a JSON card part by part; what is wrong is refused with its line."""

    def __init__(self, data: bytes) -> None:
        self.data: Any = strict_json.read(data, LARGEST_BYTES)
        self.text = data.decode("utf-8-sig")

    def refuse(self, words: str, *path: str | int) -> BadInput:
        where = ".".join(f"{step + 1}" if isinstance(step, int) else step for step in path)
        text = _("Line {line}, {where}: {reason}") if where else _("Line {line}: {reason}")
        return BadInput("file", text.format(line=line_of(self.text, *path), where=where, reason=words))

    def table(self, name: str) -> list[dict[str, Any]]:
        found = self.data.get(name, [])
        if not isinstance(found, list) or not all(isinstance(each, dict) for each in found):
            raise self.refuse(_("a list of objects is wanted."), name)
        if len(found) > MOST:
            raise self.refuse(_("{found} entries; a card holds {most} at most.").format(found=len(found), most=MOST), name)
        return found

    def thing(self, name: str) -> dict[str, Any]:
        found = self.data.get(name, {})
        if not isinstance(found, dict):
            raise self.refuse(_("an object is wanted."), name)
        return found

    def identity(self, uid: Any, *path: str | int) -> str:
        """Return the identity of a part in a file."""
        if not isinstance(uid, str) or not re.fullmatch(r"[0-9a-z-]{1,32}", uid):
            raise self.refuse(_("an identity is up to 32 small letters, digits and hyphens."), *path, "uid")
        return uid

    def save(self, form: Any, *path: str | int) -> Any:
        if form.is_valid():
            return form.save()
        for field, errors in form.errors.items():
            raise self.refuse(str(errors[0]), *path, *([field] if field != "__all__" else []))
        raise self.refuse(_("it cannot be kept."), *path)


def bound(kind: type[forms.ModelForm], values: dict[str, Any], **more: Any) -> forms.ModelForm:
    """A part's form filled with a file's values, so that a file and the page are judged by the same rules."""
    prefix = getattr(kind, "prefix", None)
    data = {f"{prefix}-{name}" if prefix else name: _said(value) for name, value in values.items() if value is not None}
    return kind(data, **more)


def _said(value: Any) -> Any:
    if isinstance(value, bool):
        return "on" if value else ""
    return [str(each) for each in value] if isinstance(value, list) else str(value)


def read_case(reader: _Reader, card: EngineCard, lifts: Any) -> None:
    """Read the case parts other than the halves, and the data of their joints."""
    for index, values in enumerate(reader.table("case_parts")):
        form = bound(CasePartForm, values, card=card)
        if "uid" in values:
            form.instance.uid = reader.identity(values["uid"], "case_parts", index)
        if card.case_parts.filter(uid=form.instance.uid).exists():
            raise reader.refuse(_("{uid} stands twice.").format(uid=form.instance.uid), "case_parts", index, "uid")
        reader.save(form, "case_parts", index)
    joints = {joint.uid: joint for joint in card.joints.all()}
    for index, values in enumerate(reader.table("joints")):
        joint = joints.get(values.get("uid", ""))
        if joint is None or joint.is_first:
            raise reader.refuse(_("these parts make no such joint."), "joints", index, "uid")
        reader.save(bound(JointForm, values, card=card, instance=joint), "joints", index)
    if lifts and lifts not in HALVES:
        if not isinstance(lifts, str) or case_part(card, lifts) is None:
            raise reader.refuse(_("there is no such part of the case."), "engine", "lifts")
        EngineCard.objects.filter(pk=card.pk).update(lifts=lifts)


@reading_in(Units.METRIC)  # a file says mm and N·m whoever reads it in
def card_from_json(data: bytes) -> EngineCard:
    """Read a card from a file and save it as an engine template; save nothing if anything is wrong."""
    reader = _Reader(data)
    if not isinstance(reader.data, dict) or reader.data.get("schema") != SCHEMA:
        raise BadInput("file", _('Line 1: this is no engine card; "schema" should be "{schema}".').format(schema=SCHEMA))
    if reader.data.get("version") != VERSION:
        found = str(reader.data.get("version"))[:20]
        words = _("the file has version {found} of an engine card. This Stator reads version {version}.")
        raise reader.refuse(words.format(found=found, version=VERSION), "version")
    engine = reader.thing("engine")
    with transaction.atomic():
        card: EngineCard = EngineCard(on_shelf=True)
        facts = {"layout": "single", "case_material": "al-si7-mg", "left_name": "drive side", "right_name": "magneto side", **engine}
        size = {"face_w_mm": card.face_w_mm, "face_h_mm": card.face_h_mm}
        lifts = facts.pop("lifts", "") or ""
        card = reader.save(bound(FactsForm, {**size, **facts, "lifts": lifts if lifts in HALVES else ""}, instance=card), "engine")
        card = reader.save(bound(FlywheelForm, reader.thing("flywheel"), instance=card), "flywheel")
        assumed = ("case_material_assumed", "face_assumed")
        EngineCard.objects.filter(pk=card.pk).update(**{name: bool(engine.get(name, True)) for name in assumed})

        def identify(thing: Any, values: dict[str, Any], *path: str | int) -> None:
            """The identity that the file gives a part, so that readings of a job find it again."""
            uid = values.get("uid")
            if uid is None:
                return
            reader.identity(uid, *path)
            if type(thing).objects.filter(card=card, uid=uid).exclude(pk=thing.pk).exists():
                raise reader.refuse(_("{uid} stands twice.").format(uid=uid), *path, "uid")
            type(thing).objects.filter(pk=thing.pk).update(uid=uid)

        read_case(reader, card, lifts)
        for index, values in enumerate(reader.table("seats")):
            form = bound(SeatForm, values, card=card)
            form.instance.card = card
            seat = reader.save(form, "seats", index)
            places = {name: values.get(name) for name in ("x_mm", "y_mm")}
            if not all(value is None or (isinstance(value, (int, float)) and abs(value) <= 500) for value in places.values()):
                raise reader.refuse(_("a place on the face is a number of mm, at most 500 from its middle."), "seats", index, "x_mm")
            marked = {name: bool(values.get(name, getattr(seat, name))) for name in SEAT_MARKED}
            Seat.objects.filter(pk=seat.pk).update(**places, **marked)
            identify(seat, values, "seats", index)

        by_name = {seat.name: str(seat.pk) for seat in card.seats.all()}

        def seat_of(values: dict[str, Any], field: str, *path: str | int) -> str | None:
            name = values.get(field)
            if name and (not isinstance(name, str) or name not in by_name):
                raise reader.refuse(_("there is no seat {name!r} on this card.").format(name=name), *path, field)
            return by_name.get(name or "")

        for index, values in enumerate(reader.table("seals")):
            depth = None if values.get("depth_assumed") else values.get("depth_mm")
            seat_key = seat_of(values, "seat", "seals", index)
            seal = reader.save(bound(SealForm, {**values, "seat": seat_key, "depth_mm": depth}, card=card), "seals", index)
            Seal.objects.filter(pk=seal.pk).update(sizes_assumed=bool(values.get("sizes_assumed")))
            identify(seal, values, "seals", index)
        for index, values in enumerate(reader.table("fitted")):
            after = seat_of(values, "after", "fitted", index)
            fitted = reader.save(bound(FittedForm, {**values, "after": after}, card=card), "fitted", index)
            identify(fitted, values, "fitted", index)
        for index, values in enumerate(reader.table("marks")):
            mark = reader.save(bound(MarkForm, values, card=card), "marks", index)
            Mark.objects.filter(pk=mark.pk).update(assumed=bool(values.get("assumed", mark.assumed)))
            identify(mark, values, "marks", index)
        for index, values in enumerate(reader.table("figures")):
            spec = reader.save(bound(SpecForm, {"kind": "length", "source_kind": "manual", **values}, card=card), "figures", index)
            assumed_of_spec = {name: bool(values.get(name)) for name in ("property_assumed", "held_assumed")}
            Spec.objects.filter(pk=spec.pk).update(**assumed_of_spec)
    return card


def _guess_held(spec: Spec) -> None:
    """Set how the crank is supported for a limit that does not state it: guessed from the measurement, and marked as a guess."""
    limited = Spec.objects.values_list("property", flat=True).get(pk=spec.pk)
    held = held_for(spec.setup) if limited == Property.CRANK_RUNOUT else ""
    if held:
        Spec.objects.filter(pk=spec.pk).update(held=held, held_assumed=True)


def _guess_limit(spec: Spec) -> None:
    """Set which property is limited for a limit that does not state it: guessed from the name, and marked as a guess."""
    taken = set(Spec.objects.filter(card=spec.card).values_list("property", flat=True))
    limited = limits_of(spec.name, taken)
    if limited:
        Spec.objects.filter(pk=spec.pk).update(property=limited, property_assumed=True)


def _names(reader: csv.DictReader) -> list[str]:
    try:
        return list(reader.fieldnames or [])
    except csv.Error as error:
        raise BadInput("file", _("Line 1: this is no CSV ({error}).").format(error=error)) from error


def _rows(reader: csv.DictReader) -> Iterator[dict[str, str]]:
    """The lines of a CSV; one that is none is refused with its number."""
    try:
        for row in reader:
            for value in row.values():
                if isinstance(value, str):
                    strict_json.check_text(value)
            yield row
    except csv.Error as error:
        raise BadInput("file", _("Line {line_num}: this is no CSV ({error}).").format(line_num=reader.line_num, error=error)) from error


@reading_in(Units.METRIC)
def read_csv(card: EngineCard, data: bytes) -> tuple[str, int]:
    """Read limits or marks of a card from CSV: a known name is changed, a new one is added.

    Return which of the two it was, and the number of lines.
    """
    text = _text(data)
    reader = csv.DictReader(io.StringIO(text, newline=""), delimiter=";" if text.partition("\n")[0].count(";") > 1 else ",")
    names = [(name or "").strip() for name in _names(reader)]
    what = "bolts" if "x_mm" in names else "figures" if "low" in names or "high" in names else ""
    if not what or "name" not in names:
        raise BadInput(
            "file",
            _("Line 1: the columns are {figures}, or {bolts}.").format(
                figures=", ".join(CSV_COLUMNS["figures"]), bolts=", ".join(CSV_COLUMNS["bolts"])
            ),
        )
    unknown = [name for name in names if name not in CSV_COLUMNS[what] and not name.endswith(SHOWN)]
    if unknown:
        raise BadInput(
            "file",
            _("Line 1: no column is called {names}. Known: {known}.").format(
                names=", ".join(map(repr, unknown)), known=", ".join(CSV_COLUMNS[what])
            ),
        )
    kind, things = (MarkForm, card.marks) if what == "bolts" else (SpecForm, card.specs)
    usual = {"what": "bolt"} if what == "bolts" else {"kind": "length", "source_kind": "manual"}
    count = 0
    with transaction.atomic():
        for row in _rows(reader):
            if None in row or None in row.values():
                raise BadInput("file", _("Line {line_num}: {names} columns are wanted.").format(line_num=reader.line_num, names=len(names)))
            values = {name.strip(): value.strip() for name, value in row.items() if value.strip() and not name.strip().endswith(SHOWN)}
            if not values:
                continue
            old = things.filter(name=values.get("name", "")).first()
            saved = {"property": old.property, "held": old.held} if isinstance(old, Spec) else {}
            form = bound(kind, {**usual, **saved, **values}, card=card, instance=old)
            if not form.is_valid():
                field, errors = next(iter(form.errors.items()))
                raise BadInput("file", _("Line {line}, {name}: {reason}").format(line=reader.line_num, name=field, reason=errors[0]))
            thing = form.save()
            if what == "figures" and "property" not in names and not thing.property:
                _guess_limit(thing)
            if isinstance(thing, Spec) and "held" not in names and not thing.held:
                _guess_held(thing)
            count += 1
            if count > MOST:
                raise BadInput("file", _("Line {line_num}: more than {most} lines.").format(line_num=reader.line_num, most=MOST))
    return what, count
