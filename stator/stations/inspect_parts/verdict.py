"""The verdict on the part being inspected, and on all parts when the entry is signed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from functools import partial
from typing import Any

from shopmath.amounts import DOWN, count, estimate, kilograms, mm, mounted_clearance
from shopmath.bearings import lookup
from shopmath.bearings.reuse import KEEP, MAY_STAY
from shopmath.form import Repair
from shopmath.validation import BadInput
from stator.engines.clearance import PARTNER
from stator.engines.fact_keys import FactKey
from stator.engines.parts import CRANK
from stator.engines.properties import Property
from stator.jobs.facts import Finding, MeasuredReading
from stator.stations.framework import (
    Alternative,
    Contradiction,
    DerivedValue,
    MessageRef,
    Question,
    SafetyWarning,
    Scale,
    Source,
    State,
    Verdict,
    question_factory,
)
from stator.stations.framework.limits import limit_values
from stator.stations.framework.messages import LIMIT_FROM, format_message, render_message
from stator.stations.framework.registry import station_name
from stator.stations.inspect_parts import messages
from stator.stations.inspect_parts.analysis import MASSES, ROD, WHOLE, Code, InspectionAnalysis, worst_of
from stator.stations.inspect_parts.figures import InspectedValue
from stator.stations.inspect_parts.questions import next_tab, tab_name
from stator.stations.inspect_parts.seats import SeatInspection
from stator.ui.number_format import band, between, exact, figure, show, trade
from stator.ui.table_texts import from_table

source = partial(question_factory.source, messages)
KEEPING = {KEEP: (State.IN, Code.KEEP), MAY_STAY: (State.TOO_CLOSE, Code.MAY_STAY)}
FIRST_ASKED = (Property.BEARING_MARKING, Property.SEAT_DIAMETER)  # a figure that is out does not hide these


def verdict(found: InspectionAnalysis, questions: list[Question]) -> Verdict:
    """Return the verdict on the part being inspected; `asked` are its open questions."""
    judged = _in_hand(found, questions)
    return (
        replace(judged, assumed=(*judged.assumed, MessageRef("big_end_level"))) if found.tab == ROD and found.big_end_is_assumed else judged
    )


def _in_hand(found: InspectionAnalysis, questions: list[Question]) -> Verdict:
    worst = worst_of(found.figures)
    if questions and not (worst and worst.state == State.OUT and _what(questions[0]) not in FIRST_ASKED):
        return _measure(found, questions[0])
    if found.tab == MASSES:
        return _factor(found)
    if found.is_damaged and not found.seat:
        values = {"damage": found.said(Property.DAMAGE_WHERE)}
        alternatives = (Alternative(FactKey(CRANK, Property.DAMAGE)), Alternative(page="run"))
        return Verdict(State.STOP, Code.DAMAGED, values, "damage", "decide", ways=alternatives)
    if worst and worst.state != State.IN:
        return _figure(found, worst)
    if found.seat:
        return _seat(found, found.seat, worst)
    if worst:
        return _onward(found, State.IN, Code.WITHIN, "figure", _judged(worst), scale=_scale(worst))
    return _onward(found, State.WAIT, Code.RECORDED, "no_limits", {})


def overall(found: InspectionAnalysis) -> Verdict:
    """The worst of everything, which is signed."""
    worst = worst_of(found.all_figures)
    if found.is_damaged:
        return Verdict(State.OUT, Code.DAMAGED, {"damage": found.said(Property.DAMAGE_WHERE)}, "damage", "decide")
    if found.replaced and not (worst and worst.state == State.OUT):
        values = {"seats": [each.seat.name for each in found.replaced]}
        return Verdict(State.OUT, Code.REPLACED, values, "seats", "not_back")
    if worst and worst.state != State.IN:
        code = Code.FIGURE_OUT if worst.state == State.OUT else Code.TOO_CLOSE
        values, detail = _judged(worst), ""
        if found.replaced:
            values["seats"], detail = [each.seat.name for each in found.replaced], "seats_too"
        return Verdict(worst.state, code, values, "figure", "not_back" if worst.state == State.OUT else "nothing_settles", detail)
    may_stay = [each.seat.name for each in found.seats if each.keeping and each.keeping.verdict == MAY_STAY]
    if may_stay:  # a bearing's own verdict is not covered by its seat's
        return Verdict(State.TOO_CLOSE, Code.MAY_STAY, {"seats": may_stay}, "may_stay", "sign")
    if worst:
        return Verdict(State.IN, Code.WITHIN, _judged(worst), "figure", "sign")
    return Verdict(State.WAIT, Code.RECORDED, {}, "no_limits_at_all", "sign")


def _what(ask: Question) -> Property | None:
    return ask.slot.what if ask.slot else None


def _onward(found: InspectionAnalysis, state: str, code: Code, reason: str, values: dict[str, Any], **more: Any) -> Verdict:
    """A call after which the next part is taken up, or the entry is signed."""
    tab = next_tab(found)
    values = {**values, "part": tab_name(found, tab)} if tab else values
    return Verdict(state, code, values, reason, "on_to" if tab else "sign", **more)


def _scale(of: InspectedValue) -> Scale:
    digits = 2 if of.step >= 0.01 else 3
    return Scale(of.value, of.uncertainty, of.bounds.low, of.bounds.high, "mm", digits)


def said_of(of: InspectedValue) -> str:
    """Return a value compared with its limits, as a sentence."""
    return format_message(messages.REASON[of.call.code], limit_values(of.call, "length", of.step)) if of.call else ""


def _judged(of: InspectedValue) -> dict[str, Any]:
    return {"figure": str(messages.FIGURE[of.code]), "verdict": said_of(of), "limit_from": limit_from(of)}


def limit_from(of: InspectedValue) -> str:
    said = of.bounds.source
    return render_message(LIMIT_FROM, said.code, said.values)


def _measure(found: InspectionAnalysis, ask: Question) -> Verdict:
    what = _what(ask)
    if found.tab in (MASSES, ROD):
        reason = found.tab
    elif found.seat is None:
        reason = {Property.BIG_END_RADIAL_PLAY: "radial", Property.BIG_END_SIDE_PLAY: "side"}.get(what or Property.NOTE, "first")
    else:
        reason = "bearing_first" if ask.options or ask.is_words else "around"
    return Verdict(State.WAIT, Code.MEASURE, {}, reason, "measure")


def _figure(found: InspectionAnalysis, of: InspectedValue) -> Verdict:
    values = {**_judged(of), **(of.call.values if of.call else {})}
    values = {**values, **(limit_values(of.call, "length", of.step) if of.call else {})}
    reason = of.call.code if of.call else "no_limits"
    if of.state == State.OUT:
        move, more = _mended(found, of)
        bearing = _bearing_too(found.seat)
        return Verdict(
            State.OUT, Code.FIGURE_OUT, {**values, **more, **bearing}, reason, move, "bearing_too" if bearing else "", scale=_scale(of)
        )
    settle, finer = found.settling, of.settles(found.own)
    gauge = mm(finer.resolution, 0.0001) if finer and finer.resolution else None
    if gauge:
        values["gauge"] = show(exact(gauge.value))
    if settle and settle[0].code == of.code:
        values["readings"] = count(settle[1])
    move = "readings_or_gauge" if "readings" in values and gauge else "readings" if "readings" in values else "gauge"
    move = move if gauge or "readings" in values else "nothing_settles"
    return Verdict(State.TOO_CLOSE, Code.TOO_CLOSE, values, reason, move, "source", scale=_scale(of))


def _bearing_too(of: SeatInspection | None) -> dict[str, Any]:
    """Return what is to become of the bearing, where its seat's call would cover it."""
    if of is None or of.keeping is None or of.keeping.verdict == KEEP:
        return {}
    code = KEEPING.get(of.keeping.verdict, (State.OUT, Code.REPLACE))[1]
    station = {"station": station_name(of.scrapped_at)}
    reasons = "; ".join(format_message(messages.BEARING[each], station) for each in of.keeping.codes)
    return {"bearing": str(messages.HEADLINE[code]), "bearing_reasons": reasons}


