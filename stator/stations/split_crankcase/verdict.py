"""The verdict in each phase of a split, its checks and warnings, and the sources of its numbers."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath.amounts import DOWN, mm, newton_metres, newtons, rough
from shopmath.splitting import SEEN_MM
from stator.engines.models import Mark
from stator.engines.properties import Property
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
)
from stator.stations.framework.messages import Sentence, capital, format_message
from stator.stations.framework.question_factory import checks as check_list
from stator.stations.framework.question_factory import source as named_source
from stator.stations.framework.question_factory import warnings as all_warnings
from stator.stations.split_crankcase import messages
from stator.stations.split_crankcase.analysis import Code, SplitAnalysis, fault_of, length_of
from stator.ui.number_format import listed, plain, rough_band, show, to_step
from stator.ui.table_texts import from_table

MOST_LIKELY = 3  # places to look at first


def verdict(found: SplitAnalysis, questions: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    if found.is_apart or found.stays_closed:
        return _apart(found, questions)
    if found.counted is not None and found.census.call.state == State.STOP:
        return _still_in(found)
    if not found.is_loaded:
        return _before(found, questions)
    if found.plane is None:
        reason = "measured" if found.taken_now else "load_and_measure"
        values = {"round": found.round_now, "taken": found.taken_now}
        return Verdict(State.WAIT, Code.MEASURE, values, reason, "ask" if questions else "measure_aside")
    if found.suspect and not math.isinf(found.allowed_mm):
        return _disagree(found)
    if _is_unchecked(found, questions):
        return Verdict(State.WAIT, Code.MEASURE, {"round": found.round_now}, "one_more", "ask")
    return _led(found)


def _is_unchecked(found: SplitAnalysis, questions: list[Question]) -> bool:
    """Return True if a fourth gap must be measured first.

    Three gaps always lie on a plane, so none is decided by them alone.
    """
    another = bool(questions and questions[0].slot and questions[0].slot.what == Property.GAP)
    return another and found.taken_now == 3 and found.move is not None and found.move.kind in ("tap", "back")


def _disagree(found: SplitAnalysis) -> Verdict:
    """No plane goes through these gaps: one is misread, and no tap goes by it."""
    assert found.suspect is not None
    again = tuple(each.part.name for each in found.again)
    values = {"off": mm(found.suspect.off_mm, 0.01), "places": again}
    which = "one_again" if len(again) == 1 else "all_again"
    return Verdict(State.TOO_CLOSE, Code.DISAGREE, values, which, which)


def half(found: SplitAnalysis) -> Sentence:
    """The half that lifts, in this engine's words."""
    return found.card.part_name(found.lifts) if found.lifts else messages.UNKNOWN_HALF


def _named(mark: Mark) -> dict[str, str]:
    """Return what a fastener is called, for a sentence that begins with it."""
    return {"kind": mark.get_what_display().capitalize(), "part": mark.name}


def _still_in(found: SplitAnalysis) -> Verdict:
    census = found.census
    likely = census.likely[:MOST_LIKELY]
    move = "look_again" if not likely else "look_there_it_lags" if found.plane else "look_there_unmeasured"
    code = Code.BOLT_STILL_IN if census.missing or likely else Code.COUNT_AGAIN
    named = {mark.name: mark for mark in found.fasteners}
    looks = [mark for name in (likely or census.missing[:MOST_LIKELY]) if (mark := named.get(name))]
    alternatives = [Alternative(length_of(mark), code="still_in", values=_named(mark)) for mark in looks]
    alternatives += [Alternative(fault_of(mark), code="fault", values=_named(mark)) for mark in looks[:1]]
    alternatives.append(Alternative(found.of(Property.FASTENERS_COUNTED), code="count"))
    return Verdict(State.STOP, code, {**found.census_values, "likely": likely}, census.call.code, move, ways=tuple(alternatives))


