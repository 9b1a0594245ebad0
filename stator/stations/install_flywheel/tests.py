from __future__ import annotations

from django.test import TestCase

from stator.engines.models import EngineCard, Spec
from stator.engines.properties import Property
from stator.jobs.facts import Fact, Facts, Origin
from stator.stations.framework import StationInput
from stator.stations.install_flywheel.analysis import Code, at, flywheel_on_facts
from stator.stations.remove_flywheel.tests import WheelCase
from stator.stations.split_crankcase.tests import Halves
from tests.factories import job

KEYS = {  # short names for the questions
    "blue": "contact-share",
    "large": "contact-at-large-end",
    "key": "key-condition",
    "step": "key-step",
    "cone": "cone-diameter",
    "asked": "torque-to-carry",
    "torque": "nut-torque",
    "runout": "rim-runout",
    "gap": "air-gap",
}


class Fitter(Halves):
    """A mechanic at Install flywheel."""

    key = "flywheel-on"

    def answer(self, ask, text):
        return super().answer(KEYS.get(ask, ask), text)

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

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def test_a_poor_contact_is_lapped_and_blued_again(self):
        self.hands.blued("55")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("too_close", Code.LAP))
        self.assertIn("without its key", verdict.next_step)
        self.hands.act("lapped")
        self.assertEqual(self.hands.work().next_question.key, "contact-share")
        self.hands.blued("75")
        self.assertEqual(self.displayed_verdict().state, "wait")
        self.assertEqual(self.hands.entry.readings.filter(ask="contact-share").count(), 2)  # how it was found stays

    def test_hollow_at_the_large_end_is_out_whatever_it_shows(self):
        self.hands.blued("90", "no")
        self.assertEqual(self.displayed_verdict().state, "out")
        self.assertIn("rock", self.displayed_verdict().reason)
        self.assertIn("not believable", self.hands.answer("blue", "140"))

    def test_the_taper_carries_what_is_asked_or_would_slip(self):
        self.hands.blued()
        self.hands.answer("key", "sound")
        self.hands.answer("asked", "60 Nm")
        work = self.hands.work()
        self.assertEqual(work.analysis.holds.call.state, "in")
        self.hands.answer("asked", "300 Nm")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().code), ("out", Code.TAPER_SLIPS))
        self.assertIn("Taper", self.hands.act("sign"))

    def test_what_the_wheel_s_inertia_asks_stands_beside_what_the_taper_carries(self):
        EngineCard.objects.filter(pk=self.made.card_id).update(wheel_kg=1.9, wheel_rpm=8500)
        card = EngineCard.objects.get(pk=self.made.card_id)
        self.assertIsNone(flywheel_on_facts(StationInput(card)).asks)  # its rim was not measured
        rim = Fact(slot=at(Property.RIM_DIAMETER), value=124.0, text="", origin=Origin.MEASURED)
        asks = flywheel_on_facts(StationInput(card, Facts(derived=[rim]))).asks
        self.assertEqual([round(each) for each in (asks.low, asks.likely, asks.high)], [14, 35, 93])

    def test_a_worn_key_moves_the_spark_and_a_stepped_one_says_by_how_much(self):
        self.hands.blued()
        self.hands.answer("key", "sheared")
        self.hands.answer("step", "0.4")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().code), ("out", Code.TIMING))
        self.assertIn("Fit a new key", self.displayed_verdict().next_step)
        self.hands.answer("key", "stepped")
        self.assertEqual(self.displayed_verdict().state, "too_close")
        self.assertIn("advances the ignition by 2.9°", self.displayed_verdict().reason)
        self.assertIn("2.9°", str(self.hands.work().drawing()))

    def test_a_nut_off_its_torque_and_a_gap_off_its_figure(self):
        Spec.objects.create(card=self.made.card, name="Air gap", property="air-gap", low=0.3, high=0.4, source="page 70")
        self.hands.blued()
        self.hands.answer("key", "sound")
        for key in ("cone", "asked"):
            self.hands.answer(key, "")
        self.hands.answer("torque", "40 Nm")
        self.assertEqual(
            (self.displayed_verdict().code, self.displayed_verdict().next_step), (Code.NUT, "Tighten it to the manual's torque.")
        )
        self.hands.answer("torque", "55 Nm")
        self.hands.answer("runout", "0.12")
        self.hands.answer("gap", "0.60")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().code), ("out", Code.AIR_GAP))
        self.hands.answer("gap", "0.35")
        self.assertEqual(self.displayed_verdict().code, Code.ON)
        self.assertIn("recorded, not judged", " ".join(source.source for source in self.hands.work().sources()))
        self.hands.tick_all()
        self.hands.act("sign")
        self.assertEqual(self.hands.entry.result["rim_runout_mm"], 0.12)

    def test_a_straight_shaft_asks_no_blue(self):
        EngineCard.objects.update(cone="straight")
        self.made.refresh_from_db()
        self.assertEqual(self.hands.work().next_question.key, "key-condition")


class TheKeyThatCameOff(WheelCase):
    """Tests with a key whose offset of 0.35 mm was found at removal."""

    def setUp(self):
        super().setUp()
        self.off(key="stepped", step="0.35")
        self.hands.act("sign")
        self.on = Fitter(self.hands.job)
        self.on.blued()

    def test_it_is_offered_with_where_it_was_found_and_enter_uses_it(self):
        page = self.on.page()
        self.assertIn("Flywheel off has stepped on purpose", page)
        self.on.answer("key", "")
        self.assertIn("Flywheel off has 0.35 mm", self.on.page())
        self.on.answer("step", "")
        work = self.on.work()
        self.assertAlmostEqual(work.analysis.step_mm, 0.35)
        step = work.entry.readings.get(property=Property.KEY_STEP)
        self.assertEqual(step.carried_from.entry.station.key, "flywheel-off")  # counted once, where it was measured

    def test_called_sound_after_a_signed_step_it_is_stop_until_someone_looks(self):
        self.on.answer("key", "sound")
        verdict = self.on.work().displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("stop", Code.KEY_DIFFERS))
        self.assertIn("found this key stepped, stepped by 0.35 ± 0.02 mm", verdict.reason)
        self.assertIn("Key does not match", self.on.act("sign"))
        self.on.answer("key", "new")
        self.assertNotEqual(self.on.work().displayed_verdict().code, Code.KEY_DIFFERS)
