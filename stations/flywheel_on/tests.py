from __future__ import annotations

from django.test import TestCase

from engines.models import EngineCard, Spec
from stations.split.tests import Halves
from tests.shed import job


class Fitter(Halves):
    """Hands at Flywheel on."""

    key = "flywheel-on"

    def blued(self, share="80", large="yes"):
        self.answer("blue", share)
        self.answer("large", large)


class GoingOn(TestCase):
    """A 1:8 taper on a 16 mm shaft, M12 nut, 55 N·m."""

    def setUp(self):
        self.made = job(order="flywheel")
        facts = {"taper_ratio": 8, "cone": "taper", "nut_d_mm": 12, "nut_torque_nm": 55, "shaft_d_mm": 16}
        EngineCard.objects.filter(pk=self.made.card_id).update(**facts)
        self.made.refresh_from_db()
        self.hands = Fitter(self.made)

    def plate(self):
        return self.hands.work().plate()

    def test_a_poor_contact_is_lapped_and_blued_again(self):
        self.hands.blued("55")
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("too_close", "Lap it"))
        self.assertIn("no key", plate.move)
        self.hands.act("lapped")
        self.assertEqual(self.hands.work().next_ask.key, "blue")
        self.hands.blued("75")
        self.assertEqual(self.plate().state, "wait")
        self.assertEqual(self.hands.entry.readings.filter(ask="blue").count(), 2)  # how it was found stays

    def test_hollow_at_the_large_end_is_out_whatever_it_shows(self):
        self.hands.blued("90", "no")
        self.assertEqual(self.plate().state, "out")
        self.assertIn("rock", self.plate().line)
        self.assertIn("not believable", self.hands.answer("blue", "140"))

    def test_the_taper_carries_what_is_asked_or_would_slip(self):
        self.hands.blued()
        self.hands.answer("key", "sound")
        self.hands.answer("asked", "60 Nm")
        work = self.hands.work()
        self.assertEqual(work.holds.call.state, "in")
        self.hands.answer("asked", "300 Nm")
        self.assertEqual((self.plate().state, self.plate().words), ("out", "Would it slip?"))
        self.assertIn("Taper", self.hands.act("sign"))

    def test_a_worn_key_moves_the_spark_and_a_stepped_one_says_by_how_much(self):
        self.hands.blued()
        self.hands.answer("key", "worn")
        self.hands.answer("step", "0.4")
        self.assertEqual((self.plate().state, self.plate().words), ("out", "Timing moves"))
        self.assertIn("A new key", self.plate().move)
        self.hands.answer("key", "stepped")
        self.assertEqual(self.plate().state, "too_close")
        self.assertIn("2.9° ahead", self.plate().line)
        self.assertIn("+2.9°", str(self.hands.work().drawing()))

    def test_a_nut_off_its_torque_and_a_gap_off_its_figure(self):
        Spec.objects.create(card=self.made.card, name="Air gap", property="air-gap", low=0.3, high=0.4, source="page 70")
        self.hands.blued()
        self.hands.answer("key", "sound")
        for ask in ("cone", "asked"):
            self.hands.answer(ask, "")
        self.hands.answer("torque", "40 Nm")
        self.assertEqual((self.plate().words, self.plate().move), ("Nut", "To the manual's torque."))
        self.hands.answer("torque", "55 Nm")
        self.hands.answer("runout", "0.12")
        self.hands.answer("gap", "0.60")
        self.assertEqual((self.plate().state, self.plate().words), ("out", "Air gap"))
        self.hands.answer("gap", "0.35")
        self.assertEqual(self.plate().words, "It is on")
        self.assertIn("kept, not judged", [trace.source for trace in self.hands.work().traces()][-1])
        self.hands.tick_all()
        self.hands.act("sign")
        self.assertEqual(self.hands.entry.result["rim_runout_mm"], 0.12)

    def test_a_straight_shaft_asks_no_blue(self):
        EngineCard.objects.update(cone="straight")
        self.made.refresh_from_db()
        self.assertEqual(self.hands.work().next_ask.key, "key")
