from __future__ import annotations

import itertools
import math
import random
import subprocess
import sys
from dataclasses import replace
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from shopmath.bearings import lookup
from shopmath.estimate import Estimate
from shopmath.iso286 import Limits
from shopmath.materials import get
from shopmath.thermal import (
    Body,
    HeatPart,
    clearance_mm,
    drop_confidence,
    freeing_difference_k,
    infrared_band_c,
    infrared_true_c,
    one_heat,
    outer_temperature_needed_c,
    soak_time_s,
    surface,
    temperature_at_c,
    time_constant_from_readings,
    window_s,
)
from shopmath.thermal.limits import case_limits, method_refusal, ring_cold_limits
from shopmath.thermal.ordering import finish_times_s
from shopmath.thermal.plan import plan
from shopmath.thermal.seat import Chilling, Heating, example_setup
from shopmath.validation import BadInput

CASE, RING = Body(21e-6, 110, 700), Body(11.5e-6, -18, 900)


class CheckedNumbers(TestCase):
    def test_clearance_and_the_heat_it_needs(self):
        self.assertAlmostEqual(clearance_mm(47, 0.030, 21e-6, 110, 11.5e-6, -18), 0.0794, places=4)
        self.assertAlmostEqual(outer_temperature_needed_c(47, 0.030, 0.0235, 21e-6, 11.5e-6, -18), 53.4, places=1)
        self.assertAlmostEqual(freeing_difference_k(47, 0.030, 21e-6, 12e-6), 70.9, places=1)

    def test_soak_and_cooling(self):
        self.assertAlmostEqual(soak_time_s(20, 145, 150, 700), 2281, delta=0.5)
        self.assertAlmostEqual(time_constant_from_readings(118, 96, 120, 21), 466.5, delta=0.05)

    def test_the_window_of_the_wanted_clearance_and_of_any(self):
        self.assertAlmostEqual(window_s(47, 0.030, 0.0235, CASE, RING, 20), 523.9, delta=0.1)
        self.assertAlmostEqual(window_s(47, 0.030, 0.0, CASE, RING, 20), 950, delta=0.5)

    def test_a_window_may_never_open_and_never_close(self):
        self.assertEqual(window_s(47, 0.2, 0.0, CASE, RING, 20), 0.0)
        self.assertEqual(window_s(47, -0.05, 0.0, CASE, RING, 20), math.inf)

    def test_a_window_that_closes_and_would_open_again_is_closed(self):
        quick_case, slow_ring = Body(21e-6, 21, 50), Body(11.5e-6, 60, 800)  # a hot ring offered to a cold bore
        self.assertEqual(window_s(47, 0.0, 0.0, quick_case, slow_ring, 20), 0.0)

    def test_what_a_gun_shows_on_bare_aluminium(self):
        self.assertAlmostEqual(infrared_true_c(55, 0.95, 0.25, 22), 115.5, places=1)
        band = infrared_band_c(55, 0.95, surface("cast aluminium, bare, as cast"), 22)
        self.assertEqual((round(band.high), round(band.low)), (189, 104))
        self.assertFalse(surface("cast aluminium, bare, as cast").trusted)

    def test_how_sure_it_is_that_a_52_mm_ring_drops(self):
        sure = drop_confidence(52, Limits(-39, -9), Limits(-13, 0), 21e-6, 80, 8, 11.5e-6, 20, 3, 0.015)
        self.assertAlmostEqual(sure, 0.9992, places=4)


