from __future__ import annotations

from django.test import TestCase

from shopmath.seals import CLOCKS, Candidate, identify_seal, lip_side
from shopmath.validation import BadInput
from stator.engines.fact_keys import FactKey
from stator.engines.models import Seal
from stator.engines.parts import CRANK
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact, Origin
from stator.shop.models import Driver, Gauge
from stator.stations.install_seals.analysis import SealFound, depth_of
from stator.stations.remove_bearings.tests import Puller
from stator.stations.split_crankcase.tests import Halves
from tests.factories import job


class Sealer(Halves):
    """Hands at Seals."""

    key = "seals"

    def of(self, seal, what, text):
        return self.answer(FactKey(seal.part, what).key, text)

    def one(self, seal, shaft=None, bore=None, kept="pressure", way="inside"):
        self.of(seal, Property.SEAL_SHAFT, shaft or f"{seal.shaft_mm}")
        self.of(seal, Property.SEAL_BORE, bore or f"{seal.bore_mm}")
        self.of(seal, Property.SEAL_KEEPS, kept)
        self.of(seal, Property.SEAL_LIP, way)

    def depths(self, seal, *values, behind=""):
        for clock, value in zip(CLOCKS, values, strict=True):
            self.answer(depth_of(seal, clock).key, value)
        self.of(seal, Property.BEARING_FACE_DEPTH, behind)


class SealsCase(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end")
        sizes = {"width_mm": 7, "lip": "inside", "source": "drawing"}
        self.drive = Seal.objects.create(card=self.made.card, name="Crank seal, drive side", shaft_mm=20, bore_mm=35, **sizes)
        self.output = Seal.objects.create(card=self.made.card, name="Output seal", shaft_mm=17, bore_mm=40, **sizes)
        Gauge.objects.filter(kind="calliper").update(resolution=0.02, repeatability=0.01, last_checked="2026-11-01")
        Gauge.objects.first().save()
        self.hands = Sealer(self.made)

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()


class UnderTheLip(SealsCase):
    def test_a_lip_that_is_too_fast_for_nitrile_and_a_shaft_that_runs_out_are_said(self):
        seat = self.made.card.seats.get()
        Seal.objects.filter(pk=self.drive.pk).update(seat=seat, half=seat.half)
        self.assertEqual([each.key for each in self.hands.work().warnings()], ["manual"])  # no speed on the card: nothing is said
        type(self.made.card).objects.filter(pk=self.made.card_id).update(wheel_rpm=15000)
        self.hands = Sealer(self.made)
        values = {each.key: each.words for each in self.hands.work().warnings()}
        self.assertIn("At 15.7 m/s a plain nitrile lip burns. What stands it: polyacrylate and fluoro-rubber.", values["fast"])
        self.assertIn("Runout that a lip follows", [each.label for each in self.hands.work().sources()])
        self.assertNotIn("runs-out", values)
        trued = FactKey(CRANK, Property.CRANK_RUNOUT)
        for runout, far in ((0.05, False), (0.09, True)):
            fact = Fact(slot=trued, value=runout, text="", origin=Origin.MEASURED, kind="length", uncertainty=0.01)
            self.assertEqual(SealFound(self.drive, EntryData(), (), None, 8000, fact).runs_out_too_far, far)


class TheSeals(SealsCase):
    def test_the_force_is_told_of_a_bare_metal_case_and_not_of_rubber(self):
        self.assertIn(("Force", "not known"), [(source.label, source.value) for source in self.hands.work().sources()])
        self.hands.choose(case="metal")
        force = next(source for source in self.hands.work().sources() if source.label == "Force, metal case")
        self.assertTrue(force.estimated)
        self.assertIn("kN", force.value)

    def test_a_seal_of_another_place_is_stop_and_its_place_is_named(self):
        self.hands.one(self.drive, shaft="17", bore="40.1")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("stop", "Not this seal"))
        self.assertIn("This one belongs at Output seal", verdict.reason)
        self.assertIn("is larger than its shaft", self.hands.of(self.drive, Property.SEAL_SHAFT, "50"))

    def test_the_lip_faces_what_is_kept_and_an_exception_needs_its_page(self):
        self.hands.one(self.drive, kept="dirt", way="inside")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("stop", "Lip faces the wrong way?"))
        self.assertNotIn(depth_of(self.drive, "12").key, [question.key for question in self.hands.work().questions()])
        self.hands.of(self.drive, Property.PAGE, "manual page 42")
        self.assertEqual(self.displayed_verdict().headline, "Drive the seal in")
        self.assertIn("manual page 42", [source.source for source in self.hands.work().sources()])

    def test_another_way_than_the_card_says_is_raised(self):
        self.hands.one(self.drive, kept="dirt", way="outside")
        self.assertEqual(self.hands.work().contradictions()[0]["card"], "to the inside")
        self.assertIn("found to the outside, the card says to the inside", self.hands.page())

    def test_depth_square_and_gap_are_judged(self):
        self.hands.one(self.drive)
        self.hands.depths(self.drive, "0.05", "0.0", "0.1", "0.05", behind="8.5")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("in", "Seal is seated"))
        self.assertIn("1.40 mm clear of the bearing", verdict.reason)
        for values, behind, words in (
            (("0.0", "0.0", "1.0", "0.0"), "", "Seal is crooked"),
            (("2.0", "2.0", "2.0", "2.0"), "", "Depth is out"),
            (("0.0", "0.0", "0.0", "0.0"), "6.0", "Seal touches the bearing"),
        ):
            self.hands.depths(self.drive, *values, behind=behind or "20")
            self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("out", words))

    def test_what_is_out_is_said_before_what_is_only_too_close(self):
        self.hands.one(self.drive)
        for values, behind, words in (
            (("2.0", "2.0", "2.0", "2.0"), "9.3", "Depth is out"),
            (("1.0", "0.0", "0.0", "0.0"), "8.0", "Seal is crooked"),
        ):
            self.hands.depths(self.drive, *values, behind=behind)
            found = self.hands.work().analysis.in_hand.seating
            self.assertEqual(found.clear.state, "too_close")
            self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("out", words))

    def test_the_driver_that_clears_the_spring_is_named(self):
        Driver.objects.create(name="34 tube", kind="tube", outside_mm=34, inside_mm=29)
        Driver.objects.create(name="36 tube", kind="tube", outside_mm=36, inside_mm=29)
        self.hands.one(self.drive)
        self.assertIn("Drive it with 34 tube, square", self.displayed_verdict().reason)

    def test_seal_after_seal_then_the_worst_is_signed(self):
        self.hands.one(self.drive)
        self.hands.depths(self.drive, "0.0", "0.0", "0.1", "0.0")
        self.assertIn("Still to do: Output seal", self.hands.act("sign"))
        self.hands.act("next")
        self.assertEqual(self.hands.work().analysis.in_hand.seal, self.output)
        self.hands.one(self.output, kept="oil")
        self.hands.depths(self.output, "0.0", "0.0", "0.9", "0.0")
        self.hands.act("sign")
        self.assertEqual((self.hands.entry.call_state, self.hands.entry.call_words), ("out", "Seal is crooked"))
        self.assertEqual(self.hands.entry.result["seals"]["Output seal"]["keeps"], "oil")

    def test_a_card_without_seals_is_written_down_by_hand(self):
        Seal.objects.all().delete()
        self.assertContains(self.hands.client.get("/jobs/0412/seals/"), "the lip faces what is kept in")

    def test_the_drawing_shows_the_lip_and_what_pushes_on_it(self):
        self.hands.one(self.drive)
        drawing = str(self.hands.work().drawing())
        for words in ("spring", "pressure", "outside", "inside", "flush wanted"):
            self.assertIn(words, drawing)


