"""Tests of a heat for a case half: the other half, windows that close without a result, and assembled parts."""

from __future__ import annotations

from django.db import connection
from django.test.utils import CaptureQueriesContext

from stator.engines.models import Fitted, Seat
from stator.shop.models import Driver, Heater
from stator.stations.install_with_heat.case_half.tests import AtTheSheet
from tests.factories import Hands


class BothHalves(AtTheSheet):
    def setUp(self):
        super().setUp()
        Seat.objects.create(card=self.job.card, name="Main, magneto side", role="main", designation="6206", code="N7", half="right")

    def home(self):
        self.opened()
        while self.now():
            self.say("in" if self.now().endswith("circlip") else "dropped")

    def test_each_half_has_its_tab_and_its_own_parts(self):
        self.assertEqual([option.key for option in self.work().tabs().options][:2], ["left", "right"])
        self.hands.choose(tab="right")
        self.assertEqual([part.name for part in self.work().analysis.parts], ["Main, magneto side"])
        self.assertEqual(self.work().displayed_verdict().headline, "It goes in one heat")

    def test_after_one_half_the_other_is_offered_and_heated_as_a_heat_of_its_own(self):
        self.home()
        self.assertIn("Now the magneto side half", [action.words for action in self.work().actions()])
        self.hands.act("other")
        work = self.work()
        self.assertEqual((work.analysis.half, work.answers.attempt, work.analysis.phase, len(work.analysis.parts)), ("right", 2, "plan", 1))
        self.home()
        self.assertFalse(self.work().analysis.other_left)
        self.assertEqual({reading.attempt for reading in self.work().readings if reading.property == "fit-outcome"}, {1, 2})

    def test_the_half_cannot_be_changed_while_something_is_hot(self):
        self.opened()
        self.hands.choose(tab="right")
        self.assertEqual(self.work().analysis.half, "left")

    def test_a_bearing_home_on_its_own_page_is_no_longer_offered(self):
        drum = Hands(self.job)
        drum.seat = Seat.objects.get(name="Selector drum")
        drum.address = f"/jobs/{self.job.tag}/heat-and-drop/{drum.seat.pk}/"
        drum.choose(heater="none", chiller="none")
        drum.tick_all()
        drum.act("open")
        drum.keep("outcome", "dropped")
        self.assertNotIn("Selector drum", [part.name for part in self.work().analysis.parts])


class WhatElseCanHappen(AtTheSheet):
    def test_those_whose_window_closed_are_asked_for_one_after_another(self):
        self.opened()
        self.say(after_s=1500)
        while self.now():
            self.say("in" if self.now().endswith("circlip") else "dropped", after_s=1)
        questions = [question.key for question in self.work().open_questions() if question.slot.what in ("fit-outcome", "circlip")]
        self.assertEqual(questions, [self.ask_of(part.key) for part in self.work().analysis.unsaid])
        self.assertGreater(len(questions), 0)
        self.hands.keep(questions[0], "dropped")  # it went in after all, in the last moment
        self.assertNotIn(questions[0], [question.key for question in self.work().open_questions()])

    def test_a_signed_sheet_is_read_also_when_its_oven_is_gone(self):
        self.opened()
        while self.now():
            self.say("in" if self.now().endswith("circlip") else "dropped")
        self.hands.keep("note", "went well")
        self.hands.act("sign")
        Heater.objects.filter(method="oven").update(retired=True)
        self.assertIn("Signed by Una", self.hands.page())
        self.assertIn("dropped in", self.hands.readings())

    def test_must_get_in_even_where_others_lose_their_turn(self):
        self.hands.keep("target", "75 C")
        loose = self.work().analysis.core_sheet
        self.assertTrue(loose.left_out)
        lost = self.work().analysis.part(loose.left_out[0])
        self.hands.choose(**{f"part-{lost.key}": "must-"})
        self.assertTrue(self.work().analysis.part(lost.key).must)

    def test_a_painted_case_is_kept_under_what_paint_stands(self):
        type(self.job.card).objects.update(painted=True)
        self.job.refresh_from_db()
        plan = self.work().analysis.plan
        self.assertEqual((plan.ceiling_c, plan.ceiling_why), (140, "paint"))

    def test_a_driver_of_the_shop_is_named_and_one_that_is_missing_said_by_its_size(self):
        self.assertIn("driver 53 to 62 mm", str(self.work().drawing()))
        Driver.objects.create(name="60 tube", outside_mm=60, inside_mm=48)
        self.assertIn("60 tube", str(self.work().drawing()))

    def test_the_run_screen_says_where_the_marking_looks(self):
        self.opened()
        seen = {}
        while self.now():
            here = self.work().analysis.live_heat.here
            seen[here.name] = str(self.work().drawing())
            self.say("in" if here.is_circlip else "dropped")
        self.assertIn("toward you", seen["Gearbox input"])  # marking in, from inside
        self.assertIn("away from you", seen["Main, drive side"])  # marking out, from inside
        self.assertIn("toward you", seen["Gearbox output"])  # marking out, from outside
        self.assertIn("nobody has said", seen["Selector drum"])
        self.assertIn("pliers", seen["Circlip, Main, drive side"])

    def test_few_questions_are_put_to_the_database(self):
        self.opened()
        signed_in, address = self.hands.client, self.hands.address
        with CaptureQueriesContext(connection) as asked:
            signed_in.get(address)
        self.assertLessEqual(len(asked), 19, [query["sql"][:80] for query in asked])


