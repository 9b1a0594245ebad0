"""Tests of equipment that the open jobs need and the shop lacks."""

from __future__ import annotations

from stator.jobs.models import Job
from stator.shop.models import Driver, Gauge, Splitter
from stator.workbench.test_navigation import Around


class Missing(Around):
    def setUp(self):
        super().setUp()
        Driver.objects.all().delete()

    def said(self):
        return self.client.get("/missing/").content.decode()

    def test_a_driver_that_lands_on_the_ring_is_wanted_until_one_stands_on_the_shelf(self):
        self.assertIn("A driver of 39.4", self.said())
        self.assertIn("0412 Main, drive side (6204 C3)", self.said())
        Driver.objects.create(name="Tube 45", outside_mm=45, inside_mm=36)
        self.assertNotIn("A driver of", self.said())

    def test_tools_and_gauges_that_the_run_wants_are_named_once_for_all_engines(self):
        Gauge.objects.all().delete()
        Splitter.objects.all().delete()
        said = self.said()
        for what in ("A dial gauge", "Feeler gauges", "A bore gauge", "A case splitter"):
            self.assertEqual(said.count(what), 1, what)

    def test_an_engine_that_has_gone_wants_nothing(self):
        Job.objects.update(gone_at=self.job.booked_in_at)
        self.assertIn("Nothing:", self.said())
