"""Tests of shims, blades, centering, installation and closing: checked numbers and properties."""

from __future__ import annotations

import math
import random
import unittest
from itertools import combinations_with_replacement, pairwise

from shopmath import centering, crank_installation, end_play, feeler_gauges
from shopmath.case_closing import Bolt, bolt_load, bolt_order, leak, open_time_left, stages_nm
from shopmath.end_play import Dimension, choose_shims, from_table
from shopmath.validation import BadInput

KIT = [0.05, 0.1, 0.15, 0.2, 0.3]


class Shims(unittest.TestCase):
    def test_the_checked_numbers(self):
        plain = choose_shims(0.42, 0.10, 0.20, KIT)
        self.assertEqual(plain.shims_mm, (0.3,))
        self.assertAlmostEqual(plain.float_mm, 0.12)
        sure = choose_shims(0.42, 0.10, 0.20, KIT, uncertainty_mm=0.025)
        self.assertEqual(sure.shims_mm, (0.2, 0.05))
        self.assertAlmostEqual(sure.float_mm, 0.17)

    def test_every_choice_is_the_best_there_is(self):
        dice = random.Random(5)
        for _ in range(300):
            free, low = dice.uniform(0.05, 1.0), dice.uniform(0.02, 0.2)
            high, uncertainty = low + dice.uniform(0.03, 0.3), dice.choice((0.0, 0.01, 0.03))
            sets = [pieces for count in range(3) for pieces in combinations_with_replacement(KIT, count)]
            middle = (low + high) / 2
            sure = [p for p in sets if low + uncertainty - 1e-9 <= free - sum(p) <= high - uncertainty + 1e-9]
            plain = [p for p in sets if low - 1e-9 <= free - sum(p) <= high + 1e-9]
            if not plain:
                with self.assertRaises(BadInput):
                    choose_shims(free, low, high, KIT, uncertainty_mm=uncertainty)
                continue
            found = choose_shims(free, low, high, KIT, uncertainty_mm=uncertainty)
            if sure:
                fewest = min(len(p) for p in sure)
                best = min(abs(free - sum(p) - middle) for p in sure if len(p) == fewest)
                self.assertEqual(len(found.shims_mm), fewest)
            else:
                best = min(abs(free - sum(p) - middle) for p in plain)
            self.assertAlmostEqual(abs(found.float_mm - middle), best, places=8)

    def test_no_shim_is_a_choice_and_none_that_fits_is_said(self):
        self.assertEqual(choose_shims(0.15, 0.10, 0.20, KIT).shims_mm, ())
        with self.assertRaises(BadInput) as caught:
            choose_shims(2.0, 0.1, 0.2, KIT)
        self.assertIn("the nearest leaves 1.400", caught.exception.message)
        with self.assertRaises(BadInput):
            choose_shims(0.4, 0.1, 0.2, [])

    def test_a_stack_adds_room_and_takes_it_with_both_uncertainties(self):
        links = [Dimension("left", 38.42, 0.02, 1), Dimension("right", 31.1, 0.02, 1), Dimension("crank", 69.1, 0.01, -1)]
        found = end_play.stack(links)
        self.assertAlmostEqual(found.value_mm, 0.42)
        self.assertAlmostEqual(found.worst_mm, 0.05)
        self.assertAlmostEqual(found.rss_mm, 0.03)
        for wrong in ([], [Dimension("left", 38, 0.02, 0)], [Dimension("left", -1, 0.02, 1)]):
            with self.assertRaises(BadInput):
                end_play.stack(wrong)

    def test_between_two_rows_of_a_table_both_come_back_with_what_they_leave(self):
        table = [(1.0, 0.9), (1.1, 1.0), (1.2, 1.1)]
        found = from_table(1.15, table)
        self.assertEqual([row.shim_mm for row in found.rows], [1.0, 1.1])
        self.assertEqual([round(left, 3) for left in found.floats_mm], [0.15, 0.05])
        self.assertFalse(from_table(1.1, table).between)
        for distance in (0.9, 1.3):
            with self.assertRaises(BadInput):
                from_table(distance, table)
        with self.assertRaises(BadInput):
            from_table(1.0, [(1.1, 1.0), (1.0, 0.9)])


class Blades(unittest.TestCase):
    def test_no_other_blades_come_nearer(self):
        blades = [0.03, 0.04, 0.05, 0.06, 0.08, 0.1, 0.15, 0.2, 0.3, 0.5]
        for target in (0.07, 0.13, 0.27, 0.44, 0.9):
            found = feeler_gauges.stack(target, blades)
            nearest = min(
                abs(sum(blades[i] for i in range(10) if bits >> i & 1) - target) for bits in range(1, 1024) if bits.bit_count() <= 3
            )
            self.assertAlmostEqual(abs(sum(found) - target), nearest, places=6)
            self.assertEqual(len(set(found)), len(found))


