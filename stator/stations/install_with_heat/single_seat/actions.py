"""Actions of a heat for one seat: chill, heat, take out, heat again; and their effect on the timers."""

from __future__ import annotations

from typing import Any

from shopmath.verdict import STOP, WARM_K
from stator.engines.properties import Property
from stator.jobs import log
from stator.stations.framework import Action, BoundStation, timers
from stator.stations.framework.messages import format_message
from stator.stations.install_with_heat import shared_messages
from stator.stations.install_with_heat.heat import HOME, LONGEST_S
from stator.stations.install_with_heat.single_seat import messages
from stator.stations.install_with_heat.single_seat.analysis import Code, Phase, SingleSeatAnalysis
from stator.stations.install_with_heat.single_seat.questions import names


def _shut(bound: BoundStation) -> str:
    """Return why nothing may be heated; empty when it may."""
    found: SingleSeatAnalysis = bound.analysis
    gate: str = bound.blocking_check()
    if gate:
        return gate
    if found.plan.call.state == STOP:
        return format_message(messages.REASON[found.plan.call.code], {**names(found), **shared_messages.of_call(found.plan.call)})
    return str(messages.REASON[Code.SEAT_IS_OUT]) if found.seat_known.is_condemned else ""


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: SingleSeatAnalysis = bound.analysis
    if found.trouble:
        return ()
    shut, offered = _shut(bound), []
    values = {key: format_message(text, names(found)) for key, text in messages.ACTION.items()}
    if found.phase in (Phase.PLAN, Phase.HEATING):
        if found.plan.chill and not found.timer("chill"):
            offered.append(Action("chill", values["chill"], "chill", True, shut, to_the_cold))
        if found.heater and not found.timer("heat"):
            offered.append(Action("heat", values["heat" if found.plan.soak else "flame"], "heat", not offered, shut, to_the_heat))
        if found.phase == Phase.HEATING or (not found.heater and not found.plan.chill):
            how = "open_shaft" if found.onto_shaft else "open" if found.heater or found.plan.chill else "open_cold"
            offered.append(Action("open", values[how], "open", not offered, shut, out))
    if found.phase == Phase.WINDOW or (found.phase == Phase.AFTER and not found.went_in):
        offered.append(Action("again", values["again"], "again", found.phase == Phase.AFTER, do=back))
    return (*offered, bound.sign_action()) if found.phase == Phase.AFTER else tuple(offered)


def _start(bound: BoundStation, key: str, tone: str, lasts_s: float | None) -> None:
    said = names(bound.analysis)
    timers.start(bound, key, tone, lasts_s, outer=said["outer"], partner=said["partner"])


def to_the_heat(bound: BoundStation) -> None:
    soak = bound.analysis.plan.soak
    _start(bound, "heat", "heat", soak.likely if soak else None)


def to_the_cold(bound: BoundStation) -> None:
    _start(bound, "chill", "cold", bound.analysis.plan.chill.low)


def out(bound: BoundStation) -> None:
    """Take both parts out: end their timers, and start the window timer."""
    found: SingleSeatAnalysis = bound.analysis
    lasts = min(found.run.sure_for_s, LONGEST_S)
    for timer in filter(None, (found.timer("heat"), found.timer("chill"))):
        log.stop_timer(timer, found.now)
    _start(bound, "window", "window", lasts)


def back(bound: BoundStation) -> None:
    """Heat the case again."""
    for timer in bound.timers:
        log.stop_timer(timer)
    bound.next_attempt()


def may_sign(bound: BoundStation) -> str:
    return "" if bound.analysis.outcome else str(messages.NOT_SAID)


def kept(bound: BoundStation, reading: Any) -> None:
    """Stop the window timer when the outcome is recorded."""
    window = bound.analysis.timer("window")
    if reading.property == Property.FIT_OUTCOME and window:
        _said_what_happened(bound, window, reading.text)


def move_timers(bound: BoundStation) -> None:
    """Set the end of the soak to when this case will be hot enough, and the end of the window by how it cools."""
    found: SingleSeatAnalysis = bound.analysis
    if found.trouble:
        return
    heat, window = found.timer("heat"), found.timer("window")
    left = found.run.ready_in_s() if heat and found.phase == Phase.HEATING else None
    if heat and left is not None:
        timers.move(bound, heat, left)
    if window and found.phase == Phase.WINDOW:
        timers.move(bound, window, min(found.run.sure_for_s, LONGEST_S))


def _said_what_happened(bound: BoundStation, window: Any, outcome: str) -> None:
    """End the window; a seated bearing cools until it can be checked cold."""
    found: SingleSeatAnalysis = bound.analysis
    log.stop_timer(window, found.now)
    if outcome in HOME and found.run.outer_out:
        cold = found.run.outer_out.reaches_in_s(found.plan.setup.room_c + WARM_K - 1, found.now)
        if cold:
            _start(bound, "cold", "wait", cold)
