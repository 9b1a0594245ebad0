"""Every simulation with a hundred cases of a fixed seed; `bin/simulate` runs the large ones."""

from __future__ import annotations

import random
from unittest import TestCase

from stator.simulations.pass_rate import Share
from stator.simulations.registry import SIMULATIONS

CASES = 100
FEWER = {"cranks": 20}  # each of these is a whole crank trued


class Judgements(TestCase):
    def test_what_is_said_is_so_as_often_as_is_wanted(self):
        for name, (simulate, _cases) in SIMULATIONS.items():
            for share in simulate(random.Random(13), FEWER.get(name, CASES)):
                with self.subTest(name, share=share.name):
                    self.assertTrue(share.holds, str(share))

    def test_a_share_that_falls_short_by_more_than_chance_does_not_hold(self):
        self.assertFalse(Share("in", 80, 100, 0.95).holds)
        self.assertTrue(Share("in", 93, 100, 0.95).holds)
        self.assertFalse(Share("wrong", 9, 100, 0.01, at_most=True).holds)
        self.assertTrue(Share("wrong", 0, 0, 0.01, at_most=True).holds)
