"""Tests of a gauge's own log: the meaning of its lines, and their places."""

from __future__ import annotations

import re
from datetime import UTC, timedelta

import time_machine
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import SimpleTestCase, TestCase
from django.utils import timezone

from shopmath.validation import BadInput
from stator.engines.models import EngineCard
from stator.instruments.log_file import read_log, text_of
from stator.jobs.models import Reading
from stator.shop.models import Gauge
from tests.factories import job, person

ROUND = ("0.012", "0.016", "0.018", "0.020", "0.012", "0.004", "0.001", "0.002", "0.013")


class WhatALineSays(SimpleTestCase):
    def read(self, text, kind="length", unit="mm"):
        return read_log(text, kind, unit, UTC)

    def test_lines_as_a_gauge_speaks_them_with_a_point_or_a_comma(self):
        found = self.read("# dial\n+0,012\n0.02 mm\n0.0013 in run-out\n")
        self.assertEqual([line.text for line in found], ["+0,012 mm", "0.02 mm", "0.0013 in"])
        self.assertEqual((found[2].number, found[2].place), (4, "run-out"))

    def test_columns_in_any_order_with_the_unit_over_them_or_beside(self):
        over = self.read("No;Time;Reading (in)\n1;02.03.2026 10:31:05;0,001\n")[0]
        self.assertEqual((over.text, over.at.isoformat()), ("0,001 in", "2026-03-02T10:31:05+00:00"))
        beside = self.read("place\tdate\ttime\tunit\tvalue\nleft\t2026-03-02\t10:31\tmm\t0.4\n")[0]
        self.assertEqual((beside.text, beside.place, beside.at.minute), ("0.4 mm", "left", 31))

    def test_a_time_that_cannot_be_told_for_sure_is_none(self):
        for said in ("03/02/2026 10:31", "yesterday", "1234.5", "2026-13-40 10:00"):
            self.assertIsNone(self.read(f"value,time\n0.1,{said}\n")[0].at)

    def test_what_is_no_reading_is_said_with_its_line(self):
        found = self.read("value,unit\n0.1,mm\nOL,mm\n20,C\n")
        self.assertEqual([bool(line.refused) for line in found], [False, True, True])
        self.assertIn("that is temperature, and here it measures length", found[2].refused)

    def test_a_file_without_any_reading_is_refused_in_words(self):
        for text, words in (
            ("", "no line"),
            ("a,b\n1,2\n", "no column is called value"),
            ("0.1\n" * 201, "over 200 lines"),
            ("x\ny\n", "Line 1"),
        ):
            with self.assertRaisesRegex(BadInput, words):
                self.read(text)
        for data in (b"\x00\x01\x02\x00", b"0" * 100_001):
            with self.assertRaises(BadInput):
                text_of(data)

    def test_the_codes_that_gauges_write_in(self):
        for data in ("20 °C".encode("utf-16"), "20 °C".encode("cp1252"), "\ufeff20 °C".encode()):
            self.assertEqual(text_of(data).lstrip("\ufeff"), "20 °C")


