"""What may be done at End float: measure the links once more where the call is too close, sign."""

from __future__ import annotations

from typing import Any

from jobs import log
from stations.base import Action, State
from stations.end_float import words
from stations.end_float.facts import LINKS, STACK, EndFloatFacts


def actions(bound: Any) -> tuple[Action, ...]:
    found: EndFloatFacts = bound.found
    if found.call is None:
        return ()
    close = found.call.state == State.TOO_CLOSE and found.how == STACK and not bound.open_asks()
    more = (Action("more", str(words.AGAIN), "more", True, do=measure_again),) if close else ()
    return (*more, bound.sign_action(main=not close))


def measure_again(bound: Any) -> None:
    """Ask each link of the stack once more."""
    own = bound.found.own
    log.choose(bound.entry, times={link.slot.key: own.times(link.slot) + 1 for link in LINKS if own.has(link.slot)})


def may_sign(bound: Any) -> str:
    return "" if bound.found.call else str(words.NOT_YET)
