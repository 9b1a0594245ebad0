"""Tests that simulated parts behave like real ones, and that operators who follow Stator achieve more than those who go by the needle."""

from __future__ import annotations

import random
import sys
from collections.abc import Callable

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from shopmath.truing import Misalignment
from stator.simulators.case import Case
from stator.simulators.case_halves import PLACES, Halves, Joint, joined
from stator.simulators.crank import LEVELS, STEP_MM, Crank, Fault, Truth, drawn
from stator.simulators.dial_indicator import DialIndicator
from stator.simulators.flywheel_on_taper import StuckWheel, stuck
from stator.simulators.operators.crank import Outcome, follow_the_calls, strike_where_high
from stator.simulators.operators.halves import part_by_the_calls, push_on
from stator.simulators.operators.taper import free_by_the_torque
from stator.simulators.press import Ram
from stator.simulators.registry import PARTS, PRACTISED

LIMIT_MM = 0.03
SEEDS = range(100)
seeds = st.integers(0, 10**6)


class TheSeed(SimpleTestCase):
    @given(seeds)
    @settings(max_examples=40, deadline=None)
    def test_a_seed_gives_the_same_truth_and_the_same_needle(self, seed):
        for part in (*PARTS, *PRACTISED):
            control = next(iter(part.levers))
            said = []
            for each in (part(seed), part(seed)):
                each.pull(control)
                said.append([each.after(0.1) for _ in range(3)])
            self.assertEqual(*said)

    @given(seeds, st.sampled_from(sorted(LEVELS)), st.sampled_from(Fault))
    @settings(max_examples=60, deadline=None)
    def test_a_level_is_what_it_says(self, seed, level, fault):
        true_values = drawn(seed, level, fault)
        self.assertEqual(true_values, drawn(seed, level, fault))
        self.assertLessEqual(abs(true_values.bent.twist_deg), LEVELS[level].twist_deg)
        self.assertEqual(true_values.best_mm > LIMIT_MM, fault == Fault.NOT_CURABLE)


class TheCrank(SimpleTestCase):
    @given(st.floats(0.3, 1.0), seeds)
    @settings(max_examples=40, deadline=None)
    def test_a_blow_and_its_inverse_leave_it_as_it_was_where_blows_fall_even(self, share, seed):
        crank = Crank(seed, Truth(Misalignment(0.1, 0.01, 0.0, 0.0), uneven=1.0))
        before = crank.truth.bent
        for strike in (crank.strike, crank.squeeze):
            strike(share)
            strike(-share)
        self.assertAlmostEqual(crank.truth.bent.twist_deg, before.twist_deg)
        self.assertAlmostEqual(crank.truth.bent.pinch_deg, before.pinch_deg)
        self.assertEqual((crank.truth.bent.offset_mm, crank.moves), (before.offset_mm, 4))  # no blow cures that

    def test_a_tap_springs_back(self):
        crank = Crank(1, Truth(Misalignment(0.1, 0.0, 0.0, 0.0), uneven=1.0))
        crank.strike(0.05)
        self.assertEqual(crank.truth.bent.twist_deg, 0.1)

    @given(seeds, st.sampled_from(Fault), st.integers(0, 359))
    @settings(max_examples=60, deadline=None)
    def test_the_needle_stays_within_what_is_bent_and_shows_whole_steps(self, seed, fault, angle):
        true_values = drawn(seed, "hard", fault)
        crank = Crank(seed, true_values)
        shown = crank.read("left", angle)
        highest = true_values.worst_mm / 2 + true_values.oval_mm / 2 + true_values.rocks_mm + abs(true_values.slips_mm) + 0.04
        self.assertLess(abs(shown), highest)
        self.assertAlmostEqual(shown / STEP_MM, round(shown / STEP_MM), places=6)

    def test_following_the_calls_reaches_the_goal_and_striking_where_it_reads_high_does_not(self):
        def all_of(hands: Callable[..., Outcome]) -> list[Outcome]:
            return [hands(Crank(seed, drawn(seed)), LIMIT_MM) for seed in SEEDS]

        called, high = all_of(follow_the_calls), all_of(strike_where_high)
        reached = sum(each.left_mm <= LIMIT_MM for each in called)
        worse = sum(each.left_mm for each in high) / sum(each.left_mm for each in called)
        print(f"true a crank: by the calls {reached} of 100, by the needle {worse:.1f} times the swing is left", file=sys.stderr)
        self.assertGreaterEqual(reached, 95)
        self.assertGreater(worse, 2)

    def test_a_crank_beyond_truing_is_given_up_before_it_is_beaten(self):
        given_up = [follow_the_calls(Crank(seed, drawn(seed, fault=Fault.NOT_CURABLE)), LIMIT_MM) for seed in SEEDS[:40]]
        self.assertGreaterEqual(sum(each.gave_up for each in given_up), 38)


