"""Tests of a flywheel on its stand: stops, permitted unbalance, drilling, and the proof by turning masses."""

from __future__ import annotations

import cmath
import math
import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from shopmath.balance import (
    Drilled,
    DrillLimits,
    Unbalance,
    added_mass_g,
    after_holes,
    by_trial_mass,
    by_turning_masses,
    drill_plan,
    drilled_mass_g,
    force_n,
    from_hole,
    looks_for,
    permissible_gmm,
    rim_speed_m_s,
    stops,
    stops_wanted,
    wall_left_mm,
)
from shopmath.validation import BadInput

STEEL = 7850.0
OPEN = DrillLimits(radius_mm=80, thickness_mm=18, finish_radius_mm=45)


class CheckedNumbers(unittest.TestCase):
    def test_stops_that_tell_and_stops_that_do_not(self):
        found = stops([184, 201, 176, 220, 195, 190])
        self.assertAlmostEqual(found.mean_deg, 194.2, delta=0.1)
        self.assertAlmostEqual(found.resultant, 0.971, delta=0.001)
        self.assertAlmostEqual(found.p_value, 0.0003, delta=0.0001)
        self.assertTrue(found.telling)
        scattered = stops([12, 140, 260, 75, 310, 200])
        self.assertAlmostEqual(scattered.p_value, 0.99, delta=0.01)
        self.assertFalse(scattered.telling)

    def test_what_a_grade_allows_and_what_it_pulls(self):
        self.assertAlmostEqual(permissible_gmm(6.3, 1.9, 8500), 13.4, delta=0.05)
        self.assertAlmostEqual(force_n(120, 8500), 95.1, delta=0.1)

    def test_what_a_drill_takes(self):
        self.assertAlmostEqual(drilled_mass_g(6, 8, 7850), 1.909, delta=0.001)
        self.assertAlmostEqual(drilled_mass_g(6, 8, 2700), 0.657, delta=0.001)

    def test_the_wall_is_what_the_tip_leaves(self):
        self.assertAlmostEqual(wall_left_mm(14, 6, 8), 14 - 8 - 1.8, delta=0.01)

    def test_rim_speed(self):
        self.assertAlmostEqual(rim_speed_m_s(170, 8500), 75.7, delta=0.1)


class Stopping(unittest.TestCase):
    def test_it_says_how_many_more_would_tell(self):
        self.assertEqual(stops_wanted(stops([190, 200, 195, 188])), 0)
        more = stops_wanted(stops([10, 80, 330]))
        self.assertGreater(more, 0)
        self.assertIsNone(stops_wanted(stops([0, 90, 180, 270])))

    def test_across_north_the_mean_does_not_jump(self):
        self.assertAlmostEqual(stops([350, 10, 355, 5]).mean_deg % 360, 0, delta=1e-6)

    def test_one_stop_tells_nothing(self):
        with self.assertRaises(BadInput):
            stops([90])

    @given(st.lists(st.floats(0, 359.9), min_size=2, max_size=20), st.floats(-360, 360))
    def test_turning_all_marks_turns_the_mean_and_nothing_else(self, marks, turn):
        one, two = stops(marks), stops([mark + turn for mark in marks])
        self.assertAlmostEqual(one.resultant, two.resultant, places=6)
        self.assertAlmostEqual(one.p_value, two.p_value, places=6)


class Amounts(unittest.TestCase):
    def test_friction_hides_as_much_below_as_above(self):
        found = by_trial_mass(1.2, 1.6, 80, 194)
        self.assertEqual((found.gmm, found.deg), (112, 194))
        self.assertGreater(by_trial_mass(1.0, 1.8, 80, 194).uncertainty_gmm, found.uncertainty_gmm)
        with self.assertRaises(BadInput):
            by_trial_mass(1.6, 1.2, 80, 194)

    @given(st.floats(30, 200), st.floats(0, 359), st.floats(0.3, 0.8), st.floats(15, 60))
    def test_the_answer_to_a_hole_gives_the_amount_back(self, gmm, deg, share, aside):
        rest = after_holes(Unbalance(gmm, deg), [(share * gmm, deg + aside)])
        found = from_hole(deg, rest.deg, share * gmm, deg + aside)
        self.assertAlmostEqual(found.gmm, gmm, delta=0.01 * gmm)

    def test_a_heavy_spot_that_did_not_move_tells_no_amount(self):
        with self.assertRaises(BadInput):
            from_hole(200, 201, 50, 200)


