"""Input while the last answer is being sent, on a slow line, after Back, and on two devices."""

from __future__ import annotations

from django.test import Client

from stator.engines.models import EngineCard
from stator.jobs.models import Reading
from tests.browser.base import BrowserCase
from tests.factories import job, person

PAGE = "/jobs/0412/true/"


class Turning(BrowserCase):
    """A crank on its supports, nine readings to be taken at one end."""

    def setUp(self):
        super().setUp()
        self.made = job(order="crank")
        EngineCard.objects.update(stroke_mm=58, crank="built_up")
        self.line = None
        self.begin()

    def begin(self):
        client = Client()
        client.force_login(person())
        Reading.objects.all().delete()
        for key, text in (
            ("support-place.left", "92"),
            ("gauge-place.left", "34"),
            ("support-place.right", "92"),
            ("gauge-place.right", "34"),
        ):
            client.post(f"{PAGE}keep/", {"ask": key, "text": text})
        self.go(PAGE)
        self.sees("Drive side at 0°")

    def slow(self, ms):
        if self.line is None:
            self.line = self.ctx.new_cdp_session(self.page)
            self.line.send("Network.enable")
        values = {"offline": False, "latency": ms, "downloadThroughput": -1, "uploadThroughput": -1}
        self.line.send("Network.emulateNetworkConditions", values)

    def types(self, *values):
        for value in values:
            self.page.keyboard.type(value)
            self.page.keyboard.press("Enter")

    def kept(self, latest):
        self.page.locator(f"[data-latest='{latest}']").wait_for()
        self.page.wait_for_function("() => document.body && !document.body.dataset.sending")

    def standing(self):
        """Return the valid readings of the turn in order."""
        return dict(
            Reading.objects.filter(withdrawn_at=None, ask__startswith="shaft-reading.left.").order_by("pk").values_list("ask", "text")
        )


class OnASlowLine(Turning):
    """Values as a gauge types them: one after another, each with Enter, at any latency."""

    def test_no_value_is_dropped_at_any_latency_and_each_answers_its_own_question(self):
        for ms in (0, 150, 400, 1000):
            with self.subTest(ms):
                self.begin()
                self.slow(ms)
                self.types("0.01", "0.02", "0.03", "0.04")
                self.kept("0.04")
                self.assertEqual(
                    self.standing(),
                    {
                        "shaft-reading.left.0": "0.01",
                        "shaft-reading.left.45": "0.02",
                        "shaft-reading.left.90": "0.03",
                        "shaft-reading.left.135": "0.04",
                    },
                )
                self.slow(0)
        self.assertQuiet()

    def test_digits_without_their_enter_stand_in_the_next_field(self):
        with self.held():
            self.types("0.01")
            self.page.keyboard.type("0.0")
        self.sees("Drive side at 45°")
        self.page.keyboard.type("2")
        self.page.keyboard.press("Enter")
        self.kept("0.02")
        self.assertEqual(self.standing(), {"shaft-reading.left.0": "0.01", "shaft-reading.left.45": "0.02"})

    def test_an_enter_alone_while_a_reading_is_on_its_way_skips_nothing_that_was_not_asked(self):
        with self.held():
            self.types("0.01")
            self.page.wait_for_function("(at) => performance.now() > at", arg=self.page.evaluate("performance.now()") + 600)
            self.page.keyboard.press("Enter")
            self.types("0.03")
        self.sees("Look what is asked now")
        self.assertEqual(self.page.locator(".not-sent .button").all_inner_texts(), ["0.03"])
        self.assertEqual(self.standing(), {"shaft-reading.left.0": "0.01"})

    def test_a_refusal_stops_the_line_and_gives_the_rest_back(self):
        with self.held():
            self.types("0.01", "4 furlong", "0.03", "0.04")
        self.sees("is no unit known here")
        field = self.page.locator("#strip-field")
        self.assertEqual((field.input_value(), field.get_attribute("data-ask")), ("4 furlong", "shaft-reading.left.45"))
        left = self.page.locator(".not-sent .button")
        self.assertEqual(left.all_inner_texts(), ["0.03", "0.04"])
        self.assertEqual(self.standing(), {"shaft-reading.left.0": "0.01"})
        self.go(PAGE)  # nor does a reload lose them
        self.assertEqual(left.all_inner_texts(), ["0.03", "0.04"])
        self.page.locator("#strip-field").fill("")
        left.first.click()
        self.page.keyboard.press("Enter")
        self.kept("0.03")
        self.assertEqual(self.standing(), {"shaft-reading.left.0": "0.01", "shaft-reading.left.45": "0.03"})
        self.assertEqual(left.all_inner_texts(), ["0.04"])
        self.assertAccessible()

    def test_a_tick_pressed_behind_a_reading_is_not_lost(self):
        with self.held():
            self.types("0.01")
            self.page.locator(".call-key").first.evaluate("(key) => key.click()")
            tick = self.page.locator("button.tick").first
            tick.click()
        self.page.locator("button.tick[aria-pressed=true]").first.wait_for()
        self.assertEqual(self.standing(), {"shaft-reading.left.0": "0.01"})


