from __future__ import annotations

import uuid

from django.test import TestCase
from django.utils import timezone

from engines.models import EngineCard, Mark
from jobs.models import Entry, TrayPlace
from stations.registry import BY_KEY
from tests.shed import Hands, job, person

BOLTS = ((-100, 40, 40), (-60, -80, 40), (60, -80, 50), (100, 30, 50), (0, 90, 60))
PLACES = (("front", -110, 0), ("top", 0, 95), ("rear", 110, 0), ("sump", 0, -95))


def face(card):
    """Five bolts, one dowel, four named places."""
    EngineCard.objects.filter(pk=card.pk).update(lifts="right", crank_stays="left", face_w_mm=240, face_h_mm=210)
    for number, (x, y, length) in enumerate(BOLTS, 1):
        Mark.objects.create(card=card, name=str(number), x_mm=x, y_mm=y, length_mm=length, assumed=False)
    Mark.objects.create(card=card, what="dowel", name="dowel", x_mm=-90, y_mm=0, clearance_mm=0.03, engaged_mm=6)
    for name, x, y in PLACES:
        Mark.objects.create(card=card, what="gap", name=name, x_mm=x, y_mm=y)


class Halves(Hands):
    """Hands at Split."""

    key = "split"

    def __init__(self, made):
        super().__init__(made)
        self.seat = None
        self.address = f"/jobs/{made.tag}/{self.key}/"

    def work(self):
        stage = self.job.run.select_related("job__card").get(key=self.key)
        return BY_KEY[self.key].bind(stage.job, stage, None, person(), timezone.now())

    @property
    def entry(self):
        return Entry.objects.filter(job=self.job, station__key=self.key).order_by("-pk")[0]

    def answer(self, ask, text):
        return self.post("keep", ask=ask, text=text, client_key=uuid.uuid4().hex)

    def bolt(self, name, length=""):
        return self.answer(f"b-{Mark.objects.get(card=self.job.card, name=name).pk}", length)

    def bolts(self, *lengths):
        for name, length in zip("12345", lengths or ("40", "40", "50", "50", "60"), strict=False):
            self.bolt(name, length)

    def begin(self, turns="9"):
        self.bolts()
        self.answer("counted", "5")
        self.post("keep", ask="screw_d", text="6", client_key=uuid.uuid4().hex)
        self.post("keep", ask="screw_pitch", text="1.0", client_key=uuid.uuid4().hex)
        self.answer("turns", turns)
        self.tick_all()
        return self.act("begin")

    def gaps(self, *values):
        for (key, _), value in zip(self.work().places, values, strict=False):
            if value:
                self.answer(key, value)


