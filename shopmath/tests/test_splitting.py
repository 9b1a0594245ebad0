"""Parting cases and taking parts out: press joints, leads, dowels, screws, drivers, seals, ways."""

from __future__ import annotations

import math
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from shopmath import drivers, seals, splitting
from shopmath.bearing_removal import SeatPicture, ways
from shopmath.bearings import lookup
from shopmath.estimate import Estimate
from shopmath.flywheel_pulling import same_size
from shopmath.gap_plane import Point, fit
from shopmath.press import hub_stress_mpa, interference_pressure_mpa, press_force_n
from shopmath.splitting import DowelFit, Place, census, journal_grip_n, lead_allowed_mm, next_move, split_call, splitter_screws
from shopmath.tables import rows
from shopmath.thermal.bearing_removal import freeing, frees_at_c
from shopmath.thermal.limits import Limit
from shopmath.validation import BadInput

STEEL = (206e3, 0.3)
FACE = [Place("1", -100, 40), Place("2", -60, -80), Place("3", 60, -80), Place("4", 100, 30), Place("5", 0, 90)]
NAMES = [place.name for place in FACE]
sizes = st.floats(10, 60)
grips = st.floats(0.001, 0.1)


def plane(front, top, rear, sump):
    return fit([Point("front", -110, 0, front), Point("top", 0, 95, top), Point("rear", 110, 0, rear), Point("sump", 0, -95, sump)])


class PressJoints(TestCase):
    """Checked numbers of a 22 x 16 pin in an 80 mm hub, and what Lame must obey."""

    def pressure(self, grip=0.060, d=22.0, hub=80.0, bore=0.0, **more):
        return interference_pressure_mpa(grip, d, hub, bore, *STEEL, *STEEL, **more)

    def test_the_handbook_pin(self):
        pressure = self.pressure()
        self.assertAlmostEqual(pressure, 259.7, places=1)
        self.assertAlmostEqual(press_force_n(pressure, 22, 16, 0.10) / 1000, 28.7, places=1)
        self.assertAlmostEqual(hub_stress_mpa(pressure, 22, 80), 487, places=0)

    @given(grips, sizes, st.floats(1.2, 5))
    def test_pressure_grows_with_grip_and_wall_and_a_loose_pin_has_none(self, grip, d, ratio):
        hub = d * ratio
        self.assertAlmostEqual(
            self.pressure(2 * grip, d, hub), 2 * self.pressure(grip, d, hub), delta=1e-6 * self.pressure(2 * grip, d, hub)
        )
        self.assertGreater(self.pressure(grip, d, hub * 1.1), self.pressure(grip, d, hub))
        self.assertEqual(self.pressure(-grip, d, hub), 0.0)

    @given(grips, sizes)
    def test_a_hollow_shaft_gives_and_smoothing_takes_off_the_grip(self, grip, d):
        self.assertLess(self.pressure(grip, d, 2 * d, bore=0.5 * d), self.pressure(grip, d, 2 * d))
        self.assertAlmostEqual(self.pressure(grip, d, 2 * d, smoothing_mm=grip / 2), self.pressure(grip / 2, d, 2 * d), places=6)

    @given(grips, sizes)
    def test_size_alone_changes_nothing_at_the_same_strain(self, grip, d):
        self.assertAlmostEqual(self.pressure(grip, d, 2 * d), self.pressure(3 * grip, 3 * d, 6 * d), places=6)

    def test_impossible_joints_are_refused_by_name(self):
        for more, field in [
            ({"hub": 20.0}, "hub_outside_mm"),
            ({"bore": 22.0}, "shaft_bore_mm"),
            ({"d": 0.0}, "diameter_mm"),
            ({"grip": math.nan}, "interference_mm"),
        ]:
            with self.subTest(field), self.assertRaises(BadInput) as caught:
                self.pressure(**more)
            self.assertEqual(caught.exception.field, field)
        for bad in ((-1, 22, 16, 0.1), (10, 0, 16, 0.1), (10, 22, -1, 0.1), (10, 22, 16, -0.1), (math.inf, 22, 16, 0.1)):
            with self.subTest(bad), self.assertRaises(BadInput):
                press_force_n(*bad)