class Middle(unittest.TestCase):
    def test_half_the_difference_toward_the_larger_gap(self):
        size, toward, turns = centering.move(0.10, 0.34, 1.5)
        self.assertEqual((round(size, 3), toward, round(turns, 3)), (0.12, "right", 0.08))
        self.assertEqual(centering.move(0.2, 0.2, 1.5), (0.0, "", 0.0))

    def test_moving_by_it_centres(self):
        for left, right in ((0.3, 0.1), (0.05, 0.4)):
            size, toward, _ = centering.move(left, right, 1.5)
            left, right = (left - size, right + size) if toward == "left" else (left + size, right - size)
            self.assertAlmostEqual(left, right)

    def test_blades_that_cannot_tell_say_so(self):
        self.assertEqual(centering.centred(0.15, 0.10, 1.5, 0.05, 0.01).call.state, "too_close")


class PullingIn(unittest.TestCase):
    def test_turns_and_the_wrench(self):
        self.assertEqual(crank_installation.turns(18, 1.5), 12)
        slack = crank_installation.pull_force_n((-0.01, -0.002), 25, 15)
        self.assertEqual(slack.high, 0)
        tight, loose = (crank_installation.pull_force_n(fit, 25, 15).likely for fit in ((0.01, 0.02), (0.002, 0.01)))
        self.assertGreater(tight, loose)

    def test_a_side_with_the_larger_gap_is_not_home(self):
        self.assertEqual(
            [crank_installation.seated(0.3, right, 0.05, 0.01).state for right in (0.29, 0.25, 0.1)], ["in", "too_close", "out"]
        )
        self.assertIn("right gap", crank_installation.seated(0.1, 0.5, 0.05).reason)


class Closing(unittest.TestCase):
    def test_any_face_is_tightened_from_the_middle_and_never_next_door(self):
        dice = random.Random(11)
        for count in (1, 2, 3, 4, 5, 6, 9, 13, 20):
            for _ in range(6):
                bolts = [Bolt(str(index), dice.uniform(-120, 120), dice.uniform(-90, 90)) for index in range(count)]
                order = bolt_order(bolts)
                self.assertEqual(sorted(order), sorted(bolt.name for bolt in bolts))
                at = {bolt.name: (bolt.x_mm, bolt.y_mm) for bolt in bolts}
                middle = tuple(sum(place[axis] for place in at.values()) / count for axis in (0, 1))
                nearest = min(at, key=lambda name: math.dist(at[name], middle))
                self.assertAlmostEqual(math.dist(at[order[0]], middle), math.dist(at[nearest], middle))
                if count >= 5:
                    for before, after in pairwise(order):
                        neighbour = min((name for name in at if name != before), key=lambda name: math.dist(at[name], at[before]))
                        self.assertNotEqual(after, neighbour)

    def test_a_star_of_bolts_has_an_order_too(self):
        star = [Bolt("hub", 0, 0), *(Bolt(str(n), 100 * math.cos(math.pi / 2 * n), 100 * math.sin(math.pi / 2 * n)) for n in range(4))]
        order = bolt_order(star)
        self.assertEqual((order[0], len(set(order))), ("hub", 5))

    def test_more_torque_than_the_case_stands_is_stop(self):
        self.assertEqual(stages_nm(12), (4.8, 8.4, 12.0))
        self.assertEqual([bolt_load(nm, 6, 1.0, 12, 240).call.state for nm in (10, 12, 18)], ["in", "too_close", "stop"])
        shallow = bolt_load(10, 6, 1.0, 5, 240)
        self.assertIn("what the case's thread stands", shallow.call.reason)

    def test_sealant_waits_for_nobody(self):
        self.assertEqual([open_time_left(600, spent, [60] * 4).state for spent in (0, 300, 380, 700)], ["in", "too_close", "stop", "stop"])

    def test_a_leak_is_a_rate_and_a_gain_is_refused(self):
        self.assertEqual(leak(40, 35.5, 5, 0.8).state, "out")
        self.assertEqual(leak(-40, -39.5, 5, 0.8).state, "in")
        self.assertIn("cautious", leak(40, 39, 5).reason)
        for first, second in ((40, 45), (40, -2)):
            with self.assertRaises(BadInput):
                leak(first, second, 5)
