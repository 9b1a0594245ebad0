"""One heat from sign-in to the signed record, through the interface."""

from __future__ import annotations

from datetime import timedelta

from django.contrib.sessions.models import Session
from django.utils import timezone

from stator.jobs.models import Entry, Reading, Timer
from stator.shop.defaults import stock_shelves
from tests.browser.base import PASSWORD, BrowserCase
from tests.factories import Hands, job, person


class TheWholeSlice(BrowserCase):
    def setUp(self):
        stock_shelves()
        super().setUp()

    def tab_to(self, name):
        """Tab on until the named thing has the focus."""
        for _ in range(60):
            self.page.keyboard.press("Tab")
            focused = self.page.evaluate("document.activeElement.matches('a, button') ? document.activeElement.textContent : ''")
            if name in focused:
                return
        self.fail(f"{name} cannot be reached with Tab")

    def age(self, **shift):
        """Let the clocks on the server run on."""
        for timer in Timer.objects.all():
            Timer.objects.filter(pk=timer.pk).update(started_at=timer.started_at - timedelta(**shift))

    def test_by_keyboard_alone_from_sign_in_to_the_printed_sheet(self):
        person()
        self.ctx.clear_cookies()
        self.go("/")
        self.page.locator("#id_username:focus").wait_for()
        self.page.keyboard.type("una")
        self.page.keyboard.press("Tab")
        self.page.keyboard.type(PASSWORD)
        self.page.keyboard.press("Enter")
        self.sees("Nothing on the bench")
        self.assertAccessible()

        self.tab_to("Book in an engine")
        self.page.keyboard.press("Enter")
        self.page.get_by_label("One bearing, cases already bare").focus()
        self.page.keyboard.press("Space")
        self.sees("The bearing and its seat")
        self.assertAccessible()
        for label, text in [("Engine", "Corrie 272"), ("What is wrong with it", "Rumbles on the overrun."), ("Bearing marking", "6204 C3")]:
            self.page.get_by_label(label, exact=True).focus()
            self.page.keyboard.type(text)
        self.page.get_by_label("Bearing marking").focus()
        self.sees("20 × 47 × 14 mm")
        self.page.keyboard.press("Enter")
        self.sees("It drops in")
        self.assertAccessible()

        self.enter("18", then="Bore of the seat")  # the air in the shop
        self.enter('1.8496"', then="Outside of the bearing")
        self.assertIn("measured; class Normal", self.page.inner_text("#traces"))
        self.tab_to("Washed, dry")
        self.page.keyboard.press("Enter")
        self.page.locator(".tick[aria-pressed=true]").wait_for()
        self.enter("chill", then="bearing: read the temperature")
        self.enter("heat", then="case: read the temperature")
        self.age(minutes=55)
        self.page.reload()
        self.sees("It drops in")  # the clocks are the server's: a reload loses nothing
        self.page.keyboard.type("open")
        self.page.keyboard.press("Enter")
        self.sees("What happened?")
        self.assertAccessible()
        self.page.keyboard.press("Enter")  # a stray Enter takes nothing
        self.page.keyboard.press("d")
        self.page.keyboard.press("Enter")
        self.sees("Gap to the shoulder, at 12 o'clock")
        for clock in ("3", "6", "9"):
            self.enter("0", then=f"Gap to the shoulder, at {clock} o'clock")
        self.enter("0", then="Widest gap again, cold")
        self.enter("0", then="too warm for a verdict")
        self.assertEqual(self.page.input_value("#strip-field"), "0")
        self.page.keyboard.press("Backspace")
        self.enter("skip", then="Anything to remember?")
        self.tab_to("Sign this entry")
        self.page.keyboard.press("Enter")
        self.sees("Signed by Una")
        entry = Entry.objects.get()
        self.assertEqual((entry.call_state, entry.call_words), ("in", "Seated"))
        self.tab_to("Printable record")
        self.page.keyboard.press("Enter")
        self.sees("licensed or certified practice come first")
        self.assertAccessible()
        self.assertQuiet()


class OnThePhone(BrowserCase):
    mobile = True

    def test_a_heat_is_run_with_the_thumb(self):
        made = job()
        hands = Hands(made)
        self.go("/")
        self.page.tap("text=Corrie 272")
        self.sees("It drops in")
        self.assertAccessible()
        self.page.tap("text=Washed, dry")
        self.page.locator("button[value=chill]:not([aria-disabled])").wait_for()
        self.page.tap("button[value=chill]")
        self.page.locator("button[value=heat]").tap()  # at once: the second act's answer finds the page changed
        self.sees("case: read the temperature")
        self.page.fill("#strip-field", "61")
        self.page.tap(".phone-keep")
        self.sees("61.0 °C", where=".side")
        self.page.tap("text=Warnings, methods, numbers")
        self.sees("Temperature by")
        self.page.tap(".drawer-key")
        self.sees("Seals", where=".run.open")
        self.assertAccessible()
        self.page.tap("button[value=open]")
        self.page.tap("text=tapped home")
        self.sees("Gap to the shoulder, at 12 o'clock")
        self.assertEqual(hands.work().analysis.outcome, "tapped")
        wide = self.page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, 390)
        self.assertQuiet()


