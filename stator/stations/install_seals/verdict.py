"""The verdict on the present seal, and the worst of all when the entry is signed."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath.amounts import DOWN, UP, Amount, mm, newtons, rough
from shopmath.seals import CLOCKS, DEPTH_MM, SealSeat, lips_for, metal_case_force_n
from shopmath.verdict import severity
from stator.engines.properties import Property
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
    from_conformity,
    question_factory,
)
from stator.stations.framework.limits import limit_values
from stator.stations.framework.messages import format_message
from stator.stations.install_seals import messages
from stator.stations.install_seals.analysis import Code, SealAnalysis, SealFound, depth_of
from stator.stations.install_seals.questions import is_open, next_seal
from stator.ui.number_format import show, trade
from stator.ui.table_texts import from_table

source = partial(question_factory.source, messages)
STEP = 0.01


def verdict(found: SealAnalysis, questions: list[Question]) -> Verdict:
    """Return the verdict on the present seal; `asked` are its open questions."""
    return _of(found, found.in_hand, bool(questions))


def overall(found: SealAnalysis) -> Verdict:
    """Return the worst verdict of all seals."""
    return min((_of(found, each, is_open(found, each)) for each in found.seals), key=lambda each: severity(each.state))


def stopped(found: SealAnalysis) -> Verdict | None:
    """The first seal that may not go in as it is."""
    calls = (_of(found, each, is_open(found, each)) for each in found.seals)
    return next((each for each in calls if each.state == State.STOP), None)


def _of(found: SealAnalysis, of: SealFound, asked: bool) -> Verdict:
    seal, move = of.seal, "ask" if asked else "nothing"
    if of.found_as is None:
        return Verdict(State.WAIT, Code.MEASURE, next=move)
    if not of.is_the_one:
        sizes = {"shaft": trade(seal.shaft_mm), "bore": trade(seal.bore_mm)}
        values = {"seal": seal.name, "other": of.belongs_at, **sizes}
        alternatives = (Alternative(of.at(Property.SEAL_SHAFT)), Alternative(of.at(Property.SEAL_BORE)), Alternative(page="card"))
        if of.belongs_at:
            return Verdict(State.STOP, Code.NOT_THIS_ONE, values, "belongs_at", ways=alternatives[:2])
        return Verdict(State.STOP, Code.NOT_THIS_ONE, values, "belongs_nowhere", ways=alternatives)
    if of.against_rule and not of.page:
        turned = (Alternative(of.at(Property.SEAL_LIP), code="turned"), Alternative(of.at(Property.PAGE), code="by_page"))
        return Verdict(State.STOP, Code.WRONG_WAY, {"facing": messages.FACING[of.lip_by_rule]}, ways=turned)
    if of.seating is None:
        return _driving(of, move)
    return _seated(found, of, of.seating)


def _driving(of: SealFound, move: str) -> Verdict:
    facing = of.lip or of.lip_by_rule
    values: dict[str, Any] = {"facing": messages.FACING[facing] if facing else ""}
    if not of.way_settled:
        return Verdict(State.WAIT, Code.LIP, values, "facing" if facing else "rule_unknown", move)
    if of.drivers:
        values["driver"] = of.drivers[0].name
    return Verdict(State.WAIT, Code.DRIVE, values, "drive_with" if of.drivers else "facing", move, assumed=_flush(of))


def _flush(of: SealFound) -> tuple[MessageRef, ...]:
    return (MessageRef("flush"),) if of.seal.depth_assumed and not of.seal.depth_mm else ()


def _seated(found: SealAnalysis, of: SealFound, seat: SealSeat) -> Verdict:
    needed = of.seal.depth_mm
    scale = Scale(seat.depth_mm, of.depth_uncertainty, needed - DEPTH_MM, needed + DEPTH_MM, "mm", 2)
    judged = (
        (seat.clear, Code.TOUCHES, Code.TOUCH_CLOSE, "out_a_little"),
        (seat.square, Code.CROOKED, Code.SQUARE_CLOSE, "other_side"),
        (seat.depth, Code.DEPTH_OUT, Code.DEPTH_CLOSE, "deeper"),
    )
    known = [(judgment, out, close, move) for judgment, out, close, move in judged if judgment]
    judgment, out, close, move = min(known, key=lambda each: severity(each[0].state))
    if judgment.state != State.IN:
        values = {**limit_values(judgment, "length", STEP), "deepest": seat.deepest}
        code = out if judgment.state == State.OUT else close
        alternatives = tuple(Alternative(depth_of(of.seal, clock), code="depth", values={"clock": clock}) for clock in CLOCKS)
        return from_conformity(judgment, code, values=values, next=move, scale=scale, assumed=_flush(of), ways=alternatives)
    onward = next_seal(found)
    values = {"depth": mm(seat.depth_mm, STEP), "lean": mm(seat.lean_mm, STEP)}
    if seat.gap_mm is not None:
        values["gap"] = mm(seat.gap_mm, STEP)
    reason = "seated_clear" if seat.gap_mm is not None else "seated"
    if onward:
        return Verdict(State.IN, Code.SEATED, {**values, "part": onward.seal.name}, reason, "on_to", scale=scale, assumed=_flush(of))
    return Verdict(State.IN, Code.SEATED, values, reason, "sign", scale=scale, assumed=_flush(of))


def contradictions(found: SealAnalysis) -> Iterator[Contradiction]:
    """Seals that go in otherwise than the card says."""
    for each in found.seals:
        if each.lip and each.seal.lip and each.lip != each.seal.lip:
            yield Contradiction(each.at(Property.SEAL_LIP), str(messages.FACING[each.lip]), str(messages.FACING[each.seal.lip]))


def checks(found: SealAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.checks(messages)


def warnings(found: SealAnalysis) -> tuple[SafetyWarning, ...]:
    of = found.in_hand
    values = {"speed": Amount(of.lip_speed or 0.0, "surface_speed", 0.1), "lips": _lips(of)}
    far = {"runout": mm((of.runs_out.value if of.runs_out else 0.0) or 0.0, STEP), "most": mm(of.runout_most_mm or 0.0, STEP)}
    said = []
    if of.is_too_fast:
        said.append(SafetyWarning("fast", format_message(messages.TOO_FAST, values)))
    if of.runs_out_too_far:
        said.append(SafetyWarning("runs-out", format_message(messages.RUNS_OUT, far)))
    return (*said, *question_factory.warnings(messages))


def _lips(of: SealFound) -> list[Any]:
    """Return the lip materials that withstand the surface speed, as text."""
    return [messages.LIP[name] for name in lips_for(of.lip_speed or 0.0)] or [messages.NO_LIP]


def results(found: SealAnalysis) -> Iterator[DerivedValue]:
    """Depth, squareness and gap of each seal that is in."""
    for each in found.seals:
        seat, fact_key = each.seating, each.at(Property.SEAL_DEPTH)
        if seat is None:
            continue
        needed = each.seal.depth_mm
        low, high = mm(needed - DEPTH_MM, STEP), mm(needed + DEPTH_MM, STEP)
        rule = MessageRef("shop_rule")
        yield DerivedValue(fact_key, "mean depth", mm(seat.depth_mm, STEP), None, low, high, rule, seat.depth.state)
        limit = mm(seat.square.values["limit"], STEP)
        yield DerivedValue(fact_key, "lean", mm(seat.lean_mm, STEP), None, None, limit, rule, seat.square.state)
        if seat.gap_mm is not None and seat.clear:
            limit = mm(seat.clear.values["limit"], STEP)
            yield DerivedValue(fact_key, "gap", mm(seat.gap_mm, STEP), None, limit, None, rule, seat.clear.state)


def sources(found: SealAnalysis) -> Iterator[Source]:
    of = found.in_hand
    seal, origin = of.seal, {"origin": of.seal.source or messages.UNKNOWN}
    yield source("sizes", trade(of.shaft_mm, of.bore_mm, seal.width_mm), origin, estimated=seal.sizes_assumed)
    if seal.lip:
        yield source("lip", messages.FACING[seal.lip], origin)
    outside = mm(of.window.outside_low_mm, 0.1, toward=UP), mm(of.window.outside_high_mm, 0.1, toward=DOWN)
    yield source("driver", outside, {"inside": mm(of.window.inside_low_mm, 0.1, toward=UP)}, estimated=True)
    others = ", ".join(each.name for each in of.drivers[1:3]) or messages.OF_THE_SHELF
    yield source("drivers", of.drivers[0].name if of.drivers else messages.NONE, {"others": others})
    if found.case == "metal":
        force = metal_case_force_n(of.bore_mm, seal.width_mm)
        yield source("force", (rough(newtons(force.low)), rough(newtons(force.high))), {"basis": from_table(force.basis)}, estimated=True)
    else:
        yield source("force_rubber", messages.NOT_RECKONED)
    if of.lip_speed and of.runout_most_mm:
        rpm = {"rpm": Amount(of.rpm or 0.0, "speed", 1.0), "lips": _lips(of)}
        yield source("lip_speed", show(Amount(of.lip_speed, "surface_speed", 0.1)), rpm)
        yield source("lip_runout", rough(mm(of.runout_most_mm, STEP), DOWN), rpm, estimated=True)
    if of.seating:
        wanted_from = messages.FLUSH if seal.depth_assumed and not seal.depth_mm else seal.source or messages.UNKNOWN
        yield source("depth", show(mm(of.seating.depth_mm, STEP)), {"wanted": mm(seal.depth_mm, STEP), "origin": wanted_from})
    if of.page:
        yield source("exception", messages.FACING[of.lip], {"page": of.page})
