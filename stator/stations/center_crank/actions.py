"""Actions of Center crank: measure again after the crank was moved, sign."""

from __future__ import annotations

from stator.stations.center_crank import messages
from stator.stations.center_crank.analysis import CenteringAnalysis
from stator.stations.center_crank.verdict import GAP_STEP
from stator.stations.framework import Action, BoundStation, State
from stator.stations.framework.limits import limit_values
from stator.stations.framework.messages import format_message


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: CenteringAnalysis = bound.analysis
    if not bound.entry:
        return ()
    sign = bound.sign_action(main=bound.current_verdict.state == State.IN)
    if found.gaps and not found.is_centred:
        return (Action("again", str(messages.AGAIN), "again", True, do=measure_again), sign)
    return (sign,)


def measure_again(bound: BoundStation) -> None:
    """The crank was moved: a new attempt, with new gaps."""
    bound.next_attempt()


def may_sign(bound: BoundStation) -> str:
    """Return why it cannot be signed while the crank is off center."""
    found: CenteringAnalysis = bound.analysis
    if not found.middle or found.is_centred:
        return ""
    off = found.middle.call
    return format_message(messages.REASON[f"gaps_{off.state}"], limit_values(off, "length", GAP_STEP))
