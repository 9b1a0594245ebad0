"""Keys of readings of a heat as files of earlier versions have them, and where each belongs now. Only their reader needs this."""

from __future__ import annotations

import re

from engines.models import EngineCard, Fitted, Seat
from engines.parts import ENGINE, Part
from engines.properties import Property
from engines.slots import At, Slot

HEAT = "heat-and-drop"
_OF_THE_HEAT = {
    "room": Property.AIR_TEMPERATURE,
    "heat": Property.HEATER_SETTING,
    "target": Property.HEAT_TARGET,
    "stay": Property.CHILL_STAY,
    "note": Property.NOTE,
}
_OF_THE_SEAT = {
    "seat": Property.SEAT_SIZE,
    "ring": Property.RING_SIZE,
    "case": Property.HOT_TEMPERATURE,
    "partner": Property.COLD_TEMPERATURE,
    "outcome": Property.FIT_OUTCOME,
    "circlip": Property.CIRCLIP,
    "cold": Property.SEATING_GAP_COLD,
}
_OF_FITTED = {
    "soap": (Property.BUSH_LUBRICANT, ""),
    "out1": (Property.STANDS_OUT, "inside"),
    "out2": (Property.STANDS_OUT, "outside"),
    "order": (Property.PIECES_ORDER, ""),
    "angle": (Property.DIRECTION, ""),
    "depth": (Property.END_DEPTH, ""),
    "play": (Property.SPINDLE_PLAY, ""),
}


def part_of(key: str, card: EngineCard) -> Part | None:
    """The seat or fitted part that one heat called `s12`, `c12` (its circlip) or `f3`."""
    found = re.fullmatch(r"([scf])(\d+)", key)
    if found is None:
        return None
    things: list[Seat] | list[Fitted] = list(card.fitted.all()) if found[1] == "f" else list(card.seats.all())
    return next((each.part for each in things if each.pk == int(found[2])), None)


def of_heat(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    """A key of one seat, or of a whole half."""
    if ask in _OF_THE_HEAT:
        return Slot(ENGINE, _OF_THE_HEAT[ask])
    if seat is None:
        return _one_heat(ask, card)
    if ask in _OF_THE_SEAT:
        return Slot(seat.part, _OF_THE_SEAT[ask])
    found = re.fullmatch(r"(gap|depth)(\d+)", ask)
    what = Property.SEATING_DEPTH if ask.startswith("depth") else Property.SEATING_GAP
    return Slot(seat.part, what, At(clock=int(found[2]))) if found else None


def _one_heat(ask: str, card: EngineCard) -> Slot | None:
    if ask == "case":
        return Slot(ENGINE, Property.HOT_TEMPERATURE)
    said = re.fullmatch(r"(home|way)-([scf]\d+)", ask)
    part = part_of(said[2], card) if said else None
    if said and part:
        gone_home = Property.CIRCLIP if said[2].startswith("c") else Property.FIT_OUTCOME
        return Slot(part, Property.WAY_SETTLED if said[1] == "way" else gone_home)
    found = re.fullmatch(r"(f\d+)-(\w+)", ask)
    part = part_of(found[1], card) if found else None
    if not found or not part or found[2] not in _OF_FITTED:
        return None
    what, end = _OF_FITTED[found[2]]
    return Slot(part, what, At(end=end))
