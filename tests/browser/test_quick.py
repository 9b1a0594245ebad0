"""The quick check of a fit on a desktop and on the phone, without a job, and the job that it becomes."""

from __future__ import annotations

from urllib.parse import urlencode

from stator.jobs.models import Job, Reading
from stator.quick_checks.registry import CHECKS
from tests.browser.base import BrowserCase
from tests.layout import CHECK


class AtTheDesk(BrowserCase):
    def test_a_fit_is_answered_as_one_types_and_becomes_a_job(self):
        self.go("/")
        self.page.get_by_role("link", name="Quick check").first.click()
        self.page.get_by_label("Bearing or sizes").fill("6205 C3")
        self.sees("It drops in", where="#answer")
        self.assertIn("designation=6205", self.page.url)
        self.page.get_by_label("Fit code of the seat").fill("Z")
        self.page.locator("#id_code_error", has_text="is no fit code").wait_for()
        self.assertEqual(self.page.get_by_label("Fit code of the seat").input_value(), "Z")
        self.page.get_by_label("Fit code of the seat").fill("P7")
        self.page.locator("#answer").get_by_text("52 P7").first.wait_for()
        self.page.locator("[name=heat][value=none]").check()
        self.sees("It will not go in", where="#answer")
        self.page.reload()
        self.sees("It will not go in", where="#answer")
        self.assertAccessible()
        self.page.locator("[name=heat][value=oven]").check()
        self.sees("It drops in", where="#answer")
        self.assertEqual(Job.objects.count() + Reading.objects.count(), 0)
        self.page.get_by_text("Make it a job").click()
        self.page.get_by_label("Engine", exact=True).fill("Corrie 272")
        self.page.get_by_label("What is wrong with it").fill("Rumbles.")
        self.page.get_by_role("button", name="Book it in").click()
        self.page.wait_for_url("**/heat-and-drop/*/")
        self.sees("52 P7")
        self.assertEqual(Job.objects.get().card.name, "Corrie 272")
        self.assertQuiet()


class OnThePhone(BrowserCase):
    mobile = True

    def test_every_answer_stands_in_the_first_screen_and_nothing_is_cut(self):
        for check in CHECKS:
            self.go(f"/check/{check.key}/?{urlencode(check.example)}")
            verdict = self.page.locator("#answer .plate").bounding_box()
            self.assertLess(verdict["y"] + verdict["height"], 420, check.key)
            self.assertEqual(self.page.evaluate(CHECK), [], check.key)
            self.assertAccessible()
        self.assertQuiet()