class AsFound(SealsCase):
    def test_a_depth_that_bearings_out_found_is_not_offered_for_the_new_seal(self):
        seat = self.made.card.seats.get()
        Seal.objects.filter(pk=self.drive.pk).update(seat=seat)
        puller = Puller(self.made)
        for clock in CLOCKS:
            puller.answer(f"seal-depth@{clock}", "0.4")
        self.hands.one(self.drive)
        question = next(each for each in self.hands.work().current_questions if each.slot == depth_of(self.drive, "12"))
        self.assertIsNone(question.offer)
        self.hands.depths(self.drive, "0.0", "0.0", "0.1", "0.0")
        known = self.hands.work().job_facts
        self.assertEqual(known.as_found(self.drive.part, Property.SEAL_DEPTH, depth_of(self.drive, "12").at).value, 0.4)


class TheRule(TestCase):
    def test_sizes_tell_seals_apart_and_none_is_an_answer(self):
        places = [Candidate("a", 20, 35), Candidate("b", 20, 40), Candidate("c", 20.4, 35.3)]
        self.assertEqual([place.name for place in identify_seal(20.1, 35.1, places)], ["a", "c"])
        self.assertEqual(identify_seal(25, 60, places), ())
        for shaft, bore in ((20, 18), (0, 30)):
            with self.assertRaises(BadInput):
                identify_seal(shaft, bore, places)
        with self.assertRaises(BadInput):
            lip_side("air")
