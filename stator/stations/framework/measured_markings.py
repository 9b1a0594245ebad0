"""Markings that a card has only as typical of its kind of engine, and that the job has read off the part since."""

from __future__ import annotations

from collections.abc import Iterable

from shopmath.bearings import lookup
from shopmath.validation import BadInput
from stator.engines.fact_keys import FactKey
from stator.engines.models import Seat
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Facts


def read_off(seats: Iterable[Seat], known: Facts, own: EntryData) -> None:
    """Tell each seat the marking that was read on its bearing, in this entry or in another; what cannot be understood tells nothing."""
    for seat in seats:
        if seat.marking_assumed:
            others = known.history(seat.part, Property.BEARING_MARKING)
            said = own.said(FactKey(seat.part, Property.BEARING_MARKING)) or (others[-1].text if others else "")
            seat.read_marking = said if _is_bearing(said) else ""


def _is_bearing(marking: str) -> bool:
    try:
        lookup(marking)
    except BadInput:
        return False
    return True
