"""What may be done at Seals: go on to the next seal, sign once all are in."""

from __future__ import annotations

from typing import Any

from jobs import log
from stations.base import Action
from stations.base.words import fill
from stations.seals import words
from stations.seals.facts import TAB, SealsFacts
from stations.seals.questions import is_open, next_seal
from stations.seals.verdict import stopped


def actions(bound: Any) -> tuple[Action, ...]:
    found: SealsFacts = bound.found
    if not bound.entry:
        return ()
    onward, done = next_seal(found), not is_open(found, found.in_hand)
    sign = bound.sign_action(main=done and not onward)
    if onward is None:
        return (sign,)
    return (Action("next", fill(words.ON, {"part": onward.seal.name}), "next", done, do=take_up_next), sign)


def take_up_next(bound: Any) -> None:
    onward = next_seal(bound.found)
    if onward:
        log.choose(bound.entry, **{TAB: onward.seal.uid})


def may_sign(bound: Any) -> str:
    """Not while a seal is the wrong one or the wrong way round, or not yet in."""
    found: SealsFacts = bound.found
    stop = stopped(found)
    if stop:
        return str(bound.said_of(stop).line)
    left = [each.seal.name for each in found.seals if is_open(found, each)]
    return fill(words.STILL_TO_DO, {"seals": ", ".join(left)}) if left else ""
