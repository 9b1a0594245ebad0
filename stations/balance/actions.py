"""What may be done at Balance: go on all the same, roll it again, sign."""

from __future__ import annotations

from typing import Any

from engines.properties import Property
from jobs import log
from stations.balance import words
from stations.balance.facts import DRILLED, ROLLED, BalanceFacts, Phase, at
from stations.base import Action


def actions(bound: Any) -> tuple[Action, ...]:
    found: BalanceFacts = bound.found
    offered: list[Action] = []
    if found.is_left:
        offered.append(Action("anyway", str(words.ACTION["anyway"]), "anyway", do=go_on))
    nowhere = found.phase == Phase.WEIGH and found.plan and not found.plan.holes
    if found.all_drilled or nowhere:
        offered.append(Action("again", str(words.ACTION["again"]), "again", True, do=roll_again))
    ready = found.is_refused or found.is_left or found.phase == Phase.DONE
    return (*offered, bound.sign_action(main=bool(ready) and not offered))


def go_on(bound: Any) -> None:
    """It did not shake, and is balanced all the same."""
    log.choose(bound.entry, anyway=True)


def roll_again(bound: Any) -> None:
    """The next go; what this one drilled and found is kept with it."""
    found: BalanceFacts = bound.found
    for hole in found.made:
        bound.move(DRILLED, at(Property.HOLE_DEPTH, hole.pop("deg")), hole.pop("depth_mm"), **hole)
    gmm, uncertainty = found.amount_now or (None, None)
    bound.move(ROLLED, at(Property.UNBALANCE), gmm, uncertainty=uncertainty)
    log.next_attempt(bound.entry)


def may_sign(bound: Any) -> str:
    found: BalanceFacts = bound.found
    settled = found.is_refused or found.is_left or not found.to_touch or found.phase == Phase.DONE
    return "" if settled else str(words.NOT_YET)
