"""Usual lay-outs that a card may start from: everything in them can be computed with, and nothing in them passes for known."""

from __future__ import annotations

from django.test import TestCase

from engines.fits import fit_of
from engines.layouts import LAYOUTS, lay_out
from engines.models import EngineCard, Seal, Seat
from stations.seals.tests import Sealer
from tests.shed import Hands, job


class Layouts(TestCase):
    def test_every_figure_is_marked_as_assumed_and_every_fit_can_be_computed(self):
        for key in LAYOUTS:
            with self.subTest(key):
                card = EngineCard.objects.create(name=key)
                lay_out(card, key)
                seats = Seat.objects.filter(card=card)
                self.assertGreaterEqual(seats.filter(role="main").count(), 2)
                self.assertFalse(seats.exclude(marking_assumed=True, code_assumed=True).exists())
                self.assertFalse(Seal.objects.filter(card=card, sizes_assumed=False).exists())
                for seat in seats:
                    self.assertGreater(fit_of(seat).outer.limits.upper_um, fit_of(seat).outer.limits.lower_um)
                for seal in Seal.objects.filter(card=card):
                    self.assertLess(seal.shaft_mm, seal.bore_mm)

    def test_a_plan_says_that_its_bearing_is_only_typical(self):
        made = job(designation="6204 C3", marking_assumed=True)
        self.assertIn("typical and not read off its ring", " ".join(Hands(made).work().plate().assumed))

    def test_a_seal_of_assumed_sizes_is_taken_as_it_is_measured(self):
        made = job(order="bottom-end")
        sizes = {"width_mm": 7, "lip": "inside"}
        seal = Seal.objects.create(card=made.card, name="Crank seal", shaft_mm=20, bore_mm=35, sizes_assumed=True, **sizes)
        sure = Seal.objects.create(card=made.card, name="Output seal", shaft_mm=17, bore_mm=40, **sizes)
        hands = Sealer(made)
        hands.one(seal, shaft="22", bore="38")
        self.assertNotEqual("stop", hands.work().plate().state)
        hands.one(seal, shaft=str(sure.shaft_mm), bore=str(sure.bore_mm))
        self.assertEqual("stop", hands.work().plate().state)