class Properties(TestCase):
    @given(st.floats(0, 0.05), st.floats(0, 0.03), st.floats(30, 140))
    def test_less_interference_never_lowers_the_confidence(self, grip, less, hot):
        def sure(interference):
            inner = Limits(1000 * interference - 5, 1000 * interference + 5)
            return drop_confidence(47, Limits(-10, 10), inner, 21e-6, hot, 5, 12e-6, 0, 3)

        self.assertGreaterEqual(sure(grip - less) + 1e-12, sure(grip))

    @given(st.floats(1, 40), st.floats(1, 40), st.floats(20, 140))
    def test_more_tolerance_on_the_same_mean_moves_the_confidence_toward_one_half(self, width, more, hot):
        def sure(half):
            return drop_confidence(47, Limits(-20 - half, -20 + half), Limits(-11, 0), 21e-6, hot, 5, 12e-6, 10, 3)

        self.assertLessEqual(abs(sure(width + more) - 0.5), abs(sure(width) - 0.5) + 1e-9)

    @given(st.floats(-70, 200), st.floats(-20, 40), st.floats(60, 4000), st.floats(0, 5000))
    def test_a_part_never_overshoots_its_surroundings(self, start, room, tau, time):
        here = temperature_at_c(time, start, room, tau)
        self.assertTrue(min(start, room) - 1e-9 <= here <= max(start, room) + 1e-9)

    @given(st.floats(40, 140), st.floats(-40, 20), st.floats(100, 2000), st.floats(100, 2000))
    def test_at_the_end_of_its_window_the_clearance_is_what_was_wanted(self, hot, cold, case_tau, ring_tau):
        case, ring = Body(21e-6, hot, case_tau), Body(12e-6, cold, ring_tau)
        closes = window_s(47, 0.02, 0.01, case, ring, 20)
        if 0 < closes < math.inf:
            left = clearance_mm(
                47, 0.02, 21e-6, temperature_at_c(closes, hot, 20, case_tau), 12e-6, temperature_at_c(closes, cold, 20, ring_tau)
            )
            self.assertAlmostEqual(left, 0.01, places=5)

    def test_an_interval_read_back_gives_its_time_constant(self):
        later = temperature_at_c(200, 118, 21, 555)
        self.assertAlmostEqual(time_constant_from_readings(118, later, 200, 21), 555)


class Refusals(TestCase):
    def test_an_oven_cannot_heat_above_itself_nor_a_freezer_warm(self):
        for start, target, around in [(20, 160, 150), (20, 150, 150), (20, 40, 10)]:
            with self.subTest(target), self.assertRaises(BadInput):
                soak_time_s(start, target, around, 700)

    def test_readings_that_do_not_approach_the_room_fit_nothing(self):
        with self.assertRaises(BadInput):
            time_constant_from_readings(90, 96, 60, 21)

    def test_impossible_sizes_and_temperatures_name_their_field(self):
        for field, arguments in [
            ("nominal_mm", (-47, 0.03, 21e-6, 110, 12e-6, -18)),
            ("outer_c", (47, 0.03, 21e-6, -300, 12e-6, -18)),
            ("interference_mm", (47, math.inf, 21e-6, 110, 12e-6, -18)),
            ("inner_alpha", (47, 0.03, 21e-6, 110, 0, -18)),
        ]:
            with self.subTest(field), self.assertRaises(BadInput) as caught:
                clearance_mm(*arguments)
            self.assertEqual(caught.exception.field, field)

    def test_a_band_that_falls_is_refused(self):
        with self.assertRaises(BadInput):
            Estimate(3, 2, 1)


class Plans(TestCase):
    def test_a_plan_that_works_says_how_hot_how_long_and_how_sure(self):
        found = plan(example_setup())
        self.assertEqual(found.call.state, "in")
        self.assertGreater(found.confidence, 0.99)
        self.assertGreater(found.sure_for_s, 180)
        self.assertLess(found.soak.low, found.soak.high)
        self.assertLess(found.chill_c, -10)

    def test_an_oven_set_over_what_a_seal_stands_is_stop(self):
        limits = case_limits(get("al-si7-mg"), ("nitrile_seal",))
        found = plan(replace(example_setup(), hot_limits=limits))
        self.assertEqual(found.call.state, "stop")
        self.assertIn("nitrile", found.call.reason)

    def test_dry_ice_long_enough_to_spoil_the_ring_is_stop_and_left_to_the_plan_is_not(self):
        ice = Chilling("dry_ice", -78.5, Estimate(150, 250, 400), for_s=3600)
        cold = ring_cold_limits(lookup("6204"))
        self.assertEqual(plan(replace(example_setup(), chilling=ice, cold_limits=cold)).call.state, "stop")
        left = plan(replace(example_setup(), chilling=replace(ice, for_s=None), cold_limits=cold))
        self.assertEqual((left.call.state, left.chill_c), ("in", -45))

    def test_a_plan_that_barely_works_is_too_close_and_says_what_would_widen_it(self):
        barely = replace(example_setup(), chilling=None, target_c=62)
        found = plan(barely)
        self.assertEqual(found.call.state, "too_close")
        hotter = next(each for each in found.wideners if "hotter" in each.what)
        more = plan(replace(barely, target_c=82))
        self.assertAlmostEqual(more.leaving.clearance_mm - found.leaving.clearance_mm, hotter.gain_mm, places=6)

    def test_no_heat_and_a_tight_ring_will_not_go_in(self):
        cold = replace(example_setup(), heating=None, chilling=None, bore_um=Limits(-50, -35))
        self.assertEqual(plan(cold).call.state, "out")

    def test_a_short_freezer_stay_barely_cools_a_bearing(self):
        short = replace(example_setup().chilling, for_s=300.0)
        self.assertGreater(plan(replace(example_setup(), chilling=short)).chill_c, 5)

    def test_a_boss_heated_alone_opens_less(self):
        torch = Heating("torch", None, None, opening=0.6)
        whole, local = plan(replace(example_setup(), target_c=90)), plan(replace(example_setup(), target_c=90, heating=torch))
        self.assertLess(local.leaving.clearance_mm, whole.leaving.clearance_mm)
        self.assertIsNone(local.soak)
        self.assertTrue(any("whole case" in each.what for each in local.wideners) or local.call.state == "in")

    def test_an_oven_colder_than_the_case_is_refused(self):
        with self.assertRaisesRegex(BadInput, "colder than the case"):
            plan(replace(example_setup(), heating=Heating("oven", 15.0, Estimate(400, 700, 1000)), target_c=60))

    def test_a_torch_on_magnesium_is_refused(self):
        self.assertIn("catch fire", method_refusal(get("az91d"), "torch"))
        self.assertIsNone(method_refusal(get("az91d"), "oven"))


