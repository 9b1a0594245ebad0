from __future__ import annotations

import math
import random

from django.test import TestCase

from shopmath.balance import drilled_mass_g, permissible_gmm
from stator.engines.models import EngineCard
from stator.engines.properties import Property
from stator.simulations.flywheels import Wheel
from stator.stations.split_crankcase.tests import Halves
from tests.factories import job


class Balancer(Halves):
    """Hands at Balance."""

    key = "balance"

    def first(self, shook="yes", sound="sound", rim="190"):
        for question, text in (("shook", shook), ("wheel-sound", sound), ("rim-diameter", rim)):
            self.answer(question, text)

    def roll(self, *marks):
        for mark in marks:
            self.answer("stop-angle", str(mark))

    def weigh(self, stays, turns, arm="80"):
        for question, text in (("trial-radius", arm), ("trial-stays", stays), ("trial-turns", turns)):
            self.answer(question, str(text))

    def prove(self, *masses, step="0.1 g"):
        self.answer("trial-radius", "80")
        if step != "0.1 g":
            self.answer("mass-step", step)
        for mark, mass in zip((0, 90, 180, 270), masses, strict=True):
            self.answer(f"turning-mass.{mark}", str(mass))

    def where(self, radius="80", finish="45", thick="18", keepout="", drills="4 6 8 10"):
        for question, text in (
            ("drill-radius", radius),
            ("finish-radius", finish),
            ("rim-depth", thick),
            ("keep-out", keepout),
            ("drills", drills),
        ):
            self.answer(question, text)


class OnTheStand(TestCase):
    """Tests with a flywheel of 1.9 kg at 8500 rpm, of which G 6.3 permits 13 g·mm."""

    MARKS = (184, 201, 176, 205, 195, 190)

    def setUp(self):
        self.made = job(order="flywheel")
        EngineCard.objects.filter(pk=self.made.card_id).update(wheel_kg=1.9, wheel_rpm=8500)
        self.made.refresh_from_db()
        self.hands = Balancer(self.made)

    def work(self):
        return self.hands.work()

    @property
    def found(self):
        return self.work().analysis

    def displayed_verdict(self):
        return self.work().displayed_verdict()


class ShouldItBeTouched(OnTheStand):
    def test_a_wheel_that_did_not_shake_is_left(self):
        self.hands.first(shook="no")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("in", "Leave it alone"))
        self.hands.act("sign")
        self.assertEqual(self.hands.entry.call_words, "Leave it alone")

    def test_all_the_same_is_said_and_goes_on(self):
        self.hands.first(shook="no")
        self.hands.act("anyway")
        self.assertTrue(self.found.to_touch)

    def test_cracked_is_out_of_use_and_mended_is_sent_out(self):
        self.hands.first(sound="cracked")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "Wheel is out of use"))
        self.hands.answer("wheel-sound", "repaired")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "Send it to a balancing shop"))
        self.assertNotIn("stop-angle", [question.key for question in self.work().questions()])

    def test_a_grey_iron_rim_at_that_speed_is_sent_out(self):
        self.hands.first()
        self.hands.choose(metal="gjl-250")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "Send it to a balancing shop"))

    def test_what_the_card_does_not_know_is_asked(self):
        EngineCard.objects.update(wheel_kg=None)
        self.made.refresh_from_db()
        self.hands.first()
        self.assertEqual(self.work().next_question.key, "wheel-mass")
        self.hands.answer("wheel-mass", "1900 g")
        self.assertAlmostEqual(self.found.permitted_gmm, 13.4, delta=0.1)


