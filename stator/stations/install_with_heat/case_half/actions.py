"""Actions of a heat for a case half: chill, heat, open, reheat; and the effect of answers on timers and seats."""

from __future__ import annotations

from typing import Any

from shopmath.verdict import WARM_K
from stator.engines.fact_keys import FactKey
from stator.engines.parts import HALVES
from stator.engines.properties import Property
from stator.jobs import log
from stator.shop.models import Chiller
from stator.stations.framework import Action, BoundStation, timers
from stator.stations.framework.messages import capital, format_message
from stator.stations.install_with_heat import shared_messages
from stator.stations.install_with_heat.case_half import messages, seat_entries
from stator.stations.install_with_heat.case_half.analysis import LAID, CaseHalfAnalysis, Phase
from stator.stations.install_with_heat.case_half.contents import Hands
from stator.stations.install_with_heat.case_half.parts import HotPart
from stator.stations.install_with_heat.heat import LONGEST_S

CHILL = "chill-"


def to_chill(found: CaseHalfAnalysis, chiller: Chiller) -> list[HotPart]:
    """Return the parts to put into a chiller now: all for a freezer, only the next for dry ice, which would chill too deep."""
    waiting = [part for part in found.plan.parts if part.chiller == chiller and part.planned and part.planned.chill]
    begins = {step.part: step.from_s for step in found.core_sheet.steps if step.where == chiller.name}
    ahead = [part for part in waiting if part.key in begins and part.key not in found.cold_since]
    ahead.sort(key=lambda part: begins[part.key])
    return ahead if chiller.method == Chiller.Method.FREEZER else ahead[:1]


def _shut(bound: BoundStation) -> str:
    """Return why nothing may be heated; empty when it may."""
    found: CaseHalfAnalysis = bound.analysis
    gate: str = bound.blocking_check()
    if gate:
        return gate
    if found.unsettled():
        return str(messages.SHUT["way"])
    if found.loose:
        return format_message(messages.REASON["loose"], {"part": found.loose.name})
    if found.stopped:
        verdict = found.stopped.call
        return format_message(
            messages.REASON[verdict.code], {**shared_messages.of_call(verdict), "partner": found.stopped.setup.inner_name}
        )
    return ""


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: CaseHalfAnalysis = bound.analysis
    if found.trouble or found.phase == Phase.HOT or found.in_hand:
        return ()
    return tuple(_before(bound, found)) if found.phase in (Phase.PLAN, Phase.WARMING) else tuple(_afterwards(bound, found))


def _before(bound: BoundStation, found: CaseHalfAnalysis) -> list[Action]:
    offered: list[Action] = []
    shut = _shut(bound)
    for chiller in found.stays:
        going = to_chill(found, chiller)
        if going:
            values = {"part": going[0].name, "count": len(going), "chiller": chiller.name}
            text = format_message(messages.ACTION["chill" if len(going) == 1 else "chill_many"], values)
            word = f"chill {chiller.name.lower()}" if offered else "chill"
            offered.append(Action(f"{CHILL}{chiller.pk}", text, word, not offered, shut, _chills(chiller.pk)))
    half = {"half": found.called}
    if not found.timer("heat"):
        offered.append(Action("heat", format_message(messages.ACTION["heat"], half), "heat", not offered, shut, into_the_oven))
    else:
        laid = "" if LAID in found.own.ticked else str(messages.SHUT["lay_out"])
        early = "" if found.may_open else str(messages.SHUT["early"])
        ready = not offered and all(seconds <= 1 for seconds in found.ready_in.values())
        offered.append(Action("open", str(messages.ACTION["open"]), "open", ready, shut or laid or early, open_oven))
    return offered


def _afterwards(bound: BoundStation, found: CaseHalfAnalysis) -> list[Action]:
    offered: list[Action] = []
    if found.waiting:
        offered.append(Action("again", format_message(messages.ACTION["again"], {"count": len(found.waiting)}), "again", True, do=reheat))
    if found.other_left:
        text = format_message(messages.ACTION["other"], {"half": found.card.part_name(found.other_half)})
        offered.append(Action("other", text, "other", not offered, do=the_other_half))
    return [*offered, bound.sign_action(main=not offered)]


