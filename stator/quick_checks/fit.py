"""Will this fit drop in: one bearing and its seat, heated and chilled as the shop does."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from django import forms
from django.utils.translation import gettext_lazy as _

from shopmath.validation import BadInput
from stator.engines.fact_keys import FactKey
from stator.engines.models import EngineCard, Seat, case_metals
from stator.engines.parts import ENGINE
from stator.engines.properties import Property
from stator.quick_checks import messages
from stator.quick_checks.base import Answer, CheckContext, CheckForm, CheckInputs, InputFact, QuickCheck, by_station, quantity
from stator.shop.models import Chiller, Heater
from stator.stations.framework import RenderedVerdict
from stator.stations.framework.messages import format_message
from stator.stations.install_with_heat.single_seat.station import ONE_SEAT
from stator.ui.number_format import typed_number
from stator.ui.units import MM
from stator.workbench.check_in.forms import SeatForm

NONE = "none"
USUAL_CHILL_C = {Chiller.Method.FREEZER: -18.0, Chiller.Method.DRY_ICE: -70.0, Chiller.Method.SPRAY: -35.0}
LIKE_ON_THE_CARD = ("on", "designation", "code", "measured_mm")
TIGHTER = {"N7": "P7", "K7": "N7", "M7": "N7", "H7": "N7", "J7": "N7", "P7": "R7", "k5": "m5", "m5": "n5", "k6": "m6", "m6": "n6"}


class OneSeatForm(CheckForm):
    """A marking or three sizes; a fit code or a measured size; what it goes into or onto."""

    designation = forms.CharField(max_length=40, label=_("Bearing or sizes"), widget=forms.TextInput(attrs={"placeholder": "6205 C3"}))
    code = forms.CharField(
        max_length=14, required=False, label=_("Fit code of the seat"), widget=forms.TextInput(attrs={"placeholder": "N7"})
    )
    measured_mm = quantity("length", _("or measured, cold"), low=-1)
    on = forms.ChoiceField(label=_("It goes"), choices=Seat.On.choices, widget=forms.RadioSelect, initial=Seat.On.CASE)
    case_material = forms.ChoiceField(label=_("Case metal"), choices=case_metals)

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        if self.errors:
            return data
        measured = data.get("measured_mm")
        usual = {"half": "left", "loads_from": "inside", "stop": "shoulder", "role": "main"}
        values = {**usual, "on": data["on"], "designation": data["designation"], "code": data["code"]}
        values["measured_mm"] = "" if measured is None else f"{typed_number(measured, 'length', MM)} mm"
        seat = SeatForm({f"{SeatForm.prefix}-{name}": value for name, value in values.items()})
        if not seat.is_valid():
            for name, errors in seat.errors.items():
                self.add_error(name if name in self.fields else "designation", [str(each) for each in errors])
            return data
        data["seat"] = seat.instance
        return data


class FitForm(OneSeatForm):
    """A bearing in its seat, and how it is heated and chilled."""

    chips = ("on", "heat", "chill")
    heat = forms.ChoiceField(
        label=_("Heat"), choices=[*Heater.Method.choices, (NONE, _("none"))], widget=forms.RadioSelect, initial=Heater.Method.OVEN
    )
    chill = forms.ChoiceField(
        label=_("Chill"), choices=[(NONE, _("none")), *Chiller.Method.choices], widget=forms.RadioSelect, initial=Chiller.Method.FREEZER
    )
    heater_c = quantity("temperature", _("Oven or plate set to"), low=20, high=400)
    target_c = quantity("temperature", _("Heated part to"), low=20, high=300)
    chiller_c = quantity("temperature", _("Chiller at"), low=-100, high=10)
    room_c = quantity("temperature", _("Air"), low=-20, high=45)


def _thing(shelf: tuple[Any, ...], method: str, made: Any) -> tuple[tuple[Any, ...], str]:
    """Return the equipment with a device of a method, and that device."""
    if method == NONE:
        return shelf, NONE
    found = next((each for each in shelf if each.method == method), None)
    if found is not None:
        return shelf, str(found.pk)
    made.pk = -1
    return (*shelf, made), "-1"


def laid(data: dict[str, Any], desk: CheckContext) -> tuple[CheckInputs, CheckContext]:
    """Return the inputs of the fit, and the context with its heater and chiller."""
    heat, chill = data["heat"], data["chill"]
    heaters, heater = _thing(desk.shelves.heaters, heat, Heater(method=heat, name=str(dict(Heater.Method.choices).get(heat, heat))))
    at_c = data.get("chiller_c")
    usual = at_c if at_c is not None else USUAL_CHILL_C.get(chill, -18.0)
    bought = Chiller(method=chill, name=str(dict(Chiller.Method.choices).get(chill, chill)), temperature_c=usual)
    chillers, chiller = _thing(() if at_c is not None else desk.shelves.chillers, chill, bought)
    return known(data, desk, heater, chiller), desk.with_shelf(heaters=heaters, chillers=chillers)


def seat_of(data: dict[str, Any]) -> tuple[Seat, EngineCard]:
    """Return the seat of the inputs, on a card with its case material."""
    seat = data["seat"]
    seat.card = EngineCard(name="", case_material=data["case_material"], case_material_assumed=False)
    return seat, seat.card


def measured(seat: Seat) -> list[InputFact]:
    """Its size as a reading, where it was measured."""
    if seat.measured_mm is None:
        return []
    gauges = ("micrometer", "calliper") if seat.on == Seat.On.SHAFT else ("bore", "micrometer", "calliper")
    return [InputFact(FactKey(seat.part, Property.SEAT_SIZE), seat.measured_mm, gauges=gauges)]


def known(data: dict[str, Any], desk: CheckContext, heater: str = "", chiller: str = "") -> CheckInputs:
    """The readings and the choices that the fit is planned with."""
    seat, card = seat_of(data)
    said = [
        InputFact(FactKey(ENGINE, what), data[name])
        for name, what in (
            ("heater_c", Property.HEATER_SETTING),
            ("target_c", Property.HEAT_TARGET),
            ("room_c", Property.AIR_TEMPERATURE),
        )
        if data.get(name) is not None
    ]
    said += measured(seat)
    return CheckInputs(card, tuple(said), {"heater": heater or NONE, "chiller": chiller or NONE}, seat)


def _call(data: dict[str, Any], desk: CheckContext) -> RenderedVerdict:
    """Return the verdict of the same fit with a change."""
    of, at = laid(data, desk)
    return by_station(ONE_SEAT, of, replace(at, papers=())).call


def _changes(data: dict[str, Any], desk: CheckContext) -> tuple[str, ...]:
    """Return the verdicts without the chiller, with another heater, or in a tighter seat."""
    tried: list[tuple[str, dict[str, Any]]] = []
    if data["chill"] != NONE:
        tried.append(("no_chill", {"chill": NONE, "chiller_c": None}))
    elif data["heat"] != NONE:
        tried.append(("freezer", {"chill": Chiller.Method.FREEZER}))
    other = Heater.Method.TORCH if data["heat"] == Heater.Method.OVEN else Heater.Method.OVEN
    tried.append((f"heat_{other}", {"heat": other, "heater_c": None, "target_c": None}))
    seat = data["seat"]
    tighter = TIGHTER.get(seat.code, "") if seat.measured_mm is None else ""
    said = []
    for code, more in tried:
        verdict = _call({**data, **more}, desk)
        said.append(format_message(messages.FIT_CHANGES[code], {"call": verdict.headline[:1].lower() + verdict.headline[1:]}))
    if tighter:
        trial = Seat(**{name: getattr(seat, name) for name in LIKE_ON_THE_CARD}, half=seat.half, stop=seat.stop, uid=seat.uid)
        trial.code = tighter
        verdict = _call({**data, "seat": trial}, desk)
        said.append(
            format_message(messages.FIT_CHANGES["tighter"], {"code": tighter, "call": verdict.headline[:1].lower() + verdict.headline[1:]})
        )
    return tuple(said)


def answer(data: dict[str, Any], desk: CheckContext) -> Answer:
    """The station's plan for this fit, and what would change it."""
    of, at = laid(data, desk)
    found = by_station(ONE_SEAT, of, at)
    try:
        changes = _changes(data, desk)
    except BadInput:
        changes = ()
    return replace(found, changes=changes)


CHECK = QuickCheck(
    "fit",
    _("Fit"),
    _("Will it fit?"),
    FitForm,
    answer,
    _("Type the marking on the bearing, such as 6205 C3, or its sizes, such as 25x52x15."),
    {"designation": "6205 C3", "code": "N7"},
    known=lambda data, desk: laid({**data, "chiller_c": None}, desk)[0],  # on a job, the shop's own chiller of that kind
    order="heat",
    station="heat-and-drop",
)