class WhereTheyGo(TestCase):
    def setUp(self):
        job(412, order="crank")
        EngineCard.objects.update(stroke_mm=58)
        self.dial = Gauge.objects.get(name="Dial gauge")
        self.client.force_login(person("skipper"))

    def send(self, text, station="true", gauge=None):
        file = SimpleUploadedFile("dial.csv", text.encode(), "text/csv")
        return self.client.post(f"/jobs/0412/{station}/log-file/", {"file": file, "gauge": gauge or self.dial.pk})

    def keep(self, shown, **changed):
        page = shown.context
        lines = [each.line.number for each in page["found"] if each.chosen]
        key = re.findall(r'log-file/">\s*<[^>]*><input type="hidden" name="client_key" value="(\w+)">', shown.content.decode())[0]
        data = {"log": page["log"], "name": page["name"], "gauge": page["gauge"].pk, "line": lines, "do": "keep", "client_key": key}
        return self.client.post("/jobs/0412/true/log-file/", {**data, **changed})

    def set_up(self):
        for key, text in (
            ("support-place.left", "92"),
            ("gauge-place.left", "34"),
            ("support-place.right", "92"),
            ("gauge-place.right", "34"),
        ):
            self.client.post("/jobs/0412/true/keep/", {"ask": key, "text": text})

    def standing(self):
        return {each.ask: each for each in Reading.objects.filter(withdrawn_at=None, property="shaft-reading")}

    def test_a_turn_is_shown_in_its_places_and_kept_only_when_told(self):
        self.set_up()
        shown = self.send("\n".join(ROUND))
        self.assertContains(shown, "9 readings")
        self.assertContains(shown, "Drive side at 135°")
        self.assertEqual(self.standing(), {})
        self.assertRedirects(self.keep(shown), "/jobs/0412/true/")
        saved = self.standing()
        self.assertEqual([saved[f"shaft-reading.left.{angle}"].canonical for angle in (0, 45, 315, 360)], [0.012, 0.016, 0.002, 0.013])
        self.assertEqual((saved["shaft-reading.left.0"].gauge, saved["shaft-reading.left.0"].extra["log"]), (self.dial, "dial.csv"))

    def test_kept_twice_it_is_there_once(self):
        self.set_up()
        shown = self.send("\n".join(ROUND))
        self.keep(shown)
        self.keep(shown)
        self.assertEqual(len(self.standing()), 9)
        named = self.send("place,value\nshaft-reading.left.90,0.03\n")
        self.keep(named)
        self.keep(named)
        self.assertEqual((len(self.standing()), self.standing()["shaft-reading.left.90"].canonical), (9, 0.03))

    def test_after_a_line_without_a_reading_nothing_goes_one_place_off(self):
        self.set_up()
        text = "\n".join((*ROUND[:3], "OL", *ROUND[3:]))
        shown = self.send(text)
        self.assertContains(shown, "3 readings")
        self.assertContains(shown, "waits for line 4", count=6)
        again = self.client.post("/jobs/0412/true/log-file/", {"log": text, "gauge": self.dial.pk, "line": [1, 2, 3, 5, 6, 7, 8, 9, 10]})
        self.assertContains(again, "9 readings")
        self.keep(again)
        self.assertEqual(self.standing()["shaft-reading.left.135"].canonical, 0.02)

    def test_a_line_that_names_its_place_goes_there_and_an_unbelievable_one_nowhere(self):
        self.set_up()
        self.keep(self.send("place,value\ndrive side at 90°,0.018\nshaft-reading.left.0,0.012\n,0.016\n,40\n"))
        angles = {each.angle_deg: each.canonical for each in self.standing().values()}
        self.assertEqual(angles, {90: 0.018, 0: 0.012, 45: 0.016})

    def test_times_are_kept_where_they_can_be(self):
        begun = timezone.now() + timedelta(hours=1)
        with time_machine.travel(begun, tick=False):
            self.set_up()
        between, later, before = (begun + timedelta(minutes=minutes) for minutes in (5, 60, -5))
        with time_machine.travel(begun + timedelta(minutes=10), tick=False):
            shown = self.send("value,time\n" + "".join(f"0.01,{each.isoformat()}\n" for each in (before, between, later)))
            self.assertEqual(
                [each.at for each in shown.context["found"]], [None, None, None]
            )  # the first is taken now: no other is earlier
            shown = self.send("value,time\n" + "".join(f"0.01,{each.isoformat()}\n" for each in (between, later, between)))
        self.assertEqual([each.at for each in shown.context["found"]], [between, None, None])

    def test_what_cannot_be_read_in_is_said_and_nothing_kept(self):
        self.assertContains(self.send("0.1", gauge=999), "Say which gauge wrote the log")
        self.assertContains(self.send("a,b\n1,2\n"), "no column is called value")
        self.set_up()
        bench = Gauge.objects.create(name="Another gun", kind="infrared", resolution=0.1, emissivity=0.95)
        self.assertContains(self.send("40", gauge=bench.pk), "Nothing of it would be kept")
        self.assertEqual(self.standing(), {})

    def test_where_the_clock_counts_no_log_is_read_in(self):
        heat = job(413)
        seat = heat.card.seats.get()
        file = SimpleUploadedFile("gun.csv", b"80 C")
        said = self.client.post(f"/jobs/0413/heat-and-drop/{seat.pk}/log-file/", {"file": file, "gauge": self.dial.pk})
        self.assertContains(said, "Here the clock counts")
        self.assertNotContains(self.client.get(f"/jobs/0413/heat-and-drop/{seat.pk}/"), "own log")
