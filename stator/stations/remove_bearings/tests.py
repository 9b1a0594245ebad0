from __future__ import annotations

from django.test import TestCase

from stator.engines.models import Seal, Seat
from stator.shop.models import Chiller, Driver, Extractor, Press
from stator.stations.remove_bearings.analysis import Code
from stator.stations.split_crankcase.tests import AtSeat
from tests.factories import job


class Puller(AtSeat):
    """Hands at one seat."""

    key = "bearings-out"

    def answer(self, ask, text):
        """Answer a question by its property, with the clock position if it has one, for the seat or its seal."""
        needed = self.work().current_questions
        slots = [each.slot for each in needed if each.slot and each.slot.what == ask.partition("@")[0]]
        clock = ask.partition("@")[2]
        fact_key = next(each for each in slots if not clock or each.at.clock == int(clock))
        return super().answer(fact_key.key, text)

    def facts(self, retained="none", reach="open", shields="open", decision="scrap"):
        """Set the answers before anything is removed, with all checks ticked."""
        for question, text in (("retained-by", retained), ("reach", reach), ("shields", shields), ("bearing-decision", decision)):
            self.answer(question, text)

    def outcome(self, *answers):
        for question, text in answers:
            self.answer(question, text)


class BearingsOut(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end", designation="6205 C3")
        self.hands = Puller(self.made)

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def seal(self, **fields):
        found = {"name": "Crank seal", "shaft_mm": 25, "bore_mm": 40, "width_mm": 7, "lip": "inside", **fields}
        return Seal.objects.create(card=self.made.card, seat=self.hands.seat, **found)

    def test_a_needle_shell_is_drawn_out_by_a_collet_behind_it(self):
        Seat.objects.update(designation="HK2016", stop="through")
        Extractor.objects.create(name="Collets", kind="collet", low_mm=8, high_mm=32)
        self.hands.facts()
        self.assertEqual(self.hands.work().analysis.way.key, "collet")
        self.assertIn("a collet behind the shell", self.displayed_verdict().reason)

    def test_a_main_bearing_may_come_away_on_the_crank_and_another_may_not(self):
        self.hands.facts()
        self.hands.tick_all()
        self.hands.outcome(("came-out", "with_crank"), ("seat-condition", "sound"))
        self.assertEqual((self.displayed_verdict().headline, self.displayed_verdict().state), ("It stayed on the crank", "in"))
        self.assertIn("Pull it off the crank", self.displayed_verdict().next_step)
        self.assertTrue(self.hands.work().analysis.is_out)
        Seat.objects.update(role="gearbox")
        asked = next(each for each in self.hands.work().current_questions if each.slot and each.slot.what == "came-out")
        self.assertNotIn("with_crank", [each.key for each in asked.options])

    def test_the_gentlest_way_says_how_hot_and_why(self):
        self.hands.facts()
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("in", Code.DROP))
        self.assertRegex(verdict.next_step, r"Case to \d\d °C, \d\d+ °C for the tightest")
        self.assertIn("opens evenly", verdict.reason)

    def test_a_ring_that_grows_with_its_iron_case_is_sprayed_cold_instead(self):
        self.made.card.case_material = "gjl-250"
        self.made.card.save()
        self.hands.facts()
        work = self.hands.work()
        self.assertEqual((work.analysis.freeing.together, work.analysis.way.key), (None, "spray"))
        Chiller.objects.all().update(retired=True)
        for chiller in Chiller.objects.all():
            chiller.save()
        self.assertIn("no_spray", next(method for method in self.hands.work().analysis.ways if method.key == "spray").codes)

    def test_a_circlip_is_stop_until_it_is_out(self):
        self.hands.facts(retained="circlip")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("stop", Code.RETAINED))
        self.hands.answer("retained-by", "removed")
        self.assertEqual(self.displayed_verdict().state, "in")

    def test_a_blind_open_bearing_refuses_grease_and_driver_and_ranks_the_collet(self):
        Extractor.objects.create(name="Collets", kind="collet", low_mm=10, high_mm=30)
        self.hands.facts(reach="blind")
        refused = {method.key for method in self.hands.work().analysis.ways if method.state == "stop"}
        self.assertEqual(refused, {"drive", "hydraulic", "punch"})
        self.hands.choose(way="hydraulic")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("stop", Code.REFUSED))
        self.assertIn("grease goes past the balls", verdict.reason)

    def test_a_seal_is_looked_at_before_it_is_pulled(self):
        self.seal()
        self.assertEqual(self.displayed_verdict().code, Code.SEAL_FIRST)
        self.hands.answer("seal-lip", "outside")
        for clock, depth in (("12", "0.1"), ("3", "0.4"), ("6", "0.9"), ("9", "0.4")):
            self.hands.answer(f"seal-depth@{clock}", depth)
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("out", Code.SEAL_BAD))
        self.assertIn("deepest at 6", verdict.reason)
        self.hands.answer("seal-out", "yes")
        self.hands.answer("bearing-face-depth", "7.5")
        self.assertEqual(self.hands.work().analysis.seal_seat.clear.state, "out")  # 0.9 deep and 7 wide, the bearing 7.5 behind: it touched
        raised = {line["what"]: line["found"] for line in self.hands.work().contradictions()}
        self.assertEqual(raised["lip of Crank seal"], "to the outside")

    def test_a_seal_left_in_limits_the_heat(self):
        self.seal()
        self.hands.answer("seal-out", "no")
        self.assertEqual(self.hands.work().analysis.freeing.limit.what, "nitrile seal left in")

    def test_the_shop_s_driver_is_found_and_the_wrong_ones_are_told_why(self):
        good = Driver.objects.create(name="50 tube", outside_mm=50, inside_mm=41)
        solid = Driver.objects.create(name="Drift", outside_mm=50, inside_mm=0)
        work = self.hands.work()
        self.assertEqual(work.analysis.fitting, [good])
        self.assertIn("press on the inner ring", work.analysis.window.refusal(solid.outside_mm, solid.inside_mm))

    def test_hit_through_its_balls_it_is_replaced(self):
        self.hands.facts()
        self.hands.answer("came-out", "driven")
        self.hands.answer("hit-through-balls", "yes")
        self.hands.answer("seat-condition", "sound")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("out", Code.OUT_DAMAGED))
        self.assertIn("races are dented", verdict.reason)

    def test_cut_out_it_asks_why_and_cannot_be_signed_without(self):
        self.hands.facts()
        self.hands.choose(way="cut")
        self.hands.answer("came-out", "broke")
        self.hands.answer("hit-through-balls", "no")
        self.hands.answer("seat-condition", "sound")
        self.assertIn("why was no gentler way left", self.hands.act("sign").lower())
        self.hands.answer("reason", "Spun on its ring, collets slipped.")
        self.hands.answer("bearing-marking", "6205 C3")
        self.hands.answer("note", "")
        self.hands.act("sign")
        self.assertEqual(self.hands.entry.result["way"], "cut")

    def test_stuck_names_the_next_gentlest_way(self):
        self.hands.facts()
        self.hands.answer("came-out", "stuck")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("out", Code.STILL_IN))
        self.assertNotIn("Heat the case, let it drop", verdict.next_step)

    def test_stuck_the_next_way_is_a_key_and_its_answer_is_asked_anew(self):
        self.hands.facts()
        first = self.hands.work().analysis.way.key
        self.hands.answer("came-out", "stuck")
        tries = [action for action in self.hands.work().actions() if action.key.startswith("try-")]
        self.assertTrue(tries[0].main)
        self.hands.act(tries[0].key)
        found = self.hands.work().analysis
        self.assertEqual((found.way.key, found.tried, found.outcome), (tries[0].word, [first], ""))
        self.hands.answer("came-out", "stuck")
        self.assertNotIn(f"try-{first}", [action.key for action in self.hands.work().actions()])
        self.hands.act(self.hands.work().actions()[0].key)
        self.hands.answer("came-out", "driven")
        self.assertEqual(self.displayed_verdict().state, "wait")

    def test_another_marking_is_raised_and_stays_on_the_card_s_page(self):
        self.hands.facts()
        for key, text in (("came-out", "dropped"), ("seat-condition", "sound"), ("bearing-marking", "6205 C4"), ("note", "")):
            self.hands.answer(key, text)
        self.hands.act("sign")
        self.assertContains(self.hands.client.get("/jobs/0412/card/"), "marking of the bearing: found <b>6205 C4</b>")

    def test_on_a_shaft_it_is_pulled_by_the_inner_ring(self):
        Seat.objects.update(on="shaft", half="crank", code="k5")
        hands = Puller(self.made)
        hands.facts()
        work = hands.work()
        self.assertEqual((work.analysis.window.presses_on, work.analysis.way.codes[-1]), ("inner ring", "no_puller"))
        Press.objects.create(name="Bottle press", capacity_text="12 t", capacity_n=117_680)
        self.assertEqual(hands.work().analysis.way.key, "press")
        Extractor.objects.create(name="Knife edge", kind="puller", low_mm=20, high_mm=80)
        self.assertEqual(hands.work().analysis.way.key, "pull")
        self.assertEqual(hands.client.get(hands.address).status_code, 200)

    def test_an_impossible_depth_is_refused_in_words(self):
        self.seal()
        self.assertIn("is not believable", self.hands.answer("seal-depth@12", "5 m"))
