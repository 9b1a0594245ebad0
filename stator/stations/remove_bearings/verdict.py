"""The verdict on a seat: the first step, the temperature, the driver, and what the removed seal and bearing show."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath import bearing_removal
from shopmath.amounts import DOWN, UP, celsius, estimate, mm, newtons, rough
from shopmath.estimate import Estimate
from shopmath.seals import DEPTH_MM, SQUARE_MM
from shopmath.verdict import Conformity
from stator.engines.properties import Property
from stator.jobs.facts import MeasuredReading
from stator.stations.framework import (
    Alternative,
    Contradiction,
    Finding,
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
from stator.stations.framework.messages import format_message
from stator.stations.remove_bearings import messages
from stator.stations.remove_bearings.analysis import (
    FIRST,
    STUCK,
    WAY_CODES,
    WITH_CRANK,
    WITH_SHAFT,
    BearingRemovalAnalysis,
    Code,
    estimated_c,
)
from stator.ui.number_format import band, bare, show
from stator.ui.table_texts import from_table

source = partial(question_factory.source, messages)
ROOM_C = 20.0


def verdict(found: BearingRemovalAnalysis, questions: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    if found.outcome == STUCK:
        return _stuck(found)
    if found.outcome:
        return _out(found, questions)
    if found.seal and not found.seal_answered:
        return _seal(found, questions)
    if found.retained:
        what = {"what": found.retained}
        taken_out = Alternative(found.at(Property.RETAINED_BY), code="taken_out", values=what)
        return Verdict(State.STOP, Code.RETAINED, what, "holds", "take_out", ways=(taken_out,))
    return _way(found, questions)


def reasons(found: BearingRemovalAnalysis, way: bearing_removal.RemovalMethod) -> str:
    """Return why a way is good or bad, in clauses."""
    return "; ".join(format_message(messages.BECAUSE[code], {"what": found.retained}) for code in way.codes)


def _first_reason(found: BearingRemovalAnalysis, way: bearing_removal.RemovalMethod) -> dict[str, Any]:
    return {"other": messages.WAY[way.key], "because": format_message(messages.BECAUSE[way.codes[0]], {"what": found.retained})}


def _stuck(found: BearingRemovalAnalysis) -> Verdict:
    others = found.other_ways
    values = {"way": messages.WAY[found.way.key], **(_first_reason(found, others[0]) if others else {})}
    alternatives = (Alternative(found.at(Property.CAME_OUT)), *(() if others else (Alternative(page="run"),)))
    return Verdict(State.OUT, Code.STILL_IN, values, "not_done", "try" if others else "ask_someone", ways=alternatives)


def said_of_limit(call: Conformity) -> str:
    """A depth or gap against its limit, as a sentence."""
    return format_message(messages.REASON[call.code], limit_values(call, "length", 0.01))


def _seal(found: BearingRemovalAnalysis, questions: list[Question]) -> Verdict:
    """The seal as found, before it is destroyed."""
    sat = found.seal_seat
    move = "ask" if questions else "pull_seal"
    if sat is None:
        return Verdict(State.WAIT, Code.SEAL_FIRST, reason="seal_tells", next=move)
    states = (sat.depth.state, sat.square.state)
    worst = next((state for state in (State.OUT, State.TOO_CLOSE) if state in states), State.IN)
    code = {State.OUT: Code.SEAL_BAD, State.TOO_CLOSE: Code.SEAL_UNSURE, State.IN: Code.SEAL_GOOD}[worst]
    crooked = sat.square.state == worst and worst != State.IN
    judgment = sat.square if crooked else sat.depth
    values = {"depth": mm(sat.depth_mm, 0.01), "lean": mm(sat.lean_mm, 0.01), "deepest": sat.deepest, "verdict": said_of_limit(judgment)}
    if found.lip_is_wrong and found.seal:
        faces = {key: str(said) for key, said, *_more in messages.OPTIONS[Property.SEAL_LIP]}
        lips = {"lip": faces.get(found.lip, found.lip), "card": faces.get(found.seal.lip, found.seal.lip)}
        return Verdict(State.OUT, Code.SEAL_BAD, {**values, **lips}, "lip_wrong", move)
    needed = found.seal.depth_mm if found.seal else 0.0
    uncertainty = judgment.values.get("uncertainty") or 0.0
    if crooked:
        scale = Scale(sat.lean_mm, uncertainty, None, SQUARE_MM, "mm", 2)
    else:
        scale = Scale(sat.depth_mm, uncertainty, needed - DEPTH_MM, needed + DEPTH_MM, "mm", 2)
    return Verdict(worst, code, values, "seal_sat", move, scale=scale)


_TO_BE_KNOWN = (Property.RETAINED_BY, Property.REACH, Property.SHIELDS, Property.BEARING_DECISION)


def _way(found: BearingRemovalAnalysis, questions: list[Question]) -> Verdict:
    """The way chosen, else the gentlest: what to do, how hot, with what."""
    method = found.way
    values = {"way": messages.WAY[method.key], "reasons": reasons(found, method)}
    if method.state == State.STOP:
        alternatives = tuple(Alternative(choice="way", option=other.key) for other in found.other_ways[:2])
        return Verdict(State.STOP, Code.REFUSED, {**values, **_first_reason(found, found.ways[0])}, "way", "gentlest", ways=alternatives)
    move, doing = _what_to_do(found)
    values = {**values, **doing}
    marking = (MessageRef("marking", {"marking": found.seat.marking}),) if found.seat.marking_is_typical else ()
    assumed = (*marking, *((MessageRef("code", {"code": found.seat.code}),) if found.seat.code_assumed else ()))
    first = questions[0].slot if questions else None
    if first is not None and first.what in _TO_BE_KNOWN:
        so_far = format_message(messages.NEXT[move], values)
        values["so_far"] = so_far[:1].lower() + so_far[1:]
        return Verdict(State.WAIT, Code.LOOK_FIRST, values, "way", "ask", "so_far", assumed=assumed)
    return Verdict(method.state, WAY_CODES.get(method.key, Code.OTHER_WAY), values, "way", move, assumed=assumed)


def _what_to_do(found: BearingRemovalAnalysis) -> tuple[str, dict[str, Any]]:
    """The next step of a way, and what it needs."""
    method, freed = found.way, found.freeing
    heat = ""
    if freed and method.key in ("drop", "drive") and freed.together:
        heat = format_message(messages.HEAT, {"likely": estimated_c(freed.together), "high": estimated_c(freed.together, UP)})
    if freed and method.key == "spray":
        heat = format_message(messages.SPRAYED, {"high": estimated_c(freed.sprayed, UP)})
    window = found.window
    sizes = {"low": mm(window.outside_low_mm, 1), "high": mm(window.outside_high_mm, 1), "inside": mm(window.inside_low_mm, 1)}
    driver = (
        format_message(messages.DRIVER, {"name": found.fitting[0].name}) if found.fitting else format_message(messages.ANY_DRIVER, sizes)
    )
    code = method.key if method.key in ("drop", "spray", "drive") else "other"
    return code, {"heat": heat, "driver": driver, "side": messages.SIDE[found.seat.loads_from], "way": messages.WAY[method.key]}


def _out(found: BearingRemovalAnalysis, questions: list[Question]) -> Verdict:
    """It is out: what is wrong, or how it differs from the card."""
    needed = any(not question.optional for question in questions)
    values: dict[str, Any] = {"way": messages.WAY[found.way.key]}
    if found.faults:
        values["faults"] = "; ".join(str(messages.FAULT[fault]) for fault in found.faults)
    if needed:
        return Verdict(State.WAIT, Code.LOOK_NOW, values, "faults" if found.faults else "look_before_wiping", "ask")
    if found.faults:
        return Verdict(State.OUT, Code.OUT_DAMAGED, values, "faults", "sign")
    other = next(iter(contradictions(found)), None)
    if other:
        label = format_message(messages.LABEL[other.code or other.slot.what], {"part": other.slot.part.name})
        values = {"what": label, "found": other.found, "card": other.card}
        return Verdict(State.TOO_CLOSE, Code.OUT_UNLIKE_CARD, values, "unlike_card", "sign")
    if found.outcome in (WITH_CRANK, WITH_SHAFT):
        code, on = (Code.ON_CRANK, "on_crank") if found.outcome == WITH_CRANK else (Code.ON_SHAFT, "on_shaft")
        return Verdict(State.IN, code, values, on, f"off_{on[3:]}" if found.is_scrap else f"stays_{on}")
    return Verdict(State.IN, Code.OUT, values, "sound", "sign")


def contradictions(found: BearingRemovalAnalysis) -> Iterator[Contradiction]:
    """Yield what was found otherwise than the card says."""
    seat, seal = found.seat, found.seal
    lip = found.lip
    if seal and lip and seal.lip and lip != seal.lip:
        faces = {key: str(said) for key, said in messages.OPTIONS[Property.SEAL_LIP]}  # type: ignore[misc]
        yield Contradiction(found.of_seal(Property.SEAL_LIP), faces[lip], faces[seal.lip])
    held = found.said(Property.RETAINED_BY)
    if held not in ("", "removed", found.stop_on_card):
        yield Contradiction(
            found.at(Property.RETAINED_BY), question_factory.answer(messages, Property.RETAINED_BY, held), seat.get_stop_display()
        )
    reach = found.said(Property.REACH)
    if reach and seat.bottom and reach != seat.bottom:
        yield Contradiction(found.at(Property.REACH), question_factory.answer(messages, Property.REACH, reach), seat.get_bottom_display())
    if found.way_round_differs():
        faced = dict(type(seat).Faces.choices)[found.said(Property.WAY_ROUND)]
        yield Contradiction(found.at(Property.WAY_ROUND), str(faced), seat.get_faces_display())
    if found.marking_differs():
        yield Contradiction(found.at(Property.BEARING_MARKING), found.said(Property.BEARING_MARKING), found.bearing.designation)
    sat = found.seal_seat
    if seal and sat and sat.depth.state == State.OUT:
        yield Contradiction(found.of_seal(Property.SEAL_DEPTH), mm(sat.depth_mm, 0.01), mm(seal.depth_mm, 0.01), "mean seal depth")


def note(found: BearingRemovalAnalysis, reading: MeasuredReading) -> str:
    """Return a note on a reading that differs from the card."""
    return str(messages.UNLIKE) if any(each.slot == reading.slot for each in contradictions(found)) else ""


def checks(found: BearingRemovalAnalysis) -> tuple[SafetyWarning, ...]:
    side = {"side": messages.SIDE[found.seat.loads_from]}
    return tuple(SafetyWarning(key, format_message(said, side), key in FIRST) for key, said in messages.CHECKS.items())


def warnings(found: BearingRemovalAnalysis) -> tuple[SafetyWarning, ...]:
    if found.outcome:
        return ()
    metal = ("metal",) if found.torch_is_refused else ()
    method = (found.way.key,) if found.way.key in messages.WARNINGS else ()
    return question_factory.warnings(messages, *metal, *method, "hot", "manual")


def derived(found: BearingRemovalAnalysis) -> Iterator[Finding]:
    """Yield whether the bearing can be used again, for other stations.

    A bearing that was driven out through its balls or broke is scrap, and so is a pulled seal.
    """
    if found.seal and found.seal_is_out:
        yield Finding(found.of_seal(Property.REPLACED), text="seal")
    if found.is_out and found.is_replaced:
        yield Finding(found.at(Property.BEARING_DECISION), text="scrap")


def _band_c(found: Estimate) -> str:
    half = (found.high - found.low) / 2
    return band(estimate(celsius(max(ROOM_C, found.low)), half, DOWN), estimate(celsius(found.high), half, UP))


def sources(found: BearingRemovalAnalysis) -> Iterator[Source]:
    freed = found.freeing
    if freed:
        if freed.together:
            yield source("together", _band_c(freed.together), {"basis": from_table(freed.together.basis)})
        yield source("sprayed", _band_c(freed.sprayed), estimated=True)
        if freed.limit:
            yield source(
                "limit",
                show(celsius(freed.limit.limit_c)),
                {"what": from_table(freed.limit.what), "reason": from_table(freed.limit.reason)},
            )
    if found.holds:
        yield source("holds", (rough(newtons(found.holds.low)), rough(newtons(found.holds.high))), estimated=True)
    window = found.window
    outside = mm(window.outside_low_mm, 0.1, toward=UP), mm(window.outside_high_mm, 0.1, toward=DOWN)
    yield source("driver_outside", outside, {"on": messages.RING[window.presses_on], "basis": from_table(window.basis)}, estimated=True)
    inside = format_message(messages.OR_MORE, {"size": mm(window.inside_low_mm, 0.1, toward=UP)})
    yield source("driver_inside", inside, estimated=True)
    named = [
        format_message(
            messages.DRIVER_SIZES, {"name": each.name, "outside": bare(mm(each.outside_mm, 0.1)), "inside": bare(mm(each.inside_mm, 0.1))}
        )
        for each in found.fitting[:3]
    ]
    yield source("shelf", str(len(found.fitting)), {"names": ", ".join(named) or messages.NONE_FITS})
    sat = found.seal_seat
    if sat:
        yield source("square", show(mm(sat.lean_mm, 0.01)), {"verdict": said_of_limit(sat.square)})
        if sat.gap_mm is not None and sat.clear:
            yield source("gap", show(mm(sat.gap_mm, 0.01)), {"verdict": said_of_limit(sat.clear)})
    for number, method in enumerate(found.ways, 1):
        values = {"number": number, "way": messages.WAY[method.key], "reasons": reasons(found, method)}
        yield source("way", messages.WAY_STATE[method.state], values)
