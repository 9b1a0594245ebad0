"""Tests of units and language per person and shop, the shop's time zone, and values that stay those of the shop."""

from __future__ import annotations

import csv
import io
import json
from datetime import UTC, datetime, timedelta

import time_machine
from django.test import SimpleTestCase, TestCase
from django.utils import translation

from shopmath.quantity import parse
from stator.engines.fact_keys import FactKey
from stator.engines.models import Mark, Seal, Spec
from stator.engines.parts import CRANK, JOINT
from stator.engines.properties import Property
from stator.exchange.card_files import read_csv
from stator.exchange.job_zip import readings_csv
from stator.jobs.models import Job, Record
from stator.shop.models import Blades, Gauge, Person, Shop
from stator.stations.framework.question_factory import question
from stator.stations.set_end_play.tests import STACK, FloatCase
from stator.stations.true_crank import messages
from stator.ui.number_format import format_for
from stator.ui.times import day, day_time, short_day
from stator.ui.units import Units, question_unit, reading_in, scale_to
from tests.factories import Hands, job


class Asked(SimpleTestCase):
    def test_a_question_says_the_unit_that_a_bare_number_is_taken_in_and_converts_its_example(self):
        small = {"example": "0.02", "resolution": 0.01}
        asked = question(
            messages, FactKey(CRANK, Property.SHAFT_READING), {"Side": "Left", "angle": "0"}, text="Reading", where="", **small
        )
        self.assertEqual((asked.unit, asked.unit_shown, asked.example), ("mm", "mm", "0.02"))
        with reading_in(Units.INCH):
            asked = question(messages, FactKey(CRANK, Property.SHAFT_READING), text="Reading", where="", **small)
            long = question(messages, FactKey(JOINT, Property.BOLT_LENGTH), text="Length", where="", example="35", resolution=0.5)
        self.assertEqual((asked.unit, asked.example, long.unit, long.example), ("thou", "0.8", "in", "1.38"))

    def test_the_page_that_asked_says_what_its_bare_number_meant(self):
        with reading_in(Units.INCH):
            asked = question(messages, FactKey(CRANK, Property.SHAFT_READING), text="Reading", where="")
        self.assertEqual((asked.asked_in("mm").unit, asked.asked_in("furlong").unit), ("mm", "thou"))


