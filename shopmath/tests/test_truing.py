"""Tests of runout and truing: the input is recovered, and following the moves makes a crank true."""

from __future__ import annotations

import math
import random
from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from shopmath.runout import fit
from shopmath.truing import (
    Misalignment,
    PressedCrank,
    RunoutVector,
    bend_at,
    best_reachable,
    decompose,
    next_move,
    outer_turn,
    reversals,
    runout_from,
)
from shopmath.validation import BadInput

TURN = [45.0 * step for step in range(8)]
NOISE_MM = 0.001


def shaft(tir, high, ovality=0.0, zero=0.0, turn=TURN):
    return [zero + tir / 2 * math.cos(math.radians(angle - high)) + ovality / 2 * math.cos(math.radians(2 * angle - 40)) for angle in turn]


def setups():
    """Supports 60 to 110 out, gauges inboard, outboard, or one of each; throw 20 to 45."""
    gauge = st.one_of(st.floats(-45, -15), st.floats(8, 40))  # off the support, outward positive
    return st.builds(
        lambda a, b, left, right, throw: PressedCrank(-a, b, -a - left, b + right, throw),
        st.floats(60, 110),
        st.floats(60, 110),
        gauge,
        gauge,
        st.floats(20, 45),
    )


class RunOut(TestCase):
    @given(st.floats(0.002, 0.5), st.floats(0, 359.9), st.floats(0, 0.05), st.floats(-1, 1))
    def test_swing_high_spot_and_ovality_come_out_as_put_in_from_any_zero(self, tir, high, ovality, zero):
        found = fit(TURN, shaft(tir, high, ovality, zero))
        self.assertAlmostEqual(found.tir_mm, tir, places=9)
        self.assertAlmostEqual(found.ovality_mm, ovality, places=9)
        self.assertLess(abs((found.high_spot_deg - high + 180) % 360 - 180), 1e-3)
        self.assertLess(found.residual_mm, 1e-9)

    @given(st.floats(0, 360))
    def test_turning_the_zero_turns_the_high_spot_with_it(self, by):
        found = fit([angle + by for angle in TURN], shaft(0.06, 75))
        self.assertAlmostEqual((found.high_spot_deg - 75 - by + 180) % 360 - 180, 0, places=6)

    def test_an_oval_journal_is_no_bend(self):
        found = fit(TURN, shaft(0.0, 0, 0.03))
        self.assertLess(found.tir_mm, 1e-9)
        self.assertGreater(found.raw_swing_mm, 0.02)

    def test_what_cannot_be_a_turn_is_refused(self):
        for angles, readings, words in [
            (TURN[:4], [0.0] * 4, "at least 5"),
            ([0, 360, 90, 180, 270], [0.0] * 5, "at least 5"),
            ([0, 1, 2, 3, 4], [0.0] * 5, "bunched"),
            (TURN, [0.0] * 7, "do not pair"),
            (TURN, [math.nan] * 8, "plain number"),
        ]:
            with self.subTest(words), self.assertRaisesRegex(BadInput, words):
                fit(angles, readings)


