"""Engine cards as files: whole or not at all, with the line and the reason."""

from __future__ import annotations

import json

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import TestCase

from shopmath.validation import BadInput
from stator.engines.layouts import apply_layout
from stator.engines.models import EngineCard, Seal, Spec
from stator.exchange.card_files import card_as_csv, card_as_json, card_from_json, line_of, read_csv
from stator.stations.split_crankcase.tests import face
from stator.ui.units import Units, reading_in
from stator.workbench.test_case_parts import cover, three_parts
from tests.factories import Hands, job


class CardFiles(TestCase):
    def setUp(self):
        self.hands = Hands(job(x_mm=-30, y_mm=4))
        self.card = self.hands.job.card
        face(self.card)
        self.card.refresh_from_db()
        Seal.objects.create(
            card=self.card, name="Crank seal", seat=self.card.seats.get(), shaft_mm=20, bore_mm=35, width_mm=7, lip="inside"
        )
        Spec.objects.create(
            card=self.card, name="End float", property="end-float", low=0.1, high=0.2, source_kind="manual", source="page 61"
        )

    def text(self, **changes):
        return json.dumps({**card_as_json(self.card), **changes}, indent=2)

    def refused(self, data):
        with self.assertRaises(BadInput) as caught:
            card_from_json(data.encode())
        self.assertEqual(EngineCard.objects.count(), 1)  # whole or not at all
        return caught.exception.message

    def test_a_card_goes_out_and_comes_back_the_same(self):
        again = card_from_json(self.text().encode())
        self.assertTrue(again.on_shelf)
        first, second = card_as_json(self.card), card_as_json(EngineCard.objects.get(pk=again.pk))
        self.assertEqual(first, second)

    def test_what_is_only_typical_is_only_typical_where_it_is_read_in(self):
        card = EngineCard.objects.create(name="Skua 125")
        apply_layout(card, "two-stroke-single")
        again = card_from_json(json.dumps(card_as_json(card)).encode())
        self.assertEqual([True] * 6, [each.marking_assumed and each.code_assumed for each in again.seats.all()])
        self.assertEqual([True] * 3, [each.sizes_assumed for each in again.seals.all()])
        self.assertEqual(card_as_json(card)["seats"], card_as_json(again)["seats"])

    def test_a_case_of_more_parts_comes_back_with_its_joints_and_their_bolts(self):
        EngineCard.objects.filter(pk=self.card.pk).update(face_assumed=False)
        self.card.marks.all().delete()
        three_parts(self.card)
        cover(self.card)
        said = card_as_json(EngineCard.objects.get(pk=self.card.pk))
        again = card_from_json(json.dumps(said).encode())
        self.assertEqual(card_as_json(EngineCard.objects.get(pk=again.pk)), said)
        with self.assertRaises(BadInput) as refused:
            card_from_json(json.dumps({**said, "joints": [{"uid": "joint-nowhere"}]}).encode())
        self.assertIn("no such joint", refused.exception.message)

    def test_units_in_a_file_are_read_like_at_the_bench(self):
        data = card_as_json(self.card)
        data["marks"][0]["length_mm"] = "1 1/2 in"
        data["figures"][0].update(low="4 thou", high="0,2 mm")
        card = card_from_json(json.dumps(data).encode())
        self.assertAlmostEqual(card.marks.first().length_mm, 38.1)
        self.assertAlmostEqual(card.specs.get().low, 0.1016)

    def test_bad_files_are_refused_whole_with_line_and_reason(self):
        data = card_as_json(self.card)
        data["seats"][0]["code"] = "Q7"
        bad = json.dumps(data, indent=2)
        line = next(number for number, text in enumerate(bad.split("\n"), 1) if '"Q7"' in text)
        self.assertRegex(self.refused(bad), rf"^Line {line}, seats.1.code: .*no hole letter")
        self.assertRegex(self.refused(self.text()[:-40]), r"^Line \d+: this is no JSON")
        self.assertIn("this is no engine card", self.refused("[1, 2]"))
        self.assertIn("the file has version 9 of an engine card. This Stator reads version 5.", self.refused(self.text(version=9)))
        self.assertIn("no seat 'Main 7'", self.refused(self.text(seals=[{**card_as_json(self.card)["seals"][0], "seat": "Main 7"}])))
        self.assertIn("a list of objects is wanted", self.refused(self.text(marks={"a": 1})))
        self.assertIn("already", self.refused(self.text(marks=[card_as_json(self.card)["marks"][0]] * 2)))
        with self.assertRaisesMessage(BadInput, "no UTF-8 text"):
            card_from_json(b"\xff\xfe{}")

    def test_a_line_is_found_in_any_layout(self):
        text = '{\n "a": [1,\n  {"b": "},{"},\n  {"b": 2}]}'
        self.assertEqual((line_of(text, "a", 1, "b"), line_of(text, "a", 2, "b"), line_of(text, "a", 9)), (3, 4, 2))

    def test_figures_and_face_go_out_and_come_in_as_csv(self):
        for what in ("figures", "bolts"):
            with self.subTest(what):
                text = card_as_csv(self.card, what)
                self.assertEqual(read_csv(self.card, text.encode())[0], what)
                self.assertEqual(card_as_csv(self.card, what), text)
        with reading_in(Units.INCH):
            self.assertIn("3.54 in", card_as_csv(self.card, "bolts"))
        self.assertEqual(read_csv(self.card, b"name;low;high;kind\nBig-end side play;6 thou;0,55 mm;length\n"), ("figures", 1))
        self.assertAlmostEqual(Spec.objects.get(name="Big-end side play").low, 0.1524)

    def test_a_bad_csv_keeps_nothing(self):
        good = "what,name,x_mm,y_mm\nbolt,20,10,10\n"
        for text, words in [
            (f"{good}bolt,21,nine,10\n", "Line 3, x_mm"),
            (f"{good}bolt,21,900,10\n", "Line 3, x_mm"),
            (f"{good}bolt,21,10\n", "Line 3: 4 columns are wanted"),
            ("what,name,x_mm,y_mm,colour\n", "no column is called 'colour'"),
            ("hello\n", "Line 1: the columns are"),
        ]:
            with self.subTest(words), self.assertRaises(BadInput) as caught:
                read_csv(self.card, text.encode())
            self.assertIn(words, caught.exception.message)
        self.assertFalse(self.card.marks.filter(name="20").exists())

    def test_the_pages_say_what_was_refused(self):
        client = self.hands.client
        bad = SimpleUploadedFile("card.json", b"{", "application/json")
        self.assertContains(client.post("/cards/read/", {"file": bad}, follow=True), "card.json was refused, nothing of it is kept. Line 1")
        good = SimpleUploadedFile("card.json", self.text().encode(), "application/json")
        self.assertContains(client.post("/cards/read/", {"file": good}, follow=True), "Corrie 272 is on the shelf.")
        csv = SimpleUploadedFile("f.csv", b"name,low,high\nEnd float,9,1\n", "text/csv")
        answer = client.post(f"/cards/{self.card.pk}/read-csv/", {"file": csv}, follow=True)
        self.assertContains(answer, "At most (1 mm) lies under at least (9 mm)")
        self.assertEqual(json.loads(client.get(f"/cards/{self.card.pk}/card.json").content)["schema"], "stator-card")
