"""Threads, tapers and planes: what pulls a flywheel, what holds it, whether two halves part square."""

from __future__ import annotations

import math
import random
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from shopmath.gap_plane import Point, bind_lead_mm, fit
from shopmath.screw_threads import (
    external_shear_area_mm2,
    force_from_torque_n,
    full_turns,
    identify,
    internal_shear_area_mm2,
    minor_diameter_mm,
    pitch_diameter_mm,
    preload_n,
    proof_force_n,
    stress_area_mm2,
    stripping_force_n,
    torque_for_force_nm,
    turns_to_jam,
)
from shopmath.tables import rows
from shopmath.taper import half_angle_deg, key_shift_deg, normal_force_n, release_force_n, taper_friction, torque_capacity_nm
from shopmath.validation import BadInput

JOINT = [
    Point("front", -70, 0, 1.10),
    Point("top", 0, 55, 1.32),
    Point("sprocket", 80, 10, 1.61),
    Point("foot", 30, -60, 1.38),
    Point("pump", -40, -45, 1.12),
]


class WhichThread(TestCase):
    def test_every_thread_of_the_table_is_known_by_its_own_sizes(self):
        for row in rows("threads"):
            for internal, column, off in ((False, "major_dia_mm", -0.08), (True, "minor_dia_internal_basic_mm", 0.08)):
                with self.subTest(row["designation"], internal=internal):
                    found = identify(float(row[column]) + off, float(row["pitch_mm"]), "right", internal)
                    same = [
                        each for each in found if abs(each.pitch_mm - float(row["pitch_mm"])) < 1e-6 and abs(each.diameter_error_mm) < 0.1
                    ]
                    self.assertIn(row["designation"], [each.designation for each in same])

    def test_a_26_tpi_cycle_thread_is_told_from_a_1_mm_metric_one(self):
        self.assertEqual(identify(19.0, 25.4 / 26, "right")[0].designation, "3/4-26 BSC")
        self.assertEqual(identify(18.9, 1.0, "right")[0].designation, "M19x1")

    def test_errors_are_measured_less_table_and_the_hand_is_kept(self):
        match = identify(26.85, 1.01, "left")[0]
        self.assertEqual((match.designation, match.hand), ("M27x1", "left"))
        self.assertAlmostEqual(match.pitch_error_mm, 0.01)
        self.assertAlmostEqual(match.diameter_error_mm, -0.15)

    def test_what_is_near_nothing_matches_nothing(self):
        self.assertEqual(identify(93.0, 1.5, "right"), [])

    def test_impossible_threads_are_refused(self):
        for field, arguments in [("hand", (27, 1, "both")), ("pitch_mm", (27, 0, "right")), ("diameter_mm", (-27, 1, "right"))]:
            with self.subTest(field), self.assertRaises(BadInput) as caught:
                identify(*arguments)
            self.assertEqual(caught.exception.field, field)


class JamAndStrip(TestCase):
    def test_a_metric_puller_in_a_26_tpi_boss_jams_after_three_turns(self):
        self.assertAlmostEqual(turns_to_jam(1.0 - 25.4 / 26, 0.12), 3.0, delta=0.05)
        self.assertEqual(turns_to_jam(0.0, 0.12), math.inf)
        self.assertLess(turns_to_jam(0.023, 0.12, 27.5), turns_to_jam(0.023, 0.12))

    def test_shear_areas_of_three_turns_of_m24x1(self):
        self.assertAlmostEqual(internal_shear_area_mm2(24, 1, 3), 197.9, places=1)
        self.assertAlmostEqual(external_shear_area_mm2(24, 1, 3), 162.0, places=1)

    def test_the_weaker_side_strips(self):
        steel, aluminium = 800.0, 240.0
        self.assertAlmostEqual(stripping_force_n(24, 1, 3, aluminium, steel), 0.6 * aluminium * internal_shear_area_mm2(24, 1, 3), places=6)
        self.assertAlmostEqual(stripping_force_n(24, 1, 3, steel, 500.0), 0.6 * 500 * external_shear_area_mm2(24, 1, 3), places=6)

    def test_worst_tolerances_cost_nearly_a_third(self):
        self.assertAlmostEqual(stripping_force_n(24, 1, 3, 600, 600, 0.29) / stripping_force_n(24, 1, 3, 600, 600), 0.71)

    def test_only_whole_turns_count(self):
        self.assertEqual([full_turns(length, 1.5) for length in (0, 1.4, 1.5, 4.49, 4.5)], [0, 0, 1, 2, 3])

    def test_m6_nine_deep_in_die_cast_just_outlasts_an_8_8_screw_s_proof_load(self):
        self.assertGreater(stripping_force_n(6, 1, 9, 240, 800), proof_force_n("8.8", 6, 1))

    @given(st.floats(5, 40), st.sampled_from([0.75, 1.0, 1.25, 1.5]), st.floats(1, 20))
    def test_more_engagement_never_strips_sooner(self, d, pitch, engaged):
        self.assertGreater(stripping_force_n(d, pitch, engaged + 1, 240, 800), stripping_force_n(d, pitch, engaged, 240, 800))

    def test_refusals(self):
        for field, act in [
            ("pitch_mm", lambda: minor_diameter_mm(1, 2)),
            ("engaged_mm", lambda: internal_shear_area_mm2(24, 1, -1)),
            ("tolerance_loss", lambda: stripping_force_n(24, 1, 3, 240, 800, 1.5)),
            ("flank_deg", lambda: turns_to_jam(0.02, 0.1, 95)),
            ("bolt_class", lambda: proof_force_n("9.9", 6, 1)),
            ("nut_factor", lambda: preload_n(10, 0, 6)),
            ("torque_nm", lambda: force_from_torque_n(-1, 12, 1.25, 0.14, 0.14, 3)),
        ]:
            with self.subTest(field), self.assertRaises(BadInput) as caught:
                act()
            self.assertEqual(caught.exception.field, field)


