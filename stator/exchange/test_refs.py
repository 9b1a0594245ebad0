"""Tests of references by name between shops, and of the backup commands."""

from __future__ import annotations

import json

from django.test import TestCase

from shopmath.validation import BadInput
from stator.engines.models import Fitted, Seal
from stator.exchange.card_files import card_as_json, card_from_json
from stator.exchange.reference_names import ReferenceNames
from stator.shop.models import Chiller, Gauge, Heater
from stator.stations.split_crankcase.tests import face
from tests.factories import Hands, half_job


class Names(TestCase):
    def setUp(self):
        self.made = half_job()
        face(self.made.card)
        self.card = self.made.card
        self.drum = self.card.seats.get(name="Selector drum")
        self.spindle = self.card.fitted.get(name="Rocker spindle")
        self.bolt = self.card.marks.get(name="3")
        self.seal = Seal.objects.create(card=self.card, name="Crank seal", shaft_mm=30, bore_mm=47, width_mm=7)
        self.refs = ReferenceNames(self.card)

    def test_choices_name_ovens_gauges_and_chillers_and_come_back(self):
        oven, probe = Heater.objects.get(method="oven"), Gauge.objects.get(kind="contact")
        freezer = Chiller.objects.get(method="freezer")
        choices = {
            "heater": str(oven.pk),
            "means": f"{probe.pk}:contact",
            "gauge-dial": str(Gauge.objects.get(kind="dial").pk),
            f"part-{self.drum.uid}": f"must-{freezer.pk}",
            f"part-{self.spindle.uid}": "out",
            "tab": self.spindle.uid,
            "turns": {"door1": self.drum.uid},
            "skipped": ["air-temperature"],
            "times": {f"end-depth.{self.spindle.uid}": 3},
            "wanted": "usual",
        }
        said = self.refs.choices_out("heat-and-drop", choices)
        self.assertEqual(said["heater"], f"@{{heaters/{oven.name}}}")
        self.assertEqual(said["means"], f"@{{gauges/{probe.name}}}:contact")
        self.assertEqual(said[f"part-{self.drum.uid}"], f"must-@{{chillers/{freezer.name}}}")
        self.assertNotIn("turns", said)  # only while a heat runs
        back, left = self.refs.choices_in("heat-and-drop", said)
        self.assertEqual((back, left), ({key: value for key, value in choices.items() if key != "turns"}, []))

    def test_a_bare_number_of_another_shop_is_told_and_left_out(self):
        back, left = self.refs.choices_in("heat-and-drop", {"heater": "7", "part-a1": "in-3", "means": "drop", "wanted": "usual"})
        self.assertEqual(back, {"means": "drop", "wanted": "usual"})
        self.assertEqual(len(left), 2)
        self.assertEqual(self.refs.choices_in("crank-in", {"tool": "7"})[0], {})

    def test_what_is_not_here_is_left_out_and_nothing_else(self):
        values = {"heater": "@{heaters/Forge}", "wanted": "usual", "skipped": ["room", "b-@{marks/99}"], "turns": {"1": 2}, "none": None}
        self.assertEqual(self.refs.into(values), {"wanted": "usual", "skipped": ["room"], "turns": {"1": 2}, "none": None})
        self.assertIsNone(self.refs.into("home-s@{seats/Nowhere}"))


class PinsOnTheCard(TestCase):
    """Through the card's page and through its file."""

    def setUp(self):
        self.made = half_job()
        self.card = self.made.card
        self.client = Hands(self.made).client

    def put(self, pk="", **fields):
        values = {"part": "fitted", "id": pk, **{f"fitted-{name}": value for name, value in fields.items()}}
        return self.client.post(f"/jobs/{self.made.tag}/card/", values, follow=True)

    PIN = {"name": "Stop pin", "kind": "pin", "half": "left", "loads_from": "inside", "d_mm": "10", "length_mm": "1 in"}

    def test_a_pin_is_put_on_with_usual_fits_where_none_are_given(self):
        self.assertContains(self.put(**self.PIN), "Stop pin")
        found = Fitted.objects.get(name="Stop pin")
        self.assertEqual((found.hole_code, found.part_code, found.bore_mm, found.depth_within_mm), ("H7", "p6", 0.0, 0.3))
        self.assertAlmostEqual(found.length_mm, 25.4)

    def test_what_cannot_be_is_refused_beside_its_field(self):
        for changes, words in (
            ({"bore_mm": "12"}, "is smaller than the outside"),
            ({"hole_code": "Q7"}, "no hole letter"),
            ({"angle_deg": "90"}, "Say what points there"),
            ({"name": "Rocker spindle"}, "has a part called"),
            ({"d_mm": "10 C"}, "temperature"),
        ):
            with self.subTest(changes):
                self.assertContains(self.put(**{**self.PIN, **changes}), words)
        self.assertFalse(Fitted.objects.filter(name="Stop pin").exists())

    def test_it_is_changed_and_taken_off(self):
        spindle = Fitted.objects.get(name="Rocker spindle")
        fields = {**self.PIN, "name": "Rocker spindle", "d_mm": "14", "order": "washer, rocker"}
        self.put(**fields)
        self.client.post(
            f"/jobs/{self.made.tag}/card/", {"part": "fitted", "id": spindle.pk, **{f"fitted-{k}": v for k, v in fields.items()}}
        )
        spindle.refresh_from_db()
        self.assertEqual((spindle.d_mm, spindle.pieces), (14, ["washer", "rocker"]))
        self.client.post(f"/cards/{self.card.pk}/remove/", {"part": "fitted", "id": spindle.pk, "sure": "1"})
        self.assertFalse(Fitted.objects.filter(pk=spindle.pk).exists())

    def test_a_card_with_pins_goes_out_and_comes_back_the_same(self):
        Fitted.objects.filter(name="Rocker spindle").update(after=self.card.seats.get(name="Selector drum"))
        said = card_as_json(self.card)
        again = card_from_json(json.dumps(said).encode())
        self.assertEqual(card_as_json(again), said)
        self.assertEqual(again.fitted.get(name="Rocker spindle").after.card, again)
        said["fitted"][0]["after"] = "Nowhere"
        with self.assertRaisesMessage(BadInput, "no seat 'Nowhere'"):
            card_from_json(json.dumps(said).encode())
