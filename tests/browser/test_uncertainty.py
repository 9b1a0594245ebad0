"""Uncertainty on the page: a coarse dial indicator, a slipped reading, a typing error, a stand with friction."""

from __future__ import annotations

import math

from shopmath.truing import Misalignment, PressedCrank, runout_from
from stator.engines.models import EngineCard, Mark, Spec
from stator.shop.models import Gauge
from stator.stations.balance_flywheel.tests import Balancer
from stator.stations.split_crankcase.tests import face
from tests.browser.base import BrowserCase
from tests.factories import job, without_what_comes_first


class ACoarseDial(BrowserCase):
    """A 0.01 dial against a limit of 0.03; one reading of the first turn has slipped by 0.06."""

    def setUp(self):
        made = job(order="crank")
        EngineCard.objects.update(stroke_mm=58)
        Gauge.objects.filter(kind="dial").update(resolution=0.01)
        Spec.objects.create(card=made.card, name="Crank run-out", property="crank-runout", high=0.03, source="page 44")
        super().setUp()
        self.go("/jobs/0412/true/")

    def test_it_asks_twelve_angles_twice_round_and_a_slip_again_and_names_the_web_all_the_same(self):
        for text, then in (
            ("92", "Gauge on the drive side"),
            ("34", "Support on the magneto side"),
            ("92", "Gauge on the magneto side"),
            ("34", "twelve angles, twice round"),
        ):
            self.enter(text, then=then)
        runouts = runout_from(Misalignment(0.15, 0, 0.003, 0), PressedCrank(-92, 92, -34, 34, 29))
        for side, runout in zip(("Drive side", "Magneto side"), runouts, strict=True):
            for turn in (1, 2):
                for angle in range(0, 360, 30):
                    value = runout.tir_mm / 2 * math.cos(math.radians(angle - runout.high_spot_deg))
                    value += 0.06 if (side, turn, angle) == ("Drive side", 1, 120) else 0.0
                    last = angle == 330
                    following = f"{side} at {angle + 30}°" if not last else f"{side} at 0°" if turn == 1 else f"{side} back at 0°"
                    self.enter(f"{value:.2f}", then=following)
            first = runout.tir_mm / 2 * math.cos(math.radians(runout.high_spot_deg))
            self.enter(f"{first:.2f}", then="Magneto side at 0°" if side == "Drive side" else "Nothing more to measure")
        self.sees("Readings disagree")
        self.sees("No blow: take the reading at 120° again")
        self.assertAccessible()
        self.page.locator("button[value=these]").click()
        self.sees("Drive side at 120°", where=".strip")
        again = f"{runouts[0].tir_mm / 2 * math.cos(math.radians(120 - runouts[0].high_spot_deg)):.2f}"
        self.enter(again, then="Webs are twisted")
        self.sees("Strike the rim of the magneto side web at 270°")
        self.enter(again, then="turns in all at each end settle it")
        self.sees("The magneto side web stands")
        self.assertQuiet()


class ATypo(BrowserCase):
    def setUp(self):
        made = job(order="bottom-end")
        face(made.card)
        without_what_comes_first(made, "split")
        super().setUp()
        self.go("/jobs/0412/split/")

    def test_a_bolt_of_350_beside_three_of_35_is_asked_once_and_can_be_kept(self):
        for name in "123":
            self.sees(f"{name} out: its length", where=".strip")
            self.enter("35", then=f"{int(name) + 1} out: its length")
        self.enter("350", then="Did you mean 35 mm?")
        self.assertEqual(self.page.input_value("#strip-field"), "350")
        self.assertAccessible()
        self.enter("35", then="5 out: its length")
        self.enter("400", then="Did you mean 40 mm?")
        self.page.keyboard.press("Enter")
        self.sees("Count the fasteners")
        self.assertEqual(Mark.objects.filter(name="5").count(), 1)
        self.page.locator(".side [data-panel=sheet]").click()
        self.sees("unusual; confirmed as typed")
        self.assertQuiet()


class AStandThatRubs(BrowserCase):
    def setUp(self):
        made = job(order="flywheel")
        EngineCard.objects.filter(pk=made.card_id).update(wheel_kg=1.9, wheel_rpm=8500)
        made.refresh_from_db()
        hands = Balancer(made)
        hands.first()
        hands.tick_all()
        hands.roll(12, 140, 260, 75, 310, 200, 30)
        super().setUp()
        self.go("/jobs/0412/balance/")

    def test_stops_all_round_do_not_say_balanced_and_four_masses_do(self):
        self.enter("170", then="Prove it with a mass")
        self.sees("That is no proof")
        self.assertEqual(self.page.locator("button[value=sign]:not([aria-disabled])").count(), 0)
        self.assertAccessible()
        self.enter("80", then="0° level: it turns with")
        for mark in (90, 180, 270):
            self.enter("0.2 g", then=f"{mark}° level: it turns with")
        self.enter("0.2 g", then="Wheel is balanced")
        self.sees("The stand rubs 16 g·mm")
        self.assertQuiet()