class AtTheBench(BrowserCase):
    """Errors around the reading bar."""

    def setUp(self):
        self.job = job()
        self.hands = Hands(self.job)
        super().setUp()
        self.go(self.hands.address)

    def texts(self):
        return [reading.text for reading in Reading.objects.filter(withdrawn_at=None)]

    def test_a_gauge_that_ends_with_two_enters_leaves_nothing_out(self):
        again = "document.addEventListener('htmx:afterSettle', () => document.getElementById('strip-form').requestSubmit(), {once: true})"
        self.page.evaluate(again)  # the gauge's other Enter, the moment the next question stands there
        self.page.keyboard.type("18")
        self.page.keyboard.press("Enter")
        self.page.keyboard.press("Enter")
        self.sees("Bore of the seat", where=".strip")
        self.enter("46.98", then="Outside of the bearing")
        self.assertEqual(self.texts(), ["18", "46.98"])
        self.assertEqual(self.hands.work().answers.skipped, [])

    def test_a_gauge_types_while_the_cursor_is_elsewhere(self):
        self.page.locator(".button", has_text="Readings").focus()
        self.enter("18.5", then="Bore of the seat")
        self.page.locator("#time-slider").focus()
        self.enter("46.98", then="Outside of the bearing")
        self.assertEqual(self.texts(), ["18.5", "46.98"])

    def test_what_is_typed_outlives_a_reload_and_another_device_s_writing(self):
        self.page.keyboard.type("46.9")
        Hands(self.job, person("bram", "mechanic")).choose(chiller="none")
        self.page.locator("#method-chiller option[selected]", has_text="no chilling").wait_for(state="attached", timeout=9000)
        self.assertEqual(self.page.input_value("#strip-field"), "46.9")
        self.page.reload()
        self.assertEqual(self.page.input_value("#strip-field"), "46.9")
        self.assertQuiet()

    def test_a_session_that_ends_in_mid_typing_keeps_the_text_through_the_sign_in(self):
        self.page.keyboard.type("18.25")
        Session.objects.all().delete()
        self.page.keyboard.press("Enter")
        self.sees("You have been signed out")
        self.assertEqual(self.page.input_value("#strip-field"), "18.25")
        self.page.click("text=sign in again")
        self.page.fill("#id_username", "una")
        self.page.fill("#id_password", PASSWORD)
        self.page.keyboard.press("Enter")
        self.sees("Air in the shop")
        self.assertEqual(self.page.input_value("#strip-field"), "18.25")
        self.assertEqual(self.texts(), [])

    def test_a_lost_connection_keeps_the_reading_on_the_device_and_says_so(self):
        self.ctx.set_offline(True)
        self.page.keyboard.type("18")
        self.page.keyboard.press("Enter")
        self.sees("Waiting to be sent: 1.")
        self.ctx.set_offline(False)
        self.sees("Sent: 1.")
        self.sees("Bore of the seat")
        self.assertEqual(self.texts(), ["18"])

    def test_a_wrong_unit_is_answered_in_words_and_stays_to_be_corrected(self):
        self.enter("12 mm", then="mm is a unit of length")
        self.assertEqual(self.page.input_value("#strip-field"), "12 mm")
        self.assertAccessible()
        self.assertQuiet()

    def test_arrow_up_brings_the_reading_before_and_words_are_commands(self):
        self.enter("18", then="Bore of the seat")
        self.enter("back", then="Air in the shop")
        self.page.keyboard.press("ArrowUp")
        self.assertEqual(self.page.input_value("#strip-field"), "18")
        self.page.keyboard.press("Enter")
        self.sees("Bore of the seat")
        self.enter("sh", then="not taken")
        self.page.keyboard.press("Escape")
        self.page.locator("#sheet").wait_for(state="hidden")
        self.enter("?", then="brings the reading before back")

    def test_a_timer_that_runs_out_flashes_across_the_bench(self):
        self.hands.keep("room", "18")
        Timer.objects.create(
            job=self.job,
            entry=self.hands.entry,
            key="heat",
            label="case comes out",
            tone="heat",
            due_at=timezone.now() - timedelta(seconds=1),
            by=person(),
        )
        self.page.reload()
        self.sees("0412: case comes out", where="#flash")
        self.page.keyboard.press("Escape")
        self.page.locator("#flash").wait_for(state="hidden")
        self.page.click("[data-panel=keys] >> nth=-1")
        self.page.click("[data-alarm=flash]")
        self.page.locator("[data-alarm=flash][aria-pressed=false]").wait_for()
        self.assertAccessible()

    def test_looking_ahead_moves_the_drawing_through_time(self):
        before = self.page.inner_html("#picture")
        self.page.locator("#time-slider").fill("240")
        self.page.wait_for_function("old => document.querySelector('#picture').innerHTML !== old", arg=before)
        self.assertIn("4:00 after coming out", self.page.text_content("#wide-d"))
        self.page.evaluate("document.querySelectorAll('#work [id]').forEach((part) => { part.wasHere = true; })")
        self.enter("18", then="Bore of the seat")
        stayed = "[...document.querySelectorAll('#work [id]')].filter((part) => part.wasHere).map((part) => part.id)"
        self.assertLessEqual({"tag", "methods", "checklist", "picture", "strip-field"}, set(self.page.evaluate(stayed)))
        self.assertNotIn("4:00 after coming out", self.page.text_content("#picture"))  # the drawing is the server's again
        self.sees("Rumbles.", where="#tag")
        self.assertQuiet()

    def test_the_other_pages_are_quiet_and_accessible_light_and_dark(self):
        self.hands.keep("room", "18")
        for path in ("/", "/shop/", "/jobs/0412/card/", "/jobs/0412/log/", "/jobs/0412/seals/", "/jobs/7777/"):
            with self.subTest(path):
                self.go(path)
                self.page.locator("h1").first.wait_for()
                self.assertAccessible()
        self.assertEqual([words for words in self.noise if "404" not in words], [])
        self.page = self.device(scheme="dark").pages[0]
        for path in ("/", self.hands.address):
            self.go(path)
            self.assertAccessible()
