"""Tests of the drawing of the mating surface, and of the drawings of disassembly."""

from __future__ import annotations

import re

from django.test import TestCase

from stator.engines.case import joints_of
from stator.engines.models import EngineCard, Mark, Seal, Seat
from stator.stations.common.face import Face, outline_mm, seen_from
from stator.stations.disassemble_halves.tests import Tray
from stator.stations.remove_bearings.tests import Puller
from stator.stations.remove_flywheel.tests import Wheel
from stator.stations.split_crankcase.tests import PLACES, Halves, face
from tests.factories import job


def words_of(svg):
    """Every label on a drawing."""
    return re.findall(r"<text[^>]*>([^<]*)</text>", str(svg))


class TheFace(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end", x_mm=-30, y_mm=10)
        face(self.made.card)
        self.card = EngineCard.objects.get(pk=self.made.card_id)
        (self.joint,) = joints_of(self.card)

    def test_mm_land_where_they_belong_right_and_up(self):
        found = Face.inside(self.joint, 0, 0, 480, 420)
        self.assertEqual((found.scale, found.at(0, 0)), (2.0, (240, 210)))
        self.assertEqual(found.at(50, 30), (340, 150))

    def test_the_outline_runs_round_every_bolt_and_turns_one_way(self):
        marks = list(self.card.marks.all())
        outline = outline_mm(self.joint, marks)
        turns = []
        for (ax, ay), (bx, by), (cx, cy) in zip(outline, outline[1:] + outline[:1], outline[2:] + outline[:2], strict=True):
            turns.append((bx - ax) * (cy - by) - (by - ay) * (cx - bx))
        self.assertTrue(all(turn > -1e-6 for turn in turns))
        for bolt in (mark for mark in marks if mark.is_fastener):
            self.assertTrue(min(x for x, _ in outline) < bolt.x_mm < max(x for x, _ in outline))

    def test_without_bolts_it_is_the_size_of_the_face(self):
        outline = outline_mm(self.joint, [])
        self.assertEqual((max(x for x, _ in outline), max(y for _, y in outline)), (120, 105))

    def test_each_drawing_says_from_where_it_is_seen(self):
        self.assertEqual(seen_from(self.joint), "seen on the face of the drive side half")
        self.card.lifts = self.card.crank_stays = ""
        self.assertIn("the half that stays", seen_from(self.joint))


class Drawn(TestCase):
    """Drawings show what was measured, with words for those who cannot see them."""

    def setUp(self):
        self.made = job(order="bottom-end", x_mm=-30, y_mm=10)
        face(self.made.card)

    def both(self, work):
        work.papers = ("wide", "narrow")
        drawing = str(work.drawing())
        self.assertEqual(drawing.count("<svg"), 2)
        self.assertNotIn("nan", drawing.lower())
        self.assertNotIn("style=", drawing)
        self.assertEqual(drawing.count("<desc"), 2)
        return drawing

    def test_split_shows_what_is_out_what_leads_and_by_how_much(self):
        hands = Halves(self.made)
        hands.bolt("1", "40")
        self.assertEqual(self.both(hands.work()).count('class="bolt out"'), 2)
        hands.begin()
        self.both(hands.work())
        hands.gaps("1.00", "1.05", "1.10", "1.05")
        drawing = self.both(hands.work())
        for words in ("front is behind", "rear is ahead", "1.05", "front 1.00 mm", "rear 1.10 mm"):
            self.assertIn(words, drawing)
        hands.act("apart")
        self.assertIn("apart", words_of(hands.work().drawing()))

    def test_the_tilt_is_drawn_to_its_written_factor(self):
        hands = Halves(self.made)
        hands.begin()
        hands.gaps("1.0", "1.5", "2.0", "1.5")
        work = hands.work()
        work.papers = ("wide",)
        drawing = str(work.drawing())
        factor = float(re.search(r"gap drawn ([\d.]+) times", drawing)[1])
        halves = [
            [tuple(map(float, pair.split(","))) for pair in points.split()]
            for points in re.findall(r'<polygon points="([^"]*)" class="cut (?:ink|plain)"', drawing)
        ]
        base, lifted = halves[-2], halves[-1]
        gap_px, long_px = base[1][1] - lifted[1][1], base[1][0] - base[0][0]
        self.assertAlmostEqual((gap_px / 2.0) / (long_px / work.analysis.span_mm), factor, delta=0.06 * factor)

    def test_places_assumed_are_told_from_places_of_the_card(self):
        Mark.objects.filter(what="gap").delete()
        hands = Halves(self.made)
        self.assertEqual({place.part.name for place in hands.work().analysis.places}, {"left", "right", "top", "bottom"})
        self.assertTrue(hands.work().analysis.places_assumed)
        Mark.objects.create(card=self.made.card, what="gap", name=PLACES[0][0], x_mm=-110, y_mm=0)
        self.assertFalse(Halves(self.made).work().analysis.places_assumed)

    def test_strip_draws_every_place_up_to_a_full_tray(self):
        hands = Tray(self.made)
        self.assertIn("the first part", words_of(self.both(hands.work())))
        for number in range(1, 4):
            hands.part(number, f"{number} x part {number}")
        drawn = words_of(self.both(hands.work()))
        for words in ("part 2", "× 3", "next"):
            self.assertIn(words, drawn)

    def test_a_seat_shows_its_bottom_its_holder_its_seal_and_the_driver_s_window(self):
        seat = Seat.objects.get()
        Seal.objects.create(card=self.made.card, name="Crank seal", seat=seat, shaft_mm=20, bore_mm=35, width_mm=7, lip="inside")
        hands = Puller(self.made)
        drawing = self.both(hands.work())
        for words in ("lip to the inside (card)", "behind it: unknown", "held by its fit alone", "none on the shelf fits"):
            self.assertIn(words, drawing)
        hands.answer("seal-lip", "outside")
        hands.answer("seal-depth@12", "0.4")
        hands.answer("seal-out", "no")
        hands.answer("retained-by", "circlip")
        hands.answer("reach", "blind")
        drawing = self.both(hands.work())
        for words in ("lip to the outside", "0.40", "held by a circlip", "blind behind"):
            self.assertIn(words, drawing)
        for changes in ({"stop": "through", "thin_wall": True, "bottom": "open"}, {"on": "shaft", "half": "crank", "code": "k5"}):
            Seat.objects.filter(pk=seat.pk).update(**changes)
            self.both(Puller(self.made).work())

    def test_the_flywheel_s_rule_has_its_three_stretches(self):
        EngineCard.objects.update(taper_ratio=8, nut_d_mm=12, nut_torque_nm=55)
        hands = Wheel(self.made)
        self.both(hands.work())
        hands.measure(puller_d="26.9", puller_pitch="1", puller_hand="right", boss_d="25.98", boss_pitch="1", boss_hand="right", turns="6")
        hands.measure(screw_d="12", screw_pitch="1.25", torque="30")
        drawing = self.both(hands.work())
        for words in ("releases", "stop 49", "30 now"):
            self.assertIn(words, drawing)


class Signed(TestCase):
    def test_a_signed_entry_of_every_room_can_be_printed_and_read_again(self):
        made = job(order="bottom-end", x_mm=-30, y_mm=10)
        face(made.card)
        split = Halves(made)
        split.begin()
        split.gaps("1.00", "1.05", "1.10", "1.05")
        split.act("apart")
        split.answer("loose-part.split-1", "")
        split.act("sign")
        puller = Puller(made)
        puller.facts()
        puller.outcome(("came-out", "dropped"), ("seat-condition", "sound"))
        puller.act("sign")
        for hands in (split, puller):
            entry = hands.entry
            self.assertEqual(entry.signed_by.called, "Una")
            page = hands.client.get(f"/entries/{entry.pk}/sheet/").content.decode()
            self.assertIn("licensed or certified practice come first", page)
            self.assertIn(entry.call_words, page)
            self.assertIn("Signed by Una", hands.page())
        page = split.post("supersede", reason="counted again")
        self.assertIn("Everything that was read is here again", page)
        self.assertEqual(split.work().entry.supersedes.result["counted"], 5)
        self.assertContains(split.client.get("/jobs/0412/log/"), "Replaced by a later entry")
