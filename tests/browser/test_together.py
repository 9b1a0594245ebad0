"""Assembly by keyboard and on the phone: seals, end play, crank, closing and centering, with a reload."""

from __future__ import annotations

from stator.engines.models import Mark, Seal, Spec
from stator.jobs.models import Act
from stator.shop.models import Blades, Gauge, PullIn
from stator.stations.split_crankcase.tests import face
from tests.browser.base import BrowserCase
from tests.factories import job


class PuttingTogether(BrowserCase):
    def setUp(self):
        self.made = job(order="bottom-end", x_mm=-30, y_mm=0)
        card = self.made.card
        face(card)
        Mark.objects.filter(what="bolt").update(torque_nm=10)
        Seal.objects.create(card=card, name="Crank seal, drive side", shaft_mm=20, bore_mm=35, width_mm=7, lip="inside")
        Spec.objects.create(card=card, name="End float of the crank", property="end-float", low=0.10, high=0.20, source="page 61")
        PullIn.objects.create(name="Crank puller", thread_mm=12.0, thread_pitch_mm=1.25, pitch_mm=1.5)
        Blades.objects.create(name="Crank shims", kind="shim", sizes_mm=[0.05, 0.1, 0.15, 0.2, 0.3])
        Blades.objects.create(name="Feelers", kind="feeler", sizes_mm=[0.03, 0.05, 0.08, 0.1, 0.15, 0.2])
        Gauge.objects.filter(kind="calliper").update(resolution=0.005, repeatability=0.001, last_checked="2026-11-01")
        Gauge.objects.filter(kind="feeler").update(repeatability=0.003)
        self.made.run.filter(key="heat-and-drop").update(state="skipped", because="bearings stayed in (Una)")
        super().setUp()

    def pick(self, question, answer):
        self.sees(question, where=".strip")
        self.page.locator(".strip-options").get_by_role("button", name=answer).click()
        self.page.locator(".strip").get_by_text(question).wait_for(state="detached")

    def tick(self, *words):
        for each in words:
            self.page.get_by_role("button", name=each).click()
            self.page.locator(f".tick[aria-pressed=true]:has-text('{each}')").wait_for()

    def asked(self, *pairs):
        """Type answers, each when its question is in the reading bar."""
        for question, text in pairs:
            self.sees(question, where=".strip")
            self.page.keyboard.type(text)
            self.page.keyboard.press("Enter")

    def sign(self):
        self.sees("Nothing more to measure", where=".strip")
        self.enter("sign", then="Signed: nothing more is asked here")

    def test_out_of_order_with_a_reason_and_put_right_after_signing(self):
        self.made.run.filter(key="heat-and-drop").update(state="ahead", because="")
        self.go("/jobs/0412/end-float/")
        self.sees("Not signed as home in their seats: Main, drive side.")
        self.assertAccessible()
        self.asked(("Temperature of the case", "skip"), ("Left case", "38.42"), ("Right case", "31.10"), ("Gasket", "skip"))
        self.asked(("Crank, shoulder to shoulder", "69.10"), ("Shims already in", "skip"), ("Shim of 0.300 mm in your hand", "0.300"))
        self.pick("Which side do the shims go?", "right")
        self.sees("Nothing more to measure", where=".strip")
        self.page.get_by_label("Reason for going on without it").fill("the main never came out")
        self.page.get_by_role("button", name="Go on with this reason").click()
        self.page.locator("section[aria-label='Not done yet']").wait_for(state="detached")
        self.page.get_by_role("button", name="Sign this entry").click()
        self.sees("Signed: nothing more is asked here")
        before = Act.objects.count()
        self.page.get_by_label("Reason for replacing this entry").fill("the left depth was read off the wrong line")
        self.page.get_by_role("button", name="Replace this entry").click()
        self.sees("Everything that was read is here again")
        self.go("/jobs/0412/end-float/?ask=face-to-bearing.left")
        self.asked(("Left case", "38.43"))
        self.sees("Nothing more to measure", where=".strip")
        self.page.get_by_role("button", name="Sign this entry").click()
        self.sees("Signed: nothing more is asked here")
        self.assertLessEqual(Act.objects.count() - before, 5)
        self.go("/jobs/0412/sheet/")
        self.sees("Gone on before every bearing was signed as home: the main never came out")
        self.assertAccessible()
        self.assertQuiet()

    def test_from_the_seal_to_a_crank_in_the_middle(self):
        self.go("/jobs/0412/seals/")
        self.asked(("Shaft the seal runs on", "20"), ("Bore it sits in", "35"))
        self.pick("What does it keep in", "oil in")
        self.pick("In your hand it goes in", "lip and spring inward")
        self.asked(*((f"Depth at {clock}", "0.1") for clock in ("12", "3", "6", "9")))
        self.asked(("Depth of the bearing behind", "skip"))
        self.sees("Seal is seated")
        self.assertAccessible()
        self.sign()

        self.go("/jobs/0412/end-float/")
        self.asked(("Temperature of the case", "skip"), ("Left case", "38.42"), ("Right case", "31.10"), ("Gasket", "skip"))
        self.sees("Crank, shoulder to shoulder", where=".strip")
        self.page.reload()  # a flat battery in the middle of it
        self.asked(("Crank, shoulder to shoulder", "69.10"), ("Shims already in", "skip"), ("Shim of 0.300 mm in your hand", "0.300"))
        self.sees("Fit 0.3")
        self.assertAccessible()
        self.pick("Which side do the shims go?", "right")
        self.sign()

        self.go("/jobs/0412/crank-in/")
        self.asked(("Thread on the crank's end", "12"), ("Its pitch", "1.25"), ("Adapter in by hand", "8"), ("How far it has to go", "18"))
        self.tick("Spacer bars", "Rod supported")
        self.enter("begin", then="Turns done in all")
        self.asked(("Turns done in all", "6"), ("Torque on the screw", "5"))
        self.sees("6.0 turns to go")
        self.asked(("Turns done in all", "12"), ("Torque on the screw", "30"))
        self.sees("Crank has come home")
        self.assertAccessible()
        self.enter("home", then="Gap on the drive side")
        self.asked(("Gap on the drive side", "0.06"), ("Gap on the magneto side", "0.06"))
        self.sees("Crank is home")
        self.sign()

        self.go("/jobs/0412/close/")
        self.pick("Shafts and drum back", "every gear selects")
        self.tick("Both faces clean", "Dowels, screens")
        self.page.get_by_role("button", name="Close the case").click()
        self.sees("to 4 N·m", where=".strip")
        self.page.locator("#strip-field").focus()
        for torque in ("4", "7", "10"):
            for number in range(5):
                self.sees(f"to {torque} N·m", where=".strip")
                seen = self.page.get_attribute("#strip-field", "data-ask")
                self.page.keyboard.press("Enter")  # done, at the torque of the round
                self.page.locator(f"#strip-field:not([data-ask='{seen}'])").wait_for()
                if torque == "4" and number == 0:
                    self.sees("1 of 15 done")
        self.sees("Case is closed")
        self.assertAccessible()
        self.sign()

        self.go("/jobs/0412/centre/")
        self.asked(("Gap on the drive side", "0.10"), ("Gap on the magneto side", "0.30"))
        self.sees("Move it 0.10 mm toward the magneto side")
        self.assertAccessible()
        self.enter("again", then="Measure both gaps")
        self.asked(("Gap on the drive side", "0.20"), ("Gap on the magneto side", "0.20"))
        self.pick("Spun by hand, it", "spins free")
        self.asked(("End float by dial", "skip"), ("How long is it held?", "5 min"), ("Pressure at the start", "0.4 bar"))
        self.asked(("Pressure, start: temperature", "skip"), ("Pressure at the end", "39.5"))
        self.asked(("Vacuum at the start", "40"), ("Vacuum, start: temperature", "skip"), ("Vacuum at the end", "39.6"))
        self.sees("Crank is centred, no leak")
        self.sign()
        self.assertQuiet()


class OnThePhone(PuttingTogether):
    mobile = True
    test_out_of_order_with_a_reason_and_put_right_after_signing = None  # a walk at the desk

    def test_from_the_seal_to_a_crank_in_the_middle(self):
        """Assembly on a small screen, where nothing extends past the edge."""
        for station in ("seals", "end-float", "crank-in", "close", "centre"):
            self.go(f"/jobs/0412/{station}/")
            self.page.locator(".plate h2").wait_for()
            self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390, station)
            self.assertAccessible()
        self.assertQuiet()