class Assemblies(AtTheSheet):
    def take(self, pk):
        self.hands.choose(tab=pk)

    def test_the_order_on_a_spindle_is_drawn_and_another_is_out(self):
        self.take(self.spindle)
        drawing = str(self.work().drawing()).lower()
        self.assertLess(drawing.index("washer"), drawing.index("spring washer"))
        self.hands.keep(f"pieces-order.{self.spindle}", "other")
        self.assertEqual(self.work().displayed_verdict().state, "out")

    def test_a_flat_is_judged_against_its_direction(self):
        self.take(self.spindle)
        for typed, state in (("93", "in"), ("94.6", "too_close"), ("80", "out"), ("-270", "in")):
            self.hands.keep(f"direction.{self.spindle}", typed)
            self.assertEqual(self.work().displayed_verdict().state, state, typed)
        self.assertIn("measured", str(self.work().drawing()))

    def test_a_groove_may_lead_with_either_end(self):
        Fitted.objects.filter(uid=self.spindle).update(either_end=True, turned="groove")
        self.take(self.spindle)
        self.hands.keep(f"direction.{self.spindle}", "271")
        self.assertEqual(self.work().displayed_verdict().state, "in")

    def test_end_depth_and_side_play(self):
        self.take(self.spindle)
        self.hands.keep(f"end-depth.{self.spindle}", "0.9")
        self.assertEqual(self.work().displayed_verdict().state, "out")
        self.hands.keep(f"end-depth.{self.spindle}", "0.1")
        self.assertEqual(self.work().displayed_verdict().state, "in")
        self.hands.keep(f"spindle-play.{self.spindle}", "none")
        self.assertIn("the parts bind", self.work().displayed_verdict().reason)

    def test_rubber_goes_in_with_soap_in_the_middle(self):
        self.take(self.bush)
        self.hands.keep(f"bush-lubricant.{self.bush}", "oil")
        self.assertEqual(self.work().displayed_verdict().state, "stop")
        self.hands.keep(f"bush-lubricant.{self.bush}", "soap")
        self.hands.keep(f"stands-out.{self.bush}.inside", "2.0")
        self.hands.keep(f"stands-out.{self.bush}.outside", "3.4")
        self.assertEqual(self.work().displayed_verdict().state, "out")
        self.hands.keep(f"stands-out.{self.bush}.outside", "2.1")
        self.assertEqual(self.work().displayed_verdict().state, "in")
        self.assertIn("not believable", self.hands.keep(f"stands-out.{self.bush}.inside", "3 m"))
