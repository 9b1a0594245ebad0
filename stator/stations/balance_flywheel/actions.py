"""Actions of Balance flywheel: balance a flywheel that did not vibrate, roll it again, sign."""

from __future__ import annotations

from typing import Any

from shopmath.balance import MARKS
from stator.engines.properties import Property
from stator.stations.balance_flywheel import messages
from stator.stations.balance_flywheel.analysis import BalanceAnalysis
from stator.stations.balance_flywheel.locations import ADDED, DRILLED, ROLLED, Phase, at, turning
from stator.stations.framework import Action, BoundStation
from stator.stations.framework.remeasure import request_remeasurement


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: BalanceAnalysis = bound.analysis
    offered: list[Action] = []
    if found.is_left:
        offered.append(Action("anyway", str(messages.ACTION["anyway"]), "anyway", do=go_on))
    nowhere = found.phase == Phase.WEIGH and found.plan and not found.plan.holes
    if nowhere:
        offered.append(Action("add", str(messages.ACTION["add"]), "add", True, do=add_mass))
    if found.all_drilled or found.added or nowhere or found.turns_by_itself:
        offered.append(Action("again", str(messages.ACTION["again"]), "again", not nowhere, do=roll_again))
    if found.phase == Phase.UNPROVED:
        offered.append(Action("prove", str(messages.ACTION["prove"]), "prove", True, do=prove_again))
    ready = found.is_refused or found.is_left or found.phase == Phase.DONE
    return (*offered, bound.sign_action(main=bool(ready) and not offered))


def go_on(bound: BoundStation) -> None:
    """Balance the flywheel although it did not vibrate."""
    bound.choose(anyway=True)


def add_mass(bound: BoundStation) -> None:
    """Add mass in this attempt, if drilling is refused."""
    bound.choose(adding=bound.analysis.attempt)


def prove_again(bound: BoundStation) -> None:
    """Withdraw the four masses and measure them again, with a finer step or less friction."""
    request_remeasurement(bound, [turning(mark) for mark in MARKS])


def roll_again(bound: BoundStation) -> None:
    """Begin the next attempt; the holes and results of this one remain stored."""
    found: BalanceAnalysis = bound.analysis
    for made in found.made:
        hole: dict[str, Any] = dict(made)
        bound.record_action(DRILLED, at(Property.HOLE_DEPTH, hole.pop("deg")), hole.pop("depth_mm"), **hole)
    if found.added:
        mass: dict[str, Any] = dict(found.added)
        bound.record_action(ADDED, at(Property.ADDED_MASS, mass.pop("deg")), mass.pop("mass_g"), **mass)
    gmm, uncertainty = found.amount_now or (None, None)
    bound.record_action(ROLLED, at(Property.UNBALANCE), gmm, uncertainty=uncertainty)
    bound.next_attempt()


def may_sign(bound: BoundStation) -> str:
    found: BalanceAnalysis = bound.analysis
    settled = found.is_refused or found.is_left or not found.to_touch or found.phase in (Phase.DONE, Phase.UNPROVED)
    return "" if settled else str(messages.NOT_YET)
