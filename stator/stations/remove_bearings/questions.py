"""Questions of Remove bearings: the seal as found, what retains the bearing, how it came out, and the state of the seat."""

from __future__ import annotations

from functools import partial
from typing import Any

from shopmath.seals import CLOCKS
from stator.engines.properties import Property
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import OptionRow, format_message
from stator.stations.framework.question_factory import method, question
from stator.stations.remove_bearings import messages
from stator.stations.remove_bearings.analysis import WITH_CRANK, WITH_SHAFT, BearingRemovalAnalysis

ask = partial(question, messages)


def questions(found: BearingRemovalAnalysis) -> list[Question]:
    """Seal, bearing, how it came out; then what is seen."""
    later = bool(found.outcome)
    asked = [*(_seal(found, later) if found.seal else []), *_bearing(found, later)]
    came = [row for row in messages.OPTIONS[Property.CAME_OUT] if row[0] not in (WITH_CRANK, WITH_SHAFT) or row[0] in found.stayed]
    asked.append(ask(found.at(Property.CAME_OUT), quiet=bool(found.retained or found.unchecked), choices=came))
    return [*asked, *_afterwards(found)] if later else asked


def _seal(found: BearingRemovalAnalysis, later: bool) -> list[Question]:
    asked = [ask(found.of_seal(Property.SEAL_LIP), optional=True, quiet=later)]
    for clock in CLOCKS:
        fact_key = found.of_seal(Property.SEAL_DEPTH, clock)
        asked.append(ask(fact_key, {"clock": clock}, optional=True, quiet=later, resolution=0.02, example="0.5"))
    asked.append(ask(found.of_seal(Property.SEAL_OUT), quiet=later))
    if found.seal_is_out:
        asked.append(ask(found.at(Property.BEARING_FACE_DEPTH), optional=True, quiet=later, resolution=0.02, example="8.0"))
    return asked


def _bearing(found: BearingRemovalAnalysis, later: bool) -> list[Question]:
    seat = found.seat
    marking = {"marking": found.bearing.designation}
    part = seat.faces.partition("_")[0] or "marking"
    faces: list[OptionRow] = [(f"{part}_out", messages.FACES["out"]), (f"{part}_in", messages.FACES["in"])]

    def of(what: Property, values: dict[str, Any] | None = None, **more: Any) -> Question:
        return ask(found.at(what), values, quiet=later, **more)

    return [
        of(Property.RETAINED_BY, {"on_card": seat.get_stop_display()}),
        of(Property.REACH, {"on_card": seat.get_bottom_display()}),
        of(Property.SHIELDS, marking),
        of(Property.WAY_ROUND, {"what": messages.FACED_PART[part]}, optional=True, choices=faces),
        of(Property.BEARING_DECISION),
    ]


def _afterwards(found: BearingRemovalAnalysis) -> list[Question]:
    """Once it is out, or is not."""
    asked = []
    if found.outcome in ("driven", "broke"):
        asked.append(ask(found.at(Property.HIT_THROUGH_BALLS)))
    if found.outcome == "broke" or found.way.key in ("cut", "punch"):
        asked.append(ask(found.at(Property.REASON)))
    marking = found.bearing.designation
    return [
        *asked,
        ask(found.at(Property.SEAT_CONDITION)),
        ask(found.at(Property.BEARING_MARKING), {"marking": marking}, optional=True, example=marking),
        ask(found.at(Property.NOTE), optional=True),
    ]


def methods(found: BearingRemovalAnalysis) -> tuple[Method, ...]:
    """Ways out, the gentlest first; those refused stand last."""
    if found.outcome:
        return ()
    rows: list[OptionRow] = []
    for number, way in enumerate(found.ways, 1):
        name = messages.NUMBERED if way.state != "stop" else messages.REFUSED_WAY
        because = format_message(messages.BECAUSE[way.codes[0]], {"what": found.retained})
        rows.append((way.key, format_message(name, {"number": number, "way": messages.WAY[way.key]}), because))
    return (method(messages, "way", found.way.key, rows),)