class Stopping(OnTheStand):
    def test_marks_all_round_tell_nothing_and_say_how_many_more_would(self):
        self.hands.first()
        self.hands.roll(10, 80, 330)
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("too_close", "Stops too scattered to tell"))
        self.assertIn("Roll 5 more", verdict.next_step)

    def test_a_wheel_that_stops_anywhere_is_not_balanced_before_four_masses_prove_it(self):
        self.hands.first()
        self.hands.roll(12, 140, 260, 75, 310, 200, 30, 170)
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("wait", "Prove it with a mass"))
        self.assertIn("That is no proof", self.displayed_verdict().reason)
        self.assertFalse([action for action in self.work().actions() if action.key == "sign" and not action.refused])
        self.hands.prove("0.2 g", "0.2 g", "0.2 g", "0.2 g")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("in", "Wheel is balanced"))
        self.assertIn("The stand rubs 16 g·mm", self.displayed_verdict().detail)

    def test_friction_that_varies_too_much_is_too_close_and_says_what_settles_it(self):
        self.hands.first()
        self.hands.roll(12, 140, 260, 75, 310, 200, 30, 170)
        self.hands.prove("0.2 g", "0.5 g", "0.2 g", "0.5 g")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("too_close", "Too close to call"))
        self.assertIn("knife edges", self.displayed_verdict().next_step)
        self.hands.act("prove")
        self.assertEqual(self.work().next_question.key, "turning-mass.0")
        self.hands.prove("0.24 g", "0.25 g", "0.24 g", "0.26 g", step="0.01 g")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("in", "Wheel is balanced"))

    def test_what_friction_hid_is_found_and_drilled(self):
        self.hands.first()
        self.hands.roll(12, 140, 260, 75, 310, 200, 30, 170)
        self.hands.prove("0.1 g", "0.4 g", "0.8 g", "0.4 g")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("out", "Too heavy there"))
        self.assertIn("28 ± ", self.displayed_verdict().reason)
        self.assertIn("at 0°", self.displayed_verdict().reason)
        self.hands.where()
        self.assertEqual(self.found.phase, "drill")

    def test_a_wheel_that_turns_by_itself_is_rolled_again(self):
        self.hands.first()
        self.hands.roll(12, 140, 260, 75, 310, 200, 30, 170)
        self.hands.prove("0 g", "0 g", "0.8 g", "0.4 g")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("out", "It turns by itself"))
        self.hands.act("again")
        self.assertEqual((self.found.phase, self.found.attempt), ("roll", 2))

    def test_marks_that_agree_ask_for_the_trial_mass_opposite(self):
        self.hands.first()
        self.hands.roll(*self.MARKS)
        self.assertEqual(self.found.phase, "weigh")
        self.assertIn("Putty at 12°", self.displayed_verdict().next_step)
        self.assertIn("192°", str(self.work().drawing()))

    def test_the_amount_is_said_as_what_it_pulls(self):
        self.hands.first()
        self.hands.roll(*self.MARKS)
        self.hands.weigh("1.2 g", "1.6 g")
        verdict = self.displayed_verdict()
        self.assertEqual(verdict.state, "out")
        self.assertIn("112 ± 9 g·mm", verdict.reason)
        self.assertIn("89 N at 8500 rpm", verdict.detail)
        self.assertIn("more than keeps it still", self.hands.answer("trial-turns", "1.0 g"))


class Drilling(OnTheStand):
    def setUp(self):
        super().setUp()
        self.hands.first()
        self.hands.roll(*self.MARKS)
        self.hands.weigh("1.2 g", "1.6 g")

    def test_the_plan_names_drill_place_and_depth(self):
        self.hands.where()
        hole = self.found.plan.holes[0]
        self.assertIn(f"{hole.diameter_mm:g} mm drill at {hole.angle_deg:.0f}°", self.displayed_verdict().next_step)
        self.assertIn("nine tenths", self.displayed_verdict().detail.lower())

    def test_a_magnet_there_is_kept_out_of(self):
        self.hands.where(keepout="182-202")
        self.assertGreaterEqual(len(self.found.plan.holes), 2)
        self.assertIn("is no arc", self.hands.answer("keep-out", "near the key"))
        self.assertIn("type the drills", self.hands.answer("drills", "some"))

    def test_as_drilled_the_rest_is_expected_and_rolled_again(self):
        self.hands.where()
        for index, hole in enumerate(self.found.plan.holes, 1):
            self.hands.answer(f"hole-depth.s{index}", f"{hole.depth_mm:.1f}")
        self.assertEqual(self.displayed_verdict().headline, "Check it on the stand")
        before = self.found
        self.assertLess(before.rest.gmm, 15)
        self.hands.act("again")
        after = self.found
        self.assertEqual((after.attempt, after.phase, len(after.earlier)), (2, "roll", len(before.made)))
        self.assertAlmostEqual(after.removed_g, before.removed_g, places=6)

    def test_too_deep_is_over_drilled_and_says_where_the_rest_comes_off(self):
        self.hands.where(finish="", drills="8")
        hole = self.found.plan.holes[0]
        self.hands.answer("hole-depth.s1", f"{hole.depth_mm + 3:.1f}")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("out", "Drilled too much"))
        self.assertIn("at 12°", self.displayed_verdict().next_step)

    def test_through_the_rim_is_refused_and_thin_is_stop(self):
        self.hands.where(drills="8", thick="12")
        self.assertIn("comes through", self.hands.answer("hole-depth.s1", "14"))
        self.hands.answer("hole-depth.s1", "9.5")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "Thin below the hole"))

    def test_following_the_station_a_wheel_comes_within_its_grade(self):
        hands = Balancer(job(413, order="flywheel"))
        EngineCard.objects.filter(pk=hands.job.card_id).update(wheel_kg=1.9, wheel_rpm=8500)
        hands.job.refresh_from_db()
        permitted = permissible_gmm(6.3, 1.9, 8500)
        flywheel = Wheel(random.Random(5), permitted, complex(-70, 60), 0.4 * permitted)
        hands.first()
        for _ in range(5):
            while hands.work().analysis.phase == "roll":
                hands.roll(round(flywheel.stop()) % 360)
            if hands.work().analysis.phase == "weigh":
                stays, turns = flywheel.opposite(hands.work().analysis.heavy_deg)
                hands.weigh(f"{stays:.1f} g", f"{turns:.1f} g")
            if hands.work().analysis.phase == "prove":
                hands.prove(*(f"{flywheel.turning_mass(mark):.1f} g" for mark in (0, 90, 180, 270)))
            if hands.work().analysis.phase in ("done", "unproved"):
                break
            if not hands.work().analysis.said(Property.DRILLS):
                hands.where()
            for index, hole in enumerate(hands.work().analysis.plan.holes, 1):
                flywheel.drill(hole.angle_deg, hole.radius_mm, hole.diameter_mm, hole.depth_mm)
                hands.answer(f"hole-depth.s{index}", f"{hole.depth_mm:.1f}")
            hands.act("again")
        self.assertEqual(hands.work().displayed_verdict().headline, "Wheel is balanced")
        self.assertLessEqual(abs(flywheel.heavy), permitted)
        self.assertLessEqual(len(flywheel.holes), 6)
        hands.tick_all()
        hands.answer("note", "")
        hands.act("sign")
        result = hands.entry.result
        self.assertEqual(len(result["holes"]), len(flywheel.holes))
        taken = sum(drilled_mass_g(hole["diameter_mm"], hole["depth_mm"], 7850) for hole in result["holes"])
        self.assertTrue(math.isclose(result["removed_g"], taken, rel_tol=0.02))


