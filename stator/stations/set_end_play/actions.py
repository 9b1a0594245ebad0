"""Actions of Set end play: measure the stack again if the verdict is too close to call, sign."""

from __future__ import annotations

from stator.stations.framework import Action, BoundStation, State
from stator.stations.set_end_play import messages
from stator.stations.set_end_play.analysis import STACK, EndPlayAnalysis, links_of


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: EndPlayAnalysis = bound.analysis
    if found.call is None:
        return ()
    close = found.call.state == State.TOO_CLOSE and found.how == STACK and not bound.open_questions()
    more = (Action("more", str(messages.AGAIN), "more", True, do=measure_again),) if close else ()
    return (*more, bound.sign_action(main=not close))


def measure_again(bound: BoundStation) -> None:
    """Ask for each dimension of the stack again."""
    found: EndPlayAnalysis = bound.analysis
    measured = [link.slot for link in links_of(found.card) if found.own.has(link.slot)]
    bound.choose(times={fact_key.key: found.own.times(fact_key) + 1 for fact_key in measured})


def may_sign(bound: BoundStation) -> str:
    return "" if bound.analysis.call else str(messages.NOT_YET)
