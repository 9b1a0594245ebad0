from __future__ import annotations

from django.test import TestCase

from engines.models import Seal
from shop.models import Driver, Gauge
from shopmath.checks import BadInput
from shopmath.seals import Candidate, identify_seal, lip_side
from stations.split.tests import Halves
from tests.shed import job


class Sealer(Halves):
    """Hands at Seals."""

    key = "seals"

    def one(self, seal, shaft=None, bore=None, kept="pressure", way="inside"):
        for key, text in (("shaft", shaft or f"{seal.shaft_mm}"), ("bore", bore or f"{seal.bore_mm}"), ("kept", kept), ("way", way)):
            self.answer(f"{seal.pk}-{key}", text)

    def depths(self, seal, *values, behind=""):
        for clock, value in zip(("12", "3", "6", "9"), values, strict=True):
            self.answer(f"{seal.pk}-d{clock}", value)
        self.answer(f"{seal.pk}-behind", behind)


class SealsCase(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end")
        sizes = {"width_mm": 7, "lip": "inside", "source": "drawing"}
        self.drive = Seal.objects.create(card=self.made.card, name="Crank seal, drive side", shaft_mm=20, bore_mm=35, **sizes)
        self.output = Seal.objects.create(card=self.made.card, name="Output seal", shaft_mm=17, bore_mm=40, **sizes)
        Gauge.objects.filter(kind="calliper").update(resolution=0.02, repeatability=0.01, last_checked="2026-11-01")
        Gauge.objects.first().save()
        self.hands = Sealer(self.made)

    def plate(self):
        return self.hands.work().plate()


class TheSeals(SealsCase):
    def test_a_seal_of_another_place_is_stop_and_its_place_is_named(self):
        self.hands.one(self.drive, shaft="17", bore="40.1")
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("stop", "Not this one"))
        self.assertIn("It belongs at Output seal", plate.line)
        self.assertIn("is larger than its shaft", self.hands.answer(f"{self.drive.pk}-shaft", "50"))

    def test_the_lip_faces_what_is_kept_and_an_exception_needs_its_page(self):
        self.hands.one(self.drive, kept="dirt", way="inside")
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("stop", "Wrong way round?"))
        self.assertNotIn(f"{self.drive.pk}-d12", [ask.key for ask in self.hands.work().asks()])
        self.hands.answer(f"{self.drive.pk}-cite", "manual page 42")
        self.assertEqual(self.plate().words, "Drive it in")
        self.assertIn("manual page 42", [trace.source for trace in self.hands.work().traces()])

    def test_another_way_than_the_card_says_is_raised(self):
        self.hands.one(self.drive, kept="dirt", way="outside")
        self.assertEqual(self.hands.work().contradictions()[0]["card"], "inward")
        self.assertIn("found outward, the card says inward", self.hands.page())

    def test_depth_square_and_gap_are_judged(self):
        self.hands.one(self.drive)
        self.hands.depths(self.drive, "0.05", "0.0", "0.1", "0.05", behind="8.5")
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("in", "Seated square"))
        self.assertIn("1.40 mm clear of the bearing", plate.line)
        for values, behind, words in (
            (("0.0", "0.0", "1.0", "0.0"), "", "Crooked"),
            (("2.0", "2.0", "2.0", "2.0"), "", "Depth is out"),
            (("0.0", "0.0", "0.0", "0.0"), "6.0", "Touches the bearing"),
        ):
            self.hands.depths(self.drive, *values, behind=behind or "20")
            self.assertEqual((self.plate().state, self.plate().words), ("out", words))

    def test_the_driver_that_clears_the_spring_is_named(self):
        Driver.objects.create(name="34 tube", kind="tube", outside_mm=34, inside_mm=29)
        Driver.objects.create(name="36 tube", kind="tube", outside_mm=36, inside_mm=29)
        self.hands.one(self.drive)
        self.assertIn("Drive with 34 tube, square", self.plate().line)

    def test_seal_after_seal_then_the_worst_is_signed(self):
        self.hands.one(self.drive)
        self.hands.depths(self.drive, "0.0", "0.0", "0.1", "0.0")
        self.assertIn("Still to do: Output seal", self.hands.act("sign"))
        self.hands.act("next")
        self.assertEqual(self.hands.work().in_hand, self.output)
        self.hands.one(self.output, kept="oil")
        self.hands.depths(self.output, "0.0", "0.0", "0.9", "0.0")
        self.hands.act("sign")
        self.assertEqual((self.hands.entry.call_state, self.hands.entry.call_words), ("out", "Crooked"))
        self.assertEqual(self.hands.entry.result["seals"]["Output seal"]["keeps"], "oil")

    def test_a_card_without_seals_is_written_down_by_hand(self):
        Seal.objects.all().delete()
        self.assertContains(self.hands.client.get("/jobs/0412/seals/"), "the lip faces what is kept in")

    def test_the_drawing_shows_the_lip_and_what_pushes_on_it(self):
        self.hands.one(self.drive)
        drawing = str(self.hands.work().drawing())
        for words in ("spring", "pressure", "outside", "inside", "flush wanted"):
            self.assertIn(words, drawing)


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
