"""Actions of Remove bearings: the next method if the bearing is still in; sign when it is out."""

from __future__ import annotations

from typing import Any

from stator.stations.framework import Action, BoundStation
from stator.stations.framework.messages import format_message
from stator.stations.remove_bearings import messages
from stator.stations.remove_bearings.analysis import STUCK, TRIED, BearingRemovalAnalysis

MOST_OFFERED = 3


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: BearingRemovalAnalysis = bound.analysis
    if found.outcome == STUCK:
        return tuple(
            Action(
                f"try-{method.key}",
                format_message(messages.TRY, {"way": messages.WAY[method.key]}),
                method.key,
                first,
                do=_tries(method.key),
            )
            for first, method in ((number == 0, method) for number, method in enumerate(found.other_ways[:MOST_OFFERED]))
        )
    return (bound.sign_action(),) if found.is_out else ()


def _tries(way: str) -> Any:
    """Another attempt at the same bearing, by another way; what was tried stays written."""

    def tries(bound: BoundStation) -> None:
        found: BearingRemovalAnalysis = bound.analysis
        bound.record_action(TRIED, text=found.way.key)
        bound.next_attempt(way=way)

    return tries
