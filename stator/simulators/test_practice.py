"""Tests that parts of practice behave like real ones, and that operators who follow Stator achieve more than others."""

from __future__ import annotations

import sys

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from shopmath.balance import permissible_gmm
from shopmath.seals import CLOCKS
from stator.simulators.base import LEVELS
from stator.simulators.crank import ENDS
from stator.simulators.flywheel_balance import THICK_MM, UnbalanceTruth, Wheel, heavy
from stator.simulators.heated_case_half import BEARINGS, HURTS_C, ROOM_C, SETS_C, HotHalf, oven
from stator.simulators.operators import alike, hot_half, stack, swinging, twin, wheel
from stator.simulators.seals import LETTERS, PLACES, SealSet, lot
from stator.simulators.shaft_runout import ROUND_MM, TRAVEL_MM, ShaftRunout, swings
from stator.simulators.stack import BAGS_MM, Stack, widths
from stator.simulators.twin_crank import TwinCrank, Webs, turned

SEEDS = range(100)
PERMITTED_GMM = permissible_gmm(6.3, 1.9, 8500)
seeds, levels = st.integers(0, 10**6), st.sampled_from(LEVELS)


def counted(what, called, other):
    """Print the number of goals reached of 100, and how much worse the other operators are."""
    print(f"{what}: by the calls {called} of 100, otherwise {other}", file=sys.stderr)


class HandsThatFollowTheCalls(SimpleTestCase):
    """95 of 100 seeds of each exercise at the middle level; others do worse by a factor that is printed."""

    def test_outer_webs(self):
        limit = 0.04
        called = [twin.turn_back(TwinCrank(seed, turned(seed)), limit) for seed in SEEDS]
        high = [twin.strike_where_high(TwinCrank(seed, turned(seed)), limit) for seed in SEEDS]
        reached, worse = sum(left <= limit + 0.001 for left in called), sum(high) / sum(called)
        counted("outer webs", reached, f"{worse:.0f} times the swing is left")
        self.assertGreaterEqual(reached, 95)
        self.assertGreater(worse, 5)

    def test_a_swinging_needle(self):
        called = [swinging.count_rounds(ShaftRunout(seed, swings(seed))) for seed in SEEDS]
        face = [swinging.face_alone(ShaftRunout(seed, swings(seed))) for seed in SEEDS]
        reached, worse = sum(error <= 0.012 for error in called), sum(face) / sum(called)
        counted("read a dial", reached, f"{worse:.0f} times the error")
        self.assertGreaterEqual(reached, 95)
        self.assertGreater(worse, 5)

    def test_the_stack(self):
        called = sum(stack.by_the_stack(Stack(seed, widths(seed))) for seed in SEEDS)
        felt = sum(stack.by_feel(Stack(seed, widths(seed))) for seed in SEEDS)
        counted("end float", called, f"{(100 - felt) / max(1, 100 - called):.0f} times as many outside their limits")
        self.assertGreaterEqual(called, 95)
        self.assertLess(felt, 90)

    def test_three_seals(self):
        called = [alike.by_the_sizes(SealSet(seed, lot(seed))) for seed in SEEDS]
        come = [alike.as_they_come(SealSet(seed, lot(seed))) for seed in SEEDS]
        reached = sum(wrong == 0 for wrong in called)
        counted("seals", reached, f"{sum(come)} places wrong against {sum(called)}")
        self.assertGreaterEqual(reached, 95)
        self.assertGreater(sum(come), 10 * max(1, sum(called)))

    def test_five_bearings(self):
        called = [hot_half.by_the_gun(HotHalf(seed, oven(seed))) for seed in SEEDS]
        clock = [hot_half.by_the_clock(HotHalf(seed, oven(seed))) for seed in SEEDS]
        reached = sum(spoiled == 0 for spoiled in called)
        counted("hot half", reached, f"{sum(clock)} bearings spoiled against {sum(called)}")
        self.assertGreaterEqual(reached, 95)
        self.assertGreater(sum(clock), 10 * max(1, sum(called)))

    def test_a_flywheel(self):
        called = [wheel.by_the_calls(Wheel(seed, heavy(seed)), PERMITTED_GMM) for seed in SEEDS]
        rests = [wheel.where_it_rests(Wheel(seed, heavy(seed)), PERMITTED_GMM) for seed in SEEDS]
        reached, worse = sum(left <= PERMITTED_GMM for left in called), sum(rests) / sum(called)
        counted("balance", reached, f"{worse:.0f} times the unbalance is left")
        self.assertGreaterEqual(reached, 95)
        self.assertGreater(worse, 3)


class TheTwin(SimpleTestCase):
    @given(seeds, st.sampled_from(ENDS), st.floats(0.3, 1.0))
    @settings(max_examples=40, deadline=None)
    def test_a_blow_and_its_inverse_leave_a_web_where_it_was_and_no_blow_cures_what_lies_along_the_throw(self, seed, end, share):
        crank = TwinCrank(seed, Webs(0.05, -0.03, 0.004, 0.002, uneven=1.0))
        before, best = crank.truth.turned_deg(end), crank.truth.best_mm
        crank.blow(end, share)
        crank.blow(end, -share)
        self.assertAlmostEqual(crank.truth.turned_deg(end), before)
        self.assertEqual(crank.truth.best_mm, best)

    @given(seeds, levels)
    @settings(max_examples=40, deadline=None)
    def test_counter_clockwise_takes_from_what_has_turned_so(self, seed, level):
        true_values = turned(seed, level)
        for end in ENDS:
            way = 1 if true_values.turned_deg(end) > 0 else -1
            self.assertLess(abs(true_values.turned(end, way * 0.001).turned_deg(end)), abs(true_values.turned_deg(end)))


