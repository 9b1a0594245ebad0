from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from shopmath import bearings, iso286, materials
from shopmath.gauges import gauge_uncertainty
from shopmath.iso286 import Limits, fit, limits
from shopmath.validation import BadInput
from shopmath.verdict import at_20c, judge, too_warm_to_judge


class FitCodes(TestCase):
    def test_printed_limits_of_the_standard(self):
        cases = {
            ("N7", 52): (-39, -9),
            ("M7", 62): (-30, 0),
            ("k5", 25): (2, 11),
            ("K7", 47): (-18, 7),
            ("H7", 3): (0, 10),
            ("K6", 8): (-7, 2),
            ("f6", 130): (-68, -43),
            ("P7", 47): (-42, -17),
            ("j6", 25): (-4, 9),
            ("js6", 30): (-6.5, 6.5),
            ("N9", 40): (-62, 0),
            ("J7", 52): (-12, 18),
        }
        for (code, size), needed in cases.items():
            with self.subTest(f"{size} {code}"):
                found = limits(code, size)
                self.assertEqual((found.lower_um, found.upper_um), needed)

    def test_what_the_table_does_not_have_is_refused_not_guessed(self):
        for code, size, words in [
            ("A7", 40, "no hole letter"),
            ("N7", 300, "beyond the table"),
            ("K9", 47, "no K9"),
            ("N12", 47, "grades 4 to 11"),
            ("seven", 47, "no fit code"),
            ("N7", -3, "above 0"),
            ("N7", float("nan"), "plain number"),
        ]:
            with self.subTest(code), self.assertRaisesRegex(BadInput, words):
                limits(code, size)

    def test_a_47_mm_ring_in_n7_may_be_loose_by_three_or_tight_by_thirty_three(self):
        found = fit(Limits(-11, 0), limits("N7", 47))
        self.assertAlmostEqual(found.min_interference_mm, -0.003)
        self.assertAlmostEqual(found.max_interference_mm, 0.033)

    @given(st.floats(0.5, 250), st.sampled_from("EFGHKMNPRS"), st.integers(5, 8))
    def test_every_band_is_as_wide_as_its_grade(self, size, letter, grade):
        try:
            found = limits(f"{letter}{grade}", size)
        except BadInput:
            return
        self.assertAlmostEqual(found.width_um, iso286.tolerance_um(grade, size))


class BearingMarkings(TestCase):
    def test_markings_are_read_piece_by_piece(self):
        found = bearings.lookup("6204-2RS1/C3 TN9")
        self.assertEqual((found.bore_mm, found.outside_mm, found.width_mm), (20, 47, 14))
        self.assertEqual((found.seal, found.cage, found.clearance_group), ("sealed", "polymer", "3"))
        roller = bearings.lookup("NU205 ECP C4")
        self.assertEqual((roller.kind, roller.clearance_group), ("cylindrical_roller", "4"))
        self.assertEqual(bearings.lookup("6205").clearance_group, "N")

    def test_what_is_not_understood_is_said(self):
        self.assertEqual(bearings.lookup("6205 XQ7").not_understood, ("XQ7",))

    def test_an_unknown_marking_says_what_it_understood_and_offers_to_measure(self):
        with self.assertRaises(BadInput) as caught:
            bearings.lookup("69999 2RS C3")
        self.assertIn("sealed both sides", caught.exception.message)
        self.assertIn("Measure bore, outside and width", caught.exception.message)

    def test_clearances_before_fitting(self):
        self.assertEqual(bearings.radial_clearance_um(25, "3", "ball"), Limits(13, 28))
        self.assertEqual(bearings.radial_clearance_um(25, "N", "cylindrical_roller"), Limits(20, 45))
        with self.assertRaises(BadInput):
            bearings.radial_clearance_um(5, "5", "ball")

    def test_thirty_microns_in_an_aluminium_boss_close_a_47_mm_raceway_by_thirteen(self):
        shrink = bearings.outer_raceway_shrink_mm(0.030, 20, 47, materials.get("al-si9-cu3"))
        self.assertAlmostEqual(shrink, 0.013, delta=0.0005)

    def test_a_hot_case_gives_clearance_back_and_a_hot_shaft_takes_it(self):
        main = bearings.lookup("6205 C3")
        parts = (main, fit(main.outside_limits_um, limits("N7", 52)), fit(limits("k5", 25), main.bore_limits_um))
        metals = (materials.get("al-si7-mg"), materials.get("42crmo4"))
        cold = bearings.mounted_clearance(*parts, *metals)
        warm_case = bearings.mounted_clearance(*parts, *metals, housing_c=90)
        hot_shaft = bearings.mounted_clearance(*parts, *metals, inner_ring_c=90, shaft_c=90)
        self.assertGreater(warm_case.low_um, cold.low_um)
        self.assertLess(hot_shaft.high_um, cold.high_um)


class Calls(TestCase):
    def test_the_decision_rule(self):
        self.assertEqual(judge(0.048, high=0.050, uncertainty=0.004).state, "too_close")
        self.assertEqual(judge(0.040, high=0.050, uncertainty=0.004).state, "in")
        self.assertEqual(judge(0.060, high=0.050, uncertainty=0.004).state, "out")
        self.assertAlmostEqual(judge(0.15, 0.1, 0.2).margin, 0.05)
        self.assertEqual(judge(0.05, low=0.1).state, "out")

    def test_a_call_without_a_limit_or_with_crossed_limits_is_refused(self):
        for limits_given in ({}, {"low": 2, "high": 1}, {"high": float("inf")}):
            with self.subTest(limits_given), self.assertRaises(BadInput):
                judge(1.0, **limits_given)

    @given(st.lists(st.floats(-1, 1), min_size=2, max_size=9), st.floats(0.001, 0.1))
    def test_repeating_does_not_hurt(self, repeats, resolution):
        spread = max(abs(value) for value in repeats) * 2 + 1
        once = gauge_uncertainty(resolution, spread)
        self.assertLessEqual(gauge_uncertainty(resolution, spread, repeats), once)

    def test_a_warm_aluminium_bore_reads_large_on_a_steel_gauge(self):
        self.assertAlmostEqual(47.0 - at_20c(47.0, 21e-6, 30, 11.5e-6, 30), 0.0045, places=4)
        self.assertTrue(too_warm_to_judge(36, 20))
        self.assertFalse(too_warm_to_judge(34, 20))