class TheOthers(SimpleTestCase):
    @given(st.floats(0.1, 600), st.floats(30, 200))
    @settings(max_examples=60, deadline=None)
    def test_a_case_never_cools_below_the_room_nor_warms_past_the_oven(self, seconds, begins_c):
        case = Case(1)
        case.true_c = begins_c
        case.pull("out")
        case.after(seconds)
        self.assertTrue(min(begins_c, case.ROOM_C) <= case.true_c <= max(begins_c, case.ROOM_C))
        case.pull("oven")
        was = case.true_c
        case.after(seconds)
        self.assertTrue(min(was, case.OVEN_C) <= case.true_c <= max(was, case.OVEN_C))

    def test_a_pin_breaks_out_once_and_then_slides_for_less(self):
        ram = Ram(3)
        peaks = []
        for _ in range(20):
            ram.pull("pump")
            peaks.append(ram.force_n)
            ram.after(0.1)
        self.assertLessEqual(max(peaks), ram.breaks_n)
        self.assertLess(peaks[-1], max(peaks))


class TheNeedle(SimpleTestCase):
    @given(st.lists(st.floats(-2, 14), min_size=1, max_size=12), seeds)
    @settings(max_examples=80, deadline=None)
    def test_no_reading_lies_outside_its_travel_and_the_small_hand_counts_its_turns(self, pushed, seed):
        dial = DialIndicator(dice=random.Random(seed))
        for plunger in pushed:
            shown = dial.at(plunger)
            self.assertTrue(0 <= shown <= dial.travel_mm)
            self.assertAlmostEqual(dial.turns * dial.round_mm + dial.face_mm, shown)
            self.assertTrue(0 <= dial.angle_deg < 360 + 1e-6)

    def test_turned_back_it_lags_by_its_backlash(self):
        dial = DialIndicator(step_mm=0.001, backlash_mm=0.02, noise_mm=0.0)
        dial.at(5.0)
        up = dial.at(2.0)
        dial.at(0.5)
        self.assertAlmostEqual(up - dial.at(2.0), 0.02)


class TheHalves(SimpleTestCase):
    def test_halves_that_are_levelled_part_without_binding_and_pushed_on_they_bind(self):
        counts = []
        for hands in (part_by_the_calls, push_on):
            parted = [(hands(each), each.binds_often) for each in (Halves(seed, joined(seed)) for seed in SEEDS)]
            self.assertTrue(all(free for free, _ in parted))
            counts.append(sum(often for _, often in parted))
        print(f"part a case: levelled it bound {counts[0]} times in 100, pushed on {counts[1]} times", file=sys.stderr)
        self.assertLess(10 * counts[0], counts[1])

    @given(st.sampled_from(sorted(PLACES)), seeds)
    @settings(max_examples=30, deadline=None)
    def test_a_forgotten_bolt_is_seen_before_anything_is_forced(self, place, seed):
        halves = Halves(seed, Joint(0.1, 30.0, forgotten=place))
        self.assertFalse(part_by_the_calls(halves))
        self.assertLess(halves.mean_mm, 3)

    @given(seeds, st.floats(0.05, 2.0))
    @settings(max_examples=40, deadline=None)
    def test_no_gap_is_negative_and_easing_closes(self, seed, turns):
        halves = Halves(seed)
        halves.push(turns)
        before = halves.mean_mm
        halves.pull("ease")
        self.assertLessEqual(halves.mean_mm, before)
        self.assertTrue(all(halves.gap_mm(place) >= 0 for place in PLACES))


class TheTaper(SimpleTestCase):
    def test_patience_takes_every_wheel_off_and_force_alone_strips_threads(self):
        stripped = freed = 0
        for seed in SEEDS:
            true_values = stuck(seed, "hard")
            patient, forced = StuckWheel(seed, true_values), StuckWheel(seed, true_values)
            freed += free_by_the_torque(patient)
            for _ in range(60):
                forced.pull("more")
            stripped += forced.is_stripped
        print(f"free a flywheel: by the torque {freed} of 100 came off, by force {stripped} threads were lost", file=sys.stderr)
        self.assertGreaterEqual(freed, 95)
        self.assertGreater(stripped, 20)

    @given(seeds)
    @settings(max_examples=20, deadline=None)
    def test_without_load_nothing_creeps_and_what_is_off_stays_off(self, seed):
        flywheel = StuckWheel(seed)
        flywheel.pull("wait")
        flywheel.pull("knock")
        self.assertEqual((flywheel.holds, flywheel.is_free), (1.0, False))
        while not (flywheel.is_free or flywheel.is_stripped):
            flywheel.pull("more")
        ended = (flywheel.is_free, flywheel.is_stripped)
        flywheel.pull("more")
        self.assertEqual((flywheel.is_free, flywheel.is_stripped), ended)
