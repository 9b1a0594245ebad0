"""A flywheel comes off by keyboard, and the wrong puller is stopped on the phone."""

from __future__ import annotations

from stator.engines.models import EngineCard
from stator.shop.models import Puller
from tests.browser.base import BrowserCase
from tests.factories import Hands, job

PAGE = "/jobs/0412/flywheel-off/"


class FlywheelOff(BrowserCase):
    def setUp(self):
        job(order="flywheel")
        EngineCard.objects.update(taper_ratio=8, nut_d_mm=12, nut_torque_nm=55, shaft_d_mm=16)
        Puller.objects.create(name="Small puller", thread_mm=26.9, pitch_mm=1.0)
        Puller.objects.create(name="Old cycle puller", thread_mm=18.95, pitch_mm=25.4 / 26)
        super().setUp()
        self.go(PAGE)

    def choose(self, name):
        self.page.get_by_label("Puller", exact=True).select_option(label=name)
        self.sees("Boss thread, across its crests", where=".strip")

    def option(self, letter, then, where="body"):
        """A letter and Enter, as gloves do it."""
        self.page.keyboard.press(letter)
        self.page.keyboard.press("Enter")
        self.sees(then, where)

    def pull_ready(self):
        self.choose("Small puller")
        self.enter("25.98", then="Pitch of the boss thread")
        self.enter("1 mm", then="Boss thread is")
        self.option("r", then="Turns the puller goes in by hand")
        self.enter("6.5", then="The thread is strong enough")


class ByKeyboard(FlywheelOff):
    def test_from_the_first_thread_to_the_signed_taper(self):
        self.assertAccessible()
        self.pull_ready()
        self.assertAccessible()
        self.assertIn("6 whole turns count", self.page.text_content("#picture svg"))
        for words in ("Nut back on", "The flywheel is held"):
            self.page.locator(".tick", has_text=words).focus()
            self.page.keyboard.press("Enter")
            self.page.locator(".tick[aria-pressed=true]", has_text=words).wait_for()
        self.enter("25", then="below the limit")
        self.enter("wait", then="turn the puller again")
        self.enter("35 Nm", then="Taper is holding more than expected")
        self.enter("free", then="The flywheel is off")
        self.option("e", then="The key and its keyway are", where=".strip")
        self.page.keyboard.press("s")
        self.page.keyboard.press("s")
        self.page.keyboard.press("s")
        self.page.keyboard.press("Enter")
        self.sees("Step of the key")
        self.enter("0.4", then="The magnets are")
        self.option("s", then="The coils and their wires are")
        self.option("s", then="Anything to note?")
        self.sees("shifts the ignition timing by 2.9°")
        self.page.locator("button[value=sign]").focus()
        self.page.keyboard.press("Enter")
        self.sees("Signed by Una")
        self.go("/jobs/0412/log/")
        self.sees("The offset or part-sheared key shifts the ignition timing by 2.9°")
        self.assertQuiet()

    def test_a_torque_past_the_stop_is_barred_in_words_and_on_the_scale(self):
        self.pull_ready()
        self.enter("95", then="past the 49 N·m")
        self.assertIn("stop", self.page.get_attribute(".plate", "class"))
        self.assertIn("95 now", self.page.text_content("#picture svg"))
        self.enter("undo", then="The thread is strong enough")
        self.assertQuiet()

    def test_a_place_on_the_drawing_leads_to_its_reading(self):
        self.pull_ready()
        self.page.locator("#picture a", has_text="boss M27x1").click()
        self.sees("Boss thread, across its crests", where=".strip")
        self.page.keyboard.press("ArrowUp")
        self.assertEqual(self.page.input_value("#strip-field"), "25.98")


class OnThePhone(FlywheelOff):
    mobile = True

    def test_the_wrong_puller_is_stopped_before_it_jams(self):
        self.page.tap("text=Warnings, methods, numbers")
        self.choose("Old cycle puller")
        for text, then in (("18.05", "Pitch of the boss thread"), ("1.0", "Boss thread is")):
            self.page.fill("#strip-field", text)
            self.page.tap(".phone-keep")
            self.sees(then)
        self.page.locator(".strip-options .button", has_text="right-hand").tap()
        self.sees("Thread does not match")
        self.sees("It jams after about 3 turns")
        self.assertAccessible()
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)
        self.go("/")
        self.sees("Find the puller with this thread")
        self.assertQuiet()


class TheCard(BrowserCase):
    def test_what_is_unknown_on_the_card_is_filled_in_and_used(self):
        hands = Hands(job(order="flywheel"))
        self.go("/jobs/0412/card/")
        self.page.click("text=Change the flywheel's figures")
        self.page.get_by_label("Taper ratio").fill("8")
        self.page.get_by_label("Nut torque").fill("40 ft-lb")
        self.page.click("text=Keep the flywheel's figures")
        self.sees("54.23 N·m")
        self.assertAccessible()
        hands.job.card.refresh_from_db()
        self.assertAlmostEqual(hands.job.card.nut_torque_nm, 54.2, delta=0.1)
        self.go(PAGE)
        self.page.locator(".side [data-panel=sheet]").click()
        self.sees("Thread of the flywheel nut")
        self.assertEqual(self.page.get_by_text("Torque of the flywheel nut").count(), 0)
        self.assertQuiet()