def _before(found: SplitAnalysis, questions: list[Question]) -> Verdict:
    """Fasteners, their count, then the splitter's screws."""
    census, fasteners = found.census, found.fasteners
    counts = found.census_values
    fastened_code = "held_elsewhere" if found.held_elsewhere else census.call.code
    if fasteners and len(found.out) < len(fasteners):
        values = {"out": len(found.out), "all": len(fasteners)}
        mark = next((each for each in fasteners if not found.is_out(each)), fasteners[0])
        fault = Alternative(fault_of(mark), code="fault", values=_named(mark))
        return Verdict(State.WAIT, Code.FASTENERS_OUT, values, "ticked", "ask" if questions else "tick_every_place", ways=(fault,))
    if found.counted is None and not found.held_elsewhere:
        return Verdict(State.WAIT, Code.COUNT, counts, census.call.code if fasteners else "no_bolts", "ask" if questions else "count")
    if found.is_outside:
        return Verdict(State.WAIT, Code.BY_HAND, {**counts, "part": half(found)}, fastened_code, "ask" if questions else "by_hand")
    screws = found.screws
    if screws is None:
        first = questions[0] if questions else None
        if first and first.slot and first.slot.what in _OF_SCREWS:
            return Verdict(State.WAIT, Code.ALL_OUT, counts, fastened_code, "ask")
        fastened = format_message(messages.REASON[fastened_code], counts)
        unknown = {"fasteners": fastened, "half": half(found)}
        return Verdict(State.TOO_CLOSE, Code.THREAD_NOT_CHECKED, unknown, "not_checked", "go_slowly", assumed=_assumed_grip(found))
    known = {**screws.call.values, "needed": screws.turns_wanted, "stop": rough(newton_metres(screws.stop_nm), DOWN), "half": half(found)}
    code, move = {
        State.STOP: (Code.MORE_THREAD, "more_thread"),
        State.TOO_CLOSE: (Code.SCREWS_UNSURE, "go_slowly_to"),
    }.get(State(screws.call.state), (Code.READY, "load_up_to"))
    turns = Alternative(found.of(Property.SPLITTER_SCREW_TURNS), code="turns")
    alternatives = () if screws.call.state == State.IN else (turns, Alternative(choice="splitter"))
    return Verdict(screws.call.state, code, known, screws.call.code, move, assumed=_assumed_grip(found), ways=alternatives)


_OF_SCREWS = (
    Property.SPLITTER_SCREW_DIAMETER,
    Property.SPLITTER_SCREW_PITCH,
    Property.SPLITTER_SCREW_TURNS,
    Property.LIFTING_HALF,
)
source = partial(named_source, messages)
LED = {"go_on": Code.LEVEL, "tap": Code.UNEVEN, "back": Code.BINDING, "lift": Code.FREE}


def _led(found: SplitAnalysis) -> Verdict:
    """Return the verdict if one side leads: by how much, compared with what the dowels allow, and what to do."""
    plane, lead, move = found.plane, found.lead, found.move
    assert plane is not None
    assert lead is not None
    assert move is not None
    free = math.isinf(found.allowed_mm)
    scale = None if free else Scale(plane.lead_mm, found.uncertainty_mm, None, to_step(found.allowed_mm, 0.01, DOWN), "mm", 2)
    quarters = max(1, round(4 * move.turns)) if move.kind == "go_on" else 0
    values = {**lead.values, "place": move.place, "turns": messages.TURNS.get(quarters, "")}
    state = State.TOO_CLOSE if move.kind == "tap" and lead.state == State.IN else State(lead.state)
    return Verdict(state, LED[move.kind], values, lead.code, move.kind, scale=scale, assumed=() if free else _assumed_dowels(found))


def _apart(found: SplitAnalysis, questions: list[Question]) -> Verdict:
    loose = len(found.loose)
    values: dict[str, Any] = {"rounds": found.round_now, "loose": loose, "Part": capital(str(half(found)))}
    if questions and questions[0].slot and questions[0].slot.what != Property.NOTE:
        return Verdict(State.WAIT, Code.LOOK_FOR_LOOSE, values, "oil_holds", "ask", "in_the_tray" if loose else "")
    if found.all_through:
        return overall(found)
    if found.stays_closed:
        return Verdict(State.WAIT, Code.ALL_OUT, values, "stays_closed", "next_joint")
    code, reason = (Code.OFF, "off") if found.is_outside else (Code.APART, "apart")
    return Verdict(State.IN, code, values, reason, "sign" if len(found.every) == 1 else "next_joint")


