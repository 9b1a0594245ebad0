"""Inspect parts by keyboard to a verdict that is too close, decided by repeats; and on the phone from part to part."""

from __future__ import annotations

from stator.engines.fact_keys import FactKey
from stator.engines.properties import Property
from stator.shop.models import Gauge
from stator.stations.inspect_parts.messages import DEPTH
from stator.stations.inspect_parts.seats import ROUND
from tests.browser.base import BrowserCase
from tests.factories import job


class Inspecting(BrowserCase):
    def setUp(self):
        self.made = job(order="bottom-end")
        self.seat = self.made.card.seats.get()
        Gauge.objects.filter(kind="bore").update(resolution=0.002, repeatability=0.0008, last_checked="2026-11-01")
        super().setUp()
        self.go("/jobs/0412/inspect/")

    def pick(self, *answers):
        for question, answer in answers:
            self.sees(question, where=".strip")
            self.page.locator(".strip-options").get_by_role("button", name=answer, exact=False).first.click()

    def to_the_seat(self):
        self.page.get_by_role("button", name="Main, drive side").click()
        self.sees("Marking on the ring", where=".strip")

    def bearing(self):
        self.enter("6204 C3", then="Driven or pulled through its balls?")
        self.pick(("Driven or pulled", "no"), ("Is its history known", "yes"), ("Washed and dry", "turns clean"), ("Pits, blue", "no"))
        self.sees("Temperature of the seat", where=".strip")

    def around(self, value):
        for index, place in enumerate(ROUND):
            fact_key = FactKey(self.seat.part, Property.SEAT_DIAMETER, place)
            self.page.locator(f"#strip-field[data-ask='{fact_key.key}']").wait_for()
            self.page.keyboard.type(value)
            self.page.keyboard.press("Enter")
            if index < len(ROUND) - 1:
                after = ROUND[index + 1]
                self.sees(f"{DEPTH[after.depth]}, {after.angle_deg:g}°", where=".strip")

    def test_a_call_too_close_is_settled_by_repeats(self):
        self.sees("Up and down along the throw is wear")
        self.assertAccessible()
        self.to_the_seat()
        self.bearing()
        self.enter("skip", then="Bore, near its mouth")
        self.around("46.9907")
        self.sees("Outside of the ring itself", where=".strip")
        self.enter("skip", then="Size too close")
        self.sees("readings in all would settle it")
        self.assertAccessible()
        self.enter("more", then="Bore, near its mouth")
        first = f"#strip-field[data-ask$='{ROUND[0].key}']"
        while self.page.locator(first).count():
            self.around("46.9907")
            self.page.locator(f"{first}, #strip-field[data-ask='word'], .strip-options").first.wait_for()
        self.sees("Keep the bearing")
        self.assertQuiet()

    def test_a_reload_keeps_the_part_in_hand_and_every_reading(self):
        self.to_the_seat()
        self.bearing()
        self.enter("skip", then="Bore, near its mouth")
        self.enter("46.980", then="near its mouth, 60°")
        self.page.reload()
        self.sees("near its mouth, 60°")
        self.assertEqual(self.page.locator(".seat-tabs [aria-current]").inner_text(), "Main, drive side")


class OnThePhone(BrowserCase):
    mobile = True

    def test_the_parts_can_be_tapped_and_nothing_runs_off_the_side(self):
        job(order="bottom-end")
        self.go("/jobs/0412/inspect/")
        self.sees("Up-and-down play")
        self.page.get_by_role("button", name="Main, drive side").click()
        self.sees("Marking on the ring", where=".strip")
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)
        self.assertAccessible()
        self.assertQuiet()