class Decomposing(TestCase):
    @settings(max_examples=150)
    @given(setups(), st.floats(-0.2, 0.2), st.floats(-0.05, 0.05), st.floats(-0.02, 0.02), st.floats(-0.01, 0.01))
    def test_what_is_put_in_comes_out(self, setup, twist, pinch, offset, skew):
        found = decompose(*runout_from(Misalignment(twist, pinch, offset, skew), setup), setup)
        for got, needed in ((found.twist_deg, twist), (found.pinch_deg, pinch), (found.offset_mm, offset), (found.skew_deg, skew)):
            self.assertAlmostEqual(got, needed, places=7)

    @given(setups(), st.floats(-0.2, 0.2), st.floats(-0.05, 0.05), st.floats(-0.02, 0.02))
    def test_the_shaft_lies_on_the_line_of_turning_at_both_supports_and_is_straight_between(self, setup, twist, pinch, offset):
        mis = Misalignment(twist, pinch, offset, 0.002)
        for support in (setup.support_left_mm, setup.support_right_mm):
            self.assertLess(abs(bend_at(mis, setup, support)), 1e-12)
        near, middle, far = (bend_at(mis, setup, z) for z in (10, 30, 50))
        self.assertLess(abs(near + far - 2 * middle), 1e-12)

    def test_gauges_near_the_supports_say_little(self):
        near, far = PressedCrank(-92, 92, -88, 88, 29), PressedCrank(-92, 92, -34, 34, 29)
        uncertainty = [
            decompose(RunoutVector(0.06, 75), RunoutVector(0.05, 262), setup, 0.0015).uncertainty.twist_deg for setup in (far, near)
        ]
        self.assertAlmostEqual(uncertainty[0], 0.0066, places=4)
        self.assertAlmostEqual(uncertainty[1], 0.096, places=3)

    def test_setups_that_cannot_work_are_refused_with_the_reason(self):
        for values, field, words in [
            ((-92, 92, -92.2, 34, 29), "gauge_left_mm", "stands on its support"),
            ((92, 92, -34, 34, 29), "support_left_mm", "negative z"),
            ((-92, 92, -34, -34, 29), "gauge_right_mm", "positive z"),
            ((-92, 92, -34, 34, 0), "throw_mm", "above 0"),
            ((-92, math.inf, -34, 34, 29), "support_right_mm", "plain number"),
        ]:
            with self.subTest(field), self.assertRaisesRegex(BadInput, words) as caught:
                PressedCrank(*values)
            self.assertEqual(caught.exception.field, field)

    def test_the_mirror_of_a_crank_has_the_mirror_of_its_twist(self):
        setup = PressedCrank(-90, 90, -40, 40, 30)
        left, right = runout_from(Misalignment(0.1, 0.02, 0, 0), setup)
        swapped = decompose(right, left, setup)
        self.assertAlmostEqual(swapped.twist_deg, -0.1, places=6)
        self.assertAlmostEqual(swapped.pinch_deg, 0.02, places=6)


class TheNextMove(TestCase):
    setup = PressedCrank(-92, 92, -34, 34, 29)

    def test_each_fault_has_its_own_move(self):
        for mis, kind, at in [
            (Misalignment(0.1, 0, 0, 0), "strike", 270),
            (Misalignment(-0.1, 0, 0, 0), "strike", 90),
            (Misalignment(0, 0.05, 0, 0), "squeeze", 180),
            (Misalignment(0, -0.05, 0, 0), "wedge", 180),
            (Misalignment(0, 0, 0.002, 0), "leave", 0),
        ]:
            with self.subTest(kind):
                move = next_move(mis, self.setup)
                self.assertEqual((move.kind, move.at_deg), (kind, at))

    def test_it_does_not_follow_the_needle(self):
        """Test that the same twist reads high at different angles with outboard gauges, and the blow is the same."""
        outboard = PressedCrank(-92, 92, -120, 120, 29)
        mis = Misalignment(0.1, 0, 0.01, 0)
        highs = [runout_from(mis, setup)[1].high_spot_deg for setup in (self.setup, outboard)]
        self.assertGreater(abs((highs[0] - highs[1] + 180) % 360 - 180), 90)
        self.assertEqual(
            {(move.kind, move.web, move.at_deg) for move in (next_move(mis, setup) for setup in (self.setup, outboard))},
            {("strike", "right", 270.0)},
        )

    def test_a_move_smaller_than_its_own_uncertainty_is_not_prescribed(self):
        near = PressedCrank(-92, 92, -86, 86, 29)
        mis = decompose(*runout_from(Misalignment(0.06, 0, 0, 0), near), near, 0.002)
        self.assertEqual(next_move(mis, near).kind, "remeasure")

    def test_what_truing_cannot_cure_is_said(self):
        self.assertEqual(next_move(Misalignment(0.05, 0, 0.06, 0), self.setup, limit_mm=0.03).kind, "replace")

    def test_back_and_forth_twice_halves_the_blow(self):
        history = [Misalignment(twist, 0, 0, 0) for twist in (0.12, -0.08)]
        self.assertEqual(next_move(Misalignment(0.07, 0, 0, 0), self.setup, history).share, 0.5)
        self.assertEqual(next_move(Misalignment(0.07, 0, 0, 0), self.setup, history[:1]).share, 1.0)
        self.assertEqual(reversals([0.1, -0.1, 0.1, -0.1]), 3)