class TorqueAndPull(TestCase):
    def test_forty_newton_metres_on_an_m12_centre_screw(self):
        self.assertAlmostEqual(force_from_torque_n(40, 12, 1.25, 0.14, 0.14, 3) / 1000, 26.26, places=2)
        self.assertAlmostEqual(preload_n(10, 0.18, 6) / 1000, 9.26, places=2)

    @given(st.floats(0, 200), st.floats(6, 24), st.floats(0.05, 0.3), st.floats(0, 8))
    def test_force_and_torque_are_each_other_s_inverse(self, torque, d, rub, radius):
        force = force_from_torque_n(torque, d, 1.25, rub, rub, radius)
        self.assertAlmostEqual(torque_for_force_nm(force, d, 1.25, rub, rub, radius), torque, places=6)

    def test_grease_makes_more_pull_of_the_same_torque(self):
        self.assertGreater(force_from_torque_n(40, 12, 1.25, 0.09, 0.09, 3), force_from_torque_n(40, 12, 1.25, 0.16, 0.16, 3))

    def test_handbook_sizes(self):
        self.assertAlmostEqual(pitch_diameter_mm(12, 1.25), 11.188, places=3)
        self.assertAlmostEqual(stress_area_mm2(8, 1.25), 36.6, places=1)


class Tapers(TestCase):
    def test_checked_numbers(self):
        self.assertAlmostEqual(half_angle_deg(8), 3.576, places=3)
        self.assertAlmostEqual(release_force_n(18_000, 8, 0.15) / 1000, 7.41, places=2)
        self.assertAlmostEqual(torque_capacity_nm(18_000, 8, 0.15, 18), 114.6, places=1)
        self.assertAlmostEqual(key_shift_deg(0.4, 16), 2.87, places=2)
        self.assertAlmostEqual(key_shift_deg(-0.4, 16), -2.87, places=2)

    def test_a_1_in_5_at_low_friction_lets_go_by_itself(self):
        self.assertAlmostEqual(release_force_n(10_000, 5, 0.12) / 10_000, 0.09, delta=0.01)
        self.assertEqual(release_force_n(10_000, 5, 0.09), 0.0)

    def test_a_fretted_taper_holds_more_than_a_clean_one(self):
        fretted = taper_friction("fretted").likely
        self.assertGreater(release_force_n(18_000, 8, 0.15, breakout_friction=fretted), 2 * release_force_n(18_000, 8, 0.15))

    @given(st.floats(100, 50_000), st.floats(4, 12), st.floats(0.05, 0.4))
    def test_freeing_never_takes_more_than_the_cone_is_pressed_with(self, seating, ratio, rub):
        self.assertLessEqual(release_force_n(seating, ratio, rub), normal_force_n(seating, ratio, rub))

    def test_refusals(self):
        for act in (
            lambda: release_force_n(-1, 8, 0.15),
            lambda: half_angle_deg(0),
            lambda: key_shift_deg(20, 16),
            lambda: taper_friction("wet"),
        ):
            with self.assertRaises(BadInput):
                act()


class Planes(TestCase):
    def test_the_checked_joint(self):
        found = fit(JOINT)
        self.assertAlmostEqual(found.slope, 0.003523, places=6)
        self.assertAlmostEqual(found.leading_deg, 9.6, places=1)
        self.assertEqual((found.leading_name, found.lagging_name), ("sprocket", "front"))

    def test_a_plane_put_in_comes_out_whatever_the_points(self):
        dice = random.Random(7)
        for _ in range(50):
            slope, angle, mean = dice.uniform(1e-4, 0.02), dice.uniform(0, 2 * math.pi), dice.uniform(0, 5)
            places = [(dice.uniform(-90, 90), dice.uniform(-90, 90)) for _ in range(dice.randint(3, 9))]
            points = [
                Point(str(index), x, y, mean + slope * (x * math.cos(angle) + y * math.sin(angle))) for index, (x, y) in enumerate(places)
            ]
            try:
                found = fit(points)
            except BadInput:
                continue
            self.assertAlmostEqual(found.slope, slope, places=7)
            self.assertAlmostEqual(math.cos(math.radians(found.leading_deg) - angle), 1.0, places=6)
            self.assertTrue(all(abs(each) < 1e-9 for each in found.residuals))

    def test_a_joint_that_parts_square_leads_nowhere(self):
        self.assertAlmostEqual(fit([Point(point.name, point.x_mm, point.y_mm, 2.0) for point in JOINT]).lead_mm, 0.0)

    def test_turning_the_case_turns_the_lead_with_it(self):
        turned = [Point(point.name, -point.y_mm, point.x_mm, point.gap_mm) for point in JOINT]
        self.assertAlmostEqual((fit(turned).leading_deg - fit(JOINT).leading_deg) % 360, 90.0, places=6)

    def test_two_points_three_in_line_and_namesakes_tell_nothing(self):
        line = [Point(str(index), 10.0 * index, 5.0 * index, 1.0) for index in range(4)]
        for points in (JOINT[:2], line, [*JOINT[:3], Point("top", 5, 5, 1)], [*JOINT[:2], Point("z", 1, 1, math.nan)]):
            with self.assertRaises(BadInput):
                fit(points)

    def test_dowels_bind_later_as_they_come_out(self):
        self.assertLess(bind_lead_mm(0.05, 8, 150), bind_lead_mm(0.05, 4, 150))
        self.assertEqual(bind_lead_mm(0.05, 0, 150), math.inf)