class OneHeat(TestCase):
    def most(self, parts):
        """Every order of every subset: the most `must` parts, then the most parts, that can be in."""
        best = (0, 0)
        for size in range(len(parts) + 1):
            for order in itertools.permutations(parts, size):
                names = [part.name for part in order]
                times = finish_times_s(parts, names)
                if all(times[part.name] <= part.closes_s for part in order) and all(
                    before in names[: names.index(part.name)] for part in order for before in part.after
                ):
                    best = max(best, (sum(part.must for part in order), size))
        return best

    def test_no_other_order_gets_more_parts_in(self):
        dice = random.Random(412)
        for _ in range(60):
            parts = []
            for index in range(dice.randint(1, 5)):
                after = tuple(part.name for part in parts if dice.random() < 0.2)
                parts.append(
                    HeatPart(f"p{index}", dice.randint(5, 40), dice.randint(10, 110), dice.choice([20, 47, 52]), dice.random() < 0.3, after)
                )
            dice.shuffle(parts)
            found = one_heat(parts)
            named = {part.name: part for part in parts}
            times = finish_times_s(parts, found.order)
            self.assertTrue(all(times[name] <= named[name].closes_s for name in found.order), parts)
            self.assertTrue(all(set(named[name].after) <= set(found.order[: found.order.index(name)]) for name in found.order), parts)
            self.assertEqual((sum(named[name].must for name in found.order), len(found.order)), self.most(parts), parts)
            self.assertEqual(set(found.order) | set(found.left_out), set(named))

    def test_at_equal_deadlines_the_larger_goes_first(self):
        self.assertEqual(one_heat([HeatPart("small", 10, 90, 20), HeatPart("large", 10, 90, 62)]).order, ("large", "small"))

    def test_a_circle_a_stranger_and_a_namesake_are_refused(self):
        for parts in (
            [HeatPart("a", 1, 9, after=("b",)), HeatPart("b", 1, 9, after=("a",))],
            [HeatPart("a", 1, 9, after=("ghost",))],
            [HeatPart("a", 1, 9), HeatPart("a", 1, 9)],
            [HeatPart("a", -1, 9)],
        ):
            with self.subTest(parts), self.assertRaises(BadInput):
                one_heat(parts)


class Weight(TestCase):
    def test_the_core_brings_in_neither_django_nor_scipy_nor_the_unit_registry(self):
        script = (
            "import sys, shopmath.quantity, shopmath.bearings, shopmath.thermal.plan, shopmath.verdict;"
            "print([name for name in ('django', 'scipy', 'pint') if name in sys.modules])"
        )
        said = subprocess.run([sys.executable, "-c", script], capture_output=True, text=True, check=True)
        self.assertEqual(said.stdout.strip(), "[]")
