"""What may be done at Close: close the faces, sign once every bolt is tight."""

from __future__ import annotations

from typing import Any

from jobs import log
from stations.base import Action, State
from stations.close import words
from stations.close.facts import OPEN, CloseFacts, Hands


def actions(bound: Any) -> tuple[Action, ...]:
    found: CloseFacts = bound.found
    if found.all_tight:
        return (bound.sign_action(),)
    if found.is_closing or not found.bolts_can_be_asked:
        return ()
    stopped = bound.call.line if bound.call.state == State.STOP else ""
    name = str(words.ACTION["sealed" if found.sealant else "close"])
    return (Action("close", name, "close", True, bound.refused() or stopped or bound.still_to_say(), close),)


def close(bound: Any) -> None:
    """The faces go together; a sealant that sets gets its clock."""
    found: CloseFacts = bound.found
    bound.move(Hands.CLOSING)
    if found.sealant and found.sealant.open_s:
        log.start_timer(bound.entry, bound.person, OPEN, str(words.TIMER), "wait", found.sealant.open_s, at=bound.now)


def may_sign(bound: Any) -> str:
    return "" if bound.found.all_tight else str(words.NOT_ALL)
