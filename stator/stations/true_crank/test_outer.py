from __future__ import annotations

import math

from django.test import TestCase

from stator.engines.models import EngineCard, Spec
from stator.shop.models import Gauge
from stator.stations.true_crank.analysis import TURN, reading
from stator.stations.true_crank.tests import Truer
from tests.factories import job


class OuterTruing(TestCase):
    """A twin on its centre bearings."""

    def setUp(self):
        self.made = job(order="crank")
        EngineCard.objects.update(stroke_mm=68, crank="built_up", layout="twin")
        Gauge.objects.filter(kind="dial").update(resolution=0.002, repeatability=0.0005)
        Spec.objects.create(
            card=self.made.card,
            name="Crank run-out",
            property="crank-runout",
            high=0.03,
            source="page 31",
            setup="on the centre bearings",
            held="centre",
        )
        self.hands = Truer(self.made)
        self.hands.answer("rim-radius", "60")
        self.hands.answer("throw-angle", "180")

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def swing(self, side, tir, high):
        for angle in TURN:
            self.hands.answer(reading(side, angle).key, f"{tir / 2 * math.cos(math.radians(angle - high)):.4f}")
        self.hands.answer(reading(side, 360).key, "")

    def test_outer_journals_and_centre_holes_are_refused_as_supports(self):
        for held, where in (("outer", "the outer journals"), ("centres", "the centre holes of the outer shafts")):
            self.hands.choose(held=held)
            verdict = self.displayed_verdict()
            self.assertEqual((verdict.state, verdict.headline), ("stop", "Not held on those"))
            self.assertIn(f"Held on {where} a bent crank looks straight", verdict.reason)
            self.assertEqual(self.hands.work().questions(), [])

    def test_the_web_that_turned_is_named_with_degrees_rim_and_direction(self):
        self.swing("left", 0.050, 90)
        self.swing("right", 0.010, 0)
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("out", "A web has turned"))
        self.assertIn("drive side web has turned 0.042", verdict.reason)
        self.assertIn("Turn the drive side web counter-clockwise, seen from the right end: its witness line 0.069 mm", verdict.next_step)
        self.assertIn("should then move 0.000 mm", verdict.detail)

    def test_the_right_web_is_judged_from_its_own_pin(self):
        self.swing("left", 0.004, 0)
        self.swing("right", 0.060, 270)  # its pin stands at 180: that is 90 ahead of it
        verdict = self.displayed_verdict()
        self.assertIn("Turn the magneto side web counter-clockwise", verdict.next_step)

    def test_what_lies_along_the_throw_is_not_for_turning(self):
        self.swing("left", 0.050, 0)
        self.swing("right", 0.010, 180)
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("out", "As true as it gets"))
        self.assertNotIn("again", [action.key for action in self.hands.work().actions()])

    def test_a_move_is_written_with_what_was_expected_and_what_was_got(self):
        self.swing("left", 0.080, 97)
        self.swing("right", 0.010, 0)
        self.hands.tick_all()
        self.hands.act("again")
        self.swing("left", 0.012, 120)
        self.swing("right", 0.010, 0)
        page = self.hands.page()
        self.assertIn("0.010 mm expected, 0.012 mm measured", page)
        self.assertEqual(self.displayed_verdict().headline, "Runout within limit")
        self.hands.answer("joint-lock", "plain")
        self.hands.answer("note", "")
        self.hands.act("sign")
        result = self.hands.entry.result
        self.assertEqual((result["schema"], result["rounds"], result["phase_deg"]), ("true-outer/1", 2, 180.0))

    def test_the_drawing_leans_and_shows_the_way_round(self):
        self.assertIn("it will lean here", str(self.hands.work().drawing()))
        self.swing("left", 0.050, 90)
        self.swing("right", 0.010, 0)
        drawing = str(self.hands.work().drawing())
        self.assertIn("lean drawn ×", drawing)
        self.assertIn("hot bold", drawing)