class Workshop:
    """A crank with hidden faults, a noisy gauge and uneven blows.

    Knows nothing of `next_move`.
    """

    def __init__(self, dice):
        self.dice = dice
        a, b = dice.uniform(60, 110), dice.uniform(60, 110)
        where = dice.choice(("inboard", "outboard", "mixed"))
        left, right = {"inboard": (-1, -1), "outboard": (1, 1), "mixed": (1, -1)}[where]
        off = [dice.uniform(20, 40) if side < 0 else dice.uniform(12, 30) for side in (left, right)]
        self.setup = PressedCrank(-a, b, -a - left * off[0], b + right * off[1], dice.uniform(20, 45))
        self.truth = Misalignment(dice.uniform(-0.2, 0.2), dice.uniform(-0.05, 0.05), dice.gauss(0, 0.006), dice.gauss(0, 0.003))

    def measured(self):
        runouts = []
        for runout in runout_from(self.truth, self.setup):
            readings = [reading + self.dice.gauss(0, NOISE_MM) for reading in shaft(runout.tir_mm, runout.high_spot_deg)]
            found = fit(TURN, readings)
            runouts.append(RunoutVector(found.tir_mm, found.high_spot_deg))
        return decompose(*runouts, self.setup, NOISE_MM * math.sqrt(2 / len(TURN)))

    def blow(self, name, amount):
        uneven = math.exp(self.dice.uniform(-math.log(1.5), math.log(1.5)))
        self.truth = replace(self.truth, **{f"{name}_deg": getattr(self.truth, f"{name}_deg") - amount * uneven})

    def worse(self):
        return max(runout.tir_mm for runout in runout_from(self.truth, self.setup))

    def good_enough(self):
        best = max(runout.tir_mm for runout in best_reachable(self.truth, self.setup))
        return self.worse() <= max(1.5 * best, best + 0.008)


class AHundredCranks(TestCase):
    def test_following_the_moves_trues_ninety_five_of_them_in_twelve(self):
        trued, longest = 0, 0
        for seed in range(100):
            bench = Workshop(random.Random(seed))
            history, signs = [], []
            for _ in range(12):
                mis = bench.measured()
                move = next_move(mis, bench.setup, history)
                if move.kind in ("leave", "remeasure", "replace"):
                    break
                name = "twist" if move.kind == "strike" else "pinch"
                amount = getattr(mis, f"{name}_deg") * move.share
                signs.append((name, amount > 0))
                history.append(mis)
                bench.blow(name, amount)
            trued += bench.good_enough()
            twists = [up for name, up in signs if name == "twist"]
            longest = max(longest, reversals([1.0 if up else -1.0 for up in twists]))
        self.assertGreaterEqual(trued, 95)
        self.assertLessEqual(longest, 2)


class ManyCylinders(TestCase):
    def test_the_checked_number(self):
        found = outer_turn(RunoutVector(0.050, 90), 34, 0, 60)
        self.assertEqual((round(found.turn_deg, 4), round(found.rim_mm, 3)), (0.0421, 0.069))

    @given(st.floats(0.001, 0.3), st.floats(0, 360), st.floats(0, 360))
    def test_only_the_part_across_the_throw_is_cured_by_turning(self, tir, high, pin):
        along, across = (outer_turn(RunoutVector(tir, pin + angle), 34, pin, 60) for angle in (0, 90))
        self.assertAlmostEqual(along.turn_deg, 0, places=9)
        self.assertGreaterEqual(across.turn_deg + 1e-9, outer_turn(RunoutVector(tir, high), 34, pin, 60).turn_deg)
        self.assertNotEqual(across.direction, outer_turn(RunoutVector(tir, pin - 90), 34, pin, 60).direction)
