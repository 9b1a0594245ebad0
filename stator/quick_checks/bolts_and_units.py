"""Quick checks of a bolt's torque, a flywheel's unbalance, and conversion of units."""

from __future__ import annotations

import math
from typing import Any

from django import forms
from django.utils.translation import gettext_lazy as _

from shopmath.amounts import Amount, mm, newtons, rough
from shopmath.balance.unbalance import force_n, permissible_gmm
from shopmath.case_closing import PROOF_MPA, bolt_load
from shopmath.conversion import convert
from shopmath.materials import get
from shopmath.quantity import CANONICAL, KINDS, parse
from shopmath.screw_threads import UNKNOWN
from shopmath.validation import BadInput
from stator.engines.models import EngineCard, Mark, case_metals
from stator.quick_checks import messages
from stator.quick_checks.base import Answer, CheckContext, CheckForm, CheckInputs, QuickCheck, Row, quantity
from stator.quick_checks.threads import ThreadField
from stator.stations.framework import Scale, State
from stator.stations.framework.messages import ON_THREADS
from stator.ui.number_format import band, plain, pull, show
from stator.ui.units import KG, METRIC, reader

NEW_STEEL_KG_M3, DRILL_MM = 7850.0, 6.0
GRADES = (("2.5", _("G 2.5, fast and smooth")), ("6.3", _("G 6.3, flywheels")), ("16", _("G 16, rough service")), ("40", _("G 40")))


class BoltForm(CheckForm):
    chips = ("bolt_class",)
    thread = ThreadField(label=_("Bolt"), widget=forms.TextInput(attrs={"placeholder": "M6"}))
    torque_nm = quantity("torque", _("Torque"), low=0.1, high=1000, required=True)
    engaged_mm = quantity("length", _("Depth in the case"), low=0.5, high=200, required=True)
    metal = forms.ChoiceField(label=_("Case metal"), choices=case_metals)
    bolt_class = forms.ChoiceField(
        label=_("Property class"), choices=[(each, each) for each in PROOF_MPA], widget=forms.RadioSelect, initial="8.8"
    )
    state = forms.ChoiceField(label=_("On the thread"), choices=[(row[0], row[1]) for row in ON_THREADS], initial=UNKNOWN)

    def clean_thread(self) -> tuple[float, float]:
        found = self.cleaned_data.get("thread")
        if not found:
            raise forms.ValidationError(_("Type the thread, such as M6 or M8x1.25."))
        return found  # type: ignore[no-any-return]


def bolt(data: dict[str, Any], desk: CheckContext) -> Answer:
    """Return the preload of a torque, compared with the bolt's proof load and the strength of the case's thread."""
    (d, pitch), metal = data["thread"], get(data["metal"])
    uts = metal.uts_mpa[0] if metal.uts_mpa else 160.0
    try:
        found = bolt_load(data["torque_nm"], d, pitch, data["engaged_mm"], uts, data["bolt_class"], state=data["state"])
    except BadInput as error:
        return Answer(messages.said("bolt", State.WAIT, "cannot", {"reason": error.message}))
    low, high = rough(newtons(found.preload_n.low)), rough(newtons(found.preload_n.high))
    weak = newtons(min(found.proof_n, found.strip_n))
    part = messages.WEAK["bolt" if found.proof_n <= found.strip_n else "thread"]
    values = {"low": low, "high": high, "band": band(low, high), "weak": weak, "part": part}
    rows = (
        Row(messages.BOLT_ROWS["preload"], band(low, high), messages.BOLT_ROWS["preload_from"]),
        Row(messages.BOLT_ROWS["proof"], show(newtons(found.proof_n))),
        Row(messages.BOLT_ROWS["strip"], show(newtons(found.strip_n))),
    )
    likely = found.preload_n.likely / 1000
    uncertainty = max(found.preload_n.high - found.preload_n.likely, found.preload_n.likely - found.preload_n.low) / 1000
    scale = Scale(likely, uncertainty, None, min(found.proof_n, found.strip_n) / 1000, "kN", 1)
    return Answer(messages.said("bolt", found.call.state, found.call.code, values, scale), rows=rows)


def known_of_bolt(data: dict[str, Any], desk: CheckContext) -> CheckInputs:
    """Return the inputs: one bolt on the mating surface with its torque, and the condition of its thread."""
    d, pitch = data["thread"]
    source = messages.BOLT_SOURCE.format(bolt_class=data["bolt_class"], engaged=show(mm(data["engaged_mm"], 0.1)))
    values = {"d_mm": d, "pitch_mm": pitch, "torque_nm": data["torque_nm"], "assumed": False, "source": source[:80]}
    card = EngineCard(name="", case_material=data["metal"], case_material_assumed=False)
    return CheckInputs(card, chosen={"threads": data["state"]}, marks=(Mark(name="1", x_mm=0, y_mm=0, **values),))


class UnbalanceForm(CheckForm):
    chips = ("grade",)
    mass_kg = quantity("mass", _("Mass of the wheel"), unit=KG, low=0.01, high=500, required=True, help_text=_("1.9 kg, 4.2 lb"))
    rpm = forms.FloatField(label=_("Highest speed, rpm"), min_value=50, max_value=60000)
    grade = forms.ChoiceField(label=_("Balance grade"), choices=GRADES, widget=forms.RadioSelect, initial="6.3")
    radius_mm = quantity("length", _("Drilled at a radius of"), low=1, high=1000)


