"""Actions of Install without heat: start again after an error; sign when the ring is installed or left."""

from __future__ import annotations

from shopmath.verdict import OUT
from stator.stations.framework import Action, BoundStation
from stator.stations.install_without_heat import messages
from stator.stations.install_without_heat.analysis import FAILED, ColdFitAnalysis


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: ColdFitAnalysis = bound.analysis
    again = Action("again", str(messages.ACTION["again"]), "again", True, do=start_again)
    if not found.outcome:
        return (again,) if found.starts and found.starts.state == OUT else ()
    if found.outcome in FAILED or not found.is_home:
        return (again, bound.sign_action())
    return (bound.sign_action(),)


def start_again(bound: BoundStation) -> None:
    """Begin another attempt at the same ring; earlier readings remain recorded."""
    bound.next_attempt()
