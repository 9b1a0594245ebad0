"""Bearing markings that were read on the part, where the engine card has only a typical one."""

from __future__ import annotations

from collections.abc import Iterable

from shopmath.bearings import lookup
from shopmath.validation import BadInput
from stator.engines.fact_keys import FactKey
from stator.engines.models import Seat
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Facts


def read_off(seats: Iterable[Seat], known: Facts, own: EntryData) -> None:
    """Set the marking of each seat to the one that was read on its bearing.

    A marking that cannot be parsed is ignored.
    """
    for seat in seats:
        if seat.marking_assumed:
            others = known.history(seat.part, Property.BEARING_MARKING)
            text = own.said(FactKey(seat.part, Property.BEARING_MARKING)) or (others[-1].text if others else "")
            seat.read_marking = text if _is_bearing(text) else ""


def _is_bearing(marking: str) -> bool:
    try:
        lookup(marking)
    except BadInput:
        return False
    return True