def known_of_wheel(data: dict[str, Any], desk: CheckContext) -> CheckInputs:
    """Return the inputs: the flywheel's mass and speed, on the card; vibration and condition are asked at Balance flywheel."""
    return CheckInputs(EngineCard(name="", wheel_kg=data["mass_kg"], wheel_rpm=data["rpm"], flywheel_source=str(messages.AS_TYPED)))


def unbalance(data: dict[str, Any], desk: CheckContext) -> Answer:
    """Return what a grade permits, the resulting force at speed, and the mass at the drilling radius."""
    allowed = permissible_gmm(float(data["grade"]), data["mass_kg"], data["rpm"])
    amount = Amount(allowed, "unbalance", 0.1)
    rows = [Row(messages.UNBALANCE_ROWS["pulls"], pull(force_n(allowed, data["rpm"])), messages.UNBALANCE_ROWS["pulls_at"])]
    if data.get("radius_mm"):
        grams = allowed / data["radius_mm"]
        rows.append(Row(messages.UNBALANCE_ROWS["at_radius"], f"{plain(grams, 3)} g"))
        deep = grams / 1000 / (NEW_STEEL_KG_M3 * 1e-9 * math.pi * DRILL_MM**2 / 4)
        rows.append(Row(messages.UNBALANCE_ROWS["hole"], show(Amount(deep, "length", 0.1)), messages.UNBALANCE_ROWS["hole_of"]))
    return Answer(messages.said("unbalance", State.IN, "allowed", {"allowed": amount}), rows=tuple(rows))


OTHERS = {  # units that a quantity of each kind is told in
    "length": ("mm", "um", "inch", "thou"),
    "temperature": ("degC", "degF", "kelvin"),
    "temperature_difference": ("K", "delta_degF"),
    "torque": ("N*m", "ft_lb", "inch*lbf", "kgf*m"),
    "force": ("N", "kN", "lbf", "kgf", "US_ton_force"),
    "mass": ("g", "kg", "oz", "lb"),
    "pressure": ("kPa", "bar", "psi", "inHg"),
    "speed": ("rpm",),
    "angle": ("deg",),
    "time": ("s", "min"),
    "thread_pitch": ("mm", "tpi"),
}


class ConvertForm(CheckForm):
    text = forms.CharField(
        max_length=60,
        label=_("Number with its unit"),
        widget=forms.TextInput(attrs={"placeholder": "7.2 ft-lb"}),
        help_text=messages.CONVERT,
    )


def converted(data: dict[str, Any], desk: CheckContext) -> Answer:
    """A quantity in every unit of the kinds that its own unit belongs to."""
    rows: list[Row] = []
    reason = ""
    for kind in KINDS:
        try:
            found = parse(data["text"], kind, ton=desk.shop.ton or None)
        except BadInput as error:
            reason = reason or error.message
            continue
        if kind in ("time", "angle") or not found.unit:
            continue
        for unit in OTHERS[kind]:
            rows.append(_in(found.canonical, kind, unit, found.unit))
    if not rows:
        return Answer(messages.said("convert", State.WAIT, "cannot", {"reason": reason}))
    return Answer(messages.said("convert", State.IN, "same", {"text": data["text"].strip(), "first": _best(rows).value}), rows=tuple(rows))


def _in(value: float, kind: str, unit: str, typed: str) -> Row:
    if unit == "tpi":
        number = 25.4 / value
    else:
        number = convert(value, CANONICAL[kind], unit)
    return Row(messages.UNIT_NAMES[unit], f"{plain(number, 6)} {messages.UNIT_SIGNS.get(unit, unit)}".strip(), "", unit == typed)


def _best(rows: list[Row]) -> Row:
    """The line that says something new: in the reader's units, else the first that was not typed."""
    metric = reader.get().system("length") == "metric"
    names = {str(each.name) for each in METRIC.values()} if metric else set()
    others = [each for each in rows if not each.best]
    return next((each for each in others if each.value.rpartition(" ")[2] in names), others[0] if others else rows[0])


CHECKS = (
    QuickCheck(
        "bolt",
        _("Bolt torque"),
        _("What does the torque do?"),
        BoltForm,
        bolt,
        _("Type the bolt, the torque, and how deep it is screwed into the case."),
        {"thread": "M6", "torque_nm": "10 Nm", "engaged_mm": "12 mm", "bolt_class": "8.8", "state": "as received", "metal": "al-si7-mg"},
        known=known_of_bolt,
        order="bottom-end",
        station="close",
    ),
    QuickCheck(
        "unbalance",
        _("Unbalance"),
        _("How much unbalance is allowed?"),
        UnbalanceForm,
        unbalance,
        _("Type the wheel's mass and the highest speed that it runs at."),
        {"mass_kg": "1.9 kg", "rpm": "8500", "grade": "6.3", "radius_mm": "62 mm"},
        known=known_of_wheel,
        order="flywheel",
        station="balance",
    ),
    QuickCheck(
        "convert",
        _("Convert"),
        _("In other units?"),
        ConvertForm,
        converted,
        _("Type a number with its unit, such as 7.2 ft-lb."),
        {"text": "7.2 ft-lb"},
    ),
)
