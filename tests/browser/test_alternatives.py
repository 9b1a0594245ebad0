"""Navigation: any page with two keys, a station by its name, back within a job, and forms that survive Back."""

from __future__ import annotations

from stator.engines.models import Mark
from stator.stations.split_crankcase.tests import face
from tests.browser.base import BrowserCase
from tests.factories import job

TIMER_ENDS = """() => {
    const timer = document.createElement("div");
    Object.assign(timer.dataset, { due: String(Date.now() - 1000), started: "0", timer: "1", words: "0412: sealant sets" });
    document.querySelector(".tag").append(timer);
}"""
COVERED = """() => [...document.querySelectorAll("button, a, input")].filter((each) => {
    const box = each.getBoundingClientRect();
    const over = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2);
    return box.width && !each.closest("#flash") && over && over.closest("#flash");
}).map((each) => each.textContent)"""


class GettingAbout(BrowserCase):
    def setUp(self):
        self.made = job(order="bottom-end", x_mm=-30, y_mm=0)
        face(self.made.card)
        Mark.objects.filter(what="bolt").update(torque_nm=10)
        super().setUp()

    def test_a_station_is_two_keys_away_and_its_name_is_a_word(self):
        self.go("/jobs/0412/split/")
        self.page.keyboard.type("/")
        hop = self.page.locator(".run a", has_text="Close").first.get_attribute("data-hop")
        self.page.keyboard.type(hop)
        self.page.wait_for_url("**/close/")
        self.sees("every gear selects")
        self.page.keyboard.type("spl")  # a choice is asked: what begins none of its answers is a word
        self.page.locator("#word-field").wait_for()
        self.page.keyboard.press("Enter")
        self.page.wait_for_url("**/split/")
        self.assertQuiet()
        self.assertAccessible()

    def test_back_stays_within_what_is_asked_in_turn(self):
        self.go("/jobs/0412/split/")
        first = self.page.locator("#strip-field").get_attribute("data-ask")
        self.page.keyboard.type("back")
        self.page.keyboard.press("Enter")
        self.sees("This is the first reading here")
        self.page.locator("#strip-field").fill("40")
        self.page.keyboard.press("Enter")
        self.page.wait_for_function(
            "(first) => ![undefined, first].includes(document.getElementById('strip-field')?.dataset.ask)", arg=first
        )
        self.page.keyboard.type("back")
        self.page.keyboard.press("Enter")
        self.page.wait_for_function("(first) => document.getElementById('strip-field')?.dataset.ask === first", arg=first)

    def test_keys_and_terms_are_shown_after_an_answer(self):
        self.go("/jobs/0412/split/")
        first = self.page.locator("#strip-field").get_attribute("data-ask")
        self.page.locator("#strip-field").fill("40")
        self.page.keyboard.press("Enter")
        self.page.wait_for_function("(first) => document.getElementById('strip-field')?.dataset.ask !== first", arg=first)
        self.page.locator("[data-panel=keys]").last.click()
        self.sees("is a reading, in any unit")
        self.assertGreater(self.page.locator("#terms [data-term]:not([hidden])").count(), 0)
        self.assertQuiet()
        self.assertAccessible()

    def test_back_in_the_browser_keeps_what_a_form_held(self):
        self.go("/book-in/")
        self.page.fill("[name=complaint]", "knocks when warm")
        self.go("/")
        self.page.go_back()
        self.page.wait_for_function("document.querySelector('[name=complaint]')?.value === 'knocks when warm'")
        self.assertQuiet()

    def test_the_message_of_a_timer_covers_no_button(self):
        self.go("/jobs/0412/split/")
        self.page.evaluate(TIMER_ENDS)
        self.page.locator("#flash").wait_for()
        self.page.keyboard.type("35")
        self.assertEqual("35", self.page.locator("#strip-field").input_value())
        self.assertEqual([], self.page.evaluate(COVERED))
        self.assertAccessible()


class OnThePhone(BrowserCase):
    mobile = True

    def test_the_message_of_a_timer_moves_a_scrolled_page_down_instead_of_covering_it(self):
        self.go("/jobs/0412/split/")
        self.page.evaluate("window.scrollTo(0, 300)")
        top = self.page.evaluate("document.querySelector('.drawing').getBoundingClientRect().top")
        self.page.evaluate(TIMER_ENDS)
        self.page.locator("#flash").wait_for()
        height = self.page.evaluate("document.getElementById('flash').offsetHeight")
        self.assertEqual(top + height, self.page.evaluate("document.querySelector('.drawing').getBoundingClientRect().top"))

    def setUp(self):
        made = job(order="bottom-end", x_mm=-30, y_mm=0)
        face(made.card)
        super().setUp()

    def test_a_snapped_bolt_is_told_with_two_taps(self):
        self.go("/jobs/0412/split/")
        self.page.get_by_role("link", name="snapped, or is missing").tap()
        self.page.get_by_role("button", name="it snapped").tap()
        self.sees("1 of 5 are ticked out")
        self.assertAccessible()
