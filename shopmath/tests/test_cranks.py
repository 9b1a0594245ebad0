"""Press joints, the form of a seat, what to keep, throws: what a mechanic would check."""

from __future__ import annotations

import cmath
import math
import unittest
from dataclasses import replace

from shopmath.balance import balance_factor, bob_weight_for_factor_g
from shopmath.bearings import BearingCondition, reuse_or_replace
from shopmath.compounds import STRENGTHS, compound_shear_mpa, joint_friction, release_temperature_c
from shopmath.estimate import Estimate
from shopmath.form import ANGLES_DEG, form, lobing_mm, repair_options, v_block_factor
from shopmath.gauges import gauge_uncertainty
from shopmath.joints import (
    PressJoint,
    heat_call,
    joint_evidence,
    joint_plan,
    press_call,
    usual_interference,
    web_heat_for,
)
from shopmath.multi_throw import outer_shaft, phase_error_deg, refuse_hold
from shopmath.runout import TurnCheck, check_turn, fit
from shopmath.truing import RunoutVector
from shopmath.validation import BadInput
from shopmath.verdict import judge, sufficient_measurement

PIN = PressJoint(22, 16, 0.060, 0.004, wall_mm=10, web_mm=80)
TURN = list(range(0, 360, 45))


class Joints(unittest.TestCase):
    def test_the_example_of_the_handbook_lies_in_the_band(self):
        plan = joint_plan(PIN)
        self.assertLess(plan.force_n.low, 28_700)
        self.assertGreater(plan.force_n.high, 28_700)
        self.assertTrue(plan.force_n.estimated)

    def test_oil_helps_and_parting_takes_more_than_pressing(self):
        oiled = joint_plan(replace(PIN, condition="oiled"))
        self.assertLess(oiled.force_n.likely, joint_plan(PIN).force_n.likely)
        self.assertLess(joint_plan(PIN, "assembling").force_n.likely, joint_plan(PIN).force_n.likely)

    def test_no_grip_takes_no_force_and_never_a_negative_one(self):
        loose = joint_plan(replace(PIN, interference_mm=-0.02))
        self.assertEqual((loose.force_n.low, loose.force_n.high), (0.0, 0.0))

    def test_compound_adds_its_shear_when_cured_and_is_oil_while_wet(self):
        glued = joint_plan(replace(PIN, strength="high"))
        added = glued.force_n.likely - joint_plan(PIN).force_n.likely
        self.assertAlmostEqual(added, 24 * math.pi * 22 * 16, delta=1)
        self.assertEqual(joint_plan(replace(PIN, strength="high"), "assembling").compound_n.high, 0.0)

    def test_a_hot_web_helps_only_while_the_pin_stays_cooler(self):
        warm = joint_plan(replace(PIN, web_c=150))
        both = joint_plan(replace(PIN, web_c=150, pin_c=150))
        self.assertLess(warm.force_n.likely, 0.6 * joint_plan(PIN).force_n.likely)
        self.assertAlmostEqual(both.force_n.likely, joint_plan(PIN).force_n.likely, delta=1500)  # it opens a little less

    def test_a_thin_wall_yields_and_says_so(self):
        thin = joint_plan(PressJoint(20, 14, 0.080, 0.004, wall_mm=6, web_mm=70))
        self.assertTrue(thin.past_yield)
        self.assertGreater(thin.hub_stress_mpa, thin.yield_mpa)

    def test_a_taper_parts_easier_than_it_goes_on_and_lets_go_at_once(self):
        taper = replace(PIN, taper_ratio=10)
        self.assertTrue(joint_plan(taper).releases_at_once)
        self.assertLess(joint_plan(taper).force_n.likely, joint_plan(PIN).force_n.likely)
        self.assertGreater(joint_plan(taper, "assembling").force_n.likely, joint_plan(PIN, "assembling").force_n.likely)
        self.assertEqual(joint_plan(replace(PIN, taper_ratio=4)).force_n.low, 0.0)  # a steep one need not hold

    def test_the_press_is_enough_may_not_be_or_is_stop(self):
        force = Estimate(14e3, 28e3, 50e3)
        self.assertEqual([press_call(force, has).state for has in (60e3, 40e3, 20e3)], ["in", "too_close", "stop"])
        said = press_call(force, 20e3, unit="t", per_unit_n=9806.65).reason
        self.assertEqual(said, "It takes 1.43 to 5.1 t, likely 2.86; the press has only 2.04.")

    def test_heat_that_makes_the_press_enough_is_found_and_is_the_least(self):
        at = web_heat_for(PIN, 35e3)
        self.assertLessEqual(joint_plan(replace(PIN, web_c=at)).force_n.high, 35e3)
        self.assertGreater(joint_plan(replace(PIN, web_c=at - 5)).force_n.high, 35e3)

    def test_heat_that_frees_compound_ruins_what_is_to_be_used_again(self):
        freed = replace(PIN, strength="high", web_c=release_temperature_c("high").low, pin_c=200)
        self.assertEqual(heat_call(freed, scrap=False).state, "stop")
        self.assertEqual(heat_call(freed, scrap=True).state, "too_close")
        self.assertEqual(heat_call(replace(PIN, web_c=320), scrap=True).state, "stop")
        self.assertEqual(heat_call(replace(PIN, web_c=150, pin_c=60), scrap=False).state, "in")
        self.assertIn("this web stands", heat_call(replace(PIN, web_c=260), scrap=False).reason)

    def test_a_peak_too_low_is_a_loose_joint(self):
        plan = joint_plan(PIN, "assembling")
        states = [joint_evidence(force, plan).state for force in (0.5 * plan.force_n.low, plan.force_n.likely, 1.5 * plan.force_n.high)]
        self.assertEqual(states, ["out", "in", "too_close"])

    def test_impossible_joints_are_refused_by_name(self):
        for field, value in (("web_mm", 30), ("wall_mm", 0), ("taper_ratio", 1), ("web_c", -300)):
            with self.subTest(field), self.assertRaises(BadInput) as caught:
                replace(PIN, **{field: value})
            self.assertEqual(caught.exception.field, field)

    def test_bands_rise_and_weaken_with_heat(self):
        for strength in STRENGTHS:
            cold, warm, hot = (compound_shear_mpa(strength, at).likely for at in (20, 120, 250))
            self.assertTrue(cold > warm > hot >= 0)
        self.assertLess(joint_friction("assembling", "oiled").high, joint_friction("parting", "dry").high)
        self.assertLess(usual_interference(20).high, usual_interference(30).high)


