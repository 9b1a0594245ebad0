from __future__ import annotations

from datetime import timedelta

from django.test import TestCase
from django.utils import timezone

from shopmath.case_closing import Bolt, bolt_order
from stator.engines.models import EngineCard, Fitted, Mark
from stator.jobs.models import Timer, TrayPlace
from stator.shop.models import Compound
from stator.stations.close_crankcase.analysis import torque_of
from stator.stations.split_crankcase.tests import Halves, face
from tests.factories import job, person


class Closer(Halves):
    """Hands at Close."""

    key = "close"

    def round(self, stage, text=""):
        for mark in self.work().analysis.ordered:
            self.answer(torque_of(mark, stage + 1).key, text)


class CloseCase(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end", x_mm=-30, y_mm=0)
        face(self.made.card)
        Mark.objects.filter(what="bolt").update(torque_nm=10)
        self.sealant = Compound.objects.create(name="Case sealant", kind="solvent", open_s=600)
        self.hands = Closer(self.made)

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def ready(self):
        self.hands.answer("gears", "all")
        self.hands.tick_all()


class Close(CloseCase):
    def test_a_place_on_the_tray_not_emptied_is_stop(self):
        place = TrayPlace.objects.create(job=self.made, number=1, name="thrust washer", client_key="a", by=person())
        self.ready()
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("stop", "Still on the tray"))
        self.assertIn("1 thrust washer", verdict.reason)
        self.assertIn("thrust washer", self.hands.act("close"))
        TrayPlace.objects.filter(pk=place.pk).update(emptied_at=timezone.now())
        self.assertEqual(self.displayed_verdict().headline, "Close it")

    def test_a_gear_that_does_not_select_is_stop_while_it_is_open(self):
        self.hands.answer("gears", "not")
        self.hands.answer("gear-fault", "third, fork 2")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().reason), ("stop", "Third, fork 2"))

    def test_faces_and_dowels_are_ticked_before_the_sealant(self):
        self.hands.answer("gears", "all")
        self.assertIn("Both faces clean", self.displayed_verdict().reason)
        self.assertIn("Both faces clean", self.hands.act("close"))
        self.assertFalse(self.hands.work().analysis.is_closing)

    def test_a_round_in_which_all_went_alike_is_one_act_and_a_bolt_that_did_not_is_measured(self):
        self.ready()
        self.hands.act("close")
        self.hands.act("round")
        self.assertEqual(self.hands.work().analysis.done, 5)
        odd = self.hands.work().analysis.ordered[2]
        self.hands.answer(torque_of(odd, 2).key, "6 Nm")
        self.hands.act("round")
        self.assertIn("Round 3 of 3: all 5 bolts are done", self.hands.page())
        self.hands.act("round")
        work = self.hands.work()
        self.assertEqual((work.displayed_verdict().headline, len(work.readings)), ("Case is closed", 2))  # the gears, and the odd one
        self.hands.act("sign")
        self.assertEqual(set(self.hands.entry.result["torque_nm"].values()), {10.0})

    def test_no_round_is_done_once_the_sealant_has_set(self):
        self.ready()
        self.hands.choose(sealant=str(self.sealant.pk))
        self.hands.act("close")
        Timer.objects.update(started_at=timezone.now() - timedelta(hours=2), due_at=timezone.now() - timedelta(hours=1))
        self.assertIn("set", self.hands.act("round"))
        self.assertEqual(self.hands.work().analysis.done, 0)

    def test_bolts_come_in_the_computed_order_round_after_round(self):
        self.ready()
        self.hands.act("close")
        work = self.hands.work()
        bolts = [Bolt(mark.name, mark.x_mm, mark.y_mm) for mark in self.made.card.marks.filter(what="bolt")]
        self.assertEqual([mark.name for mark in work.analysis.ordered], list(bolt_order(bolts)))
        first = work.analysis.ordered[0]
        self.assertEqual((work.next_question.key, work.next_question.text), (torque_of(first, 1).key, f"Bolt {first.name} to 4 N·m"))
        self.hands.round(0)
        self.assertEqual(self.hands.work().next_question.text, f"Bolt {first.name} to 7 N·m")
        self.hands.round(1)
        self.hands.round(2, "10 Nm")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline, verdict.reason), ("in", "Case is closed", "5 bolts in 3 rounds."))
        self.hands.act("sign")
        result = self.hands.entry.result
        self.assertEqual((len(result["order"]), set(result["torque_nm"].values())), (5, {10.0}))

    def test_the_sealants_open_time_runs_and_is_weighed_against_the_bolts(self):
        self.hands.choose(sealant=str(self.sealant.pk))
        self.ready()
        self.hands.act("close")
        work = self.hands.work()
        self.assertTrue(work.is_live())
        self.assertIn("10 min left before it sets", work.displayed_verdict().reason)
        began = timezone.now() - timedelta(seconds=520)
        Timer.objects.filter(key="open").update(started_at=began, due_at=began + timedelta(seconds=600))
        self.assertEqual(self.displayed_verdict().state, "stop")
        self.assertIn("it will set before the last bolt", self.displayed_verdict().reason)
        self.hands.round(0)
        self.assertNotEqual(self.displayed_verdict().state, "stop")  # the faces are together: it no longer counts

    def test_a_case_that_is_opened_again_is_closed_as_an_attempt_of_its_own(self):
        self.hands.choose(sealant=str(self.sealant.pk))
        self.ready()
        self.hands.act("close")
        self.hands.round(0, "4 Nm")
        began = timezone.now() - timedelta(seconds=700)
        Timer.objects.filter(key="open").update(started_at=began, due_at=began + timedelta(seconds=600))
        self.hands.act("again")
        work = self.hands.work()
        self.assertEqual(
            (work.answers.attempt, work.analysis.done, work.analysis.is_closing, work.next_question.key), (2, 0, False, "gears")
        )
        self.assertIn("Both faces clean", self.hands.work().blocking_check())  # faces are cleaned anew too
        self.ready()
        self.hands.act("close")
        clock = Timer.objects.get(key="open", attempt=2)
        self.assertIsNone(clock.ended_at)
        for number in range(3):
            self.hands.round(number)
        self.hands.answer("squeezed-out", "hidden")
        self.hands.act("sign")
        readings = self.hands.entry.readings.filter(property="bolt-torque", withdrawn_at=None)
        self.assertEqual({each.attempt for each in readings}, {1})  # what was read before stays written
        values = self.hands.entry.record.content["figures"]
        self.assertIn("Done as asked and not read: 5 places", {line["words"] for line in values})
        self.assertEqual(self.hands.entry.record.content["unmeasured"], 0)

    def test_each_passage_may_have_its_own_sealant_and_the_first_to_skin_sets_the_clock(self):
        silicone = Compound.objects.create(name="Red silicone", kind="silicone", open_s=480)
        anaerobic = Compound.objects.create(name="Purple flange", kind="anaerobic")
        self.ready()
        self.hands.choose(sealant=str(silicone.pk))
        self.hands.choose(**{"sealant-at-water": str(anaerobic.pk)})
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "That sealant does not hold there"))
        self.hands.choose(sealant=str(anaerobic.pk))
        self.hands.choose(**{"sealant-at-water": str(silicone.pk)})
        work = self.hands.work()
        self.assertEqual(
            [(film.place, film.product.name) for film in work.analysis.films], [("crank", "Purple flange"), ("water", "Red silicone")]
        )
        self.assertIn("Purple flange and Red silicone", work.displayed_verdict().next_step)
        self.assertIn("must not meet", " ".join(each.words for each in work.warnings()))
        self.assertIn("rub it off", " ".join(each.source for each in work.sources()))
        self.hands.act("close")
        clock = Timer.objects.get(key="open")
        self.assertEqual((clock.due_at - clock.started_at).total_seconds(), 480)

    def test_a_hole_left_open_is_ticked_before_the_case_is_closed(self):
        Fitted.objects.create(card=self.made.card, name="Oil gallery, front", kind="hole", d_mm=8, length_mm=10, half="right")
        self.hands.answer("gears", "all")
        for key in ("clean", "in"):
            self.hands.post("tick", key=key, on="1")
        self.assertIn("meant to stay open: Oil gallery, front", self.displayed_verdict().reason)
        self.assertIn("Oil gallery", self.hands.act("close"))

    def test_what_squeezed_inside_is_asked_for_before_it_skins(self):
        self.hands.choose(sealant=str(self.sealant.pk))
        self.ready()
        self.assertIn("5 min until it is tacky", self.displayed_verdict().next_step)
        self.assertEqual(self.hands.work().analysis.faces, "both")
        self.hands.act("close")
        self.hands.act("round")
        self.assertEqual(self.hands.work().next_question.key, "squeezed-out")
        self.hands.answer("squeezed-out", "skinned")
        self.assertIn("blocks oil ways", " ".join(each.words for each in self.hands.work().warnings()))

    def test_more_than_the_manual_is_weighed_and_wants_its_reason(self):
        self.hands.choose(school="more")
        self.hands.answer("gears", "all")
        self.hands.answer("bolt-torque-instead", "18 Nm")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("stop", "Too much torque"))
        self.hands.answer("bolt-torque-instead", "11 Nm")
        self.assertEqual(self.hands.work().next_question.key, "reason")
        self.hands.answer("reason", "longer bolts, thread inserts")
        self.assertIn("longer bolts", " ".join(source.source for source in self.hands.work().sources()))

    def test_a_card_without_torques_asks_for_it_once(self):
        Mark.objects.update(torque_nm=None)
        self.hands.answer("gears", "none")
        self.assertEqual(self.hands.work().next_question.key, "bolt-torque-wanted")
        self.assertIn("not believable", self.hands.answer("bolt-torque-wanted", "900 Nm"))
        self.hands.answer("bolt-torque-wanted", "86 in-lb")
        self.assertAlmostEqual(self.hands.work().analysis.torque(self.hands.work().analysis.ordered[0]), 9.717, places=2)

    def test_a_card_without_bolts_says_where_to_put_them(self):
        Mark.objects.all().delete()
        self.hands.answer("gears", "all")
        self.assertEqual(self.displayed_verdict().headline, "No bolts on the card")

    def test_a_case_of_iron_strips_later(self):
        self.hands.answer("gears", "all")
        aluminium = self.hands.work().analysis.loads[0][1].strip_n
        EngineCard.objects.update(case_material="gjl-250")
        self.assertGreater(self.hands.work().analysis.loads[0][1].strip_n, aluminium)

    def test_silicone_is_warned_of_where_petrol_wets(self):
        silicone = Compound.objects.create(name="Clear silicone", kind="silicone", open_s=600)
        self.hands.choose(sealant=str(silicone.pk))
        self.assertIn("Silicone swells in petrol", self.hands.page())

    def test_the_drawing_numbers_the_order_and_rings_the_rounds(self):
        self.ready()
        self.hands.act("close")
        self.hands.round(0)
        drawing = str(self.hands.work().drawing())
        self.assertIn(">5.<", drawing)
        self.assertEqual(drawing.count('class="ring"'), 10)  # five bolts on two papers