def _chills(pk: int) -> Any:
    return lambda bound: into_the_cold(bound, pk)


def into_the_cold(bound: BoundStation, pk: int) -> None:
    """Put the parts that need this chiller into it; into dry ice, which would chill too deep, one at a time."""
    found: CaseHalfAnalysis = bound.analysis
    chiller = next(each for each in found.stays if each.pk == pk)
    going = to_chill(found, chiller)
    _fix_half(bound)
    for part in going:
        bound.record_action(Hands.CHILLED, FactKey(part.slot.part, Property.COLD_TEMPERATURE))
    longest = max(part.planned.chill.likely for part in going if part.planned and part.planned.chill)
    code = "cold" if len(going) == 1 else "cold_many"
    timers.start(bound, f"cold-{going[0].key}", "cold", longest, code, part=going[0].name, count=len(going))


def into_the_oven(bound: BoundStation) -> None:
    found: CaseHalfAnalysis = bound.analysis
    _fix_half(bound)
    soak = found.plan.soak
    whole = soak.likely if soak else 0.0
    if found.half in HALVES:
        timers.start(bound, "heat", "heat", whole, side=str(found.card.side(found.half)))
    else:
        timers.start(bound, "heat", "heat", whole, "heat_part", Part=capital(found.called))


def open_oven(bound: BoundStation) -> None:
    for timer in [each for each in bound.timers if each.attempt == bound.answers.attempt and not each.ended_at]:
        log.stop_timer(timer, bound.now)
    timers.start(bound, "door", "window", 0.0)
    take_turn(bound.refreshed())


def reheat(bound: BoundStation) -> None:
    _next_heat(bound, bound.analysis.half)


def the_other_half(bound: BoundStation) -> None:
    _next_heat(bound, bound.analysis.other_half)


def _next_heat(bound: BoundStation, half: str) -> None:
    for timer in bound.timers:
        log.stop_timer(timer)
    bound.next_attempt(half=half, tab=half)


def _fix_half(bound: BoundStation) -> None:
    bound.choose(half=bound.analysis.half, tab=bound.analysis.half)


def take_turn(bound: BoundStation) -> None:
    """Select the next part, and set the window timer to the part whose window closes first."""
    found: CaseHalfAnalysis = bound.analysis
    door, live = found.timer("door"), found.live_heat
    if not door or door.ended_at:
        return
    nexts = [part for part in live.order if found.fate(part) != "later"] or list(live.order)
    bound.choose(turns={**found.turns, found.turn_key: nexts[0].key if nexts else ""})
    if not nexts:
        log.stop_timer(door, found.now)
        _cooling(bound)
        return
    _move_window(bound)


def _move_window(bound: BoundStation) -> None:
    found: CaseHalfAnalysis = bound.analysis
    door, live = found.timer("door"), found.live_heat
    assert door is not None
    first = min(live.order, key=live.left_s)
    timers.move(bound, door, min(live.left_s(first), LONGEST_S), "home_by", part=first.name)


def _cooling(bound: BoundStation) -> None:
    run = bound.analysis.run
    cold = run.outer_out.reaches_in_s(bound.analysis.room_c + WARM_K - 1, bound.now) if run.outer_out else None
    if cold:
        timers.start(bound, "cool", "wait", cold)


def kept(bound: BoundStation, reading: Any) -> None:
    """Write what happened to a part into the entry of its own seat too, and take the next part."""
    found: CaseHalfAnalysis = bound.analysis
    if not found.trouble:
        part = next((each for each in found.plan.parts if each.slot.key == reading.ask), None)
        if part:
            seat_entries.write(bound, part, reading)
    if found.timer("door"):
        take_turn(bound)


def move_timers(bound: BoundStation) -> None:
    """Set the end of the soak to when the case will be hot enough, and the end of the window to the part that closes first."""
    found: CaseHalfAnalysis = bound.analysis
    if found.trouble:
        return
    heat = found.timer("heat")
    left = found.run.ready_in_s() if heat and found.phase == Phase.WARMING else None
    if heat and left is not None:
        timers.move(bound, heat, left)
    if found.phase == Phase.HOT:
        _move_window(bound)


def may_sign(bound: BoundStation) -> str:
    return "" if bound.analysis.phase == Phase.AFTER else str(messages.NOT_RUN)
