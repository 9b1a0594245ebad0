from __future__ import annotations

import math
from datetime import timedelta
from functools import partial
from types import MappingProxyType, SimpleNamespace
from uuid import uuid4

from django.test import TestCase

from shopmath.quantity import parse
from shopmath.truing import Misalignment, PressedCrank, bend_at, runout_from
from stator.engines.models import EngineCard, Spec
from stator.jobs import log
from stator.shop.models import Gauge
from stator.simulators.crank import Crank, Truth
from stator.stations.split_crankcase.tests import Halves
from stator.stations.true_crank.analysis import TURN, reading
from stator.stations.true_crank.drawing import _at_the_rims
from tests.factories import job

PLACES = (("support-place.left", "92"), ("gauge-place.left", "34"), ("support-place.right", "92"), ("gauge-place.right", "34"))


class Truer(Halves):
    """Hands at True with a crank whose faults they do not know."""

    key = "true"

    def set_up(self, *places):
        for question, text in places or PLACES:
            self.answer(question, text)

    def turn(self, twist=0.0, pinch=0.0, offset=0.0, skew=0.0, ovality=0.0, zero=0.0, slips=MappingProxyType({})):
        geometry = self.work().analysis.geometry
        for side, runout in zip(("left", "right"), runout_from(Misalignment(twist, pinch, offset, skew), geometry), strict=True):
            read = len(self.work().answers.values(reading(side, 0).key))
            work = self.work()
            for number in range(read, work.analysis.turns):
                for angle in work.analysis.angles():
                    value = runout.tir_mm / 2 * math.cos(math.radians(angle - runout.high_spot_deg))
                    value += ovality / 2 * math.cos(math.radians(2 * angle)) + zero
                    slip = slips.get((side, angle), 0.0) if number == 0 else 0.0
                    last = (number, angle) == (work.analysis.turns - 1, work.analysis.angles()[-1])
                    (self.answer if last else partial(self.save, work))(reading(side, angle).key, f"{value + slip:.4f}")

    @staticmethod
    def save(work, key, text):
        """Save a reading without a request; only the last one of an end is typed on the page."""
        question = next(question for question in work.current_questions if question.key == key)
        more = {"attempt": work.answers.attempt, "gauge": work.gauge_for(question), "slot": question.slot}
        log.save_reading(work.entry, work.person, key, parse(text, "length", "mm"), uuid4().hex, **more)