class Counting(TestCase):
    @given(st.sets(st.sampled_from(NAMES)), st.one_of(st.none(), st.integers(0, 8)))
    def test_it_is_in_only_when_every_place_is_out_and_the_count_agrees(self, out, counted):
        found = census(FACE, sorted(out), counted)
        self.assertEqual(found.call.state == "in", out == set(NAMES) and counted == len(FACE))
        self.assertEqual(set(found.missing), set(NAMES) - out)
        self.assertTrue(set(found.missing) <= set(found.likely) or not found.missing)

    def test_the_place_nearest_to_where_it_lags_is_suspected_first(self):
        self.assertEqual(census(FACE, ["1", "2", "5"], lagging=(95, 20)).likely, ("4", "3"))
        self.assertEqual(census(FACE, NAMES, 4, seen_only=["2", "5"], lagging=(0, 95)).likely, ("5", "2"))
        self.assertEqual(census(FACE, NAMES, 4).likely, tuple(NAMES))

    def test_one_more_than_the_card_is_too_close_and_says_put_it_on(self):
        found = census(FACE, NAMES, 6)
        self.assertEqual(found.call.state, "too_close")
        self.assertIn("the card lacks 1", found.call.reason)

    def test_a_negative_count_is_refused(self):
        with self.assertRaises(BadInput):
            census(FACE, NAMES, -1)


class Leading(TestCase):
    @given(st.floats(0, 20), st.floats(20, 400), st.floats(0.005, 0.2), st.floats(2, 15))
    def test_more_gap_never_allows_less_lead(self, gap, span, clearance, engaged):
        dowels = [DowelFit(clearance, engaged)]
        self.assertLessEqual(lead_allowed_mm(dowels, gap, span), lead_allowed_mm(dowels, gap + 0.5, span))
        self.assertEqual(math.isinf(lead_allowed_mm(dowels, gap, span)), gap >= engaged)

    def test_the_tightest_dowel_decides(self):
        loose, tight = DowelFit(0.1, 6), DowelFit(0.02, 10)
        self.assertEqual(lead_allowed_mm([loose, tight], 1, 100), lead_allowed_mm([tight], 1, 100))

    @given(*(st.floats(0.5, 4) for _ in range(4)), st.floats(0.05, 3))
    @settings(max_examples=60)
    def test_the_move_agrees_with_the_call(self, front, top, rear, sump, allowed):
        found = plane(front, top, rear, sump)
        verdict = split_call(found, allowed, 0.04)
        move = next_move(found, allowed, verdict.state)
        self.assertEqual(move.kind == "back", verdict.state == "stop")
        if move.kind == "go_on":
            self.assertTrue(0.25 <= move.turns <= 2 and move.turns % 0.25 == 0)
            self.assertLessEqual(found.lead_mm, 0.7 * allowed)
        if move.kind == "tap":
            self.assertEqual(move.place, found.lagging_name)

    @given(st.floats(0, 360), st.floats(0.2, 3))
    @settings(max_examples=40)
    def test_turning_the_engine_on_the_bench_changes_no_lead(self, turn, lead):
        angle = math.radians(turn)
        spots = [(-110, 0, 1.0), (0, 95, 1 + lead / 2), (110, 0, 1 + lead), (0, -95, 1 + lead / 2)]
        turned = fit(
            [
                Point(str(i), x * math.cos(angle) - y * math.sin(angle), x * math.sin(angle) + y * math.cos(angle), gap)
                for i, (x, y, gap) in enumerate(spots)
            ]
        )
        self.assertAlmostEqual(turned.lead_mm, lead, places=6)
        self.assertEqual((turned.leading_name, turned.lagging_name), ("2", "0"))

    def test_turns_are_said_as_one_says_them(self):
        values = {
            0.5: "half turn",
            0.75: "three quarters of a turn",
            1.25: "one turn and a quarter",
            1.5: "one turn and a half",
            2: "two turns",
        }
        self.assertEqual({turns: splitting.spoken_turns(turns) for turns in values}, values)


