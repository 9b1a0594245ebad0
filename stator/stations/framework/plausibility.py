"""Detection of numbers that are probably typing errors, with a question and the number that was probably meant."""

from __future__ import annotations

import math

from shopmath import typing_errors
from shopmath.amounts import Amount
from shopmath.quantity import CANONICAL, Quantity
from stator.engines.fact_keys import FactKey
from stator.engines.property_specs import COUNT, WORDS
from stator.engines.typical_ranges import ALIKE, ASKED, USUAL
from stator.jobs.models import Reading
from stator.stations.framework import messages as shared
from stator.stations.framework.bound_station import BoundStation
from stator.stations.framework.messages import format_message
from stator.stations.framework.page_components import Question
from stator.stations.framework.reading_notes import CONFIRMED, UNCONFIRMED
from stator.ui.number_format import band, exact, show

__all__ = ["CONFIRMED", "TYPO", "UNCONFIRMED", "said", "why_unlikely"]

TYPO = "typo"  # code of the refusal that is asked once


def why_unlikely(work: BoundStation, ask: Question, quantity: Quantity) -> typing_errors.Unlikely | None:
    """Return why a value looks mistyped: compared with the question's limits, similar readings and usual values."""
    fact_key = ask.slot
    if fact_key is None or fact_key.about.kind in (WORDS, COUNT) or quantity.kind not in CANONICAL:
        return None
    low, high = USUAL.get(fact_key.what, (-math.inf, math.inf))
    if ask.expects is not None:
        return typing_errors.why_unlikely(quantity.canonical, [ask.expects], factor=ASKED, low=low, high=high)
    others = [each.canonical for each in work.readings if each.canonical is not None and each.ask != ask.key and _is_alike(each, fact_key)]
    return typing_errors.why_unlikely(quantity.canonical, others, factor=ALIKE.get(fact_key.what, 0.0), low=low, high=high)


def _is_alike(reading: Reading, slot: FactKey) -> bool:
    """Return True if a reading has the same property and stage, and the same part if the part is round."""
    alike = reading.property == slot.what and reading.stage == slot.at.stage and not reading.withdrawn_at
    return alike and (slot.at.clock is None or (reading.subject is not None and reading.subject.uid == slot.part.uid))


def said(found: typing_errors.Unlikely, ask: Question, quantity: Quantity) -> str:
    """Return why a number looks mistyped, as a sentence with both values."""
    assert ask.slot is not None
    kind = ask.slot.about.kind

    def amount(value: float) -> Amount:
        return exact(value, kind)

    values = {"typed": show(amount(quantity.canonical))}
    if found.meant is not None:
        values["meant"] = show(amount(found.meant))
    if found.expected is not None:
        code = "beside" if ask.expects is None else "asked"
        values["expected"] = show(amount(found.expected))
    else:
        code = "usual"
        values["range"] = band(amount(found.low or 0.0), amount(found.high or 0.0))
    return format_message(shared.TYPO[f"{code}_meant" if found.meant is not None else code], values)
