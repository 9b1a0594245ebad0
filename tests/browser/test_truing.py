"""A crank turned under the gauge with Enter alone, and the right web named."""

from __future__ import annotations

import math

from shopmath.truing import Misalignment, PressedCrank, runout_from
from stator.engines.models import EngineCard, Spec
from stator.shop.models import Gauge
from stator.stations.true_crank.analysis import TURN
from tests.browser.base import BrowserCase
from tests.factories import job


class UnderTheGauge(BrowserCase):
    def setUp(self):
        made = job(order="crank")
        EngineCard.objects.update(stroke_mm=58)
        Gauge.objects.filter(kind="dial").update(resolution=0.002)
        Spec.objects.create(card=made.card, name="Crank run-out", property="crank-runout", high=0.03, source="page 44")
        super().setUp()
        self.go("/jobs/0412/true/")

    def set_up(self):
        asks = [
            ("92", "Gauge on the drive side"),
            ("34", "Support on the magneto side"),
            ("92", "Gauge on the magneto side"),
            ("34", "Drive side at 0°"),
        ]
        for text, then in asks:
            self.enter(text, then=then)

    def test_a_turn_out_of_the_gauge_s_own_log(self):
        self.set_up()
        log = "time;value (mm)\n10:31:01;0,010\n10:31:02;0,020\n10:31:03;0,030\n10:31:05;OL\n10:31:09;0,015\n"
        self.page.locator("[data-panel=sheet]:visible").first.click()
        self.page.set_input_files("#log-file", {"name": "dial.csv", "mimeType": "text/csv", "buffer": log.encode()})
        self.page.get_by_role("button", name="See where its readings go").click()
        self.sees("It said 'OL mm', which is no reading", where=".log-lines")
        self.assertAccessible()
        self.page.get_by_label("Line 5").uncheck()
        self.page.get_by_role("button", name="Look again").click()
        self.page.get_by_role("button", name="Keep 4 readings").click()
        self.sees("4 readings kept from dial.csv", where="#strip-words")
        self.sees("Drive side at 180°", where=".strip")
        self.assertQuiet()

    def test_turned_with_enter_alone_it_names_the_web(self):
        self.assertAccessible()
        self.set_up()
        runouts = runout_from(Misalignment(0.15, 0, 0.003, 0), PressedCrank(-92, 92, -34, 34, 29))
        for side, runout, after in zip(
            ("Drive side", "Magneto side"), runouts, ("Magneto side at 0°", "Nothing more to measure"), strict=True
        ):
            for angle in (*TURN, 360):
                value = runout.tir_mm / 2 * math.cos(math.radians(angle - runout.high_spot_deg))
                following = {315: f"{side} back at 0°", 360: after}.get(angle, f"{side} at {angle + 45:g}°")
                self.enter(f"{value:.3f}", then=following)
        self.sees("Webs are twisted")
        self.sees("Strike the rim of the magneto side web at 270°")
        self.assertIn("strike", self.page.text_content("#picture svg"))
        self.assertAccessible()
        self.assertQuiet()

    def test_a_gauge_on_its_support_is_answered_beside_the_field(self):
        self.enter("92", then="Gauge on the drive side")
        self.enter("92.1", then="stands on its support")
        self.assertEqual(self.page.input_value("#strip-field"), "92.1")
        self.assertQuiet()
