"""Tests of directions, tapers, drivers for pins, and the deadline of a part that waits in the cold."""

from __future__ import annotations

import math
import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from shopmath import drivers
from shopmath.bearings import lookup
from shopmath.clocking import clocked, off_by_deg
from shopmath.flywheel_fit import contact, holds
from shopmath.taper import key_shift_deg, torque_capacity_nm
from shopmath.thermal.rates import temperature_at_c
from shopmath.thermal.schedule import seat_before_s
from shopmath.thermal.seat import example_setup, moment, sure_until_s
from shopmath.validation import BadInput
from shopmath.verdict import severity

DEGREES = st.floats(-720, 720)


class Directions(unittest.TestCase):
    def test_the_short_way_round(self):
        for measured, needed, off in ((358, 3, -5), (3, 358, 5), (90, 90, 0), (-270, 90, 0), (270, 90, 180)):
            self.assertAlmostEqual(off_by_deg(measured, needed), off)

    def test_a_groove_right_across_may_lead_with_either_end(self):
        self.assertAlmostEqual(off_by_deg(181, 0, either_end=True), 1)
        self.assertAlmostEqual(off_by_deg(90, 0, either_end=True), 90)
        self.assertEqual(clocked(271, 90, 5, 1, either_end=True).state, "in")
        self.assertEqual(clocked(271, 90, 5, 1).state, "out")

    @given(DEGREES, DEGREES, st.integers(-3, 3), st.booleans())
    def test_whole_turns_change_nothing(self, measured, wanted, turns, either):
        one, two = off_by_deg(measured, wanted, either_end=either), off_by_deg(measured + 360 * turns, wanted, either_end=either)
        whole = 180 if either else 360
        self.assertAlmostEqual(math.cos(math.tau * (one - two) / whole), 1, places=6)
        self.assertLessEqual(abs(one), whole / 2 + 1e-9)

    @given(st.floats(-170, 170), st.floats(0, 359))
    def test_turning_it_the_other_way_changes_only_the_sign(self, off, wanted):
        self.assertAlmostEqual(off_by_deg(wanted + off, wanted), -off_by_deg(wanted - off, wanted), places=6)

    def test_what_cannot_be_is_refused_by_name(self):
        for wrong, field in (
            (lambda: clocked(math.nan, 0, 5), "measured_deg"),
            (lambda: clocked(0, math.inf, 5), "wanted_deg"),
            (lambda: clocked(0, 0, 0), "within_deg"),
            (lambda: clocked(0, 0, 5, -1), "uncertainty_deg"),
        ):
            with self.assertRaises(BadInput) as refusal:
                wrong()
            self.assertEqual(refusal.exception.field, field)


