"""Tests of exporting a job and importing it here and into an empty shop, and of invalid files."""

from __future__ import annotations

import contextlib
import io
import json
import re
import zipfile

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from django.test import Client, TestCase
from django.utils import timezone

from shopmath.validation import BadInput
from stator.demo.disassembly import CLUSTER
from stator.engines.models import EngineCard, Seal
from stator.exchange.job_export import job_as_json
from stator.exchange.job_import import job_from_zip
from stator.exchange.job_zip import job_as_zip
from stator.exchange.report.views import JOB
from stator.jobs.models import DerivedFact, Entry, Job, Photo, Reading
from stator.jobs.photos import add_photo
from stator.jobs.tests import picture
from stator.shop.models import Chiller, Gauge, Heater, Person
from stator.stations.install_seals.tests import Sealer
from stator.stations.split_crankcase.tests import Halves, face
from tests.factories import SheetHands, half_job, person

LOST = ("number", "client_key", "carried_from", "sha256", "signature")  # a file's own counting, and its signature


def told(job: Job) -> dict:
    """Return a job as JSON without what every installation numbers itself."""

    def plain(value):
        if isinstance(value, dict):
            return {key: plain(each) for key, each in value.items() if key not in LOST}
        return [plain(each) for each in value] if isinstance(value, list) else value

    said = json.dumps(plain(job_as_json(JOB.get(pk=job.pk))))
    return json.loads(re.sub(r" \((?:[^()]*, )?file [0-9a-f]{8}[^()]*\)", "", said))  # the mark of the file it was read from


class Whole(TestCase):
    @classmethod
    def setUpTestData(cls):
        cls.made = half_job()
        face(cls.made.card)
        cls.seal = Seal.objects.create(card=cls.made.card, name="Crank seal", shaft_mm=30, bore_mm=47, width_mm=7, lip="inside")
        sealer = Sealer(cls.made)
        sealer.one(cls.seal, kept="pressure")
        sealer.depths(cls.seal, "0.1", "0.1", "0.1", "0.1")
        cls.made.run.create(order=98, key="split")
        halves = Halves(cls.made)
        halves.bolt("1", "40")
        halves.bolt("2", "41")
        heat = SheetHands(cls.made)
        drum = cls.made.card.seats.get(name="Selector drum")
        heat.post("choose", heater=str(Heater.objects.get(method="oven").pk))
        heat.post("choose", **{f"part-{drum.uid}": f"must-{Chiller.objects.get(method='freezer').pk}"})
        heat.keep(f"way-settled.{drum.uid}", "marking_out")
        sealer.act("sign")
        for number, (what, where, _, wear) in enumerate(CLUSTER[:2], 1):
            cls.made.tray.create(number=number, name=what, where_from=where, wear=wear, client_key=f"t{number}", by=person())
        photo = add_photo(cls.made, None, SimpleUploadedFile("a.jpg", picture("JPEG")), "As it came", person())
        photo.pins.create(number=1, x=0.5, y=0.25, note="stuck", by=person())
        cls.data = job_as_zip(JOB.get(pk=cls.made.pk), person(), timezone.now())

    def spoilt(self, change=None, **files):
        """The file with its JSON changed, or with other files in it."""
        with zipfile.ZipFile(io.BytesIO(self.data)) as found:
            saved = {name: found.read(name) for name in found.namelist()}
        if change:
            said = json.loads(saved["job.json"])
            change(said)
            saved["job.json"] = json.dumps(said).encode()
        saved.update(files)
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as again:
            for name, data in saved.items():
                again.writestr(name, data)
        return out.getvalue()

    def refused(self, data):
        before = [model.objects.count() for model in (Job, Entry, Reading, EngineCard, Photo, Person)]
        with self.assertRaises(BadInput) as refusal:
            job_from_zip(data, person())
        self.assertEqual([model.objects.count() for model in (Job, Entry, Reading, EngineCard, Photo, Person)], before)
        self.assertIn("Nothing was taken.", refusal.exception.message)
        return refusal.exception.message


