"""Questions of Inspect parts, part by part: the crank, each seat with its bearing, then masses if they change."""

from __future__ import annotations

from functools import partial
from typing import Any

from shopmath.bearings import lookup
from stator.engines.fact_keys import FactKey, Location
from stator.engines.parts import CRANK, rod
from stator.engines.properties import Property
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import OptionRow, format_message
from stator.stations.framework.page_components import Option
from stator.stations.framework.question_factory import question
from stator.stations.inspect_parts import messages
from stator.stations.inspect_parts.analysis import BARS, BIG_END, MASSES, PLAYS, ROD, SMALL_END, TAB, WHOLE, WIDTHS, InspectionAnalysis
from stator.stations.inspect_parts.seats import ROUND, SeatInspection
from stator.ui.number_format import plain

NEAR_MM = 1.0  # a diameter further from its nominal size is not believed
CALLIPERS = ("micrometer", "calliper")


def questions(found: InspectionAnalysis) -> list[Question]:
    """Return the questions of every part; those of other parts are quiet."""
    return [ask for tab in found.tabs for ask in of_tab(found, tab)]


def of_tab(found: InspectionAnalysis, tab: str) -> list[Question]:
    ask = partial(question, messages, quiet=tab != found.tab)
    if tab == WHOLE:
        return _crank(found, ask)
    if tab == MASSES:
        return _masses(ask)
    if tab == ROD:
        return _rod(found, ask)
    return _seat(found, next(each for each in found.seats if each.part.uid == tab), ask)


def is_open(found: InspectionAnalysis, ask: Question) -> bool:
    assert ask.slot is not None
    return ask.key not in found.own.skipped and len(found.own.all(ask.slot)) < ask.times


def next_tab(found: InspectionAnalysis) -> str | None:
    """Return the next part with an open question."""
    at = found.tabs.index(found.tab)
    others = [*found.tabs[at + 1 :], *found.tabs[:at]]
    others = [tab for tab in others if tab != ROD or found.rod_is_begun]
    return next((tab for tab in others if any(is_open(found, ask) for ask in of_tab(found, tab))), None)


def tab_name(found: InspectionAnalysis, tab: str) -> str:
    seat = next((each.seat.name for each in found.seats if each.part.uid == tab), "")
    return seat or str(messages.TABS[tab])


def tabs(found: InspectionAnalysis) -> Method:
    options = tuple(Option(tab, tab_name(found, tab)) for tab in found.tabs)
    return Method(TAB, str(messages.IN_HAND), options, found.tab)


def _crank(found: InspectionAnalysis, ask: Any) -> list[Question]:
    of = [format_message(messages.OF_ROD, {"rod": each.name}) if len(found.rods) > 1 else "" for each in found.rods]
    gauges = {Property.BIG_END_RADIAL_PLAY: ("dial",), Property.BIG_END_SIDE_PLAY: ("feeler",)}
    asked = []
    for each, suffix in zip(found.rods, of, strict=True):
        for what in PLAYS:
            example = "0.30" if what == Property.BIG_END_SIDE_PLAY else "0.00"
            asked.append(_size(found, ask, FactKey(each, what), gauges[what], {"of": suffix}, example=example))
    asked.append(_size(found, ask, FactKey(rod(1), Property.SMALL_END_PLAY), ("dial",), example="0.02"))
    asked += _tilt(found, ask)
    asked += [
        _size(found, ask, fact_key, CALLIPERS, {"where": messages.WEB_PLACE[fact_key.at.angle_deg or 0]}, example="52.05")
        for fact_key in WIDTHS
    ]
    asked.append(ask(FactKey(CRANK, Property.DAMAGE)))
    if found.is_damaged:
        asked.append(ask(FactKey(CRANK, Property.DAMAGE_WHERE)))
    return [*asked, ask(FactKey(CRANK, Property.MASSES))]


def _tilt(found: InspectionAnalysis, ask: Any) -> list[Question]:
    """Return the question for the sideways movement of the small end.

    It is asked if the card has a limit, otherwise optional. With the rod's sizes it yields the radial clearance.
    """
    aside = {} if found.known.limit(Property.SMALL_END_TILT) else {"quiet": True, "hide_until_answered": True}
    ask = partial(question, messages, **{"quiet": ask.keywords.get("quiet", False), **aside})
    asked = [_size(found, ask, FactKey(rod(1), Property.SMALL_END_TILT), ("dial",), example="1.2")]
    if found.own.has(FactKey(rod(1), Property.SMALL_END_TILT)):
        asked.append(_size(found, ask, FactKey(rod(1), Property.ROD_LENGTH), CALLIPERS, example="110"))
        asked.append(_size(found, ask, FactKey(rod(1), Property.BIG_END_WIDTH), CALLIPERS, example="16"))
    return asked


