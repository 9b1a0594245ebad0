"""Tests of the number of queries of a saved reading and a page, regardless of the amount of data; and of the size of a first load."""

from __future__ import annotations

import gzip
import re
from pathlib import Path

from django.contrib.staticfiles import finders
from django.db import connection
from django.test import TestCase
from django.test.utils import CaptureQueriesContext

from stator.engines.models import EngineCard, Seal, Seat
from stator.jobs.models import Photo
from stator.workbench.test_navigation import photo_file
from tests.factories import job, person

PAGE = "/jobs/0412/true/"
MOST = 24  # of a kept reading; the aim is 12
PAGE_MOST = 12
FILE_MOST = 18  # of all there is of a job
PLACES = [(f"{what}.{side}", at) for side in ("left", "right") for what, at in (("support-place", "92"), ("gauge-place", "34"))]


class FirstLoad(TestCase):
    def test_a_station_s_first_load_is_under_200_kb(self):
        made = job(order="bottom-end")
        self.client.force_login(person())
        page = self.client.get(f"/jobs/{made.tag}/split/", headers={"accept-encoding": "gzip"})
        self.assertEqual(page["Content-Encoding"], "gzip")
        loads = re.findall(r'(?:src|href)="/static/([^"]+)"', gzip.decompress(page.content).decode())
        files = [Path(finders.find(each)) for each in {*loads, "ui/fonts/sometype-mono.woff2"}]
        self.assertTrue({"ui/app.css", "ui/reading_bar.js", "ui/fonts/archivo.woff2"} <= set(loads))
        sizes = [len(each.read_bytes() if each.suffix == ".woff2" else gzip.compress(each.read_bytes())) for each in files]
        self.assertLess(len(page.content) + sum(sizes), 200_000)

    def test_what_is_compressed_already_is_sent_as_it_is(self):
        made = job(order="bottom-end")
        self.client.force_login(person())
        self.client.post(f"/jobs/{made.tag}/photos/", {"photo": photo_file(size=(640, 480)), "station": "book-in"})
        for page in (f"/photos/{Photo.objects.get().pk}/full.jpg", f"/jobs/{made.tag}/job.zip"):
            answer = self.client.get(page, headers={"accept-encoding": "gzip"})
            self.assertEqual((answer.status_code, answer.get("Content-Encoding")), (200, None), page)


class Asked(TestCase):
    def setUp(self):
        self.made = job(order="crank")
        EngineCard.objects.filter(pk=self.made.card_id).update(stroke_mm=58, crank="built_up")
        self.client.force_login(person())
        for key, text in PLACES:
            self.keeps(key, text)
        self.keeps("shaft-reading.left.0", "0.01")

    def keeps(self, ask, text):
        with CaptureQueriesContext(connection) as asked:
            answer = self.client.post(f"{PAGE}keep/", {"ask": ask, "text": text}, headers={"hx-request": "true"})
        self.assertEqual(answer["X-Kept"], "yes")
        return len(asked)

    def pictured(self, count):
        files = [photo_file(f"{each}.jpg") for each in range(count)]
        self.client.post("/jobs/0412/photos/", {"photo": files, "station": "true", "caption": "as it stands"})

    def opens(self, page):
        self.client.get(page)  # what is read once for a process is read
        with CaptureQueriesContext(connection) as asked:
            self.assertEqual(self.client.get(page, follow=True).status_code, 200)
        return len(asked)

    def test_a_kept_reading_asks_no_more_with_more_readings_seats_and_jobs(self):
        first = self.keeps("shaft-reading.left.45", "0.02")
        self.assertLessEqual(first, MOST)
        for angle in (90, 135, 180, 225):
            self.keeps(f"shaft-reading.left.{angle}", "0.02")
        for number in range(6):
            Seat.objects.create(card=self.made.card, name=f"Gearbox {number}", role="gearbox", half="left", designation="6203", code="N7")
            job(500 + number)
        self.keeps("shaft-reading.left.270", "0.02")  # the card is read again, once
        self.assertLessEqual(self.keeps("shaft-reading.left.315", "0.02"), first)

    def test_no_page_goes_through_all_rows_of_the_log(self):
        """Tests of query plans: each query uses a selective index."""
        for page in ("/", PAGE, "/jobs/0412/inspect/", "/jobs/0412/run/", "/jobs/0412/log/", "/jobs/0412/sheet/", "/jobs/0412/card/"):
            with CaptureQueriesContext(connection) as asked:
                self.client.get(page, follow=True)
            with connection.cursor() as cursor:
                for sql in [query["sql"] for query in asked if query["sql"].startswith("SELECT")]:
                    cursor.execute("EXPLAIN QUERY PLAN " + sql.replace("%", "%%"))
                    for step in [row[3] for row in cursor.fetchall()]:
                        self.assertNotRegex(step, r"SCAN jobs_|USING INDEX jobs_reading_carried_from", (page, sql))

    def test_nor_do_the_pages_that_list(self):
        pages = (
            "/",
            PAGE,
            "/jobs/0412/run/",
            "/jobs/0412/log/",
            "/jobs/0412/card/",
            "/jobs/0412/sheet/",
            "/held/",
            "/missing/",
            "/find/?q=corrie",
        )
        self.pictured(1)
        before = {page: self.opens(page) for page in pages}
        self.assertEqual({page: asked for page, asked in before.items() if asked > PAGE_MOST}, {})
        for angle in (45, 90, 135, 180):
            self.keeps(f"shaft-reading.left.{angle}", "0.02")
        for number in range(8):
            Seat.objects.create(card=self.made.card, name=f"Gearbox {number}", role="gearbox", half="left", designation="6203", code="N7")
            job(500 + number)
        self.pictured(3)
        more = {page: (asked, now) for page, asked in before.items() if (now := self.opens(page)) > asked}
        self.assertEqual(more, {})

    def test_a_job_as_a_file_asks_no_more_with_more_readings_seats_and_seals(self):
        Seal.objects.create(card=self.made.card, name="Crank seal", seat=self.made.card.seats.get(), shaft_mm=30, bore_mm=47, width_mm=7)
        first = self.opens("/jobs/0412/export.json")
        self.assertLessEqual(first, FILE_MOST)
        for number in range(4):
            seat = Seat.objects.create(card=self.made.card, name=f"Gearbox {number}", role="gearbox", designation="6203", code="N7")
            Seal.objects.create(card=self.made.card, name=f"Seal {number}", seat=seat, shaft_mm=20, bore_mm=35, width_mm=7)
            self.keeps(f"shaft-reading.left.{45 * (number + 1)}", "0.02")
        self.assertLessEqual(self.opens("/jobs/0412/export.json"), first)

    def test_a_page_that_asks_what_has_changed_asks_no_more_than_a_page(self):
        for page in ("pulse/?rev=0", "pulse/?rev=0&live=1"):
            self.assertLessEqual(self.opens(f"{PAGE}{page}"), self.opens(PAGE))