class Seats(unittest.TestCase):
    def test_an_oval_put_in_comes_out(self):
        for ovality, at in ((0.010, 30.0), (0.004, 115.0)):
            shape = [52 + ovality / 2 * math.cos(2 * math.radians(angle - at)) for angle in ANGLES_DEG]
            found = form(shape, [value + 0.006 for value in shape])
            self.assertAlmostEqual(found.ovality_mm, ovality, places=9)
            self.assertAlmostEqual(found.long_at_deg, at, places=6)
            self.assertAlmostEqual(found.taper_mm, 0.006, places=9)

    def test_a_three_lobed_part_is_round_to_two_points_and_not_to_a_vee(self):
        lobe = 0.008  # out-of-roundness, peak to peak
        radius = [26 + lobe / 2 * math.cos(3 * math.radians(angle)) for angle in range(360)]
        across = [radius[int(angle)] + radius[(int(angle) + 180) % 360] for angle in ANGLES_DEG]
        self.assertAlmostEqual(form(across, across).ovality_mm, 0, places=9)
        self.assertAlmostEqual(lobing_mm(lobe * v_block_factor(3), 0.0), lobe)

    def test_a_vee_factor_follows_from_where_the_part_rests(self):
        for lobes, vee in ((2, 90), (3, 90), (3, 60), (5, 60), (7, 108)):
            half = math.radians(vee / 2)
            flank = math.pi / 2 + half  # where the part touches, from straight up
            runout = []
            for turn in range(360):
                top, left, right = (math.cos(lobes * (at + math.radians(turn))) for at in (0.0, flank, -flank))
                runout.append(top + (left + right) / (2 * math.sin(half)))
            self.assertAlmostEqual((max(runout) - min(runout)) / 2, v_block_factor(lobes, vee), places=2)

    def test_mends_say_why_not(self):
        alternatives = {way.key: way for way in repair_options(0.04, 0.035, None, 0.1)}
        self.assertIn("out of shape", alternatives["compound"].reason)
        self.assertIn("measure the metal", alternatives["sleeve"].reason)
        self.assertIn("runs hotter", {way.key: way for way in repair_options(0.02, 0.0, 9, 0.1, hot=True)}["compound"].reason)
        self.assertIn("Build up and grind", [way.words for way in repair_options(0.02, 0.0, 9, None, "shaft")])

    def test_bearings_go_for_a_reason_and_stay_for_one(self):
        good = BearingCondition(hit_through_balls=False, history_known=True, turns_clean=True, marks=False)
        self.assertEqual(reuse_or_replace(good).verdict, "keep")
        for change in ({"hit_through_balls": True}, {"marks": True}, {"turns_clean": False}, {"history_known": False}, {"marks": None}):
            self.assertEqual(reuse_or_replace(replace(good, **change)).verdict, "replace", change)
        self.assertIn("may feel tight", reuse_or_replace(replace(good, ceramic_balls=True)).reasons[1])
        self.assertEqual(len(reuse_or_replace(BearingCondition()).unknown), 3)

    def test_other_masses_move_the_factor_and_the_hung_mass_brings_it_back(self):
        before = balance_factor(85, 62, 310)
        self.assertLess(balance_factor(85, 62, 335), before)
        self.assertAlmostEqual(balance_factor(bob_weight_for_factor_g(before, 62, 335), 62, 335), before)
        with self.assertRaises(BadInput):
            balance_factor(85, 62, 0)