class True1(TestCase):
    """One single pressed crank."""

    def setUp(self):
        self.made = job(order="crank")
        EngineCard.objects.update(stroke_mm=58, crank="built_up")
        Gauge.objects.filter(kind="dial").update(resolution=0.002, repeatability=0.0005)
        Spec.objects.create(
            card=self.made.card, name="Flywheel rim run-out", property="rim-runout", high=0.5, source="page 70"
        )  # not the crank's
        Spec.objects.create(
            card=self.made.card,
            name="Crank run-out",
            property="crank-runout",
            high=0.03,
            source="page 44",
            setup="between centres",
            held="centres",
        )
        self.hands = Truer(self.made)

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def test_it_asks_where_things_stand_before_it_takes_a_reading(self):
        self.assertEqual((self.displayed_verdict().headline, self.hands.work().next_question.key), ("Set it up", "support-place.left"))
        self.hands.set_up()
        self.assertEqual(self.hands.work().next_question.key, "shaft-reading.left.0")
        self.assertEqual(self.hands.work().analysis.geometry, PressedCrank(-92, 92, -34, 34, 29))

    def test_a_gauge_on_its_support_is_refused_with_the_reason(self):
        self.hands.answer("support-place.left", "92")
        self.assertIn("stands on its support", self.hands.answer("gauge-place.left", "92"))
        self.assertIn("is not believable", self.hands.answer("gauge-place.left", "9 m"))

    def test_a_twisted_crank_names_the_web_and_the_angle_and_what_the_needles_should_read(self):
        self.hands.set_up()
        self.hands.turn(twist=0.15, offset=0.004)
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("out", "Webs are twisted"))
        self.assertIn("Strike the rim of the magneto side web at 270°, toward the axis.", verdict.next_step)
        self.assertRegex(verdict.detail, r"The needles should then read \d µm and \d µm")
        self.assertIn("over the limit of 0.030 mm", verdict.reason)

    def test_the_zero_of_the_gauge_and_an_oval_seat_change_no_move(self):
        self.hands.set_up()
        self.hands.turn(twist=-0.15, ovality=0.01, zero=0.4)
        work = self.hands.work()
        self.assertAlmostEqual(work.analysis.mis.twist_deg, -0.15, places=3)
        self.assertAlmostEqual(work.analysis.fitted("left").ovality_mm, 0.01, places=4)
        self.assertIn("at 90°", work.displayed_verdict().next_step)

    def gap_opposite_mm(self, crank, rim_mm=60.0):
        """Return how much wider than parallel the webs are at their rims opposite the crankpin; each web is square to its shaft."""

        def slope(near, far):
            return (bend_at(crank.truth.bent, crank.geometry, far).real - bend_at(crank.truth.bent, crank.geometry, near).real) / (
                far - near
            )

        return rim_mm * (slope(20.0, 80.0) - slope(-80.0, -20.0))  # a shaft that rises toward the pin swings its web open opposite

    def test_webs_open_or_closed_opposite_the_crankpin_are_moved_at_that_place(self):
        self.hands.set_up()
        for pinch, headline, move, control in (
            (0.06, "Webs are open opposite the crankpin", "Squeeze the rims together opposite the crankpin", "squeeze"),
            (-0.06, "Webs are closed opposite the crankpin", "Wedge the rims apart opposite the crankpin", "wedge"),
        ):
            with self.subTest(headline):
                self.hands.turn(pinch=pinch)
                verdict = self.displayed_verdict()
                self.assertEqual(verdict.headline, headline)
                self.assertIn(move, verdict.next_step)
                self.assertIn(
                    f"{'open' if pinch > 0 else 'closed'} opposite the crankpin: {control} here", str(self.hands.work().drawing())
                )
                crank = Crank(1, Truth(Misalignment(0.0, pinch, 0.0, 0.0)))
                before = self.gap_opposite_mm(crank)
                crank.pull(control)
                self.assertEqual(before > 0, pinch > 0)
                self.assertLess(abs(self.gap_opposite_mm(crank)), abs(before))
                self.hands.tick_all()
                self.hands.act("again")

    def test_the_arrows_at_the_rims_point_the_way_that_closes_the_place(self):
        drawn = []
        sheet = SimpleNamespace(arrow=lambda tip, tail, *more: drawn.append((tip[0], tail[0])))
        for opening, side in ((1, -1), (1, 1), (-1, -1), (-1, 1)):
            _at_the_rims(sheet, 100.0 * side, 0.0, side, opening)
        inward = [abs(tip) < abs(tail) for tip, tail in drawn]
        self.assertEqual(inward, [True, True, False, False])

    def test_no_blow_before_gauges_are_lifted_and_each_is_written_with_what_was_expected(self):
        self.hands.set_up()
        self.hands.turn(twist=0.15)
        self.assertIn("gauges lifted", self.hands.act("again"))
        self.hands.tick_all()
        self.hands.act("again")
        work = self.hands.work()
        self.assertEqual((work.analysis.attempt, work.analysis.moves[0]["kind"], work.analysis.moves[0]["at_deg"]), (2, "strike", 270.0))
        self.assertEqual(work.displayed_verdict().headline, "Turn the crank")
        self.hands.turn(twist=0.01)
        self.assertIn("Round 1: strike", self.hands.page())
        self.assertEqual(self.displayed_verdict().headline, "Runout within limit")

    def test_back_and_forth_twice_asks_for_half_the_blow(self):
        self.hands.set_up()
        self.hands.tick_all()
        for twist in (0.15, -0.13):
            self.hands.turn(twist=twist)
            self.hands.act("again")
        self.hands.turn(twist=0.12)
        self.assertIn("50 % of the usual blow", self.displayed_verdict().next_step)

    def test_what_truing_cannot_cure_is_said_and_no_blow_prescribed(self):
        self.hands.set_up()
        self.hands.turn(twist=0.05, offset=0.08)
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("out", "Truing cannot cure it"))
        self.assertIn("Apart again", verdict.next_step)
        self.assertEqual([action.key for action in self.hands.work().actions()], ["sign"])

    def test_without_a_limit_on_the_card_there_is_no_verdict(self):
        Spec.objects.all().delete()
        self.hands.set_up()
        self.hands.turn(twist=0.02)
        work = self.hands.work()
        self.assertIsNone(work.analysis.call)
        self.assertIn("no limit on the card: no verdict here", work.displayed_verdict().reason)

    def test_a_coarse_gauge_near_the_limit_is_too_close_to_call(self):
        Gauge.objects.filter(kind="dial").update(resolution=0.02, repeatability=None)
        gauge = Gauge.objects.get(kind="dial")
        gauge.save()  # the shelves notice
        self.hands.set_up()
        self.hands.turn(twist=0.08)
        self.assertEqual(self.displayed_verdict().state, "too_close")

    def test_a_coarse_dial_is_read_at_twelve_angles_twice_round_and_ends_in_leave(self):
        Gauge.objects.filter(kind="dial").update(resolution=0.01, repeatability=None)
        Gauge.objects.get(kind="dial").save()
        self.hands.set_up()
        self.assertIn("twelve angles, twice round", self.hands.work().next_question.where)
        self.hands.turn(twist=0.005, offset=0.002)
        self.assertEqual((len(self.hands.work().analysis.angles()), self.hands.work().analysis.turns), (12, 2))
        self.assertEqual(self.hands.work().analysis.move.kind, "leave")
        self.assertNotIn("No blow yet", self.displayed_verdict().next_step)

    def test_a_slip_on_a_coarse_dial_is_read_again_and_trued_all_the_same(self):
        Gauge.objects.filter(kind="dial").update(resolution=0.01, repeatability=None)
        Gauge.objects.get(kind="dial").save()
        self.hands.set_up()
        self.hands.turn(twist=0.15, slips={("left", 120.0): 0.05})
        self.assertEqual((self.displayed_verdict().headline, self.displayed_verdict().state), ("Readings disagree", "too_close"))
        self.assertEqual(self.hands.work().actions()[0].words, "Read 120° again")
        self.hands.act("these")
        self.assertEqual(self.hands.work().next_question.key, "shaft-reading.left.120")
        self.hands.answer("shaft-reading.left.120", "0.01")
        self.hands.answer("shaft-reading.left.120", "0.01")
        self.assertIsNone(self.hands.work().analysis.suspect)
        self.assertEqual(self.displayed_verdict().headline, "Webs are twisted")

    def test_a_limit_meant_for_other_supports_judges_where_its_band_allows(self):
        self.hands.choose(held="seats")
        self.hands.set_up(
            ("support-place.left", "60"), ("gauge-place.left", "80"), ("support-place.right", "60"), ("gauge-place.right", "80")
        )
        self.assertEqual(self.hands.work().next_question.key, "limit-support-place")
        self.hands.answer("limit-support-place", "92")
        self.assertIn("stands on its support", self.hands.answer("limit-gauge-place", "92"))
        self.hands.answer("limit-gauge-place", "34")
        self.hands.turn(twist=0.2)
        self.assertEqual(self.displayed_verdict().state, "out")
        self.assertIn("is at most 0.016 mm here", self.displayed_verdict().reason)
        self.hands.tick_all()
        self.hands.act("again")
        self.hands.turn(offset=0.001)
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("in", "Runout within limit"))
        self.assertIn("0.030 mm for between centres is at least 0.010 mm here", self.displayed_verdict().reason)

    def test_swing_and_high_spot_are_enough_when_there_is_no_time(self):
        self.hands.choose(how="swing")
        self.hands.set_up()
        for key, text in (
            ("shaft-tir.left", "0.060"),
            ("high-spot.left", "75"),
            ("shaft-tir.right", "0.050"),
            ("high-spot.right", "262"),
        ):
            self.hands.answer(key, text)
        mis = self.hands.work().analysis.mis
        self.assertAlmostEqual(mis.twist_deg, 0.1684, places=3)
        self.assertIn("at 270°", self.displayed_verdict().next_step)

    def test_signed_it_carries_every_number_and_the_moves(self):
        self.hands.set_up()
        self.hands.tick_all()
        self.hands.turn(twist=0.15)
        self.hands.act("again")
        self.hands.turn(twist=0.01, offset=0.002)
        self.hands.answer("joint-lock", "plain")
        self.hands.act("sign")
        result = self.hands.entry.result
        self.assertEqual((result["rounds"], len(result["moves"]), result["joint"]), (2, 1, "plain"))
        self.assertEqual(self.hands.entry.call_state, "in")
        self.assertContains(self.hands.client.get(f"/entries/{self.hands.entry.pk}/sheet/"), "Runout, drive side")
        content = self.hands.entry.record.content
        left, right = [each for each in content["figures"] if each["key"].startswith("told")]
        self.assertEqual(
            (left["words"], left["limits"], left["source"], left["state"]),
            ("Runout (TIR), drive side", "max 0.030 mm", "manual page 44", "in"),
        )
        self.assertGreater(float(left["value"].split()[0]), 3 * float(left["left"].split()[0]))
        self.assertEqual(max(left["left"], right["left"]), f"{result['raw_swing_mm']:.3f} mm")

    def test_the_drawing_bends_and_shows_where_to_strike(self):
        work = self.hands.work()
        self.assertIn("it will bend here", str(work.drawing()))
        self.hands.set_up()
        self.hands.turn(twist=0.15)
        work = self.hands.work()
        work.papers = ("wide", "narrow")
        drawing = str(work.drawing())
        self.assertEqual(drawing.count(">strike<"), 2)
        self.assertRegex(drawing, r"bend drawn ×\d+, seen across the throw")
        self.assertNotIn("nan", drawing)

    def test_the_support_moved_onto_the_gauge_is_refused_too_and_the_old_place_stands(self):
        self.hands.set_up()
        self.assertIn("stands on its support", self.hands.answer("support-place.right", "34.1"))
        self.assertEqual(self.hands.work().analysis.geometry.support_right_mm, 92)

    def test_an_unknown_stroke_is_asked_and_a_round_left_half_read_says_nothing(self):
        EngineCard.objects.update(stroke_mm=None)
        self.hands.set_up()
        self.assertEqual(self.hands.work().next_question.key, "stroke")
        self.hands.answer("stroke", "2.283 in")
        self.assertAlmostEqual(self.hands.work().analysis.geometry.throw_mm, 29, places=1)
        for angle in TURN[:5]:
            self.hands.answer(reading("left", angle).key, "0.01")
        work = self.hands.work()
        self.assertEqual((work.analysis.mis, work.displayed_verdict().headline, work.actions()), (None, "Turn the crank", ()))

    def test_a_reading_withdrawn_takes_the_call_with_it(self):
        self.hands.set_up()
        self.hands.turn(twist=0.15)
        self.assertEqual(self.displayed_verdict().headline, "Webs are twisted")
        self.hands.post("undo")
        self.assertEqual(
            (self.displayed_verdict().headline, self.hands.work().open_questions()[-2].key), ("Turn the crank", "shaft-reading.right.315")
        )

    def test_a_crank_of_one_piece_is_written_down_by_hand(self):
        EngineCard.objects.update(crank="one_piece")
        self.assertContains(self.hands.client.get("/jobs/0412/true/"), "Gauge lifted and crank off its supports before any blow")

    def test_a_turn_that_misses_its_own_beginning_is_a_slipped_gauge_and_no_blow(self):
        self.hands.set_up()
        self.hands.turn(twist=0.15)
        first = self.hands.work().answers.value("shaft-reading.left.0")
        self.hands.answer("shaft-reading.left.360", f"{first + 0.02:.4f}")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("too_close", "Readings disagree"))
        self.assertIn("Drive side: back at the start it reads 0.020 mm higher: the gauge or a support has slipped", verdict.reason)
        self.assertIn("No blow", verdict.next_step)
        self.assertEqual([action.key for action in self.hands.work().actions()], ["again"])
        self.assertIn("slipped", self.hands.act("sign"))
        self.hands.act("again")
        self.assertEqual(self.hands.work().analysis.moves[0]["kind"], "again")

    def test_one_wrong_reading_is_named_and_reading_it_again_brings_the_call_back(self):
        self.hands.set_up()
        self.hands.turn(twist=0.15)
        good = self.hands.work().answers.value("shaft-reading.right.135")
        self.hands.answer("shaft-reading.right.135", f"{good + 0.03:.4f}")
        verdict = self.displayed_verdict()
        self.assertIn("Magneto side: the reading at 135° does not fit", verdict.reason)
        self.assertEqual(verdict.next_step, "No blow: take the readings at 90°, 135° and 180° again.")
        self.hands.answer("shaft-reading.right.135", f"{good:.4f}")
        self.assertEqual(self.displayed_verdict().headline, "Webs are twisted")

    def test_a_limit_for_another_set_up_gives_no_verdict(self):
        self.hands.choose(held="seats")
        self.hands.set_up()
        self.hands.turn(twist=0.01)
        work = self.hands.work()
        self.assertIsNone(work.analysis.call)
        self.assertIn("the card's limit is for between centres: no verdict here", work.displayed_verdict().reason)

    def test_how_the_manual_words_it_decides_nothing(self):
        Spec.objects.filter(property="crank-runout").update(setup="not in vees, between centres", held="centres")
        self.hands.set_up()
        self.hands.turn(twist=0.01)
        self.assertEqual(self.hands.work().analysis.call.state, "in")
        Spec.objects.filter(property="crank-runout").update(held="seats", setup="")
        self.assertIn("the card's limit is for on the main bearing seats", self.displayed_verdict().reason)

    def test_a_call_too_close_is_settled_by_more_turns(self):
        Gauge.objects.filter(kind="dial").update(resolution=0.002, repeatability=0.002)
        Gauge.objects.get(kind="dial").save()
        self.hands.set_up()
        self.hands.turn(twist=0.1)
        self.skip_closing()
        work = self.hands.work()
        Spec.objects.update(high=work.analysis.raw_mm + 0.7 * math.sqrt(2) * work.analysis.reading_u_mm)
        work = self.hands.work()
        self.assertEqual((work.analysis.call.state, work.displayed_verdict().headline), ("too_close", "Too close to call"))
        needed = work.analysis.settled_by
        self.assertIn(f"{needed} turns in all", work.displayed_verdict().next_step)
        self.hands.act("turn")
        self.assertEqual(self.hands.work().next_question.key, "shaft-reading.left.0")
        self.hands.turn(twist=0.1)
        work = self.hands.work()
        self.assertEqual((len(work.answers.values("shaft-reading.left.0")), work.next_question.key), (needed, "joint-lock"))
        self.assertIn(work.analysis.call.state, ("in", "out"))
        self.assertIsNone(work.analysis.settled_by)

    def test_the_swing_is_held_against_the_clearance_the_bearing_has_left(self):
        self.hands.set_up()
        self.hands.turn(twist=0.3)
        self.assertIn("the bearing has left warm: it is loaded at every turn", self.displayed_verdict().detail)
        labels = [source.label for source in self.hands.work().sources()]
        self.assertIn("Bearing's clearance, warm", labels)

    def test_what_the_last_blow_did_is_said_before_the_next(self):
        self.hands.set_up()
        self.hands.tick_all()
        self.hands.turn(twist=0.2)
        self.hands.act("again")
        self.hands.turn(twist=0.15)
        self.assertIn("took 25 % of the twist it was for: a little harder", self.displayed_verdict().detail)
        self.hands.act("again")
        self.hands.turn(twist=-0.1)
        self.assertIn("went 1.7 times as far as the twist it was for: softer", self.displayed_verdict().detail)
        self.assertIn("expected, ", " ".join(source.source for source in self.hands.work().sources()))

    def test_a_compounded_joint_cures_on_a_clock_that_outlives_the_signature(self):
        self.hands.set_up()
        self.hands.turn(twist=0.01)
        self.skip_closing()
        self.hands.answer("joint-lock", "compound")
        self.assertEqual(self.hands.work().actions()[0].key, "cure")
        self.hands.act("cure")
        self.hands.answer("note", "")
        self.hands.act("sign")  # nothing was struck: what is ticked before a blow does not keep it open
        self.assertTrue(self.hands.entry.is_signed)
        timer = self.hands.entry.timers.get(key="cure")
        self.assertIsNone(timer.ended_at)
        self.assertIn("joint has cured", self.hands.page())
        self.assertTrue(timer.long_over(timer.due_at + timedelta(hours=13)))

    def test_a_welded_joint_is_measured_again_before_it_is_signed(self):
        self.hands.set_up()
        self.hands.turn(twist=0.01)
        self.skip_closing()
        self.hands.answer("joint-lock", "weld")
        self.assertEqual((self.displayed_verdict().headline, self.displayed_verdict().state), ("Measure it after the weld", "wait"))
        self.hands.act("sign")
        self.assertFalse(self.hands.entry.is_signed)
        self.hands.act("again")
        self.hands.turn(twist=0.3)
        self.assertNotEqual(self.displayed_verdict().state, "in")  # the weld has pulled it
        self.assertEqual(self.hands.work().analysis.joint, "weld")
        self.hands.tick_all()
        self.hands.act("again")
        self.hands.turn(twist=0.01)
        self.assertEqual(self.displayed_verdict().state, "in")
        self.hands.answer("note", "")
        self.hands.act("sign")
        self.assertTrue(self.hands.entry.is_signed)

    def test_what_was_left_out_of_one_round_is_asked_in_the_next(self):
        self.hands.set_up()
        self.hands.tick_all()
        self.hands.turn(twist=0.15)
        self.skip_closing()
        self.hands.act("again")
        self.hands.turn(twist=0.15)
        self.assertEqual(self.hands.work().next_question.key, "shaft-reading.left.360")

    def skip_closing(self):
        for key in ("shaft-reading.left.360", "shaft-reading.right.360"):
            self.hands.answer(key, "")