class Readers(TestCase):
    def setUp(self):
        self.made = job()
        self.hands = Hands(self.made)
        Gauge.objects.update(port="")

    def inches(self):
        Person.objects.update(units="inch")

    def test_one_key_turns_every_number_and_what_a_bare_one_means(self):
        self.hands.tick_all()
        self.assertIn('name="unit" value="C"', self.hands.page())
        answer = self.hands.client.post("/shop/me/units/", {"next": self.hands.address, "units": "inch"})
        self.assertRedirects(answer, self.hands.address, fetch_redirect_response=False)
        self.assertIn('name="unit" value="F"', self.hands.page())
        self.hands.post("keep", ask=self.hands.key("room"), text="70", unit="F", client_key="a")
        reading = self.hands.entry.readings.get()
        self.assertAlmostEqual(reading.canonical, 21.11, 2)
        self.assertEqual((reading.text, reading.unit), ("70", "degF"))
        self.assertIn("70 °F", self.hands.readings())
        self.hands.client.post("/shop/me/units/", {"next": self.hands.address, "units": "metric"})
        self.assertIn("21 °C", self.hands.readings())

    def test_what_a_page_asked_in_counts_though_its_reader_turned_to_other_units_on_another_device(self):
        self.hands.tick_all()
        self.inches()
        self.hands.post("keep", ask=self.hands.key("room"), text="21", unit="C", client_key="a")
        self.assertEqual(self.hands.entry.readings.get().canonical, 21.0)

    def test_a_stranger_s_address_is_not_gone_back_to(self):
        answer = self.hands.client.post("/shop/me/units/", {"next": "https://elsewhere.example/", "units": "inch"})
        self.assertRedirects(answer, "/", fetch_redirect_response=False)

    def test_own_settings_are_kept_and_empty_ones_are_the_shop_s(self):
        Shop(name="Net Loft", units="inch").save()
        self.assertContains(self.hands.client.get("/shop/chillers/"), "Temperature inside, °F")
        self.hands.client.post("/shop/me/", {"units": "metric", "language": ""})
        self.assertContains(self.hands.client.get("/shop/chillers/"), "Temperature inside, °C")
        self.assertContains(self.hands.client.post("/shop/me/", {"units": "furlongs", "language": ""}), "not one of the available choices")

    def test_times_are_in_the_shop_s_zone(self):
        Shop(name="Net Loft", time_zone="America/St_Johns").save()
        self.hands.keep("room", "21")
        taken = self.hands.entry.readings.get().taken_at
        self.assertIn(
            f"{taken.astimezone(Shop.current().zone):%H:%M}", self.hands.client.get(f"/jobs/{self.made.tag}/log/").content.decode()
        )

    def test_jobs_stand_under_the_week_in_which_they_came_as_the_shop_counts_it(self):
        sunday = datetime(2026, 11, 29, 10, 0, tzinfo=UTC)
        Job.objects.update(booked_in_at=sunday - timedelta(days=1))
        with time_machine.travel(sunday):
            self.assertContains(self.hands.client.get("/find/"), "Booked in this week")
            Shop(name="Net Loft", first_weekday=0).save()  # on Sunday another week has begun
            self.assertContains(self.hands.client.get("/find/"), "Booked in last week")

    def test_a_day_is_said_in_the_order_of_the_language(self):
        on = datetime(2026, 11, 5, 14, 5, tzinfo=UTC)
        self.assertEqual((day(on), short_day(on), day_time(on)), ("5 Nov 2026", "5 Nov", "5 Nov, 14:05"))
        with translation.override("hu"):
            self.assertTrue(day(on).startswith("2026"), day(on))

    def test_a_gauge_s_step_is_typed_in_any_unit(self):
        gauge = {"name": "Half-thou dial", "kind": "dial", "resolution": "0.5 thou", "repeatability": "", "baud": "9600"}
        self.hands.client.post("/shop/gauges/", gauge)
        made = Gauge.objects.get(name="Half-thou dial")
        self.assertEqual(made.resolution, 0.0127)
        self.assertContains(self.hands.client.post("/shop/gauges/", {**gauge, "name": "b", "resolution": "1 C"}), "a unit of temperature")

    def test_a_file_says_mm_whoever_reads_it_in(self):
        self.inches()
        self.hands.client.get("/")
        read_csv(self.made.card, b"what,name,x_mm,y_mm,length_mm\nbolt,1,40,30,35\n")
        mark = Mark.objects.get(card=self.made.card)
        self.assertEqual((mark.x_mm, mark.length_mm), (40.0, 35.0))

    def test_a_limit_of_the_card_is_typed_and_shown_in_the_reader_s_units(self):
        self.inches()
        fields = {"spec-name": "End float", "spec-property": "end-float", "spec-kind": "length", "spec-low": "4", "spec-high": "8"}
        fields |= {"spec-source_kind": "manual", "spec-source": "page 3", "client_key": "k"}
        self.hands.client.post(f"/jobs/{self.made.tag}/card/", {"part": "spec", **fields})
        spec = Spec.objects.get()
        self.assertEqual((spec.low, spec.high), (0.1016, 0.2032))
        self.assertContains(self.hands.client.get(f"/jobs/{self.made.tag}/card/?part=spec&id={spec.pk}"), 'value="4"')

    def test_a_card_is_filled_in_inches_and_its_trade_sizes_stay_what_they_are(self):
        self.inches()
        seal = {
            "name": "Output",
            "half": "left",
            "lip": "inside",
            "loads_from": "outside",
            "shaft_mm": "25",
            "bore_mm": "40",
            "width_mm": "7",
            "depth_mm": "0.02",
        }
        page = f"/jobs/{self.made.tag}/card/"
        self.hands.client.post(page, {"part": "seal", **{f"seal-{name}": value for name, value in seal.items()}, "client_key": "k"})
        self.assertEqual(round(Seal.objects.get().depth_mm, 3), 0.508)
        self.assertContains(self.hands.client.get(page), "25 × 40 × 7")
        facts = self.hands.client.get(f"{page}?part=facts").content.decode()
        self.assertIn("Stroke, in", facts)

    def test_every_kind_is_asked_told_and_kept_in_one_unit(self):
        """Test that a bare number in the unit of the question is shown as typed, and stored in the core's unit."""
        for kind, typed, core in (
            ("length", "1.5", 38.1),
            ("temperature", "212", 100.0),
            ("torque", "30", 40.675),
            ("force", "4500", 20017.0),
            ("pressure", "10", 68.948),
        ):
            with self.subTest(kind), reading_in(Units.INCH):
                unit = question_unit(kind)
                saved = parse(typed, kind, default_unit=unit.typed).canonical
                self.assertAlmostEqual(saved, core, delta=core * 1e-4)
                self.assertEqual(format_for(saved, kind, unit, 0.1 / scale_to(kind, unit)[0]).rstrip("0").rstrip("."), typed)

    def test_a_shelf_is_typed_in_inches_and_told_in_both(self):
        self.inches()
        self.hands.client.post("/shop/blades/", {"name": "Thou blades", "kind": "feeler", "sizes_mm": "1.5 2 4", "client_key": "k"})
        saved = Blades.objects.get(name="Thou blades").sizes_mm
        self.assertEqual([round(each, 4) for each in saved], [0.0381, 0.0508, 0.1016])
        Person.objects.update(units="metric")
        self.assertContains(self.hands.client.get("/shop/"), "0.0381")

    def test_a_reading_leaves_in_the_core_s_unit_and_in_the_reader_s(self):
        self.hands.keep("room", "70 F")
        row = next(csv.DictReader(io.StringIO(readings_csv(self.made))))
        self.assertEqual((row["canonical"], row["unit"], row["shown"], row["shown_unit"]), ("21.1111111", "degC", "21.1111", "°C"))


class Records(FloatCase):
    def test_a_record_is_in_the_shop_s_units_whoever_signs_and_shows_the_reader_s_beside(self):
        Person.objects.update(units="inch")
        in_mm = {ask: f"{text} mm" for ask, text in STACK if text}
        self.hands.stack(*in_mm.items())
        self.hands.shim("0.298 mm")
        self.hands.answer("shim-side", "right")
        self.assertIn("4.80 ± 0.12 thou", self.hands.page())
        self.hands.act("sign")
        content = Record.objects.get().content
        self.assertEqual(content["units"], "metric")
        self.assertIn("0.122 ± 0.003 mm", content["call"]["reason"])
        self.assertEqual([key for key, part in content.items() if " thou" in json.dumps(part)], [])
        page = f"/jobs/{self.made.tag}/sheet/"
        self.assertContains(self.hands.client.get(page), "0.122 ± 0.003 mm (4.80 thou)")
        Person.objects.update(units="metric")
        self.assertNotContains(self.hands.client.get(page), "thou)")
