"""Actions of Install crank: begin to pull, confirm that it is seated, sign when both sides agree."""

from __future__ import annotations

from stator.engines.properties import Property
from stator.stations.framework import Action, BoundStation, State
from stator.stations.framework.messages import format_message
from stator.stations.install_crank import messages
from stator.stations.install_crank.analysis import DROP, CrankInstallationAnalysis, Hands
from stator.stations.install_crank.verdict import sides_said, thread_said, wrench_said


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: CrankInstallationAnalysis = bound.analysis
    if found.is_refused:
        return ()
    if found.sides:
        return (bound.sign_action(main=found.sides.state == State.IN),)
    if found.way == DROP or found.all_home:
        return ()
    at = "_at" if found.end else ""
    side = {"side": found.card.side(found.end)}
    if not found.has_begun:
        wrong = (
            format_message(messages.REASON[found.thread.code], thread_said(found.thread)) if found.thread and found.thread_is_wrong else ""
        )
        begins = Action("begin", format_message(messages.ACTION[f"begin{at}"], side), "begin", True, bound.blocking_check() or wrong, begin)
        return (begins,) if found.can_begin else ()
    binds = found.wrench if found.wrench and found.wrench.state == State.STOP else None
    refused = format_message(messages.REASON[binds.code], wrench_said(binds)) if binds else ""
    done = bool(found.wrench and found.done_turns >= (found.wanted_turns or 0.0))
    return (Action("home", format_message(messages.ACTION[f"home{at}"], side), "home", done, refused, confirm_seated),)


def begin(bound: BoundStation) -> None:
    _move(bound, Hands.BEGUN)


def confirm_seated(bound: BoundStation) -> None:
    """The screw is done: both sides are measured."""
    _move(bound, Hands.HOME)


def _move(bound: BoundStation, kind: Hands) -> None:
    found: CrankInstallationAnalysis = bound.analysis
    bound.record_action(kind, found.at(Property.TRAVEL) if found.end else None)


def may_sign(bound: BoundStation) -> str:
    """Return why it cannot be signed while one side shows that it is not seated."""
    sides = bound.analysis.sides
    return format_message(messages.REASON[sides.code], sides_said(bound.analysis, sides)) if sides and sides.state == State.OUT else ""