class Split(TestCase):
    def setUp(self):
        made = job(order="bottom-end", x_mm=-30, y_mm=0)
        face(made.card)
        self.hands = Halves(made)

    def plate(self):
        return self.hands.work().plate()

    def test_every_place_is_ticked_by_its_length_or_a_bare_enter(self):
        self.hands.bolt("1", "40")
        self.hands.bolt("2")
        plate = self.plate()
        self.assertEqual((plate.words, plate.line[:6]), ("Fasteners out", "2 of 5"))
        self.assertIn("Bolt 3 out", plate.move)

    def test_a_count_that_falls_short_is_stop_and_shows_the_likely_place(self):
        self.hands.bolts("40", "40", "", "50", "60")
        self.hands.answer("counted", "4")
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("stop", "One is still in"))
        self.assertIn("4 on the tray for 5 places", plate.line)
        self.assertIn("Look at 3 first", plate.move)  # the one nobody had in the hand to measure
        self.assertIn('class="bolt likely"', self.hands.page())
        self.hands.tick_all()
        self.assertIn("still in, or lost", self.hands.act("begin"))

    def test_a_count_in_words_or_in_parts_is_refused_and_kept(self):
        page = self.hands.answer("counted", "4.5")
        self.assertIn("A whole number is wanted", page)
        self.assertIn('value="4.5"', page)

    def test_a_bolt_of_another_length_is_raised_against_the_card_and_kept(self):
        self.hands.bolts("40", "45", "50", "50", "60")
        found = self.hands.work().contradictions()
        self.assertEqual([(line["what"], line["found"], line["card"]) for line in found], [("length of bolt 2", "45 mm", "40 mm")])
        self.assertIn("Raised, and kept", self.hands.page())

    def test_too_few_turns_in_the_casting_are_stop_with_how_many_are_wanted(self):
        page = self.hands.begin(turns="1")
        self.assertIn("the case&#x27;s threads may pull out", page)
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("stop", "More thread first"))
        self.assertRegex(plate.move, r"the screws \d+ whole turns in")
        self.assertFalse(self.hands.work().begun)

    def test_nothing_is_loaded_before_the_held_nuts_are_cracked(self):
        self.hands.bolts()
        self.hands.answer("counted", "5")
        self.assertIn("Drained", self.hands.act("begin"))
        self.assertFalse(self.hands.work().begun)

    def test_level_gaps_say_go_on_and_how_far(self):
        self.hands.begin()
        self.hands.gaps("1.00", "1.05", "1.10", "1.05")
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("in", "Level enough"))
        self.assertIn("rear leads front by 0.10 mm", plate.line)
        self.assertRegex(plate.move, r"^Go on .* turns?.*, then measure again")

    def test_three_places_are_enough(self):
        self.hands.begin()
        self.hands.gaps("1.00", "1.05", "1.10", "")
        self.assertEqual(self.plate().words, "Level enough")

    def test_a_leading_side_is_levelled_at_the_laggard_before_another_turn(self):
        self.hands.begin()
        self.hands.gaps("0.9", "1.5", "2.1", "1.5")
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("too_close", "Level it first"))
        self.assertIn("Tap at front, outward", plate.move)

    def test_past_the_dowels_limit_it_binds_and_the_leader_goes_back(self):
        self.hands.begin()
        self.hands.gaps("0.2", "1.2", "2.2", "1.2")
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("stop", "It binds"))
        self.assertIn("Tap the half back down at rear", plate.move)
        self.assertLess(plate.scale.high, plate.scale.value)

    def test_once_the_dowels_are_out_it_lifts(self):
        self.hands.begin()
        self.hands.gaps("7.0", "7.2", "7.4", "7.2")
        self.assertEqual(self.plate().words, "Free")

    def test_a_gap_that_fits_no_plane_is_measured_again(self):
        self.hands.begin()
        self.hands.gaps("1.0", "2.0", "1.0", "1.0")
        self.assertRegex(self.plate().detail, r"stands 0\.\d\d mm off the plane")

    def test_a_new_round_keeps_the_old_one_and_the_drawing_tilts(self):
        self.hands.begin()
        self.hands.gaps("1.00", "1.05", "1.10", "1.05")
        page = self.hands.act("next")
        self.assertEqual(self.hands.work().attempt, 2)
        self.assertIn("Round 2", page)
        self.hands.gaps("3.0", "3.1", "3.2", "3.1")
        page = self.hands.page()
        self.assertRegex(page, r"gap drawn ×\d")
        self.assertIn("Round 1: gap at front", self.hands.readings())
        self.assertIn("rear leads", page)

    def test_what_hangs_loose_goes_into_the_tray_with_shaft_and_side(self):
        self.hands.begin()
        self.hands.act("apart")
        self.hands.answer("loose1", "washer 1.0")
        self.hands.answer("loose1-from", "output, 1st")
        self.hands.answer("loose1-half", "left")
        place = TrayPlace.objects.get()
        self.assertEqual((place.number, place.name, place.where_from, place.half), (1, "washer 1.0", "output, 1st", "left"))
        self.hands.answer("loose2", "")
        self.hands.act("sign")
        entry = self.hands.entry
        self.assertEqual((entry.call_words, entry.result["loose"], entry.result["counted"]), ("Apart", ["washer 1.0"], 5))
        self.assertEqual(self.hands.job.run.get(key="split").state, "done")

    def test_an_empty_card_is_parted_by_count_and_four_places_taken(self):
        Mark.objects.all().delete()
        EngineCard.objects.update(lifts="")
        self.hands.answer("lifts", "right")
        self.hands.answer("expected", "12")
        self.hands.answer("counted", "11")
        self.assertEqual(self.plate().state, "stop")
        self.hands.answer("counted", "12")
        self.hands.answer("screw_d", "")
        self.hands.answer("screw_pitch", "")
        self.hands.answer("turns", "")
        self.assertEqual(self.plate().words, "Hold not weighed")
        self.hands.tick_all()
        self.hands.act("begin")
        self.hands.gaps("1.0", "1.0", "1.1", "1.0")
        self.assertEqual(self.plate().words, "Level enough")
        self.assertIn("four round the face", self.hands.page())