def _mended(found: InspectionAnalysis, of: InspectedValue) -> tuple[str, dict[str, Any]]:
    """Return what to do about a value that is Not OK."""
    seat = found.seat
    if seat is None:
        fault = messages.FAULT.get(of.code)
        return ("worn", {"fault": fault}) if fault else ("not_back", {})
    alternative = seat.mend
    if alternative is None:
        best = next(each for each in seat.mends if each.fits)
        return "mend", _way(seat, best)
    return "mended" if alternative.fits else "against", _way(seat, alternative)


def mend_name(of: SeatInspection, key: str) -> Any:
    return messages.MEND_ON_SHAFT.get(key, messages.MEND[key]) if of.on_shaft else messages.MEND[key]


def _way(of: SeatInspection, way: Repair) -> dict[str, Any]:
    sizes = {name: mm(value, 0.001 if name in ("loose", "form") else 0.1) for name, value in way.values.items()}
    return {"mend": mend_name(of, way.key), "because": format_message(messages.MEND_BECAUSE[way.code], sizes)}


def _seat(found: InspectionAnalysis, of: SeatInspection, worst: InspectedValue | None) -> Verdict:
    """Seat in or not measured: the bearing decides."""
    saved = of.keeping
    values = _judged(worst) if worst else {}
    detail = "too_warm" if of.too_warm else "figure" if worst else ""
    if saved is None:
        reason = detail or "nothing"
        return _onward(found, State.WAIT, Code.RECORDED, reason, values)
    state, code = KEEPING.get(saved.verdict, (State.OUT, Code.REPLACE))
    station = {"station": station_name(of.scrapped_at)}
    reasons = "; ".join(format_message(messages.BEARING[each], station) for each in saved.codes)
    unknown = "; ".join(str(messages.BEARING_UNKNOWN[each]) for each in saved.unknown_codes)
    values = {**values, "reasons": reasons, "unknown": unknown}
    assumed = (MessageRef("code", {"code": of.seat.code, "seat": of.seat.name}),) if of.seat.code_assumed and worst else ()
    reason = "keeping_unknown" if unknown else "keeping"
    scale = _scale(worst) if worst else None
    return _onward(found, state, code, reason, values, detail=detail, scale=scale, assumed=assumed)