class Settling(unittest.TestCase):
    def test_what_is_promised_holds(self):
        for margin, resolution, spread in ((0.004, 0.01, 0.002), (0.0018, 0.002, 0.001), (0.006, 0.01, None)):
            found = sufficient_measurement(margin, resolution, spread)
            if found.readings:
                uncertainty = gauge_uncertainty(resolution, spread if spread is not None else resolution / 2, [1.0] * found.readings)
                self.assertNotEqual(judge(0.05 - margin, high=0.05, uncertainty=uncertainty).state, "too_close")
            if found.resolution:
                self.assertLessEqual(gauge_uncertainty(found.resolution), margin)

    def test_at_the_limit_itself_nothing_settles_it(self):
        self.assertEqual((sufficient_measurement(0.0, 0.01).readings, sufficient_measurement(0.0, 0.01).resolution), (None, None))

    def test_calibration_is_not_cured_by_repeats(self):
        self.assertIsNone(sufficient_measurement(0.003, 0.002, 0.001, calibration=0.002).readings)


class Turns(unittest.TestCase):
    def shaft(self, tir, high, oval=0.0):
        return [tir / 2 * math.cos(math.radians(a - high)) + oval / 2 * math.cos(2 * math.radians(a)) for a in TURN]

    def test_a_bent_and_oval_shaft_is_not_suspect(self):
        self.assertEqual(check_turn(TURN, self.shaft(0.08, 33, 0.02), 0.003, self.shaft(0.08, 33, 0.02)[0]), TurnCheck())

    def test_a_loose_support_scatters_all_round(self):
        shakes = (0.01, -0.01, 0.012, 0.0, -0.011, 0.01, -0.012, 0.009)
        shaken = [value + off for value, off in zip(self.shaft(0.06, 75), shakes, strict=True)]
        found = check_turn(TURN, shaken, 0.003)
        self.assertEqual(("scatter", None), (found.code, found.angle_deg))

    def test_each_single_wrong_reading_is_named(self):
        for index in range(8):
            turn = self.shaft(0.06, 75)
            turn[index] += 0.04
            self.assertEqual(check_turn(TURN, turn, 0.003).angle_deg, TURN[index])

    def test_three_fold_lobes_are_left_over_not_swing(self):
        lobes = [0.01 * math.cos(3 * math.radians(a)) for a in TURN]
        self.assertAlmostEqual(fit(TURN, lobes).tir_mm, 0, places=9)

    def test_turning_a_web_by_what_is_said_leaves_what_is_said(self):
        """The shaft's centre moves about the pin: throw away from it, turned by the angle."""
        for tir, high, pin in ((0.05, 100, 0), (0.08, 20, 180), (0.03, 300, 120)):
            shaft = outer_shaft(RunoutVector(tir, high), 34, pin, 60)
            at = RunoutVector(tir, high).vector
            sign = 1 if shaft.turn.direction == "counter-clockwise" else -1
            arm = cmath.rect(-34, math.radians(pin))  # from the pin to the shaft
            moved = at + arm * cmath.rect(1, sign * math.radians(shaft.turn.turn_deg)) - arm
            self.assertAlmostEqual(2 * abs(moved), shaft.best_mm, places=4)

    def test_a_turn_under_its_own_uncertainty_is_not_worth_a_blow(self):
        self.assertFalse(outer_shaft(RunoutVector(0.006, 90), 34, 0, 60, vector_u_mm=0.002).worth_it)
        self.assertTrue(outer_shaft(RunoutVector(0.030, 90), 34, 0, 60, vector_u_mm=0.002).worth_it)

    def test_only_the_centre_bearings_may_hold_it(self):
        refuse_hold("centre")
        for held in ("outer", "centres"):
            with self.assertRaises(BadInput):
                refuse_hold(held)
        self.assertEqual(phase_error_deg(-179, 180), 1.0)
