"""Practice at the real stations from the list of exercises to the debriefing, by keyboard and by touch."""

from __future__ import annotations

from stator.jobs.models import Job, Reading
from stator.practice import attempts
from stator.practice.models import Attempt
from stator.simulators.case_halves import PLACES
from stator.simulators.crank import ENDS
from tests.browser.base import BrowserCase

FORM = ".hands form[hx-post]"
ANSWERED = f"""() => document.body && !document.body.dataset.sending && !document.querySelector("#strip-field")?.value
  && document.querySelector("{FORM}")"""
ANOTHER = f"""() => document.querySelector("{FORM}") && !document.querySelector("{FORM}[data-old]")"""


class AtPractice(BrowserCase):
    cost = 40

    def begin(self, exercise, level):
        """By keyboard: start the exercise, then work at its station."""
        self.go("/practice/")
        self.page.locator(f"[name=start][value='{exercise}:{level}']").focus()
        self.page.keyboard.press("Enter")
        self.page.wait_for_selector(FORM)

    def attempt(self):
        return Attempt.objects.select_related("job").get()

    def stands(self):
        return attempts.standing(self.attempt())

    def lever(self, control):
        """Use a control with the keyboard and wait until the part has changed."""
        self.page.locator(FORM).evaluate("form => form.dataset.old = '1'")
        self.page.locator(f".hands [value='{control}']").focus()
        self.page.keyboard.press("Enter")
        self.page.wait_for_function(ANOTHER)

    def shows(self):
        """Return the reading of the gauge for a screen reader."""
        return self.page.locator("#hands-reading").inner_text()

    def asked(self):
        return self.page.evaluate("() => document.querySelector('#strip-field')?.dataset.ask || ''")

    def types(self, text):
        """Answer a question or skip it with Enter; repeat the answer if the page asks whether it is meant."""
        saved, asked = Reading.objects.count(), self.asked()
        self.page.locator("#strip-field").focus()
        self.page.keyboard.type(text)
        self.page.keyboard.press("Enter")
        self.page.wait_for_function(ANSWERED)
        if text and Reading.objects.count() == saved and self.asked() == asked:
            self.page.keyboard.type(text)
            self.page.keyboard.press("Enter")
            self.page.wait_for_function(ANSWERED)

    def presses(self, selector):
        self.page.locator("#work").evaluate("work => work.dataset.old = '1'")
        self.page.locator(selector).first.focus()
        self.page.keyboard.press("Enter")
        self.page.wait_for_function("() => document.querySelector('#work:not([data-old])')")
        self.page.wait_for_selector(FORM)

    def finish(self):
        self.page.locator(".tag-links button").focus()
        self.page.keyboard.press("Enter")
        self.sees("What it really was")
        self.assertAccessible()
        self.assertEqual(Job.every.count(), 0)
        self.assertQuiet()


