"""A pressed crank with a hidden fault, trued by following the core's calls, blow after blow."""

from __future__ import annotations

import math
import random
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from shopmath.gauges import gauge_uncertainty
from shopmath.runout import check_turn, fit
from shopmath.truing import Misalignment, PressedCrank, RunoutVector, bend_at, best_reachable, decompose, next_move, runout_from
from stator.simulations.pass_rate import Share

MOVES = 12
SIDES = ("left", "right")
CURES = ("strike", "squeeze", "wedge")
GOOD_TIMES, GOOD_MORE_MM = 1.5, 0.008  # a crank is true within so many times the best, or so much over it
STEADY_DEG = {"twist": 0.04, "pinch": 0.015}  # what a blow of constant strength moves


@dataclass(frozen=True)
class Dial:
    """A dial indicator and its use for a turn: noise is the standard deviation of its scatter, mm."""

    resolution: float
    noise_mm: float
    angles: int = 8
    turns: int = 1

    def shows(self, truth_mm: float, dice: random.Random) -> float:
        return round(dice.gauss(truth_mm, self.noise_mm) / self.resolution) * self.resolution


@dataclass(frozen=True)
class Trouble:
    """Other errors: a reading that slipped, a wrong zero of the crankpin, coupled blows, blows of equal strength."""

    slip_mm: float = 0.0
    zero_deg: float = 0.0
    couples: float = 0.0
    steady: bool = False


@dataclass(frozen=True)
class Ended:
    """The result for a crank: its true larger runout, the best reachable, mm, and the core's last verdict."""

    tir_mm: float
    best_mm: float
    said: str
    moves: int

    @property
    def is_true(self) -> bool:
        return self.tir_mm <= max(GOOD_TIMES * self.best_mm, self.best_mm + GOOD_MORE_MM)


def random_crank(dice: random.Random) -> tuple[Misalignment, PressedCrank]:
    """A fault as a fresh pressing leaves it, and a set-up whose gauges can see it."""
    support = dice.uniform(70, 110)
    setup = PressedCrank(-support, support, -dice.uniform(0.3, 0.5) * support, dice.uniform(0.3, 0.5) * support, dice.uniform(22, 40))
    fault = Misalignment(dice.gauss(0, 0.09), dice.gauss(0, 0.03), dice.gauss(0, 0.004), dice.gauss(0, 0.004))
    return fault, setup


def true_it(dice: random.Random, dial: Dial, trouble: Trouble = Trouble()) -> Ended:
    """Measure and follow the core until it recommends to leave the crank, or the moves are used up."""
    true_values, setup = random_crank(dice)
    best = max(runout.tir_mm for runout in best_reachable(true_values, setup))
    slips_in = dice.randrange(4)
    vector_u = gauge_uncertainty(dial.resolution, kind="dial") / 2 * math.sqrt(2 / (dial.angles * dial.turns))
    history: list[Misalignment] = []
    said, count = "moves", 0
    for number in range(MOVES + 1):
        slip = trouble.slip_mm if number == slips_in else 0.0
        left, right = (_turned(dice, true_values, setup, side, dial, slip if side == "left" else 0.0, trouble.zero_deg) for side in SIDES)
        seen = decompose(left, right, setup, vector_u)
        move = next_move(seen, setup, history)
        if move.kind not in CURES:
            said = move.kind
            break
        if number == MOVES:
            break
        history.append(seen)
        true_values = _struck(dice, true_values, seen, move.kind, move.share, trouble)
        count += 1
    return Ended(max(runout.tir_mm for runout in runout_from(true_values, setup)), best, said, count)


def _turned(
    dice: random.Random, truth: Misalignment, setup: PressedCrank, side: str, dial: Dial, slip_mm: float, zero_deg: float
) -> RunoutVector:
    """One end's turn as read with the gauge; what the core suspects is read again."""
    at = bend_at(truth, setup, getattr(setup, f"gauge_{side}_mm"))
    step = 360 / dial.angles
    angles = [step * index for index in range(dial.angles)]

    def true_mm(angle: float) -> float:
        turn = math.radians(angle + zero_deg)
        return at.real * math.cos(turn) + at.imag * math.sin(turn)

    def read(angle: float, off_mm: float = 0.0) -> float:
        return dial.shows(true_mm(angle) + off_mm, dice)

    wrong = dice.randrange(dial.angles)
    rows: list[list[float]] = [
        [read(angle, slip_mm if index == wrong and turn == 0 else 0.0) for turn in range(dial.turns)] for index, angle in enumerate(angles)
    ]
    return _fitted(angles, rows, dial, read)


def _fitted(angles: Sequence[float], rows: list[list[float]], dial: Dial, read: object) -> RunoutVector:
    """The runout once the core suspects nothing, or has had its readings again twice."""
    assert callable(read)
    u = gauge_uncertainty(dial.resolution, kind="dial")
    for _ in range(3):
        flat = [(angle, value) for angle, values in zip(angles, rows, strict=True) for value in values]
        suspect = check_turn([angle for angle, _ in flat], [value for _, value in flat], u)
        if not suspect.code:
            break
        for index, angle in enumerate(angles):
            if not suspect.again or angle in suspect.again:
                rows[index] = [read(angle) for _ in range(dial.turns)]
    flat = [(angle, value) for angle, values in zip(angles, rows, strict=True) for value in values]
    found = fit([angle for angle, _ in flat], [value for _, value in flat])
    return RunoutVector(found.tir_mm, found.high_spot_deg)


def _struck(dice: random.Random, truth: Misalignment, seen: Misalignment, kind: str, share: float, trouble: Trouble) -> Misalignment:
    """Return the effect of a blow: about the intended one, with a little of the other misalignment."""
    part, other = ("twist", "pinch") if kind == "strike" else ("pinch", "twist")
    aim = getattr(seen, f"{part}_deg")
    by = math.copysign(STEADY_DEG[part], aim) * dice.uniform(0.85, 1.15) if trouble.steady else aim * dice.uniform(0.5, 1.3)
    by *= share
    moved = replace(truth, **{f"{part}_deg": getattr(truth, f"{part}_deg") - by})
    with_it = trouble.couples * by * dice.choice((-1, 1))
    return replace(moved, **{f"{other}_deg": getattr(moved, f"{other}_deg") + with_it})


FINE, COARSE = Dial(0.001, 0.0015), Dial(0.01, 0.003, angles=12, turns=2)
TROUBLES = (
    ("fine dial", FINE, Trouble()),
    ("0.01 dial", COARSE, Trouble()),
    ("0.01 dial, one slip of 0.03", COARSE, Trouble(slip_mm=0.03)),
    ("0.01 dial, one slip of 0.045", COARSE, Trouble(slip_mm=0.045)),
    ("pin zero 5 degrees wrong", FINE, Trouble(zero_deg=5)),
    ("blows that couple twist with pinch", FINE, Trouble(couples=0.2)),
    ("blows of constant strength", FINE, Trouble(steady=True)),
)


def cranks(dice: random.Random, cases: int) -> Iterator[Share]:
    """Cranks trued by following the calls: how many end true, and how many of these in `leave`."""
    for name, dial, trouble in TROUBLES:
        ended = [true_it(dice, dial, trouble) for _ in range(cases)]
        good = [each for each in ended if each.is_true]
        yield Share(f"{name}: ends true", len(good), cases, 0.95)
        yield Share(f"{name}: of these, told to leave it within {MOVES} moves", sum(each.said == "leave" for each in good), len(good), 0.95)
