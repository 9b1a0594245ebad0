"""The plan of a seat under every variation that a bench brings."""

from __future__ import annotations

import math
from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from shopmath.bearings import lookup
from shopmath.estimate import Estimate, exactly
from shopmath.iso286 import Limits
from shopmath.materials import get
from shopmath.thermal import Body, casting_time_constant_s, ring_contact_s, ring_time_constant_s, seating_s, wanted_clearance_mm
from shopmath.thermal.confidence import drop_confidence
from shopmath.thermal.convection import film_w_m2k, ring_mass_kg, ring_surface_m2
from shopmath.thermal.infrared import infrared_true_c, surface, water_drop_c
from shopmath.thermal.limits import LEFT_IN, case_limits, ring_cold_limits, ring_hot_limits
from shopmath.thermal.plan import judge, plan
from shopmath.thermal.rates import temperature_at_c, time_constant_s, window_s
from shopmath.thermal.seat import (
    Chilling,
    Heating,
    curve,
    example_setup,
    home_within_s,
    moment,
    moment_after,
    open_for_s,
    sure_until_s,
)
from shopmath.validation import BadInput

SETUP = example_setup()


class MomentsAndCurves(TestCase):
    def test_the_curve_is_the_moments_it_is_made_of(self):
        for each in curve(SETUP, 95, -12, 900.0, 7):
            one = moment_after(SETUP, each.time_s, 95, -12)
            self.assertAlmostEqual(each.clearance_mm, one.clearance_mm, places=12)
            self.assertAlmostEqual(each.confidence, one.confidence, places=12)

    def test_the_moment_s_confidence_is_the_drop_confidence(self):
        found = moment(SETUP, 0, 70, -10)
        again = drop_confidence(
            47,
            SETUP.bore_um,
            SETUP.inner_um,
            SETUP.outer_alpha,
            70,
            SETUP.outer_u_k,
            SETUP.inner_alpha,
            -10,
            SETUP.inner_u_k,
            SETUP.wanted_mm,
        )
        self.assertAlmostEqual(found.confidence, again, places=12)

    def test_sizes_known_to_the_micron_and_temperatures_to_the_degree_leave_no_uncertainty(self):
        sure = replace(SETUP, bore_um=Limits(-20, -20), inner_um=Limits(-5, -5), outer_u_k=0.0, inner_u_k=0.0)
        self.assertEqual(moment(sure, 0, 100, -10).confidence, 1.0)
        self.assertEqual(moment(sure, 0, 20, 20).confidence, 0.0)

    def test_sure_until_comes_before_the_mean_window_closes(self):
        self.assertLess(sure_until_s(SETUP, 110, -15), open_for_s(SETUP, 110, -15).low)

    def test_a_ring_that_is_warm_already_must_be_home_sooner(self):
        self.assertLess(home_within_s(SETUP, 58, 10).low, home_within_s(SETUP, 58, -15).low)

    def test_a_loose_fit_never_grips(self):
        loose = replace(SETUP, bore_um=Limits(20, 30))
        self.assertEqual(home_within_s(loose, 60, 0).high, math.inf)

    @settings(max_examples=40)
    @given(st.floats(30, 150), st.floats(0, 40), st.floats(-40, 20))
    def test_hotter_never_lowers_the_confidence(self, hot, more, cold):
        self.assertGreaterEqual(moment(SETUP, 0, hot + more, cold).confidence + 1e-12, moment(SETUP, 0, hot, cold).confidence)

    @settings(max_examples=40)
    @given(st.floats(40, 150), st.floats(-40, 20), st.floats(0, 30))
    def test_colder_never_shortens_the_window(self, hot, cold, more):
        case, ring = Body(21.5e-6, hot, 800), Body(12e-6, cold, 900)
        colder = Body(12e-6, cold - more, 900)
        self.assertGreaterEqual(window_s(47, 0.02, 0.02, case, colder, 20) + 1e-3, window_s(47, 0.02, 0.02, case, ring, 20))


