"""Actions of Remove flywheel, and what they record."""

from __future__ import annotations

from datetime import timedelta

from stator.engines.properties import Property
from stator.jobs import log
from stator.jobs.models import Reading
from stator.stations.framework import Action, BoundStation, State, timers
from stator.stations.framework.messages import format_message
from stator.stations.remove_flywheel import messages
from stator.stations.remove_flywheel.analysis import LOADED, LOADED_S, FlywheelRemovalAnalysis, Hands


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: FlywheelRemovalAnalysis = bound.analysis
    if found.is_free:
        return (bound.sign_action(),)
    if found.pull is None:
        return ()
    verdict = found.pull.call
    refused = bound.blocking_check() or (
        format_message(messages.REASON[verdict.code], verdict.values) if verdict.state == State.STOP else ""
    )
    offered = [Action("free", str(messages.ACTION["free"]), "free", bool(found.torque_nm), refused, freed)]
    waits = found.loaded is not None and not found.loaded.ended_at
    if found.torque_nm and not waits:
        offered.append(Action("wait", str(messages.ACTION["wait"]), "wait", False, refused, leave_loaded))
    if found.torque_nm:
        offered.append(Action("moved", str(messages.ACTION["moved"]), "moved", do=ask_whether_it_moved))
    return tuple(offered)


def freed(bound: BoundStation) -> None:
    """Record that the taper released: end the timers and continue with the inspection of the flywheel."""
    for timer in bound.timers:
        log.stop_timer(timer, bound.now)
    bound.record_action(Hands.FREED)


def leave_loaded(bound: BoundStation) -> None:
    number = len([timer for timer in bound.timers if timer.key == LOADED]) + 1
    timers.start(bound, LOADED, "wait", LOADED_S, attempt=number)


def ask_whether_it_moved(bound: BoundStation) -> None:
    bound.choose(asking="moved")


def kept(bound: BoundStation, reading: Reading) -> None:
    """Start a new wait after a new torque; ask for the torque again after the answer whether it moved."""
    found: FlywheelRemovalAnalysis = bound.analysis
    if reading.property == Property.MOVED:
        bound.choose(asking="")
    loaded = found.loaded
    if reading.property != Property.PULLING_TORQUE or loaded is None or loaded.ended_at:
        return
    if bound.now - loaded.started_at > timedelta(seconds=5):
        log.stop_timer(loaded, bound.now)