class Screws(TestCase):
    def test_more_turns_or_more_screws_never_weaken_it(self):
        order = ["stop", "too_close", "in"]
        pull = Estimate(1500, 4000, 9000)
        for screws in (1, 2, 3):
            states = [order.index(splitter_screws(6, 1, turns, 228, screws, pull).call.state) for turns in range(1, 16)]
            self.assertEqual(states, sorted(states))
        self.assertGreater(splitter_screws(6, 1, 8, 228, 3, pull).strength.low, splitter_screws(6, 1, 8, 228, 2, pull).strength.low)

    def test_the_turns_wanted_are_enough_and_one_less_is_not(self):
        pull = Estimate(1500, 4000, 9000)
        needed = splitter_screws(6, 1, 1, 228, 2, pull).turns_wanted
        self.assertEqual(splitter_screws(6, 1, needed, 228, 2, pull).call.state, "in")
        self.assertNotEqual(splitter_screws(6, 1, needed - 1, 228, 2, pull).call.state, "in")

    def test_magnesium_and_a_soft_casting_hold_less_than_a_good_one(self):
        pull = Estimate(1500, 4000, 9000)
        self.assertLess(splitter_screws(6, 1, 8, 150, 2, pull).stop_nm, splitter_screws(6, 1, 8, 228, 2, pull).stop_nm)

    def test_two_mains_hold_as_much_as_both(self):
        one, other, both = (journal_grip_n(marks) for marks in ([lookup("6204")], [lookup("6205")], [lookup("6204"), lookup("6205")]))
        self.assertAlmostEqual(both.likely, one.likely + other.likely)
        self.assertIs(journal_grip_n([]), splitting.USUAL_GRIP_N)

    def test_impossible_screws_are_refused(self):
        for bad in ((0, 1, 5, 228, 2), (6, 0, 5, 228, 2), (6, 1, -1, 228, 2), (6, 1, 5, 0, 2), (6, 1, 5, 228, 0), (6, math.nan, 5, 228, 2)):
            with self.subTest(bad), self.assertRaises(BadInput):
                splitter_screws(*bad, Estimate(1, 2, 3))


class Drivers(TestCase):
    def test_every_ball_bearing_of_the_table_has_a_driver_for_each_ring(self):
        marks = [
            row["designation"]
            for row in rows("bearing_dims")
            if row["designation"].startswith(("60", "62", "63")) and row["designation"].isdigit()
        ]
        self.assertGreater(len(marks), 30)
        for mark in marks:
            bearing = lookup(mark)
            outer, inner = drivers.outer_ring(bearing), drivers.inner_ring(bearing)
            with self.subTest(mark):
                self.assertTrue(bearing.bore_mm < outer.inside_low_mm < outer.outside_low_mm < outer.outside_high_mm < bearing.outside_mm)
                self.assertTrue(bearing.bore_mm < inner.inside_low_mm < inner.inside_high_mm <= inner.outside_high_mm < bearing.outside_mm)
                self.assertEqual(outer.refusal(outer.outside_high_mm, outer.inside_low_mm), "")

    def test_each_misfit_is_told_apart(self):
        window = drivers.outer_ring(lookup("6205"))
        for outside, inside, words in (
            (51.9, 42, "would rub"),
            (40, 30, "misses the outer ring"),
            (50, 20, "press on the inner ring"),
            (51, 50.95, "bore misses"),
        ):
            with self.subTest(words):
                self.assertIn(words, window.refusal(outside, inside))
        with self.assertRaises(BadInput):
            window.refusal(40, 41)
        self.assertIn("press on the lip", drivers.seal(25, 40).refusal(39, 28))

    def test_a_seal_no_larger_than_its_shaft_is_refused(self):
        with self.assertRaises(BadInput):
            drivers.seal(40, 40)


class Seals(TestCase):
    @given(st.floats(-2, 5), st.floats(20, 80))
    def test_even_depths_lean_nowhere(self, depth, seat):
        found = seals.seat_of_seal([depth] * 4, seat, depth, 0.02)
        self.assertEqual((found.square.state, found.depth.state, found.clear), ("in", "in", None))
        self.assertAlmostEqual(found.depth_mm, depth)

    @given(st.lists(st.floats(0, 3), min_size=4, max_size=4), st.floats(-5, 5))
    def test_pushing_it_deeper_changes_its_depth_and_not_its_lean(self, depths, more):
        first = seals.seat_of_seal(depths, 40, 0, 0.05)
        second = seals.seat_of_seal([depth + more for depth in depths], 40, 0, 0.05)
        self.assertAlmostEqual(first.lean_mm, second.lean_mm, places=9)
        self.assertAlmostEqual(first.depth_mm + more, second.depth_mm, places=9)

    def test_too_deep_touches_the_bearing(self):
        for depth, state in ((0.0, "in"), (0.9, "too_close"), (1.6, "out")):
            with self.subTest(depth):
                found = seals.seat_of_seal([depth] * 4, 40, 0, 0.05, width_mm=7, bearing_depth_mm=8)
                self.assertEqual(found.clear.state, state)

    def test_three_depths_are_refused(self):
        with self.assertRaisesRegex(BadInput, "Four depths are wanted"):
            seals.seat_of_seal([0, 0, 0], 40, 0, 0.05)


