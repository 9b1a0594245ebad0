"""Tests of the core with random sizes and temperatures, for which its predictions must hold."""

from __future__ import annotations

import math
import random
import statistics
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from shopmath.bearings import fit, lookup, mounted_clearance
from shopmath.gauges import gauge_uncertainty
from shopmath.iso286 import Limits, limits, measured_um
from shopmath.materials import get
from shopmath.quantity import decimals, parse, show
from shopmath.thermal import Body, clearance_mm, drop_confidence, temperature_at_c, window_s
from shopmath.thermal.confidence import clearance_spread_mm
from shopmath.validation import BadInput
from shopmath.verdict import at_20c, combined, judge

BORE, RING = Limits(-33, -8), Limits(-11, 0)


class Simulated(TestCase):
    def test_as_many_rings_drop_in_as_were_promised(self):
        dice = random.Random(47)
        for hot, cold, needed in ((62, 20, 0.012), (58, 0, 0.0235), (75, 10, 0.0235), (50, -10, 0.012)):
            promised = drop_confidence(47, BORE, RING, 21.5e-6, hot, 6, 12e-6, cold, 3, needed)
            went_in = 0
            for _ in range(4000):
                bore = dice.gauss(BORE.mean_um, BORE.width_um / 6) / 1000
                ring = dice.gauss(RING.mean_um, RING.width_um / 6) / 1000
                case_c, ring_c = dice.gauss(hot, 6), dice.gauss(cold, 3)
                went_in += clearance_mm(47, ring - bore, 21.5e-6, case_c, 12e-6, ring_c) >= needed
            with self.subTest(f"{hot} °C"):
                self.assertAlmostEqual(went_in / 4000, promised, delta=0.03)

    def test_the_spread_is_the_spread_of_what_happens(self):
        dice = random.Random(52)
        drawn = [
            clearance_mm(47, dice.gauss(0.015, math.hypot(25, 11) / 6000), 21.5e-6, dice.gauss(90, 6), 12e-6, dice.gauss(-10, 3))
            for _ in range(5000)
        ]
        self.assertAlmostEqual(statistics.stdev(drawn), clearance_spread_mm(47, BORE, RING, 21.5e-6, 6, 12e-6, 3), delta=0.0004)

    def test_a_stepped_cooling_closes_the_window_when_the_formula_says(self):
        case, ring = Body(21e-6, 110, 700), Body(11.5e-6, -18, 900)
        case_c, ring_c, time, step = 110.0, -18.0, 0.0, 0.05
        while clearance_mm(47, 0.03, 21e-6, case_c, 11.5e-6, ring_c) >= 0.0235:
            case_c += (20 - case_c) * step / 700
            ring_c += (20 - ring_c) * step / 900
            time += step
        self.assertAlmostEqual(time, window_s(47, 0.03, 0.0235, case, ring, 20), delta=0.5)
        self.assertAlmostEqual(case_c, temperature_at_c(time, 110, 20, 700), delta=0.05)

    def test_nineteen_readings_in_twenty_lie_within_the_gauge_s_uncertainty(self):
        dice = random.Random(9)
        resolution, spread = 0.01, 0.006
        uncertainty = gauge_uncertainty(resolution, spread)
        inside = 0
        for _ in range(4000):
            true_values = dice.uniform(12, 13)
            shown = round(dice.gauss(true_values, spread) / resolution) * resolution
            inside += abs(shown - true_values) <= uncertainty
        self.assertGreater(inside / 4000, 0.94)

    def test_fitted_bearings_keep_the_clearance_the_band_says(self):
        dice = random.Random(6205)
        main, case, shaft = lookup("6205 C3"), get("al-si7-mg"), get("42crmo4")
        bore, journal = limits("N7", 52), limits("k5", 25)
        band = mounted_clearance(main, fit(main.outside_limits_um, bore), fit(journal, main.bore_limits_um), case, shaft)
        for _ in range(200):
            ring, seat = dice.uniform(-13, 0), dice.uniform(bore.lower_um, bore.upper_um)
            hole, post = dice.uniform(-10, 0), dice.uniform(journal.lower_um, journal.upper_um)
            outer, inner = fit(Limits(ring, ring), Limits(seat, seat)), fit(Limits(post, post), Limits(hole, hole))
            one = mounted_clearance(main, outer, inner, case, shaft)
            self.assertGreaterEqual(one.low_um, band.low_um - 1e-9)
            self.assertLessEqual(one.high_um, band.high_um + 1e-9)


class CallsAndDigits(TestCase):
    @given(st.floats(-1, 1), st.floats(-1, 1), st.floats(0, 1), st.floats(0, 0.5))
    def test_less_uncertainty_never_turns_a_sure_call_round(self, value, low, width, uncertainty):
        sure = judge(value, low, low + width, uncertainty / 2).state
        unsure = judge(value, low, low + width, uncertainty).state
        self.assertIn((sure, unsure), {("in", "in"), ("in", "too_close"), ("too_close", "too_close"), ("out", "out"), ("out", "too_close")})

    @given(st.floats(-1, 1), st.floats(-1, 1), st.floats(0, 0.5))
    def test_a_limit_seen_from_both_sides_gives_opposite_calls(self, value, limit, uncertainty):
        over, under = judge(value, low=limit, uncertainty=uncertainty).state, judge(value, high=limit, uncertainty=uncertainty).state
        if abs(value - limit) > uncertainty:
            self.assertEqual({over, under}, {"in", "out"})

    def test_the_reason_names_the_limit_and_the_way(self):
        self.assertIn("under the limit 0.100 mm by 0.020 mm", judge(0.08, low=0.1, unit="mm").reason)
        self.assertIn("reaches across", judge(0.1, low=0.1, uncertainty=0.01).reason)

    @given(st.floats(10, 200), st.floats(-20, 60), st.floats(-20, 60))
    def test_a_gauge_of_the_part_s_own_metal_at_its_own_warmth_reads_true(self, size, part_c, other_c):
        self.assertAlmostEqual(at_20c(size, 12e-6, part_c, 12e-6, part_c), size, places=9)
        warm = at_20c(size, 12e-6, max(part_c, other_c), 12e-6, 20)
        cool = at_20c(size, 12e-6, min(part_c, other_c), 12e-6, 20)
        self.assertLessEqual(warm, cool)

    def test_uncertainties_add_as_squares_and_never_shrink(self):
        self.assertAlmostEqual(combined(0.003, 0.004), 0.005)
        self.assertGreaterEqual(combined(0.003, 0.0), 0.003)
        with self.assertRaises(BadInput):
            combined(-0.1)

    @given(st.floats(0.0001, 20), st.sampled_from([0.001, 0.01, 0.02, 0.05, 0.1, 1.0]))
    def test_what_is_shown_is_within_half_a_last_digit(self, value, resolution):
        text = show(parse(f"{value:.6f} mm", "length"), "metric", resolution)
        digits = decimals(resolution)
        self.assertLessEqual(abs(float(text.split()[0]) - value), 0.5 * 10**-digits + 1e-6)
        self.assertLessEqual(len(text.split()[0].partition(".")[2]), digits)

    @given(st.floats(20, 200), st.floats(0.001, 0.02), st.floats(-0.2, 0.2))
    def test_a_measured_size_is_a_band_about_itself(self, nominal, uncertainty, off):
        band = measured_um(nominal + off, nominal, uncertainty)
        self.assertAlmostEqual(band.mean_um, 1000 * off, delta=0.01)
        self.assertAlmostEqual(band.width_um, 3000 * uncertainty, delta=0.01)