def _size(
    found: InspectionAnalysis, ask: Any, slot: FactKey, gauges: tuple[str, ...], values: dict[str, Any] | None = None, **more: Any
) -> Question:
    """Return the question for an optional length, which is measured again if its verdict was too close to call."""
    asked: Question = ask(slot, values, optional=True, gauges=gauges, times=found.own.times(slot), **more)
    return asked


def _seat(found: InspectionAnalysis, of: SeatInspection, ask: Any) -> list[Question]:
    """The bearing first, while it is in the hand, unless it is scrap already; then what it sits in or on."""
    in_hand = partial(ask, quiet=True, hide_until_answered=True) if of.scrapped_at else ask
    marking = of.bearing.designation if of.bearing else "6205 C3"
    asked = [
        in_hand(of.at(Property.BEARING_MARKING), optional=True, example=marking, reads=lookup),
        in_hand(of.at(Property.HIT_THROUGH_BALLS)),
        in_hand(of.at(Property.BEARING_HISTORY)),
        in_hand(of.at(Property.BEARING_FEEL)),
        in_hand(of.at(Property.RACES)),
    ]
    if of.is_shielded:
        asked.append(in_hand(of.at(Property.SLOW_AND_HIDDEN)))
    return [*asked, *_diameters(found, of, ask, in_hand)]


def _diameters(found: InspectionAnalysis, of: SeatInspection, ask: Any, of_ring: Any) -> list[Question]:
    gauges, other = (("micrometer",), ("bore",)) if of.on_shaft else (("bore",), ("micrometer",))
    surface = {"surface": messages.SURFACE["journal" if of.on_shaft else "bore"]}
    near: dict[str, Any] = {"example": f"{of.nominal:.3f}" if of.nominal else "47.012"}
    if of.nominal:
        near["limits"] = (of.nominal - NEAR_MM, of.nominal + NEAR_MM)
    asked = [ask(of.at(Property.SEAT_TEMPERATURE), optional=True, resolution=1.0, example="20")]
    for place in ROUND:
        fact_key = of.at(Property.SEAT_DIAMETER, place)
        left = {} if place != ROUND[0] else {"skip_means": str(messages.SEAT_NOT_MEASURED)}
        asked.append(_size(found, ask, fact_key, gauges, {**surface, **_place(place)}, **near, **left))
        if not found.own.has(of.at(Property.SEAT_DIAMETER, ROUND[0])):
            break
    if of.on_shaft:
        asked.append(_size(found, ask, of.at(Property.VEE_RUNOUT), ("dial",), example="0.004"))
    ring = {"surface": messages.RING["bore" if of.on_shaft else "outside"]}
    asked.append(_size(found, of_ring, of.at(Property.RING_DIAMETER), other, ring, **near))
    if of.is_out:
        asked.append(_size(found, ask, of.at(Property.WALL_THICKNESS), ("calliper",), example="8"))
        asked.append(ask(of.at(Property.SEAT_MEND), choices=_mends(of)))
    return asked


def _place(place: Location) -> dict[str, Any]:
    return {"depth": messages.DEPTH[place.depth], "angle": plain(place.angle_deg or 0.0)}


def _mends(of: SeatInspection) -> list[OptionRow]:
    rows: list[OptionRow] = []
    for alternative in of.mends:
        name = (
            messages.MEND_ON_SHAFT.get(alternative.key, messages.MEND[alternative.key]) if of.on_shaft else messages.MEND[alternative.key]
        )
        rows.append((alternative.key, name) if alternative.fits else (alternative.key, name, messages.NOT_HERE))
    return rows


def _rod(found: InspectionAnalysis, ask: Any) -> list[Question]:
    """Return the questions for a bar through each end, with the rod upright and flat.

    Differences over the span are bend and twist.
    """
    asked = [ask(FactKey(rod(1), Property.BAR_SPAN), optional=True, example="100", resolution=1.0, gauges=("calliper",))]
    if not found.rod_is_begun:
        return asked
    for lies in BARS.values():
        for end in (SMALL_END, BIG_END):
            values = {"end": messages.ROD_END[end], "lies": messages.ROD_LIES[lies]}
            asked.append(_size(found, ask, found.bar(end, lies), ("dial",), values, example="0.02"))
    return asked


def _masses(ask: Any) -> list[Question]:
    needed = (
        (FactKey(CRANK, Property.HUNG_MASS), "85"),
        (FactKey(rod(1), Property.SMALL_END_MASS), "62"),
        (FactKey(CRANK, Property.RECIPROCATING_MASS), "330"),
        (FactKey(CRANK, Property.RECIPROCATING_MASS_BEFORE), "310"),
    )
    last = Property.RECIPROCATING_MASS_BEFORE
    return [ask(fact_key, example=example, resolution=0.001, optional=fact_key.what == last) for fact_key, example in needed]
