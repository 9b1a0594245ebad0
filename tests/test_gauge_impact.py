"""Tests of a faulty gauge: affected entries are listed, marked at the station and named in the report."""

from __future__ import annotations

from datetime import timedelta

from django.utils import timezone

from stator.exchange.report.data import report_of
from stator.exchange.report.tests import Leaving
from stator.exchange.report.views import JOB
from stator.shop.models import Gauge
from tests.factories import person


class FoundWrong(Leaving):
    def setUp(self):
        super().setUp()
        self.dial = Gauge.objects.get(kind="dial")
        self.page = f"/gauges/{self.dial.pk}/rests/"

    def say(self, on, because="reads 0.02 high"):
        return self.hands.client.post(self.page, {"wrong_from": f"{on:%Y-%m-%d}", "wrong_because": because}, follow=True)

    def test_what_rests_on_it_is_listed_with_its_verdict_and_marked_where_it_is_shown(self):
        page = self.say(timezone.now()).content.decode()
        for words in ("Found wrong: reads 0.02 high", "0412", "Centre", "Crank is centred", "Measure again where it matters"):
            self.assertIn(words, page)
        text = "Dial gauge was found wrong later: reads 0.02 high. Measure again what it read here."
        self.assertIn(text, self.centrer.page())
        unknown = report_of(JOB.get(pk=self.made.pk), person(), timezone.now()).unknown
        self.assertIn("Dial gauge was found wrong later (reads 0.02 high). It was used at Centre.", unknown)

    def test_what_it_read_before_that_day_still_stands(self):
        page = self.say(timezone.now() + timedelta(days=2)).content.decode()
        self.assertIn("Nothing rests on it since that day.", page)
        self.assertNotIn("found wrong later", self.centrer.page())

    def test_measured_again_with_another_nothing_rests_on_it_any_more(self):
        self.say(timezone.now())
        self.centrer.post("supersede", reason="the dial reads high")
        other = Gauge.objects.create(name="Spare dial", kind="dial", resolution=0.01)
        self.centrer.choose(**{"gauge-dial": str(other.pk)})
        for reading in self.centrer.entry.readings.filter(gauge=self.dial, withdrawn_at=None):
            self.centrer.client.post(f"{self.centrer.work().address}undo/", {"reading": reading.pk})
        self.centrer.answer("end-float", "0.16")
        self.centrer.act("sign")
        self.assertIn("Nothing rests on it since that day.", self.hands.client.get(self.page).content.decode())

    def test_it_wants_a_day_and_a_reason_and_an_owner(self):
        page = self.hands.client.post(self.page, {"wrong_from": "", "wrong_because": "dropped"}).content.decode()
        self.assertIn("Say from which day on", page)
        self.assertIn('value="dropped"', page)
        self.hands.client.force_login(person("bram", "mechanic"))
        self.assertEqual(self.say(timezone.now()).status_code, 403)

    def test_it_can_be_right_after_all(self):
        self.say(timezone.now())
        page = self.hands.client.post(self.page, {"right": "1"}, follow=True).content.decode()
        self.assertIn("is trusted again", page)
        self.assertNotIn("found wrong later", self.centrer.page())
