from __future__ import annotations

import io
from datetime import timedelta

import pillow_heif
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import DatabaseError, IntegrityError, transaction
from django.test import TestCase
from django.utils import timezone
from PIL import Image

from shopmath.quantity import parse
from shopmath.validation import BadInput
from stator.engines.fact_keys import FactKey
from stator.engines.parts import ENGINE
from stator.engines.properties import Property
from stator.jobs import entry_replacement, log
from stator.jobs.models import Entry, Photo, Reading
from stator.jobs.photos import clean
from tests.factories import Hands, job, person


class TheLogKeepsItsPromise(TestCase):
    def setUp(self):
        self.job = job()
        self.entry = log.open_entry(self.job.run.get(key="heat-and-drop"), self.job.card.seats.get(), person())
        log.save_reading(self.entry, person(), "room", parse("18 C", "temperature"), "k1")
        log.sign(self.entry, person(), log.VerdictSnapshot("in", "Seated", ""), {})

    def refused(self, change):
        with self.assertRaises((DatabaseError, IntegrityError)), transaction.atomic():
            change()

    def test_the_database_itself_refuses_to_change_a_signed_entry(self):
        self.refused(lambda: Entry.objects.update(call_state="out"))
        self.refused(lambda: Entry.objects.filter(pk=self.entry.pk)._raw_delete("default"))
        self.refused(lambda: Reading.objects.update(canonical=99))
        self.refused(lambda: Reading.objects.all()._raw_delete("default"))
        self.refused(lambda: Reading.objects.create(entry=self.entry, ask="x", text="1", kind="length", by=person(), client_key="k2"))

    def test_its_readings_cannot_be_withdrawn_nor_added_to(self):
        with self.assertRaises(log.Signed):
            log.withdraw(self.entry.readings.get(), person())
        with self.assertRaises(log.Signed):
            log.save_reading(self.entry, person(), "room", parse("19 C", "temperature"), "k3")

    def test_a_key_known_already_is_the_same_reading_even_after_signing(self):
        again = log.save_reading(self.entry, person(), "room", parse("18 C", "temperature"), "k1")
        self.assertEqual(again.pk, self.entry.readings.get().pk)

    def test_superseding_twice_begins_one_new_entry(self):
        first = entry_replacement.replace_entry(self.entry, person(), "measured wrong")
        self.assertEqual(entry_replacement.replace_entry(self.entry, person(), "measured wrong"), first)

    def test_one_open_entry_a_seat(self):
        entry_replacement.replace_entry(self.entry, person(), "again")
        self.refused(lambda: Entry.objects.create(job=self.job, station=self.entry.station, seat=self.entry.seat, opened_by=person()))


