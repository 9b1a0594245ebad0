"""What may be done at Balance: go on all the same, roll it again, sign."""

from __future__ import annotations

from typing import Any

from jobs import log
from stations.balance import words
from stations.balance.facts import BalanceFacts, Phase
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
    go = str(found.attempt)
    log.next_attempt(bound.entry, holes={**found.drilled, go: found.made}, amounts={**found.amounts, go: found.amount_now})


def may_sign(bound: Any) -> str:
    found: BalanceFacts = bound.found
    settled = found.is_refused or found.is_left or not found.to_touch or found.phase == Phase.DONE
    return "" if settled else str(words.NOT_YET)