class TakingOut(TestCase):
    @given(st.floats(20, 90), st.floats(0.001, 0.06))
    def test_at_the_freeing_temperature_both_have_grown_apart_by_the_grip(self, d, grip):
        hot = frees_at_c(d, grip, 21.5e-6, 11.5e-6)
        self.assertAlmostEqual(d * (21.5e-6 - 11.5e-6) * (hot - 20), grip, places=9)

    @given(st.floats(20, 90), st.floats(0.001, 0.06), st.floats(-40, 60))
    def test_a_colder_ring_needs_less_heat(self, d, grip, ring):
        self.assertGreater(frees_at_c(d, grip, 21.5e-6, 11.5e-6, ring + 5), frees_at_c(d, grip, 21.5e-6, 11.5e-6, ring))

    def test_the_limit_makes_the_call(self):
        limits = [Limit(limit, "seal", "it hardens") for limit in (150, 70, 40)]
        states = [freeing(47, 0.0, 0.033, 21.5e-6, 11.5e-6, limit).call.state for limit in limits]
        self.assertEqual(states, ["in", "too_close", "out"])
        self.assertEqual(freeing(47, 0.0, 0.033, 21.5e-6, 11.5e-6, None).call.state, "in")

    def test_iron_never_lets_a_steel_ring_go_by_heat_alone(self):
        with self.assertRaisesRegex(BadInput, "never lets it go"):
            frees_at_c(62, 0.02, 10.5e-6, 11.5e-6)
        found = freeing(62, 0.0, 0.02, 10.5e-6, 11.5e-6, None)
        self.assertEqual((found.together, found.call.state, found.sprayed_call.state), (None, "out", "in"))


class Ways(TestCase):
    def every(self):
        for blind in (True, False, None):
            for shields in ("open", "one", "both"):
                for thin in (True, False):
                    for freed in ("in", "too_close", "out"):
                        yield SeatPicture(blind=blind, shields=shields, thin_wall=thin, frees_by_heat=freed)

    def test_nothing_is_driven_out_of_a_blind_bore_and_no_grease_behind_an_open_one(self):
        for seat in self.every():
            state = {alternative.key: alternative.state for alternative in ways(seat)}
            with self.subTest(seat):
                self.assertEqual(state["drive"] == "stop", seat.blind is True)
                self.assertEqual(state["punch"] == "stop", seat.blind is True)
                self.assertEqual(state["hydraulic"] == "stop", seat.blind is False or seat.shields != "both")

    def test_cutting_is_the_last_that_is_not_refused_and_heat_that_frees_the_first(self):
        for seat in self.every():
            allowed = [alternative.key for alternative in ways(seat) if alternative.state != "stop"]
            with self.subTest(seat):
                self.assertEqual(allowed[-1], "cut")
                if seat.frees_by_heat == "in":
                    self.assertEqual(allowed[0], "drop")

    def test_what_holds_it_comes_out_first_whatever_the_way(self):
        self.assertEqual({method.state for method in ways(SeatPicture(retained="plate"))}, {"stop"})

    def test_a_tool_on_the_shelf_never_makes_its_way_worse(self):
        for key, tool in (("collet", "collet"), ("spray", "spray")):
            without = next(alternative for alternative in ways(SeatPicture(blind=True)) if alternative.key == key)
            having = next(alternative for alternative in ways(SeatPicture(blind=True, tools=frozenset({tool}))) if alternative.key == key)
            self.assertLess(having.cost, without.cost)

    def test_every_way_says_why(self):
        for seat in (*self.every(), SeatPicture(on_shaft=True), SeatPicture(magnesium=True)):
            self.assertTrue(all(method.reasons and method.words for method in ways(seat)))
        self.assertIn("no flame", " ".join(ways(SeatPicture(magnesium=True))[0].reasons))


class PullersThatAlmostFit(TestCase):
    def test_a_small_one_hangs_by_its_crests_and_a_large_one_does_not_enter(self):
        self.assertIn("too small", same_size(26.3, 25.98, 1.0).reason)
        self.assertIn("too large", same_size(27.6, 25.98, 1.0).reason)
        self.assertEqual(same_size(26.9, 25.98, 1.0).state, "in")

    @given(st.floats(10, 50), st.floats(0.5, 2))
    def test_its_own_thread_always_fits(self, d, pitch):
        self.assertEqual(same_size(d, d - 1.082532 * pitch, pitch).state, "in")