class RoundTrip(Whole):
    def test_read_in_beside_itself_it_is_the_same_job_with_a_number_of_its_own(self):
        again = job_from_zip(self.data, person())
        self.assertNotEqual(again.number, self.made.number)
        self.assertEqual(told(again), told(self.made))
        signed = Entry.objects.get(job=again, station__key="seals")
        self.assertTrue(signed.is_signed)
        self.assertEqual(again.photos.get().pins.get().note, "stuck")

    def test_what_followed_from_signed_readings_is_known_where_it_is_read_in(self):
        halves = Halves(self.made)
        halves.whole()
        was = [(each.property, each.text, each.value) for each in DerivedFact.objects.filter(entry__job=self.made)]
        self.assertIn(("halves-apart", "yes", None), was)
        again = job_from_zip(job_as_zip(JOB.get(pk=self.made.pk), person(), timezone.now()), person())
        self.assertEqual([(each.property, each.text, each.value) for each in DerivedFact.objects.filter(entry__job=again)], was)

    def test_on_another_installation_names_find_their_own_numbers(self):
        before = told(self.made)
        Gauge.objects.filter(kind="calliper").update(name="Other calliper")
        Chiller.objects.filter(method="freezer").update(name="Other freezer")
        again = job_from_zip(self.data, person())
        drum = again.card.seats.get(name="Selector drum")
        sheet = Entry.objects.get(job=again, station__key="heat-and-drop", seat=None)
        self.assertEqual(sheet.readings.get(withdrawn_at=None, ask=f"way-settled.{drum.uid}").text, "marking_out")
        freezer = Chiller.objects.get(name__startswith="Freezer (file")
        self.assertEqual(sheet.choices[f"part-{drum.uid}"], f"must-{freezer.pk}")  # as it was there, beside the one that is here
        oven = Heater.objects.get(pk=sheet.choices["heater"])
        self.assertTrue(oven.retired and oven.from_file and freezer.retired)
        self.assertTrue(Gauge.objects.get(name__startswith="Calliper (file").retired)
        counts = [[len(entry["readings"]) for entry in each["entries"]] for each in (told(again), before)]
        self.assertEqual(counts[0], counts[1])

    def test_a_stranger_in_it_is_kept_by_name_and_cannot_sign_in(self):
        again = job_from_zip(self.spoilt(lambda said: said["job"].update(booked_in_by="Odd Stranger")), person())
        self.assertIn("Odd Stranger (The shop, file ", again.booked_in_by.called)
        self.assertFalse(again.booked_in_by.is_active)

    def test_whoever_the_file_names_is_nobody_of_this_shop(self):
        again = job_from_zip(self.data, person("bram", "mechanic"))
        signed = Entry.objects.get(job=again, station__key="seals")
        self.assertNotEqual(signed.signed_by, person())
        self.assertIn("Una (The shop, file ", signed.signed_by.called)
        self.assertFalse(set(Reading.objects.filter(entry__job=again).values_list("by", flat=True)) & {person().pk})
        self.assertEqual((again.origin.shop, again.origin.read_by.username, len(again.origin.digest)), ("The shop", "bram", 64))
        client = Client()
        client.force_login(person("bram", "mechanic"))
        for page in (f"/jobs/{again.tag}/log/", f"/jobs/{again.tag}/sheet/", f"/jobs/{again.tag}/seals/"):
            with self.subTest(page):
                self.assertContains(client.get(page), f"file {again.origin.digest[:8]}")

    def test_only_an_owner_reads_in_a_job_that_was_handed_over(self):
        gone = self.spoilt(lambda said: said["job"].update(gone_at="2026-11-25T10:00:00+00:00"))
        with self.assertRaises(BadInput) as refusal:
            job_from_zip(gone, person("bram", "mechanic"))
        self.assertIn("Only an owner", refusal.exception.message)
        self.assertTrue(job_from_zip(gone, person()).is_closed)

    def test_a_number_of_another_shop_s_shelves_is_no_number_here(self):
        oven = Heater.objects.get(method="oven")
        again = job_from_zip(self.spoilt(lambda said: said["entries"][-1]["choices"].update(heater=str(oven.pk))), person())
        self.assertFalse(Entry.objects.filter(job=again, choices__heater=str(oven.pk)).exists())
        self.assertIn("another shop's shelves", str(again.origin.left_out))

    def test_through_the_page(self):
        client = Halves(self.made).client
        upload = io.BytesIO(self.data)
        upload.name = "job.zip"
        answer = client.post("/jobs/read/", {"file": upload}, follow=True)
        self.assertContains(answer, "was imported as job 0429. This shop wrote the file, and it is unchanged.")
        changed = io.BytesIO(self.spoilt(lambda document: document.update(complaint="runs well")))
        changed.name = "job.zip"
        answer = client.post("/jobs/read/", {"file": changed}, follow=True)
        self.assertContains(
            answer, "was imported as job 0430. Changed after it was signed: the file (its signature does not match its content)."
        )
        bad = io.BytesIO(b"junk")
        bad.name = "job.zip"
        self.assertContains(client.post("/jobs/read/", {"file": bad}, follow=True), "damaged, or no ZIP")


