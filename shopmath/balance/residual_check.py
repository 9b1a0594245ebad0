"""Proof of balance on a stand with friction: the lowest mass that turns the flywheel at four marks, 90° apart.

Each mark in turn is brought level with the axis, and mass is added there in small steps until the wheel turns. Without unbalance all four
masses are alike, however much the stand rubs; half the difference of two opposite ones is the unbalance along them.
"""

from __future__ import annotations

import cmath
import math
from collections.abc import Sequence
from dataclasses import dataclass

from shopmath.balance.unbalance import Unbalance
from shopmath.validation import BadInput, gettext_noop, not_negative, positive

MARKS = (0.0, 90.0, 180.0, 270.0)
STEP_G = 0.1
VARIES = 0.1  # standard deviation of a stand's friction from place to place, as a share of it: estimate, where it shows no more


@dataclass(frozen=True)
class Proof:
    """The unbalance that four masses show with its expanded uncertainty, and the stand's friction, g·mm.

    `by_itself` are the marks where the wheel turned without any mass: there the mass opposite and the friction of the other pair tell.
    """

    unbalance: Unbalance
    friction_gmm: float
    varies_gmm: float
    by_itself: tuple[float, ...] = ()


def by_turning_masses(masses_g: Sequence[float], radius_mm: float, *, step_g: float = STEP_G) -> Proof:
    """Return the unbalance from the lowest mass that turns the flywheel at 0, 90, 180 and 270°.

    Parameters
    ----------
    masses_g : sequence of float, shape (4,)
        g, in the order of the marks; 0 where the wheel turns by itself.
    radius_mm : float
        Where the mass sits, mm.
    step_g : float
        In which the mass was added, g.

    Returns
    -------
    Proof
        The bound of its unbalance is the step and the variation of the stand's friction, not the friction itself.

    Raises
    ------
    BadInput
        Not four masses, negative ones, no radius, no step; a wheel that turns by itself at marks of both pairs, or at both of one.

    Notes
    -----
    Along a pair U = r·(m₁₈₀ − m₀)/2, and friction r·(m₀ + m₁₈₀)/2. Each mass is past the true one by anything up to a step, so half a
    difference has the variance step²/24; friction that varies adds half its variance. Both pairs show the same friction: what they differ
    by is its variation, and a tenth is taken (*estimate*) where they show less.

    Source
    ------
    Equilibrium of moments on a wheel at rest; GUM 4.3.7 for a step.

    Examples
    --------
    >>> proof = by_turning_masses([0.3, 0.2, 0.4, 0.4], 80)
    >>> round(proof.unbalance.gmm, 1), round(proof.unbalance.deg), round(proof.friction_gmm), round(proof.unbalance.uncertainty_gmm, 1)
    (8.9, 63, 26, 5.7)
    """
    masses = [not_negative("masses_g", mass) for mass in masses_g]
    if len(masses) != len(MARKS):
        raise BadInput(
            "masses_g",
            gettext_noop("Four masses are wanted, at 0, 90, 180 and 270 degrees; {masses} given."),
            "not_four",
            masses=len(masses),
        )
    arm, step = positive("radius_mm", radius_mm), positive("step_g", step_g)
    by_itself = tuple(mark for mark, mass in zip(MARKS, masses, strict=True) if mass == 0)
    pairs = [(masses[0], masses[2]), (masses[1], masses[3])]
    alone = [0 in pair for pair in pairs]
    if all(alone) or any(pair == (0, 0) for pair in pairs):
        words = gettext_noop("It turns by itself at too many marks: let it roll, and take its heavy spot off first.")
        raise BadInput("masses_g", words, "turns_by_itself")
    frictions = [arm * sum(pair) / 2 for pair, by in zip(pairs, alone, strict=True) if not by]
    friction = sum(frictions) / len(frictions)
    stepped = (arm * step) ** 2 / 24
    differ = math.sqrt(max(0.0, (frictions[0] - frictions[-1]) ** 2 - 2 * stepped))
    varies = max(VARIES * friction, differ)
    along = []
    for (ahead, behind), by in zip(pairs, alone, strict=True):
        if not by:
            along.append(arm * (behind - ahead) / 2)
        else:  # the lighter side's mass lifts the unbalance and the friction
            along.append((arm * behind - friction) if ahead == 0 else -(arm * ahead - friction))
    sigma = math.sqrt(2 * stepped + 2 * varies**2 if any(alone) else stepped + varies**2 / 2)
    found = complex(*along)
    return Proof(Unbalance(abs(found), math.degrees(cmath.phase(found)) % 360, 2 * sigma), friction, varies, by_itself)


def added_mass_g(found: Unbalance, radius_mm: float) -> tuple[float, float]:
    """Return the mass that balances a flywheel that may not be drilled, and its place opposite the heavy spot.

    Parameters
    ----------
    found : Unbalance
    radius_mm : float
        Where it is fastened, mm.

    Returns
    -------
    tuple of float
        g, and its angle, °.

    Raises
    ------
    BadInput
        No radius.

    Examples
    --------
    >>> added_mass_g(Unbalance(120, 200), 60)
    (2.0, 20)
    """
    return not_negative("unbalance_gmm", found.gmm) / positive("radius_mm", radius_mm), (found.deg + 180) % 360