class WhatIsSaid(OnTheStand):
    def setUp(self):
        super().setUp()
        self.hands.first()
        self.hands.roll(*self.MARKS)

    def sources(self):
        return {source.label: (source.value, source.source) for source in self.work().sources()}

    def test_each_number_says_where_it_comes_from(self):
        self.hands.weigh("1.2 g", "1.6 g")
        found = self.sources()
        self.assertEqual(found["Permitted"][0], "13.4 g·mm")
        self.assertIn("ISO 21940-11", found["Permitted"][1])
        self.assertIn("Rayleigh", found["Heavy at"][1])
        self.assertEqual(found["Unbalance"][0], "112 ± 9 g·mm")

    def test_a_finer_grade_permits_less_and_a_lighter_metal_wants_deeper_holes(self):
        self.hands.weigh("1.2 g", "1.6 g")
        self.hands.where(finish="", drills="8")
        steel = self.found
        self.hands.choose(grade="2.5")
        self.assertLess(self.found.permitted_gmm, steel.permitted_gmm)
        self.hands.choose(metal="al-si9-cu3")
        self.assertGreater(sum(hole.depth_mm for hole in self.found.plan.holes), sum(hole.depth_mm for hole in steel.plan.holes))

    def test_what_is_within_the_grade_needs_no_hole(self):
        self.hands.weigh("0 g", "0.1 g")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("wait", "Prove it with a mass"))
        self.hands.prove("0.3 g", "0.3 g", "0.3 g", "0.3 g")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("in", "Wheel is balanced"))
        self.assertIsNone(self.found.plan)

    def test_too_much_off_it_is_stop(self):
        EngineCard.objects.update(wheel_kg=0.06)
        self.made.refresh_from_db()
        self.hands.weigh("1.2 g", "1.6 g")
        self.hands.where(finish="", drills="8")
        for index, hole in enumerate(self.found.plan.holes, 1):
            self.hands.answer(f"hole-depth.s{index}", f"{hole.depth_mm:.1f}")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "Enough taken off"))

    def test_where_no_hole_can_be_it_says_so_and_lets_it_be_rolled_again(self):
        self.hands.weigh("1.2 g", "1.6 g")
        self.hands.where(keepout="90-300")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("out", "No hole can do it"))

    def test_where_no_hole_can_be_mass_is_added_opposite(self):
        self.hands.weigh("1.2 g", "1.6 g")
        self.hands.where(keepout="90-300")
        self.assertIn("add mass at 12°", self.displayed_verdict().next_step)
        self.hands.act("add")
        self.hands.answer("added-radius", "70")
        self.assertEqual(self.displayed_verdict().headline, "Add mass opposite")
        self.assertIn("Fasten 1.6 g at 12°", self.displayed_verdict().next_step)
        self.assertIn("must never come off", self.hands.page())
        self.hands.answer("added-mass", "1.6 g")
        self.assertEqual(self.displayed_verdict().headline, "Check it on the stand")
        self.hands.act("again")
        self.assertEqual((self.found.attempt, self.found.phase), (2, "roll"))
        saved = self.found.own.done("added")[0]
        self.assertEqual(
            (saved.amount, saved.detail["radius_mm"], saved.at.angle_deg), (1.6, 70.0, self.found.own.done("added")[0].at.angle_deg)
        )

    def test_what_cannot_be_is_refused(self):
        for key, text, words in (
            ("trial-radius", "300", "outside the rim"),
            ("rim-diameter", "5 m", "not believable"),
            ("stop-angle", "900", "not believable"),
        ):
            self.assertIn(words, self.hands.answer(key, text))

    def test_the_wheel_is_drawn_with_its_stops_and_what_to_keep_out_of(self):
        self.hands.weigh("1.2 g", "1.6 g")
        self.hands.where(keepout="20-50, 100-120")
        drawing = str(self.work().drawing())
        self.assertEqual(drawing.count("url(#wide-brass-6-up)"), 2)
        self.assertIn("data-dial", drawing)