def _factor(found: InspectionAnalysis) -> Verdict:
    factor = found.factor
    if factor is None:
        return Verdict(State.WAIT, Code.WEIGH, {}, "weigh", "weigh")
    values: dict[str, Any] = {"factor": figure(factor.new, 3)}
    if factor.old is None or factor.hung_kg is None:
        return _onward(found, State.WAIT, Code.FACTOR, "factor_new", values)
    values |= {"old": figure(factor.old, 3), "hung": kilograms(factor.hung_kg)}
    return Verdict(State.WAIT, Code.FACTOR, values, "factor_more" if factor.new > factor.old else "factor_less", "hang")


def contradictions(found: InspectionAnalysis) -> Iterator[Contradiction]:
    """Bearings that are marked otherwise than the card says."""
    for each in found.seats:
        if each.marking_differs:
            yield Contradiction(each.at(Property.BEARING_MARKING), each.said(Property.BEARING_MARKING), each.seat.designation, "bearing")


def note(found: InspectionAnalysis, reading: MeasuredReading) -> str:
    """Return the meaning of a marking, as a note on its reading."""
    if reading.slot.what != Property.BEARING_MARKING:
        return ""
    try:
        marked = lookup(found.own.said(reading.slot))
    except BadInput:
        return ""
    strange = ", ".join(marked.not_understood)
    values = {"found": ", ".join(map(from_table, marked.understood)), "strange": strange}
    return format_message(messages.NOT_UNDERSTOOD if strange else messages.UNDERSTOOD, values)


def checks(found: InspectionAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.checks(messages)


def warnings(found: InspectionAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.warnings(messages)


def results(found: InspectionAnalysis) -> Iterator[DerivedValue]:
    """Yield what the readings of several places came to."""
    for each in found.all_figures:
        if len(each.slots) > 1 or each.code == "lobes":
            low, high = ((None if end is None else mm(end, each.step)) for end in (each.bounds.low, each.bounds.high))
            fact_key = FactKey(each.slots[0].part, each.slots[0].what)
            code = "mean width" if each.code == Property.WIDTH_OVER_WEBS else each.code
            yield DerivedValue(fact_key, code, each.amount, None, low, high, each.bounds.source, each.state)


def derived(found: InspectionAnalysis) -> Iterator[Finding]:
    """Yield each seat's size at 20 °C and whether it retains a bearing, whether each bearing stays, and whether each rod is worn."""
    for play in (*found.crank_figures, *found.rod_figures):
        if play.code in (Property.BIG_END_RADIAL_PLAY, Property.ROD_BEND, Property.ROD_TWIST) and play.state == State.OUT:
            yield Finding(FactKey(play.slots[0].part, Property.REPLACED), text="rod-kit")
    for each in found.seats:
        if each.figures:
            size = each.figures[0]
            yield Finding(each.at(Property.SEAT_SIZE), size.value, uncertainty=size.uncertainty, resolution=0.001)
        if each.verdict:
            yield Finding(each.at(Property.SEAT_VERDICT), text=each.verdict)
        if each.keeping:
            stays = each.keeping.verdict in KEEPING
            yield Finding(each.at(Property.BEARING_DECISION), text="keep" if stays else "scrap")


def sources(found: InspectionAnalysis) -> Iterator[Source]:
    for each in found.figures:
        values = {"figure": messages.FIGURE[each.code], "limit_from": limit_from(each)}
        if each.state:
            low, high = ((None if end is None else mm(end, each.step)) for end in (each.bounds.low, each.bounds.high))
            values |= {"verdict": messages.STATE[each.state], "limits": between(low, high)}
        yield source("judged" if each.state else "unjudged", show(each.amount), values)
    if found.play_by_tilt is not None and found.tab == WHOLE:
        yield source("tilt", estimate(mm(found.play_by_tilt, 0.01), found.play_by_tilt_u), estimated=True)
    if found.seat:
        yield from _seat_sources(found.seat)


def _seat_sources(of: SeatInspection) -> Iterator[Source]:
    if of.fit:
        sizes, fit = of.fit
        ring = sizes.outer if of.on_shaft else sizes.inner
        yield source("fit", band(mm(fit.min_interference_mm), mm(fit.max_interference_mm)), {"ring": ring.words})
    if of.clearance_left:
        other = {"other": PARTNER[of.seat.on][1]}
        for code, left in zip(("cold", "warm"), of.clearance_left, strict=True):
            yield source(
                code, band(mounted_clearance(left.low_um / 1000, DOWN), mounted_clearance(left.high_um / 1000)), other, estimated=True
            )
    if of.bearing:
        sizes_mm = {name: trade(getattr(of.bearing, f"{name}_mm")) for name in ("bore", "outside", "width")}
        yield source("bearing", of.bearing.designation, {**sizes_mm, "understood": ", ".join(map(from_table, of.bearing.understood[:3]))})
    for alternative in of.mends if of.is_out else ():
        yield source("can", messages.CAN if alternative.fits else messages.CANNOT, _way(of, alternative))
