"""A crank that does not exist, trued by keyboard from the list of exercises to its debrief."""

from __future__ import annotations

from jobs.models import Job, Reading
from practice.models import Attempt
from simulators.crank import ENDS
from tests.browser.base import BrowserCase

FORM = ".hands form[hx-post]"
ANSWERED = f"""() => document.body && !document.body.dataset.sending && !document.querySelector("#strip-field")?.value
  && document.querySelector("{FORM}")"""
ANOTHER = f"""() => document.querySelector("{FORM}") && !document.querySelector("{FORM}[data-old]")"""


class TrueACrank(BrowserCase):
    cost = 40

    def press(self, name):
        """A button by its name, with the keyboard; the part in hand has answered when its form is another."""
        self.page.locator(FORM).evaluate("form => form.dataset.old = '1'")
        self.page.get_by_role("button", name=name, exact=True).focus()
        self.page.keyboard.press("Enter")
        self.page.wait_for_function(ANOTHER)

    def attempt(self):
        return Attempt.objects.get()

    def shows(self):
        """What the dial says to one who cannot see its needle."""
        return self.page.locator(".hands .sr").inner_text().removeprefix("the needle shows ")

    def types(self, text, then):
        self.page.locator("#strip-field").focus()
        self.page.keyboard.type(text)
        self.page.keyboard.press("Enter")
        self.sees(then, where=".strip-ask")

    def turns_to(self, end, angle):
        """The crank under the dial at an end and an angle, by the buttons of the hands."""
        if ENDS[self.attempt().state["end"]] != end:
            self.press("Other end")
        while (to_go := (angle - self.attempt().state["angle"]) % 360) and to_go % 30 == 0:
            self.press("On 30°")
        while self.attempt().state["angle"] != angle:
            self.press("On 45°")

    def reads(self):
        """What the needle shows, into the field; the next question is another, or the same place once more."""
        kept = Reading.objects.count()
        self.page.locator("#strip-field").focus()
        self.page.keyboard.type(self.shows())
        self.page.keyboard.press("Enter")
        self.page.wait_for_function(ANSWERED)
        if Reading.objects.count() == kept:  # asked once whether it is meant
            self.page.keyboard.type(self.shows())
            self.page.keyboard.press("Enter")
            self.page.wait_for_function(ANSWERED)

    def test_by_keyboard_to_its_debrief(self):
        self.go("/practice/")
        self.page.get_by_label("Number").fill("7")
        self.assertAccessible()
        self.page.keyboard.press("Enter")
        self.sees("Support on the drive side")
        for text, then in (
            ("92", "Gauge on the drive side"),
            ("34", "Support on the magneto"),
            ("92", "Gauge on the magneto"),
            ("34", "Drive side at 0"),
        ):
            self.types(text, then)
        self.assertAccessible()
        for _reading in range(60):
            asked = self.page.evaluate("() => document.querySelector('#strip-field')?.dataset.ask || ''")
            if not asked.startswith("shaft-reading."):
                break
            _what, end, angle = asked.split(".")
            self.turns_to(end, int(angle) % 360)
            self.reads()
        self.assertEqual(self.attempt().state["end"], 1)
        self.page.get_by_role("button", name="Strike right web, 270°").focus()
        self.press("Strike right web, 270°")
        self.sees("1 blow so far")
        self.page.get_by_role("button", name="Finish: open the truth").focus()
        self.page.keyboard.press("Enter")
        self.sees("Crank 7, opened")
        self.assertAccessible()
        self.assertEqual(Job.every.count(), 0)
        self.assertEqual(self.attempt().result["blows"], 1)
        self.assertQuiet()