class ThePlansOwnChoices(TestCase):
    def test_its_temperature_lasts_the_handling_and_three_minutes(self):
        found = plan(SETUP)
        self.assertGreaterEqual(found.sure_for_s, SETUP.handling_s + 120)
        self.assertEqual(found.target_c % 5, 0)

    def test_a_generous_clearance_needs_more_heat_than_a_tight_start(self):
        self.assertGreater(plan(replace(SETUP, wanted="generous")).target_c, plan(replace(SETUP, wanted="tight start")).target_c)

    def test_a_limit_below_what_is_needed_holds_the_target_there(self):
        held = plan(
            replace(SETUP, hot_limits=(LEFT_IN["rubber_mount"],), heating=Heating("oven", 80.0, Estimate(400, 700, 900)), chilling=None)
        )
        self.assertLessEqual(held.target_c, 80)
        self.assertNotEqual(held.call.state, "stop")

    def test_an_oven_over_the_limit_is_stop_even_when_the_target_is_not(self):
        found = plan(replace(SETUP, hot_limits=(LEFT_IN["rubber_mount"],), target_c=60))
        self.assertEqual(found.call.state, "stop")
        self.assertIn("oven is set to 120", found.call.reason)

    def test_a_loose_seat_needs_no_heat(self):
        loose = plan(replace(SETUP, bore_um=Limits(40, 60), chilling=None))
        self.assertEqual((loose.call.state, loose.target_c, loose.soak), ("in", 20.0, None))

    def test_over_a_flame_nobody_knows_how_long(self):
        found = plan(replace(SETUP, heating=Heating("heat_gun", None, None, 0.6)))
        self.assertIsNone(found.soak)
        self.assertGreater(found.target_c, plan(SETUP).target_c)

    def test_wideners_are_sorted_and_true(self):
        barely = replace(SETUP, chilling=None, target_c=62)
        found = plan(barely)
        gains = [each.gain_mm for each in found.wideners]
        self.assertEqual(gains, sorted(gains, reverse=True))
        freezer = next(each for each in found.wideners if "freezer" in each.what)
        chilled = plan(replace(barely, chilling=Chilling("freezer", -18.0, Estimate(600, 900, 1300))))
        self.assertAlmostEqual(chilled.leaving.clearance_mm - found.leaving.clearance_mm, freezer.gain_mm, places=6)
        probe = next(each for each in found.wideners if "probe" in each.what)
        probed = plan(replace(barely, outer_u_k=2.0))
        self.assertAlmostEqual(probed.offering.low_mm - found.offering.low_mm, probe.gain_mm, places=6)

    def test_a_chiller_warmer_than_the_shop_is_refused(self):
        with self.assertRaisesRegex(BadInput, "no colder than the room"):
            plan(replace(SETUP, chilling=Chilling("freezer", 25.0, Estimate(600, 900, 1300))))

    def test_a_target_the_oven_never_reaches_is_refused(self):
        with self.assertRaisesRegex(BadInput, "never brings the case to 120"):
            plan(replace(SETUP, target_c=120.0))

    def test_a_refused_method_is_stop_whatever_the_numbers(self):
        found = plan(replace(SETUP, refusal="No flame here."))
        self.assertEqual((found.call.state, found.call.reason), ("stop", "No flame here."))

    def test_the_four_calls_in_order_of_heat(self):
        states = [judge(SETUP, moment(SETUP, 0, hot, 20), 0).state for hot in (25, 62, 120)]
        self.assertEqual(states, ["out", "too_close", "in"])

    @settings(max_examples=30, deadline=None)
    @given(st.floats(0.8, 1.25))
    def test_a_slower_oven_only_takes_longer(self, factor):
        slow = replace(SETUP.heating, time_constant=SETUP.heating.time_constant.map(lambda tau: tau * factor))
        found = plan(replace(SETUP, heating=slow))
        self.assertEqual(found.target_c, plan(SETUP).target_c)
        self.assertAlmostEqual(found.soak.likely / plan(SETUP).soak.likely, factor, places=9)