class TheNeedle(SimpleTestCase):
    @given(seeds, levels, st.lists(st.sampled_from(tuple(ShaftRunout.levers)), max_size=20))
    @settings(max_examples=40, deadline=None)
    def test_it_stays_in_its_travel_and_its_rounds_add_up(self, seed, level, levers):
        shaft = ShaftRunout(seed, swings(seed, level))
        for control in levers:
            shaft.pull(control)
            self.assertTrue(0 <= shaft.shown_mm <= TRAVEL_MM)
            self.assertAlmostEqual(shaft.dial.turns * ROUND_MM + shaft.dial.face_mm, shaft.shown_mm)


class TheStack(SimpleTestCase):
    @given(seeds, levels, st.lists(st.sampled_from(BAGS_MM), max_size=4))
    @settings(max_examples=40, deadline=None)
    def test_shims_take_room_and_taken_off_give_it_back_and_no_gauge_reads_below_nothing(self, seed, level, bags):
        part = Stack(seed, widths(seed, level))
        room = part.float_mm
        for bag in bags:
            part.pull(f"add-{bag:g}")
        self.assertAlmostEqual(part.float_mm, room - sum(bags), delta=0.02 * len(bags) + 1e-9)
        part.pull("close")
        self.assertGreaterEqual(part.shown_mm, 0)
        part.pull("off")
        self.assertAlmostEqual(part.float_mm, room)


class TheSeals(SimpleTestCase):
    @given(seeds, levels)
    @settings(max_examples=40, deadline=None)
    def test_a_seal_taken_out_again_is_spoiled_and_a_large_one_enters_no_small_bore(self, seed, level):
        part = SealSet(seed, lot(seed, level))
        for letter in LETTERS:
            part.pull(f"take-{letter}")
            for place, (_shaft, bore) in PLACES.items():
                part.pull(f"place-{place}")
                part.pull("drive")
                enters = PLACES[part.made_for(letter)][1] <= bore
                self.assertEqual(place in part.seated, enters)
                part.pull("draw")
        self.assertEqual(part.spoiled, sum(PLACES[made][1] <= bore for made in PLACES for _shaft, bore in PLACES.values()))

    @given(seeds, st.sampled_from(CLOCKS))
    @settings(max_examples=40, deadline=None)
    def test_a_tap_drives_that_side_in_and_none_out(self, seed, clock):
        part = SealSet(seed, lot(seed))
        part.pull(f"place-{part.made_for('A')}")
        part.pull("drive")
        before = dict(part.seated[part.place].depths_mm)
        part.pull(f"tap-{clock}")
        after = part.seated[part.place].depths_mm
        self.assertGreater(after[clock], before[clock])
        self.assertTrue(all(after[each] >= before[each] for each in CLOCKS))


class TheHotHalf(SimpleTestCase):
    @given(seeds, levels, st.floats(1, 4000), st.sampled_from(SETS_C))
    @settings(max_examples=60, deadline=None)
    def test_it_never_warms_past_its_oven_nor_cools_below_the_room(self, seed, level, seconds, set_c):
        half = HotHalf(seed, oven(seed, level))
        half.pull(f"set-{set_c}")
        half.pull("oven")
        half.passes(seconds)
        warm = half.wall_c
        self.assertTrue(ROOM_C <= half.true_c <= warm <= set_c < HURTS_C)  # a thick boss lags behind the wall
        half.pull("out")
        half.passes(seconds)
        self.assertTrue(ROOM_C <= half.wall_c <= warm)
        self.assertTrue(ROOM_C <= half.true_c <= warm)
        self.assertEqual(half.hottest_c, warm)

    @given(seeds, levels)
    @settings(max_examples=30, deadline=None)
    def test_cold_nothing_falls_and_what_is_knocked_is_counted(self, seed, level):
        half = HotHalf(seed, oven(seed, level))
        for name in BEARINGS:
            half.pull(f"drop-{name}")
        self.assertEqual((half.home, sorted(half.jammed)), ([], sorted(BEARINGS)))
        half.pull("knock-A")
        half.pull("lift-B")
        self.assertEqual((half.home, half.knocked, "B" in half.jammed), (["A"], 1, False))

    def test_bare_metal_reads_far_too_low(self):
        half = HotHalf(1)
        half.true_c = half.wall_c = 110.0
        half.pull("paint")
        self.assertAlmostEqual(half.shown_c, 110, delta=4)
        half.pull("bare")
        self.assertLess(half.shown_c, 60)


class TheWheel(SimpleTestCase):
    @given(seeds, levels)
    @settings(max_examples=40, deadline=None)
    def test_a_hole_on_the_heavy_side_takes_off_and_opposite_adds(self, seed, level):
        true_values = heavy(seed, level)
        light, worse = Wheel(seed, true_values), Wheel(seed, true_values)
        if true_values.gmm > 40:
            light.drill(true_values.deg, 6.0, 4.0)
            worse.drill(true_values.deg + 180, 6.0, 4.0)
            self.assertLess(light.gmm, true_values.gmm)
            self.assertGreater(worse.gmm, true_values.gmm)

    def test_ribs_and_thin_walls_are_counted(self):
        stand = Wheel(1, UnbalanceTruth(keep_out=((350.0, 20.0),)))
        stand.drill(5, 4, 4)
        stand.drill(90, 4, THICK_MM - 1)
        self.assertEqual((stand.holes, stand.in_ribs, stand.thin), (2, 1, 1))

    def test_mass_that_outweighs_it_turns_it_and_less_lets_it_turn_back(self):
        stand = Wheel(1, UnbalanceTruth(160.0, 180.0, 5.0))
        self.assertEqual([stand.let_go(0.0, mass) for mass in (0.0, 2.0, 4.0)], ["back", "stays", "turns"])
