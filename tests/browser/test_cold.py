"""A drawn cup bearing at all its stations, from the page only."""

from __future__ import annotations

from stator.engines.properties import Property
from stator.jobs.models import DerivedFact
from stator.shop.models import Extractor
from tests.browser.base import BrowserCase
from tests.factories import job


class ANeedleShell(BrowserCase):
    def setUp(self):
        self.made = job(order="bearings", designation="HK2016", code="N7", stop="through")
        Extractor.objects.create(name="Collets", kind="collet", low_mm=8, high_mm=32)
        self.made.run.exclude(key__in=("bearings-out", "heat-and-drop")).delete()
        super().setUp()

    def answers(self, *pairs):
        for typed, then in pairs:
            self.enter(typed, then)

    def test_a_collet_draws_it_out_heat_is_not_for_it_and_a_screw_draws_it_in(self):
        self.go("/jobs/0412/bearings-out/")
        self.sees("a collet behind the shell")
        self.go("/jobs/0412/heat-and-drop/")
        self.sees("it has no size of its own")
        self.page.get_by_role("link", name="Add Fit cold to the run").click()
        self.page.get_by_label("Station", exact=True).select_option(label="Fit cold")
        self.page.get_by_label("Why it is added").fill("a drawn cup")
        self.page.get_by_role("button", name="Add it").click()
        self.sees("added: a drawn cup")
        self.go("/jobs/0412/fit-cold/")
        for line in ("right behind the seat", "its marked end"):
            self.page.locator(".tick", has_text=line).click()
            self.page.locator(".tick[aria-pressed=true]", has_text=line).wait_for()
        self.answers(
            ("", "Outside of the bearing"),
            ("26.01", "Wall thickness around the bore"),
            ("7", "Draw-in screw"),
            ("M10x1.5", "From the start to the shoulder"),
            ("skip", "Stands out of the seat at 12"),
            ("15.2 all", "Turns when it stopped"),
        )
        self.sees("Stands square")
        self.answers(("11", "Torque at the end"), ("9", "How did it go?"))
        self.enter("home", "Depth below the face, at 12")
        self.answers(("0.4 all", "Anything to note"), ("skip", "Nothing more to measure"))
        self.sees("Home")
        self.assertAccessible()
        self.page.keyboard.type("sign")
        self.page.keyboard.press("Enter")
        self.sees("Signed by")
        self.assertTrue(DerivedFact.objects.filter(property=Property.BEARING_HOME).exists())
        self.assertQuiet()