class FilmsAndBodies(TestCase):
    def test_a_fan_oven_heats_a_case_quicker_than_a_still_one_and_paint_cools_it_quicker(self):
        case = get("al-si7-mg")
        fan = casting_time_constant_s(case, film_w_m2k("casting in a domestic oven, fan"))
        still = casting_time_constant_s(case, film_w_m2k("casting in a domestic oven, natural"))
        self.assertLess(fan.likely, still.likely)
        painted = casting_time_constant_s(case, film_w_m2k("casting, still room air, painted"))
        bare = casting_time_constant_s(case, film_w_m2k("casting 2-5 kg, still room air"))
        self.assertLess(painted.likely, bare.likely)
        self.assertTrue(fan.low < fan.likely < fan.high and fan.estimated)

    def test_a_bearing_weighs_about_what_the_table_says(self):
        for marking in ("6203", "6204", "6205", "6206", "6305"):
            bearing = lookup(marking)
            guess = ring_mass_kg(bearing.bore_mm, bearing.outside_mm, bearing.width_mm)
            self.assertAlmostEqual(guess / bearing.mass_kg, 1.0, delta=0.25, msg=marking)

    def test_a_bearing_takes_half_an_hour_to_follow_a_freezer_and_seconds_to_follow_its_case(self):
        tau = ring_time_constant_s(25, 52, 15, film_w_m2k("bearing 0.05-0.5 kg in a freezer"), 0.13)
        self.assertTrue(600 < tau.likely < 1500)
        self.assertTrue(3 < ring_contact_s(52, 15, 0.13).likely < 40)

    def test_contact_is_quicker_in_every_part_of_its_band(self):
        band = seating_s(47, 0.03, Body(21e-6, 90, 700), Body(12e-6, -10, 900), 20, ring_contact_s(47, 14, 0.106))
        self.assertTrue(0 < band.low < band.likely < band.high)

    def test_impossible_bodies_name_their_field(self):
        for field, act in [
            ("mass_kg", lambda: time_constant_s(0, 470, 9, 0.01)),
            ("film_w_m2k", lambda: time_constant_s(1, 470, -9, 0.01)),
            ("outside_mm", lambda: ring_surface_m2(52, 25, 15)),
            ("time_s", lambda: temperature_at_c(-1, 20, 30, 100)),
            ("time_constant_s", lambda: temperature_at_c(1, 20, 30, 0)),
            ("nominal_mm", lambda: wanted_clearance_mm(0)),
            ("preset", lambda: wanted_clearance_mm(47, "sloppy")),
            ("behaviour", lambda: water_drop_c("vanishes")),
            ("surface", lambda: surface("chrome plate")),
            ("gun_emissivity", lambda: infrared_true_c(50, 1.2, 0.5, 20)),
            ("shown_c", lambda: infrared_true_c(-60, 0.95, 0.1, 90)),
            ("start_c", lambda: window_s(47, 0, 0, Body(2e-5, -400, 10), Body(1e-5, 20, 10), 20)),
            ("left_in", lambda: case_limits(get("adc12"), ("sandwich",))),
        ]:
            with self.subTest(field), self.assertRaises(BadInput) as caught:
                act()
            self.assertEqual(caught.exception.field, field)

    def test_exact_values_are_no_estimates(self):
        self.assertFalse(exactly(3.0, "measured").estimated)
        self.assertTrue(Estimate(1, 2, 3).map(lambda value: 6 / value).low == 2)


class WhatEachPartStands(TestCase):
    def test_the_lowest_limit_comes_first(self):
        found = case_limits(get("al-si7-mg"), ("fluoro_seal", "nitrile_seal", "paint"))
        self.assertEqual([limit.limit_c for limit in found], sorted(limit.limit_c for limit in found))
        self.assertEqual(found[0].what, "nitrile seal left in")

    def test_magnesium_stands_less_than_aluminium(self):
        self.assertLess(case_limits(get("az91d"))[0].limit_c, case_limits(get("al-si7-mg"))[0].limit_c)

    def test_a_sealed_ring_stands_less_heat_and_less_cold_than_an_open_one(self):
        self.assertLess(ring_hot_limits(lookup("6204-2RS"))[0].limit_c, ring_hot_limits(lookup("6204"))[0].limit_c)
        self.assertGreater(ring_cold_limits(lookup("6204-2RS"))[0].limit_c, ring_cold_limits(lookup("6204"))[0].limit_c)

    def test_a_stabilised_ring_stands_more_and_a_polymer_cage_less(self):
        self.assertEqual(ring_hot_limits(lookup("6204 S1"))[0].limit_c, 200)
        self.assertEqual(ring_hot_limits(lookup("6204 TN9"))[0].what, "polymer cage")
        self.assertEqual(ring_cold_limits(lookup("6204 TN9"))[0].limit_c, -40)