class CarriedFromElsewhere(TestCase):
    """Tests of readings that belong to a second entry as well."""

    def setUp(self):
        self.job = job()
        stage = self.job.run.get(key="heat-and-drop")
        self.entry, self.whole = log.open_entry(stage, self.job.card.seats.get(), person()), log.open_entry(stage, None, person())
        self.source = log.save_reading(self.whole, person(), "fit-outcome", log.words("dropped"), "said-once")
        self.at = timezone.now() - timedelta(minutes=9)

    def carry(self, **more):
        air, how = FactKey(ENGINE, Property.AIR_TEMPERATURE), FactKey(self.entry.seat.part, Property.FIT_OUTCOME)
        said = [
            log.LinkedReading(air, parse("18 C", "temperature"), self.at, self.source.pk),
            log.LinkedReading(how, log.words("dropped"), self.at, self.source.pk),
        ]
        log.carry(self.entry, person(), 2, said, [("window", "window", self.at, self.at + timedelta(seconds=30))], **more)
        self.entry.refresh_from_db()

    def test_readings_clocks_and_choices_come_at_once_with_their_own_times(self):
        self.job.refresh_from_db()
        revision = self.job.revision
        self.carry(heater="3")
        room, outcome = self.entry.readings.order_by("ask")
        self.assertEqual((room.canonical, room.taken_at, room.attempt), (18, self.at, 2))
        self.assertIsNone(outcome.canonical)
        self.assertEqual(self.entry.timers.get().ran_s(timezone.now()), 30)
        self.assertEqual((self.entry.attempt, self.entry.choices), (2, {"heater": "3"}))
        self.job.refresh_from_db()
        self.assertEqual(self.job.revision, revision + 1)

    def test_choices_made_before_stay_and_a_clock_that_ran_already_is_not_run_twice(self):
        log.set_method(self.entry, wanted="tight")
        self.carry()
        self.carry()
        self.assertEqual(self.entry.choices["wanted"], "tight")
        self.assertEqual((self.entry.timers.count(), self.entry.readings.count()), (1, 4))

    def test_what_is_withdrawn_where_it_was_said_is_withdrawn_where_it_was_carried(self):
        self.carry()
        log.withdraw(self.source, person())
        self.assertEqual([each.withdrawn_by for each in self.entry.readings.all()], [person()] * 2)

    def test_a_signed_entry_takes_nothing_more(self):
        log.sign(self.entry, person(), log.VerdictSnapshot("in", "Seated", ""), {})
        with self.assertRaises(log.Signed):
            self.carry()
        self.assertEqual(self.entry.readings.count(), 0)

    def test_a_clock_may_come_to_count_for_something_else(self):
        timer = log.start_timer(self.entry, person(), "door", {"code": "door"}, "window", 10.0)
        log.move_due(timer, self.at, {"code": "home_by", "values": {"part": "Main"}})
        timer.refresh_from_db()
        self.assertEqual((timer.said["code"], timer.due_at), ("home_by", self.at))
        log.move_due(timer, self.at)
        timer.refresh_from_db()
        self.assertEqual(timer.said["code"], "home_by")


def picture(kind: str, size=(64, 32), **more) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, "peru").save(out, kind, **more)
    return out.getvalue()


class Photos(TestCase):
    def test_a_phone_s_picture_is_turned_upright_and_loses_its_place(self):
        exif = Image.Exif()
        exif[0x0112] = 6
        exif.get_ifd(0x8825)[1] = "N"
        data, size = clean(picture("JPEG", exif=exif))
        self.assertEqual(size, (32, 64))
        self.assertEqual(dict(Image.open(io.BytesIO(data)).getexif()), {})

    def test_heic_png_and_webp_become_jpeg(self):
        heic = io.BytesIO()
        pillow_heif.from_pillow(Image.new("RGB", (64, 64), "teal")).save(heic)
        for data in (heic.getvalue(), picture("PNG"), picture("WEBP")):
            self.assertEqual(Image.open(io.BytesIO(clean(data)[0])).format, "JPEG")

    def test_what_is_no_picture_is_refused_in_words(self):
        for data in (b"", b"not a picture", b"<svg xmlns='x'/>", picture("PNG")[:40], picture("GIF")):
            with self.subTest(data[:12]), self.assertRaisesRegex(BadInput, "no picture"):
                clean(data)

    def test_the_page_keeps_the_pictures_and_names_the_file_that_was_none(self):
        hands = Hands(job())
        files = [SimpleUploadedFile("left.jpg", picture("JPEG")), SimpleUploadedFile("notes.jpg", b"hello")]
        page = hands.client.post("/jobs/0412/photos/", {"photo": files, "caption": "left"}, follow=True).content.decode()
        self.assertIn("notes.jpg: That file is no picture", page)
        photo = Photo.objects.get()
        seen = hands.client.get(f"/photos/{photo.pk}/full.jpg")
        self.assertEqual(seen["Content-Type"], "image/jpeg")
        self.client.logout()
        self.assertEqual(self.client.get(f"/photos/{photo.pk}/full.jpg").status_code, 302)