class BroughtBack(Turning):
    def test_a_new_value_on_a_page_the_browser_brought_back_is_kept(self):
        self.types("0.01")
        self.kept("0.01")
        self.go("/")
        self.page.go_back()
        self.page.locator("#strip-field").wait_for()
        self.types("0.02")
        self.kept("0.02")
        self.assertEqual(self.standing(), {"shaft-reading.left.0": "0.01", "shaft-reading.left.45": "0.02"})

    def test_a_value_corrected_after_its_answer_was_lost_stands_and_the_old_one_does_not(self):
        self.page.route("**/keep/", lambda route: (route.fetch(), route.abort()))  # it arrives; its answer does not
        self.types("0.01")
        self.sees("Waiting to be sent: 1.")
        self.assertEqual(self.standing(), {"shaft-reading.left.0": "0.01"})
        asked = "(key) => { key.click(); return document.getElementById('strip-field').dataset.ask; }"
        self.assertEqual(self.page.locator(".later .button", has_text="0.01").evaluate(asked), "shaft-reading.left.0")  # at once
        self.page.locator("#strip-field").fill("0.011")
        self.page.keyboard.press("Enter")
        self.page.unroute("**/keep/")
        self.sees("0.01 had been kept here before; 0.011 stands in its place.")
        self.assertEqual(self.standing(), {"shaft-reading.left.0": "0.011"})

    def test_a_value_corrected_while_the_old_one_is_on_its_way_is_kept(self):
        held = []

        def answer(route):
            if len(held) < 2:
                held.append(route)
            if len(held) == 1:
                route.abort()  # the first sending fails; the second is on its way until the value is corrected
            elif route is not held[1]:
                route.continue_()

        self.page.route("**/keep/", answer)
        self.types("0.01")
        self.sees("Waiting to be sent: 1.")
        with self.page.expect_request("**/keep/"):
            pass
        self.page.locator(".later .button", has_text="0.01").click()
        self.page.locator("#strip-field").fill("0.011")
        self.page.keyboard.press("Enter")
        held[1].continue_()
        self.sees("0.01 had been kept here before; 0.011 stands in its place.")
        self.assertEqual(self.standing(), {"shaft-reading.left.0": "0.011"})


class TwoDevices(Turning):
    def test_the_first_answer_stands_the_other_is_kept_withdrawn_and_both_pages_say_so(self):
        other = self.device("bram").pages[0]
        other.goto(f"{self.live_server_url}{PAGE}")
        other.locator("#strip-field").wait_for()
        other.keyboard.type("0.07")
        self.types("0.01")
        self.kept("0.01")
        other.keyboard.press("Enter")
        words = "Drive side at 0°: 0.01 from Una stands. 0.07 from Bram came after it"
        other.locator(".strip-words", has_text=words).wait_for()
        self.sees(words)
        self.assertEqual(self.standing(), {"shaft-reading.left.0": "0.01"})
        late = Reading.objects.get(text="0.07")
        self.assertEqual((late.withdrawn_by.username, late.by.username, late.came_second), ("bram", "bram", True))
        self.assertEqual(other.locator("#strip-field").get_attribute("data-ask"), "shaft-reading.left.45")

    def test_what_is_half_typed_is_not_taken_for_an_answer_to_what_is_asked_after_another_device(self):
        self.page.keyboard.type("0.0")
        client = Client()
        client.force_login(person("bram"))
        client.post(f"{PAGE}keep/", {"ask": "shaft-reading.left.0", "text": "0.05"})
        self.page.locator("#strip-field[data-ask='shaft-reading.left.45']").wait_for()
        self.assertEqual(self.page.locator("#strip-field").input_value(), "")
        self.assertEqual(self.page.locator(".not-sent .button").all_inner_texts(), ["0.0"])