class OnTheTaper(unittest.TestCase):
    def test_both_ends_of_the_band_are_the_cone_at_its_own_figures(self):
        found = holds(55, 12, 8, 18)
        self.assertIsNone(found.call)
        for seats, carries, rub in ((found.seating_n.low, found.torque_nm.low, 0.12), (found.seating_n.high, found.torque_nm.high, 0.2)):
            self.assertAlmostEqual(carries, torque_capacity_nm(seats, 8, rub, 18), delta=0.06 * carries)

    def test_only_what_even_the_least_carries_is_in(self):
        band = holds(55, 12, 8, 18).torque_nm
        for asked, state in ((band.low - 1, "in"), (band.low + 1, "too_close"), (band.likely + 1, "out")):
            self.assertEqual(holds(55, 12, 8, 18, asked).call.state, state)

    @given(st.floats(10, 200), st.floats(8, 30), st.floats(4, 20), st.floats(10, 60))
    def test_a_tighter_nut_and_a_wider_cone_carry_more(self, torque, nut, ratio, cone):
        once = holds(torque, nut, ratio, cone).torque_nm.likely
        self.assertAlmostEqual(holds(2 * torque, nut, ratio, cone).torque_nm.likely, 2 * once, delta=1e-6 * once)
        self.assertAlmostEqual(holds(torque, nut, ratio, 2 * cone).torque_nm.likely, 2 * once, delta=1e-6 * once)

    def test_an_oiled_taper_carries_less_by_its_likely_friction(self):
        dry, oiled = holds(55, 12, 8, 18).torque_nm.likely, holds(55, 12, 8, 18, condition="oiled").torque_nm.likely
        self.assertLess(oiled, dry)

    def test_contact_by_its_share_and_its_large_end(self):
        said = ((0.70, True, "in"), (0.69, True, "too_close"), (0.49, True, "out"), (1.0, False, "out"), (0.0, True, "out"))
        for share, large, state in said:
            self.assertEqual(contact(share, large).state, state, (share, large))
        self.assertIn("rock", contact(0.9, False).reason)

    def test_a_step_on_the_key_turns_the_wheel(self):
        self.assertAlmostEqual(key_shift_deg(0.4, 16), 2.87, delta=0.005)
        self.assertAlmostEqual(key_shift_deg(-0.4, 16), -2.87, delta=0.005)

    def test_what_cannot_be_is_refused(self):
        for torque, asked, condition in ((0, None, "clean"), (55, -1, "clean"), (55, 9, "wet")):
            with self.assertRaises(BadInput):
                holds(torque, 12, 8, 18, asked, condition)
        with self.assertRaises(BadInput):
            contact(1.2, True)


class Drivers(unittest.TestCase):
    def test_a_pin_is_pushed_on_its_end_and_clear_of_its_hole(self):
        window = drivers.pin_end(12)
        self.assertEqual(window.refusal(11, 0), "")
        self.assertIn("would rub", window.refusal(12, 0))
        self.assertIn("misses the end", window.refusal(5, 0))
        with self.assertRaises(BadInput):
            drivers.pin_end(0)

    def test_a_ring_is_never_pushed_through_its_balls(self):
        window = drivers.outer_ring(lookup("6206"))
        self.assertIn("inner ring", window.refusal(60, 30))


class WaitingInTheCold(unittest.TestCase):
    """47 N7 in aluminium at 110 °C, the ring out of a freezer."""

    def setUp(self):
        self.setup = example_setup()

    def test_a_part_that_waits_in_its_chiller_has_longer_than_one_that_lies_about(self):
        self.assertGreater(seat_before_s(self.setup, 110, -15), sure_until_s(self.setup, 110, -15))

    def test_at_that_moment_the_low_end_of_its_clearance_is_just_what_is_wanted(self):
        by = seat_before_s(self.setup, 110, -15)
        case = temperature_at_c(by, 110, self.setup.room_c, self.setup.outer_room.low)
        ring = temperature_at_c(self.setup.handling_s, -15, self.setup.room_c, self.setup.inner_room.low)
        self.assertAlmostEqual(moment(self.setup, by, case, ring).low_mm, self.setup.wanted_mm, delta=1e-4)

    @given(st.floats(70, 150), st.floats(1, 30))
    def test_a_hotter_case_gives_longer_and_a_warmer_part_less(self, case_c, more):
        once = seat_before_s(self.setup, case_c, -15)
        self.assertGreaterEqual(seat_before_s(self.setup, case_c + more, -15), once)
        self.assertLessEqual(seat_before_s(self.setup, case_c, -15 + more), once)

    def test_a_cold_case_gives_no_time_at_all_and_a_loose_fit_all_of_it(self):
        self.assertEqual(seat_before_s(self.setup, 20, -15), 0.0)
        loose = replace(self.setup, bore_um=replace(self.setup.bore_um, lower_um=60, upper_um=70))
        self.assertEqual(seat_before_s(loose, 110, -15), math.inf)


class HowGrave(unittest.TestCase):
    def test_stop_comes_first_and_what_is_no_call_yet_before_in(self):
        self.assertEqual(sorted(["in", "wait", "out", "stop", "too_close"], key=severity), ["stop", "out", "too_close", "wait", "in"])
        self.assertEqual(severity(""), severity("wait"))