class ByKeyboard(AtPractice):
    def turns_to(self, end, angle):
        """The crank under the dial at an end and an angle."""
        if ENDS[self.stands().end] != end:
            self.lever("other")
        while (to_go := (angle - self.stands().angle) % 360) and to_go % 30 == 0:
            self.lever("on-30")
        while self.stands().angle != angle:
            self.lever("on-45")

    def test_a_crank_is_read_struck_and_opened(self):
        self.begin("true-crank", "middle")
        self.assertAccessible()
        for _reading in range(60):
            asked = self.asked()
            if not asked.startswith("shaft-reading."):
                break
            _what, end, angle = asked.split(".")
            self.turns_to(end, int(angle) % 360)
            self.types(self.shows())
        self.assertEqual(self.stands().end, 1)
        self.lever(attempts.exercise_of(self.attempt()).best(self.stands())[0])
        self.sees("1 move so far")
        self.finish()
        self.sees("Goal")
        self.assertEqual([move["right"] for move in self.attempt().result["moves"]], [True])

    def test_the_dial_itself_turns_it_by_arrows_wheel_and_finger(self):
        self.begin("read-dial", "middle")
        dial, before = self.page.locator("#hands-turns"), self.shows()
        dial.focus()
        self.page.locator(FORM).evaluate("form => form.dataset.old = '1'")
        for _step in range(3):
            self.page.keyboard.press("ArrowRight")
        self.assertEqual(dial.get_attribute("aria-valuenow"), "45")  # the page moves between what the server sent
        self.page.wait_for_function(ANOTHER)
        self.assertEqual(self.stands().angle, 45)
        self.assertNotEqual(self.shows(), before)
        self.page.wait_for_function("() => document.activeElement.id === 'hands-turns'")
        self.page.locator(FORM).evaluate("form => form.dataset.old = '1'")
        dial.hover()
        self.page.mouse.wheel(0, -100)
        self.page.wait_for_function(ANOTHER)
        self.assertEqual(self.stands().angle, 30)
        self.page.locator(FORM).evaluate("form => form.dataset.old = '1'")
        box = dial.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + 28, y, steps=4)  # drawn to the side, three steps
        self.page.mouse.up()
        self.page.wait_for_function(ANOTHER)
        self.assertEqual(self.stands().angle, 75)
        self.assertQuiet()

    def test_a_case_is_parted_evenly(self):
        self.begin("split", "middle")
        self.presses(".actions [value=rest]")
        self.lever("count")
        self.types(self.shows())
        self.types("8")
        self.assertAccessible()
        for _tick in range(12):
            if not self.page.locator(".tick.gate[aria-pressed=false]").count():
                break
            self.presses(".tick.gate[aria-pressed=false]")
        self.presses(".actions [value=begin]")
        self.lever("push")
        for place in PLACES:
            self.lever(f"gap-{place}")
            self.types(self.shows())
        self.assertEqual(self.page.locator("#plate .plate.wait").count(), 0)  # four gaps are judged
        for _move in range(80):
            best = attempts.exercise_of(self.attempt()).best(self.stands())
            if not best:
                break
            self.lever(best[0])
        self.finish()
        self.sees("Goal reached")

    def test_seals_are_measured_and_judged_first(self):
        self.go("/practice/")
        self.page.locator("[name=judges]").check()
        self.page.locator("[name=start][value='seals:easy']").focus()
        self.page.keyboard.press("Enter")
        self.page.wait_for_selector(FORM)
        other = next(letter for letter in "ABC" if self.stands().made_for(letter) != "drive")
        self.lever(f"take-{other}")
        self.lever("shaft")
        self.types(self.shows())
        self.lever("bore")
        self.page.get_by_role("button", name="Into the field").click()
        self.page.keyboard.press("Enter")
        self.sees("You say first")
        self.assertAccessible()
        self.assertEqual(self.page.locator("#plate").count(), 0)
        self.page.locator("#judge [value=stop]").focus()
        self.page.keyboard.press("Enter")
        self.sees("Not this seal")
        self.finish()
        self.assertEqual(self.attempt().result["calls"], {"right": 1, "unsure": 0, "wrong": 0, "same": 1, "all": 1})


class ByTouch(AtPractice):
    mobile = True

    def test_a_flywheel_is_freed_with_fingers(self):
        self.go("/practice/")
        self.page.locator("[name=start][value='free-wheel:easy']").tap()
        self.page.wait_for_selector(FORM)
        self.assertAccessible()
        for _move in range(60):
            best = attempts.exercise_of(self.attempt()).best(self.stands())
            if not best:
                break
            self.page.locator(FORM).evaluate("form => form.dataset.old = '1'")
            self.page.locator(f".hands [value='{best[0]}']").tap()
            self.page.wait_for_function(ANOTHER)
        self.page.locator(".hands .phone-only button").tap()
        self.sees("Goal reached")
        self.assertAccessible()
        self.assertQuiet()
