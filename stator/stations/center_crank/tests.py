from __future__ import annotations

from django.test import TestCase

from stator.engines.models import Spec
from stator.shop.models import Blades, Gauge, PullIn
from stator.stations.set_end_play.tests import Stacker
from stator.stations.split_crankcase.tests import Halves
from tests.factories import job


class Centrer(Halves):
    """Hands at Centre."""

    key = "centre"


class CentreCase(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end")
        PullIn.objects.create(name="Crank puller", thread_mm=12, thread_pitch_mm=1.25, pitch_mm=1.5)
        Blades.objects.create(name="Feelers", kind="feeler", sizes_mm=[0.03, 0.05, 0.08, 0.1, 0.15, 0.2])
        Gauge.objects.filter(kind="feeler").update(repeatability=0.003)
        Gauge.objects.filter(kind="dial").update(resolution=0.002, repeatability=0.001)
        Gauge.objects.first().save()
        self.hands = Centrer(self.made)

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def gaps(self, left="0.15", right="0.16"):
        self.hands.answer("side-gap.left", left)
        self.hands.answer("side-gap.right", right)

    def held(self, first, second, vacuum_first="40", vacuum_second="39.5"):
        self.hands.answer("test-time", "5 min")
        readings = (("pressure.s1", first), ("pressure.s2", second), ("vacuum.s1", vacuum_first), ("vacuum.s2", vacuum_second))
        for key, text in readings:
            self.hands.answer(f"test-pressure.{key}", text)


class Centring(CentreCase):
    def test_the_move_is_half_the_difference_with_turns_side_and_blades(self):
        self.gaps("0.10", "0.34")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("out", "Crank is off centre"))
        self.assertEqual(verdict.next_step, "Move it 0.12 mm toward the magneto side: 0.08 of a turn.")
        self.assertEqual(verdict.detail, "Then 0.22 mm on both sides: blades 0.2 + 0.03 mm.")
        self.assertIn("shop rule", [source.source for source in self.hands.work().sources()])

    def test_nothing_more_is_asked_before_it_stands_in_the_middle(self):
        self.gaps("0.10", "0.34")
        self.assertNotIn("spin", [question.key for question in self.hands.work().questions()])
        self.assertIn("over the limit", self.hands.act("sign"))
        self.hands.act("again")
        self.assertEqual(self.hands.work().next_question.key, "side-gap.left")
        self.gaps("0.21", "0.22")
        self.assertEqual(self.hands.work().next_question.key, "spin")
        self.assertEqual(self.hands.entry.readings.filter(ask="side-gap.left", withdrawn_at=None).count(), 2)  # as it was found stays

    def test_hard_on_one_side_asks_no_gaps(self):
        self.hands.choose(school="hard")
        self.assertEqual(self.hands.work().next_question.key, "spin")

    def test_a_crank_that_drags_is_stop(self):
        self.gaps()
        self.hands.answer("spin", "drags")
        self.hands.answer("drag", "all round, since the seals")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "Crank drags"))

    def test_a_dial_that_disagrees_with_the_stack_is_raised_with_its_causes(self):
        Spec.objects.create(card=self.made.card, name="End float of the crank", property="end-float", low=0.10, high=0.20, source="page 61")
        Blades.objects.create(name="Crank shims", kind="shim", sizes_mm=[0.05, 0.1, 0.15, 0.2, 0.3])
        Stacker(self.made).whole()
        predicted = self.hands.work().analysis.predicted.value
        self.gaps()
        self.hands.answer("spin", "free")
        self.hands.answer("end-float", f"{predicted + 0.15:.3f}")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("out", "Dial and stack differ"))
        self.assertIn("a bearing not home, another gasket than measured, a shim on the wrong side", verdict.next_step)
        self.hands.answer("end-float", f"{predicted:.3f}")
        self.assertEqual(self.hands.work().analysis.against_prediction.state, "in")


class Proving(CentreCase):
    def setUp(self):
        super().setUp()
        self.gaps()
        self.hands.answer("spin", "free")
        self.hands.answer("end-float", "")

    def test_pressure_and_vacuum_that_hold_prove_it(self):
        self.held("0.4 bar", "39.4")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("in", "Crank is centred, no leak"))
        self.hands.act("sign")
        result = self.hands.entry.result
        self.assertEqual({key: each["state"] for key, each in result["leaks"].items()}, {"pressure": "in", "vacuum": "in"})

    def test_a_leak_by_vacuum_alone_is_found(self):
        self.held("40", "39.5", "40", "20")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("out", "Case leaks"))
        self.assertIn("Vacuum: 4.00 kPa a minute; a cautious shop rule allows", verdict.reason)
        self.assertIn("Soapy water", verdict.next_step)

    def test_air_that_cools_is_no_leak(self):
        for key, text in (("test-time", "5 min"), ("test-pressure.pressure.s1", "40"), ("test-temperature.pressure.s1", "25")):
            self.hands.answer(key, text)
        self.hands.answer("test-temperature.pressure.s2", "20")
        self.hands.answer("test-pressure.pressure.s2", "37")
        leaked = self.hands.work().analysis.leaked("pressure")
        self.assertAlmostEqual(leaked.values["second"], 39.36, places=1)
        self.assertEqual(leaked.state, "in")

    def test_a_leak_too_close_to_call_says_how_long_to_hold_it(self):
        self.held("40", "35.1", "40", "35.1")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("too_close", "Leak too close to call"))
        self.assertRegex(self.displayed_verdict().next_step, r"Hold it \d+ minutes")

    def test_the_cards_own_limit_comes_before_the_cautious_one(self):
        Spec.objects.create(card=self.made.card, name="Leak, kPa a minute", property="leak", kind="force", high=3.0, source="page 70")
        self.held("40", "30")
        self.assertEqual(self.displayed_verdict().state, "in")

    def test_a_leak_is_said_before_a_float_or_a_first_test_that_is_only_close(self):
        Spec.objects.create(card=self.made.card, name="End float of the crank", property="end-float", low=0.10, high=0.20, source="page 61")
        Spec.objects.create(card=self.made.card, name="Leak, kPa a minute", property="leak", kind="force", high=3.0, source="page 70")
        self.hands.act("again")
        self.gaps()
        self.hands.answer("spin", "free")
        self.hands.answer("end-float", "0.20")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("too_close", "End float too close"))
        self.held("40", "25", "40", "20")
        self.assertEqual([leak.state for _, leak in self.hands.work().analysis.leaks], ["too_close", "out"])
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("out", "Case leaks"))
        self.assertIn("Vacuum: 4.00 kPa a minute", self.displayed_verdict().reason)

    def test_a_test_that_gains_or_blows_is_refused_in_words(self):
        self.assertIn("is not believable", self.hands.answer("test-time", "2 h") or "")
        self.hands.answer("test-time", "5 min")
        self.assertIn("is not believable", self.hands.answer("test-pressure.pressure.s1", "3 bar"))
        self.hands.answer("test-pressure.pressure.s1", "40 kPa")
        self.assertIn("It has gained", self.hands.answer("test-pressure.pressure.s2", "45"))

    def test_a_four_stroke_is_proved_by_oil_and_nothing_is_skipped_without_a_word(self):
        self.hands.choose(proof="oil")
        self.assertEqual(self.displayed_verdict().state, "in")
        self.hands.choose(proof="none")
        self.assertIn("Still to answer: why is it not tested", self.hands.act("sign"))

    def test_the_drawing_moves_with_the_gaps(self):
        self.held("40", "39.5")
        drawing = str(self.hands.work().drawing())
        self.assertIn("gaps drawn large", drawing)
        self.assertIn("vacuum", drawing)