class Refused(Whole):
    cost = 20

    def test_what_would_break_a_page_later(self):
        def entry(said, **changes):
            said["entries"][0].update(changes)

        heat = {"schema": "heat-and-drop/1", "confidence": 0.9}
        for change, words in (
            (lambda said: entry(said, result=heat), "outcome: it is missing"),
            (lambda said: entry(said, result={**heat, "outcome": 5}), "is not known here"),
            (lambda said: entry(said, result={"schema": "together/1", "force_n": [1, 2]}), "result"),
            (lambda said: entry(said, choices={"times": {"room": "often"}}), "a whole number is wanted"),
            (lambda said: entry(said, supersedes=77), "no signed entry before it"),
            (lambda said: said["entries"][0]["readings"][0].update(gauge="Nobody's"), "not among the file's gauges"),
            (lambda said: said["entries"][0]["readings"][0].update(taken_at="0001-01-01T00:00:00+00:00"), "a time with its zone"),
            (lambda said: said["engine_card"]["seats"][0].update(name="Main \x07"), "cannot be shown"),
            (lambda said: said["engine_card"]["seats"][0].update(name="Main \ud800"), "cannot be shown"),
        ):
            with self.subTest(words):
                self.assertIn(words, self.refused(self.spoilt(change)))

    def test_json_that_is_made_to_hurt(self):
        for text, words in (
            ("[" * 900 + "]" * 900, "nested"),
            ('{"a": 1, "a": 2}', "stands twice"),
            ('{"a": 1' + "0" * 400 + "}", "no number that anything here could have"),
            ('{"a": 1e999}', "no number that anything here could have"),
            ('{"a": NaN}', "NaN is no number"),
            ("\ufeff{", "no JSON"),
            ('"caf\\ud800"', "cannot be shown"),
        ):
            with self.subTest(words):
                self.assertIn(words, self.refused(self.spoilt(**{"job.json": text.encode()})))

    def test_zips_that_are_made_to_hurt(self):
        whole = bytearray(self.data)
        for at in range(40, len(whole), len(whole) // 10):  # a byte turned over here and there: read, or refused in words
            spoilt = bytes(whole[:at]) + bytes([whole[at] ^ 0xFF]) + bytes(whole[at + 1 :])
            with transaction.atomic():
                with contextlib.suppress(BadInput):
                    job_from_zip(spoilt, person())
                transaction.set_rollback(True)
        for kind in (zipfile.ZIP_BZIP2, zipfile.ZIP_LZMA):
            out = io.BytesIO()
            with zipfile.ZipFile(out, "w", kind) as found:
                found.writestr("job.json", "{}")
            self.assertIn("packed in a way", self.refused(out.getvalue()))
        self.assertIn("has no place in a job", self.refused(self.spoilt(**{"photos/\u0661\u0662\u0663.jpg": b"x"})))

    def test_damaged_or_something_else(self):
        self.assertIn("damaged", self.refused(b"junk"))
        self.assertIn("damaged", self.refused(self.data[: len(self.data) // 2]))
        self.assertIn("no readable job.json", self.refused(self.spoilt(**{"job.json": b"{"})))
        self.assertIn("no job of Stator's", self.refused(self.spoilt(lambda said: said.update(schema="other"))))

    def test_another_version_is_refused_with_both_versions(self):
        self.assertIn("version 9 of a job. This Stator reads version 5.", self.refused(self.spoilt(lambda said: said.update(version=9))))

    def test_more_readings_than_any_job_has(self):
        def many(said, count):
            entry = said["entries"][0]
            entry["readings"] = [{**entry["readings"][0], "client_key": f"k{number}"} for number in range(count)]

        self.assertIn("at most 1000 entries are wanted", self.refused(self.spoilt(lambda said: many(said, 1001))))

        def entries(said):
            many(said, 1000)
            said["entries"] = [{**said["entries"][0], "number": number} for number in range(1, 12)]

        self.assertIn("at most 10000 readings, actions, facts and timers", self.refused(self.spoilt(entries)))

    def test_a_path_that_climbs_out(self):
        self.assertIn("has no place in a job", self.refused(self.spoilt(**{"../../evil.jpg": b"x"})))

    def test_a_bomb(self):
        self.assertIn("a hundred times its size", self.refused(self.spoilt(**{"photos/002.jpg": b"0" * 30_000_000})))

    def test_a_picture_that_is_none_or_huge(self):
        self.assertIn("no picture", self.refused(self.spoilt(**{"photos/001.jpg": b"<svg onload=alert(1)>"})))
        self.assertIn("30 million pixels", self.refused(self.spoilt(**{"photos/001.jpg": picture("PNG", (9000, 7000))})))

    def test_wrong_types_with_their_place(self):
        def entry(said, **changes):
            said["entries"][0].update(changes)

        for change, words in (
            (lambda said: entry(said, opened_at="yesterday"), "a time with its zone"),
            (lambda said: entry(said, station="smithy"), "is not known here"),
            (lambda said: entry(said, seat="No such seat"), "is not on the card"),
            (lambda said: said["entries"][0]["readings"][0].update(canonical="many"), "a number is wanted"),
            (lambda said: said["entries"][0]["readings"][0].update(ask="b-@{marks/99}"), "belongs to nothing"),
            (lambda said: said.update(entries="none"), "a list is wanted"),
            (lambda said: said.update(engine_card={"schema": "stator-card", "version": 2}), "engine card"),
            (lambda said: said["photos"][0]["pins"][0].update(x=7), "lies on its picture"),
            (lambda said: said["job"].update(work_order="free lunch"), "is not known here"),
        ):
            self.assertIn(words, self.refused(self.spoilt(change)))
