"""Quick check of a cold installation: one bearing or bushing pulled, pressed or tapped into its seat."""

from __future__ import annotations

from typing import Any

from django import forms
from django.utils.translation import gettext_lazy as _

from shopmath.notation import metric_thread
from shopmath.validation import BadInput
from stator.engines.fact_keys import FactKey
from stator.engines.properties import Property
from stator.quick_checks.base import Answer, CheckContext, CheckInputs, InputFact, QuickCheck, by_station, quantity
from stator.quick_checks.fit import OneSeatForm, measured, seat_of
from stator.shop.models import Press
from stator.stations.install_without_heat import messages
from stator.stations.install_without_heat.analysis import DRAW, PRESS
from stator.stations.install_without_heat.station import STATION

WAYS = [(row[0], row[1]) for row in messages.METHOD["way"][1]]
OIL = [(row[0], row[1]) for row in messages.METHOD["oil"][1]]


class ColdForm(OneSeatForm):
    """Return the inputs: a bearing and its seat, the metal around it, and the tool."""

    chips = ("on", "way", "oil")
    wall_mm = quantity("length", _("Thinnest wall around the bore"), low=1, high=100)
    way = forms.ChoiceField(label=_("Pushed in by"), choices=WAYS, widget=forms.RadioSelect, initial=DRAW)
    oil = forms.ChoiceField(label=_("Seat and ring"), choices=OIL, widget=forms.RadioSelect, initial="oiled")
    screw = forms.CharField(max_length=20, required=False, label=_("Its screw"), widget=forms.TextInput(attrs={"placeholder": "M12x1.75"}))
    press_n = quantity("force", _("or the press can do"), low=1000, high=5_000_000)

    def clean_screw(self) -> tuple[float, float] | None:
        typed = self.cleaned_data["screw"]
        try:
            return metric_thread(typed) if typed else None
        except BadInput as error:
            raise forms.ValidationError(str(error.message)) from error


def known(data: dict[str, Any], desk: CheckContext) -> CheckInputs:
    """The readings and the choices that it is worked out from."""
    seat, card = seat_of(data)
    said = measured(seat)
    if data.get("wall_mm") is not None:
        said.append(InputFact(FactKey(seat.part, Property.WALL_THICKNESS), data["wall_mm"], gauges=("calliper",)))
    sizes: tuple[Property, ...] = (Property.SEAT_SIZE, Property.RING_SIZE, Property.WALL_THICKNESS)
    if data["way"] == DRAW and data.get("screw"):
        diameter, pitch = data["screw"]
        said += [
            InputFact(FactKey(seat.part, Property.CENTRE_SCREW_DIAMETER), diameter),
            InputFact(FactKey(seat.part, Property.CENTRE_SCREW_PITCH), pitch),
        ]
        sizes = (*sizes, Property.TRAVEL)
    had = {each.slot for each in said}
    skipped = tuple(fact_key for what in sizes if (fact_key := FactKey(seat.part, what)) not in had)
    return CheckInputs(card, tuple(said), {"way": data["way"], "oil": data["oil"]}, seat, skipped)


def answer(data: dict[str, Any], desk: CheckContext) -> Answer:
    """The station's own call on it."""
    if data["way"] == PRESS and data.get("press_n"):
        capacity = f"{data['press_n'] / 1000:g} kN"
        desk = desk.with_shelf(presses=(Press(name="", capacity_n=data["press_n"], capacity_text=capacity),))
    return by_station(STATION, known(data, desk), desk)


CHECK = QuickCheck(
    "cold",
    _("Cold"),
    _("Will it go in cold?"),
    ColdForm,
    answer,
    _("Type the marking on the bearing, such as 6204, or the sizes of a bush, such as 20x26x16."),
    {"designation": "6204", "code": "N7", "wall_mm": "10 mm", "way": DRAW, "screw": "M12x1.75"},
    known=known,
    order="cold",
    station="fit-cold",
)