class Plans(unittest.TestCase):
    def test_one_hole_where_one_will_do(self):
        plan = drill_plan(Unbalance(60, 200), OPEN, STEEL, [6, 8], within_gmm=25)
        self.assertEqual(len(plan.holes), 1)
        self.assertAlmostEqual(plan.holes[0].angle_deg, 200, delta=0.1)

    def test_much_is_taken_in_two_goes(self):
        plan = drill_plan(Unbalance(150, 200), OPEN, STEEL, [8], within_gmm=13)
        self.assertAlmostEqual(plan.rest.gmm, 15, delta=4)
        self.assertIn("nine tenths", plan.reason)

    def test_a_magnet_at_the_heavy_spot_is_straddled(self):
        plan = drill_plan(Unbalance(100, 200), replace(OPEN, keep_out_deg=((190, 210),)), STEEL, [6, 8], within_gmm=13)
        self.assertGreaterEqual(len(plan.holes), 2)
        self.assertFalse([hole for hole in plan.holes if OPEN.refusal(hole.angle_deg, 80, 8) or 186 < hole.angle_deg < 214])
        self.assertLess(plan.rest.gmm, 20)

    def test_earlier_holes_keep_their_distance(self):
        plan = drill_plan(Unbalance(60, 200), replace(OPEN, earlier=(Drilled(200, 80, 8),)), STEEL, [6], within_gmm=20)
        for hole in plan.holes:
            away = abs(cmath.rect(hole.radius_mm, math.radians(hole.angle_deg)) - cmath.rect(80, math.radians(200)))
            self.assertGreaterEqual(away, 7 + 3 - 1e-6)

    def test_a_thin_rim_limits_the_depth_at_the_tip(self):
        plan = drill_plan(Unbalance(150, 200), replace(OPEN, thickness_mm=8), STEEL, [6], within_gmm=13)
        for hole in plan.holes:
            self.assertGreaterEqual(wall_left_mm(8, 6, hole.depth_mm), 3 - 1e-6)
        self.assertGreater(len(plan.holes), 1)

    def test_a_little_is_finished_nearer_the_centre(self):
        plan = drill_plan(Unbalance(12, 200), OPEN, STEEL, [6], within_gmm=4)
        self.assertEqual(plan.holes[0].radius_mm, 45)

    def test_where_nothing_may_be_drilled_it_says_so(self):
        plan = drill_plan(Unbalance(60, 200), replace(OPEN, keep_out_deg=((90, 310),)), STEEL, [6], within_gmm=13)
        self.assertEqual(plan.holes, ())
        self.assertIn("nothing may be drilled", plan.reason)

    @given(st.floats(5, 400), st.floats(0, 359), st.floats(0, 359), st.floats(5, 120))
    def test_no_plan_goes_past_the_need(self, gmm, deg, start, arc):
        limits = replace(OPEN, keep_out_deg=((start, start + arc),))
        plan = drill_plan(Unbalance(gmm, deg), limits, STEEL, [4, 6, 8])
        took = sum((cmath.rect(hole.gmm, math.radians(hole.angle_deg - deg)) for hole in plan.holes), 0j)
        self.assertLessEqual(took.real, gmm * (1 + 1e-6))
        self.assertLessEqual(plan.rest.gmm, gmm * (1 + 1e-6))
        self.assertFalse([hole for hole in plan.holes if limits.refusal(hole.angle_deg, hole.radius_mm, 0.1)])


class Proving(unittest.TestCase):
    def test_four_masses_show_what_is_left_whatever_the_stand_rubs(self):
        for rubs in (8, 16, 40):
            masses = [(rubs - along) / 80 for along in (4, -3, -4, 3)]
            found = by_turning_masses(masses, 80, step_g=0.01)
            self.assertAlmostEqual(found.unbalance.gmm, 5.0)
            self.assertAlmostEqual(found.unbalance.deg, math.degrees(math.atan2(-3, 4)) % 360)
            self.assertAlmostEqual(found.friction_gmm, rubs)

    def test_its_bound_is_the_step_and_the_variation_of_the_friction(self):
        fine, coarse = (by_turning_masses([0.2, 0.2, 0.2, 0.2], 80, step_g=step).unbalance.uncertainty_gmm for step in (0.01, 0.1))
        self.assertLess(fine, coarse)
        sticky = by_turning_masses([0.2, 0.6, 0.2, 0.6], 80, step_g=0.01)
        self.assertGreater(sticky.unbalance.uncertainty_gmm, 20)

    def test_a_mark_where_it_turns_by_itself_is_told_by_the_mass_opposite(self):
        found = by_turning_masses([0.0, 0.2, 0.5, 0.2], 80, step_g=0.01)
        self.assertEqual((round(found.unbalance.gmm), round(found.unbalance.deg), found.by_itself), (24, 0, (0.0,)))
        for masses in ([0, 0.2, 0, 0.2], [0, 0, 0.2, 0.3], [0.2, 0.2, 0.2]):
            with self.subTest(masses), self.assertRaises(BadInput):
                by_turning_masses(masses, 80)

    def test_looking_after_every_stop_asks_for_more(self):
        marks = [190, 220, 160, 245]
        self.assertTrue(stops(marks).telling)
        self.assertFalse(stops(marks, looks_for(10)).telling)
        self.assertEqual(
            [stops(marks, looks_for(highest)).threshold for highest in (4, 10, 12, 16, 40)], [0.05, 0.0155, 0.0135, 0.0108, 0.0065]
        )
        self.assertRaises(BadInput, stops, marks, 38)

    def test_a_mass_opposite_does_what_a_hole_would(self):
        found = Unbalance(120, 200)
        mass, angle = added_mass_g(found, 60)
        self.assertAlmostEqual(after_holes(found, [(mass * 60, angle + 180)]).gmm, 0)
