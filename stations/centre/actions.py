"""What may be done at Centre: measure again after the crank was moved, sign."""

from __future__ import annotations

from typing import Any

from jobs import log
from stations.base import Action, State
from stations.base.limits import limit_values
from stations.base.words import fill
from stations.centre import words
from stations.centre.facts import CentreFacts
from stations.centre.verdict import GAP_STEP


def actions(bound: Any) -> tuple[Action, ...]:
    found: CentreFacts = bound.found
    if not bound.entry:
        return ()
    sign = bound.sign_action(main=bound.call.state == State.IN)
    if found.gaps and not found.is_centred:
        return (Action("again", str(words.AGAIN), "again", True, do=measure_again), sign)
    return (sign,)


def measure_again(bound: Any) -> None:
    """The crank was moved: a new attempt, with new gaps."""
    log.next_attempt(bound.entry)


def may_sign(bound: Any) -> str:
    """Not while it stands off centre."""
    found: CentreFacts = bound.found
    if not found.middle or found.is_centred:
        return ""
    off = found.middle.call
    return fill(words.REASON[f"gaps_{off.state}"], limit_values(off, "length", GAP_STEP))
