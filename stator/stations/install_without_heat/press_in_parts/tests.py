from __future__ import annotations

from django.test import TestCase

from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import Fitted
from stator.engines.properties import Property
from stator.shop.models import Driver, Press
from stator.stations.install_without_heat.analysis import CLOCKS, STARTING
from stator.stations.split_crankcase.tests import Halves
from tests.factories import job


class Pins(Halves):
    """A mechanic at pins and bushings that are installed cold."""

    key = "fit-cold"

    def __init__(self, made):
        super().__init__(made)
        self.address = f"/jobs/{made.tag}/{self.key}/0/"

    def of(self, thing, what, text, at=None):
        return self.answer(FactKey(thing.part, what, at or Location()).key, text)

    def depths(self, thing, *depths, stage=None):
        for clock, depth in zip(CLOCKS, depths, strict=True):
            self.of(thing, Property.SEATING_DEPTH, depth, Location(clock=clock, stage=stage))


class FitPins(TestCase):
    def setUp(self):
        self.made = job(order="cold")
        self.pin = Fitted.objects.create(card=self.made.card, name="Selector spindle", d_mm=12, length_mm=40, part_code="p6", depth_mm=2)
        self.bush = Fitted.objects.create(
            card=self.made.card, name="Kick bush", kind="bush", d_mm=22, bore_mm=18, length_mm=20, metal="bronze-wrought", part_code="s6"
        )
        Fitted.objects.create(card=self.made.card, name="Mount", kind="rubber", d_mm=30, length_mm=20)
        Press.objects.create(name="Bottle press", capacity_text="12 t", capacity_n=117679)
        Driver.objects.create(name="11 mm bar", kind="tube", outside_mm=11, inside_mm=0)
        self.hands = Pins(self.made)

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def goes_in(self, thing, *depths):
        self.hands.depths(thing, "5", "5", "5", "5", stage=STARTING)
        self.hands.tick_all()
        self.hands.of(thing, Property.FIT_OUTCOME, "home")
        self.hands.depths(thing, *depths)

    def test_each_part_has_its_force_by_its_own_fit_and_the_driver_lands_on_its_end(self):
        work = self.hands.work()
        self.assertEqual([option.words for option in work.tabs().options], ["Selector spindle", "Kick bush"])  # rubber goes elsewhere
        found = work.analysis
        self.assertEqual((found.thing.name, found.window.presses_on), ("Selector spindle", "end"))
        self.assertAlmostEqual(found.grip_mm[2], 0.029)  # p6 in H7: at most 29 µm
        self.assertEqual([each.name for each in found.fitting], ["11 mm bar"])
        self.assertGreater(found.force.likely, 1000)
        bush = next(each for each in found.things if each.thing.name == "Kick bush")
        self.assertGreater(bush.grip_mm[0], 0)

    def test_a_pin_that_stands_at_the_wrong_depth_is_not_home(self):
        self.goes_in(self.pin, "3.0", "3.0", "3.0", "3.0")
        found = next(each for each in self.hands.work().analysis.things if each.thing.name == "Selector spindle")
        self.assertEqual((found.deep.state, found.seated.state), ("out", "out"))

    def test_all_parts_are_signed_in_one_entry(self):
        self.goes_in(self.pin, "2.0", "2.0", "2.1", "2.0")
        self.assertEqual(self.hands.work().analysis.thing.name, "Kick bush")
        self.assertIn("moved on", self.hands.act("sign"))
        self.goes_in(self.bush, "0", "0", "0.05", "0")
        self.assertEqual(
            (self.displayed_verdict().state, self.displayed_verdict().reason), ("in", "2 parts are at their depths, and even.")
        )
        self.hands.act("sign")
        self.assertEqual([each["outcome"] for each in self.hands.entry.result["parts"]], ["home", "home"])

    def test_a_part_that_went_crooked_is_done_again(self):
        self.hands.tick_all()
        self.hands.of(self.pin, Property.FIT_OUTCOME, "crooked")
        self.hands.choose(tab=self.pin.uid)
        self.assertEqual([each.key for each in self.hands.work().actions()], [])
        self.hands.of(self.bush, Property.FIT_OUTCOME, "loose")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("out", "Not home"))

    def test_a_card_without_any_says_so_and_leads_to_it(self):
        Fitted.objects.all().delete()
        self.assertIn("stand on its card", self.displayed_verdict().reason)
        self.assertEqual(self.hands.work().actions(), ())
        self.assertIn("Fit cold", self.hands.page())
