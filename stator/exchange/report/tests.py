"""Tests of the job report and of the customer link."""

from __future__ import annotations

import csv
import io
import json
import re
import zipfile
from datetime import timedelta

import time_machine
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test import Client, TestCase
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from stator.engines.models import EngineCard, Spec
from stator.exchange.report.data import report_of
from stator.exchange.report.pdf import report_pdf, standalone
from stator.exchange.report.views import JOB
from stator.jobs.models import Job, OwnerLink
from stator.jobs.photos import add_photo
from stator.jobs.tests import picture
from stator.shop.models import Person, Shop
from stator.stations.balance_flywheel.tests import Balancer
from stator.stations.center_crank.tests import Centrer
from stator.stations.remove_bearings.tests import Puller
from stator.stations.split_crankcase.tests import Halves
from tests.factories import job, person


class Leaver(Halves):
    """A mechanic at Hand over engine."""

    key = "hand-over"


GAPS = (("side-gap.left", "0.15"), ("side-gap.right", "0.16"))


class Leaving(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end")
        Spec.objects.create(card=self.made.card, name="End float", property="end-float", low=0.10, high=0.20, source="page 61")
        self.centrer = Centrer(self.made)
        for question, text in (*GAPS, ("spin", "free"), ("end-float", "0.31"), ("end-float", "0.15")):
            self.centrer.answer(question, text)
        self.centrer.choose(proof="none")
        self.centrer.answer("reason", "No blanking plates that fit.")
        self.centrer.act("sign")
        self.hands = Leaver(self.made)

    def ready(self):
        self.made.run.exclude(key__in=("centre", "hand-over")).update(state="skipped", because="not wanted (Una)")

    def report(self):
        return report_of(JOB.get(pk=self.made.pk), person(), timezone.now())


class HandOver(Leaving):
    def test_what_is_open_or_on_the_tray_keeps_it_here(self):
        self.assertEqual(
            (self.hands.work().displayed_verdict().state, self.hands.work().displayed_verdict().headline), ("stop", "Not finished")
        )
        self.ready()
        self.made.tray.create(number=1, name="thrust washer", client_key="t", by=person())
        self.assertEqual(self.hands.work().displayed_verdict().headline, "Still on the tray")
        self.assertIn("Still on the tray", self.hands.act("sign"))

    def test_an_owner_signs_it_out_and_it_is_closed(self):
        self.ready()
        for question, text in (
            ("parts-used", "6204 C3, two"),
            ("parts-used", "Seal 20 x 35 x 7"),
            ("parts-used", ""),
            ("stays-unknown", "Rod not measured."),
            ("note", ""),
        ):
            self.hands.answer(question, text)
        if self.hands.work().analysis.against:
            self.hands.answer("against-advice", "Owner wants it back today.")
        mechanic = Leaver(self.made)
        mechanic.who = person("bram", "mechanic")
        self.assertIn("Only an owner", mechanic.act("sign"))
        self.hands.act("sign")
        self.assertIsNotNone(Job.objects.get(pk=self.made.pk).gone_at)
        self.assertIn("is closed", self.centrer.post("supersede", reason="again"))
        report = self.report()
        self.assertEqual(report.parts, ["6204 C3, two", "Seal 20 x 35 x 7"])
        self.assertIn("Rod not measured.", report.unknown)
        self.hands.post("supersede", reason="It came back: weeps.")
        self.assertIsNone(Job.objects.get(pk=self.made.pk).gone_at)


class TheSheet(Leaving):
    def test_a_figure_stands_as_found_and_as_left_with_its_limits_and_call(self):
        line = next(each for each in self.report().figures if each.words.startswith("End float"))
        self.assertEqual(
            (line.found, line.left, line.limits), ("", "0.15 mm", "0.10 to 0.20 mm")
        )  # a value corrected is not how it was found
        self.assertEqual(line.source, "manual page 61")
        self.assertIn(line.state, ("in", "too_close"))

    def test_a_reason_against_advice_is_on_it(self):
        self.assertIn("No blanking plates", " ".join(self.report().decisions))

    def test_the_page_and_both_papers(self):
        page = self.hands.client.get("/jobs/0412/sheet/").content.decode()
        for words in ("Figures that matter", "0.15 mm", "No blanking plates", "licensed or certified practice"):
            self.assertIn(words, page)
        made = set()
        for paper in ("a4", "letter"):
            answer = self.hands.client.get(f"/jobs/0412/sheet-{paper}.pdf")
            self.assertEqual(answer["Content-Type"], "application/pdf")
            self.assertTrue(answer.content.startswith(b"%PDF"))
            made.add(answer.content)
        self.assertEqual(len(made), 2)
        self.assertEqual(self.hands.client.get("/jobs/0412/sheet-a9.pdf").status_code, 404)

    def test_the_pdf_is_set_in_the_shops_own_fonts_without_a_warning(self):
        with self.assertNoLogs("stator.exchange.report.pdf"):
            found = report_pdf(self.report())
        self.assertIn(b"Archivo", found)
        drawing = standalone(self.report().drawings[0].svg)
        self.assertTrue(drawing.startswith(b'<svg xmlns="http://www.w3.org/2000/svg"'))
        self.assertNotIn(b"class=", drawing)


class WhatTheSheetTells(Leaving):
    def test_what_readings_come_to_stands_before_them_as_found_and_as_left(self):
        hands = Balancer(self.made)
        EngineCard.objects.update(wheel_kg=1.9, wheel_rpm=8500)
        self.made.run.create(order=97, key="balance")
        hands.first()
        hands.roll(*(192, 194, 196, 193, 195, 194))
        hands.weigh("1.2 g", "1.6 g")
        hands.where()
        for index, hole in enumerate(hands.work().analysis.plan.holes, 1):
            hands.answer(f"hole-depth.s{index}", f"{hole.depth_mm:.1f}")
        hands.act("again")
        hands.roll(*(10, 130, 250, 60, 190, 310, 95, 215))
        hands.prove("0.3 g", "0.3 g", "0.3 g", "0.3 g")
        hands.tick_all()
        hands.answer("note", "")
        hands.act("sign")
        words = [each.words for each in self.report().figures if each.station == "Balance"]
        line = next(each for each in self.report().figures if each.words == "Unbalance")
        self.assertEqual(words[0], "Unbalance")
        self.assertEqual((line.found, line.left, line.limits), ("112 ± 9 g·mm", "0 ± 5 g·mm", "max 13.4 g·mm"))
        self.assertEqual((line.state, line.source, line.by), ("in", "ISO 21940-11, G 6.3", "Una"))

    def test_done_again_it_shows_the_later_call_and_why(self):
        self.centrer.post("supersede", reason="the dial had slipped")
        for key, text in (*GAPS, ("spin", "free"), ("end-float", "0.17")):
            self.centrer.answer(key, text)
        self.centrer.choose(proof="none")
        self.centrer.answer("reason", "Still no plates.")
        self.centrer.act("sign")
        report = self.report()
        (said,) = [each for each in report.calls if each.station == "Centre"]
        self.assertIn("No pressure test", said.reason)
        (replaced,) = report.replaced
        self.assertRegex(replaced, r"^Centre: the dial had slipped\. The entry of Una, \d\d? \w+, \d\d:\d\d, said: Crank is centred$")
        line = next(each for each in report.figures if each.words.startswith("End float"))
        self.assertEqual((line.found, line.left), ("", "0.17 mm"))  # what was replaced does not count

    def test_what_was_left_out_of_the_run_and_found_otherwise_is_on_it(self):
        self.made.run.filter(key="strip").update(state="skipped", because="came stripped (Una)")
        seat = self.made.card.seats.get()
        seat.faces = "marking_out"
        seat.save()
        outs = Puller(self.made)
        outs.facts()
        outs.answer("way-round", "marking_in")
        outs.tick_all()
        outs.outcome(("came-out", "dropped"), ("seat-condition", "sound"))
        outs.act("sign")
        report = self.report()
        self.assertIn(("Strip", "came stripped (Una)"), report.left_out)
        (row,) = report.otherwise
        self.assertEqual((row["found"], row["card"]), ("its marking to the inside", "its marking to the outside"))

    def test_an_open_entry_gives_no_figure_yet(self):
        halves = Halves(self.made)
        halves.answer("counted", "5")
        self.assertFalse([each for each in self.report().figures if each.station == "Split"])

    def test_drawings_lead_nowhere_and_say_what_they_show(self):
        (drawn,) = self.report().drawings
        self.assertNotIn("<a ", drawn.svg)
        self.assertIn("<desc", drawn.svg)
        self.assertEqual(drawn.title, "Centre")

    def test_few_questions_for_the_whole_sheet(self):
        job = JOB.get(pk=self.made.pk)
        with CaptureQueriesContext(connection) as asked:
            report_of(job, person(), timezone.now())
        self.assertLessEqual(len(asked), 14, [query["sql"][:80] for query in asked])


class WholeJob(Leaving):
    def test_it_is_one_zip_of_open_files(self):
        add_photo(self.made, None, SimpleUploadedFile("a.jpg", picture("JPEG"), "image/jpeg"), "As it came", person())
        answer = self.hands.client.get("/jobs/0412/job.zip")
        with zipfile.ZipFile(io.BytesIO(answer.content)) as found:
            names = found.namelist()
            self.assertEqual(names[:3], ["job.json", "readings.csv", "sheet.pdf"])
            self.assertIn("drawings/01-centre.svg", names)
            self.assertIn("photos/001.jpg", names)
            self.assertEqual(json.loads(found.read("job.json"))["schema"], "stator-job")
            rows = list(csv.DictReader(io.StringIO(found.read("readings.csv").decode())))
        floats = [row for row in rows if row["ask"] == "end-float"]
        self.assertEqual([row["canonical"] for row in floats], ["0.31", "0.15"])
        self.assertTrue(floats[0]["struck_out_at"])

    def test_no_spreadsheet_takes_a_note_for_a_formula(self):
        self.made.run.update(state="skipped", because="not wanted (Una)")
        self.hands.answer("parts-used", "=HYPERLINK(1)")
        answer = self.hands.client.get("/jobs/0412/job.zip")
        with zipfile.ZipFile(io.BytesIO(answer.content)) as found:
            self.assertIn("'=HYPERLINK(1)", found.read("readings.csv").decode())


class TheOwnersLink(Leaving):
    def setUp(self):
        super().setUp()
        add_photo(self.made, None, SimpleUploadedFile("a.jpg", picture("JPEG"), "image/jpeg"), "As it came", person())
        page = self.hands.client.post("/jobs/0412/sheet/link/", {"days": "7"}).content.decode()
        self.link = page.split("/owner/")[1].split("/")[0]
        self.stranger = Client()

    def see(self, path=""):
        return self.stranger.get(f"/owner/{self.link}/{path}")

    def test_the_owner_reads_the_sheet_without_signing_in_and_nothing_else(self):
        page = self.see()
        self.assertEqual(page.status_code, 200)
        self.assertIn("Figures that matter", page.content.decode())
        self.assertEqual(page["Referrer-Policy"], "no-referrer")
        self.assertNotIn("/jobs/0412/", page.content.decode())
        self.assertTrue(self.see("sheet.pdf").content.startswith(b"%PDF"))
        photo = self.made.photos.get()
        self.assertEqual(self.see(f"photos/{photo.pk}.jpg")["Content-Type"], "image/jpeg")
        self.assertEqual(self.see("photos/999.jpg").status_code, 404)
        shown = re.findall(rf"/owner/{self.link}/(drawings/\d+\.svg)", page.content.decode())
        self.assertTrue(shown)
        for drawing in shown:
            self.assertEqual(self.see(drawing)["Content-Type"], "image/svg+xml")
        past_all_rows = 2**63
        self.assertEqual(self.see(f"drawings/{past_all_rows}.svg").status_code, 404)
        self.assertEqual(self.hands.client.get(f"/entries/{past_all_rows}/drawing.svg").status_code, 404)
        for path in ("/jobs/0412/", "/jobs/0412/sheet/", "/", f"/photos/{photo.pk}/large.jpg"):
            self.assertEqual(self.stranger.get(path).status_code, 302, path)

    def test_it_is_in_the_units_of_the_shop_whoever_gave_the_link(self):
        Person.objects.update(units="inch")
        page = self.see().content.decode()
        self.assertIn("0.15 mm", page)
        self.assertNotRegex(page, r"\d (in|thou)\b")
        self.assertIn("0.15 mm (5.9 thou)", self.hands.client.get("/jobs/0412/sheet/").content.decode())
        Person.objects.update(units="")
        Shop.objects.update_or_create(pk=Shop.current().pk, defaults={"units": "inch"})
        self.assertIn("thou", self.see().content.decode())

    def test_it_is_shown_once_and_only_its_digest_is_kept(self):
        self.assertNotIn(self.link, self.hands.client.get("/jobs/0412/sheet/").content.decode())
        self.assertNotIn(self.link, str(OwnerLink.objects.values()))

    def test_it_ends_by_itself_and_can_be_taken_back(self):
        with time_machine.travel(timezone.now() + timedelta(days=8)):
            self.assertEqual(self.see().status_code, 404)
        self.hands.client.post(f"/jobs/0412/sheet/link/{OwnerLink.objects.get().pk}/take-back/")
        self.assertEqual(self.see().status_code, 404)

    def test_another_is_not_guessed(self):
        self.link = "x" * 43
        self.assertEqual(self.see().status_code, 404)
