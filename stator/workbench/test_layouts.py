"""Tests of typical layouts: everything in them can be computed with, and everything is marked as assumed."""

from __future__ import annotations

from django.test import TestCase

from stator.engines.fact_keys import FactKey
from stator.engines.fits import fit_of
from stator.engines.layouts import LAYOUTS, apply_layout
from stator.engines.models import EngineCard, Seal, Seat
from stator.engines.properties import Property
from stator.jobs import log
from stator.stations.install_seals.tests import Sealer
from stator.stations.remove_bearings.tests import Puller
from tests.factories import Hands, job, person


class Layouts(TestCase):
    def test_every_figure_is_marked_as_assumed_and_every_fit_can_be_computed(self):
        for key in LAYOUTS:
            with self.subTest(key):
                card = EngineCard.objects.create(name=key)
                apply_layout(card, key)
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
        self.assertIn("typical and not read off its ring", " ".join(Hands(made).work().displayed_verdict().assumed))

    def test_a_marking_that_was_read_takes_the_place_of_a_typical_one_and_gives_way_when_it_is_withdrawn(self):
        made = job(order="bottom-end", designation="6204 C3", marking_assumed=True)
        seat = made.card.seats.get()
        puller = Puller(made)
        puller.facts()
        puller.answer("came-out", "dropped")
        puller.answer("seat-condition", "sound")
        puller.answer("bearing-marking", "6303 C3")
        self.assertEqual("6303 C3", puller.work().analysis.bearing.designation)
        self.assertEqual([], puller.work().contradictions())
        heat = Hands(made)
        self.assertEqual(47, heat.work().analysis.planned.fit.nominal_mm)
        self.assertNotIn("typical", " ".join(heat.work().displayed_verdict().assumed))
        log.withdraw(puller.work().answers.live(FactKey(seat.part, Property.BEARING_MARKING).key)[-1], person())
        self.assertIn("6204 C3, typical", " ".join(heat.work().displayed_verdict().assumed))

    def test_a_seal_of_assumed_sizes_is_taken_as_it_is_measured(self):
        made = job(order="bottom-end")
        sizes = {"width_mm": 7, "lip": "inside"}
        seal = Seal.objects.create(card=made.card, name="Crank seal", shaft_mm=20, bore_mm=35, sizes_assumed=True, **sizes)
        sure = Seal.objects.create(card=made.card, name="Output seal", shaft_mm=17, bore_mm=40, **sizes)
        hands = Sealer(made)
        hands.one(seal, shaft="22", bore="38")
        found = hands.work().analysis.in_hand
        self.assertEqual((22, 38), (found.shaft_mm, found.bore_mm))
        self.assertLess(found.window.outside_high_mm, 38)
        self.assertGreater(found.window.outside_high_mm, 35)  # of a driver for this seal, not for the typical one
        self.assertNotEqual("stop", hands.work().displayed_verdict().state)
        hands.one(seal, shaft=str(sure.shaft_mm), bore=str(sure.bore_mm))
        self.assertEqual("stop", hands.work().displayed_verdict().state)