def overall(found: SplitAnalysis) -> Verdict:
    """Return the verdict that is signed, on every joint."""
    every = found.every
    if len(every) == 1:
        values = {"rounds": found.round_now, "loose": len(found.loose)}
        return Verdict(State.IN, Code.APART, values, "apart", "sign")
    values = {"opened": sum(each.is_apart for each in every), "all": len(every), "loose": sum(len(each.loose) for each in every)}
    return Verdict(State.IN, Code.ALL_APART, values, "all_apart", "sign")


# what it rests on


def _assumed_dowels(found: SplitAnalysis) -> tuple[MessageRef, ...]:
    tight = found.tightest
    dowels = MessageRef("dowels", {"clearance": mm(tight.clearance_mm, 0.01), "engaged": mm(tight.engaged_mm, 0.1)})
    places = (MessageRef("places"),) if found.places_assumed else ()
    return (*((dowels,) if found.dowels_assumed else ()), *places)


def _assumed_grip(found: SplitAnalysis) -> tuple[MessageRef, ...]:
    return (MessageRef("grip", {"low": rough(newtons(found.grip_n.low)), "high": rough(newtons(found.grip_n.high))}),)


def checks(found: SplitAnalysis) -> tuple[SafetyWarning, ...]:
    """Return the checks before load is applied."""
    return check_list(messages)


def warnings(found: SplitAnalysis) -> tuple[SafetyWarning, ...]:
    snapped = found.with_fault("snapped")
    if found.is_apart and not snapped:
        return ()
    named = format_message(messages.WARNINGS["snapped"], {"parts": listed([mark.name for mark in snapped])})
    usual = () if found.is_apart else all_warnings(messages, *(key for key in messages.WARNINGS if key != "snapped"))
    return (*((SafetyWarning("snapped", named),) if snapped else ()), *usual)


def contradictions(found: SplitAnalysis) -> Iterator[Contradiction]:
    """A bolt that is not the card's, and more fasteners than the card has places."""
    for at in found.every:
        for mark in at.fasteners:
            length = at.length_off(mark)
            if length is not None:
                yield Contradiction(length_of(mark), mm(length, 0.5), mm(mark.length_mm or 0, 0.5))
        for mark in at.with_fault("missing"):
            yield Contradiction(fault_of(mark), messages.NONE_THERE, mark.thread)
        if at.counted and at.fasteners and at.counted > len(at.fasteners):
            yield Contradiction(at.of(Property.FASTENERS_COUNTED), plain(at.counted), str(len(at.fasteners)))


def derived(found: SplitAnalysis) -> Iterator[Finding]:
    """Yield which joints are apart, for every station that needs them so."""
    for each in found.every:
        if each.is_apart:
            yield Finding(each.of(Property.HALVES_APART), text="yes")


def sources(found: SplitAnalysis) -> Iterator[Source]:
    """Yield where the numbers on the page come from."""
    if found.screws:
        strength = found.screws.strength
        values = {"turns": found.screws.turns, "basis": from_table(strength.basis)}
        yield source("screws", _band(strength.low, strength.high), values, estimated=True)
        yield source("grip", _band(found.grip_n.low, found.grip_n.high), {"basis": from_table(found.grip_n.basis)}, estimated=True)
    if found.plane:
        tight = found.tightest
        if math.isinf(found.allowed_mm):
            yield source("dowels_out", messages.ANY)
        else:
            values = {"clearance": mm(tight.clearance_mm, 0.01), "engaged": mm(tight.engaged_mm, 0.1), "span": mm(found.span_mm, 1)}
            yield source("allowed", mm(found.allowed_mm, 0.01, toward=DOWN), values, estimated=found.dowels_assumed)
        yield source("gap", show(mm(found.plane.mean_mm, 0.01)))
    for number, plane in reversed(found.rounds):
        if number < found.own.attempt:
            values = {"round": number, "leading": plane.leading_name, "lead": mm(plane.lead_mm, 0.01), "lagging": plane.lagging_name}
            yield source("round" if plane.lead_mm >= SEEN_MM else "round_level", show(mm(plane.mean_mm, 0.01)), values)
    if found.places_assumed and found.is_loaded:
        yield source("places", messages.ASSUMED_VALUE, estimated=True)


def _band(low_n: float, high_n: float) -> str:
    return rough_band(newtons(low_n), newtons(high_n))
