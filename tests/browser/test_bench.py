"""Full benches, long names, dark sheds, forms filled in wrong."""

from __future__ import annotations

import tempfile
from pathlib import Path

from django.utils import timezone

from stator.engines.models import EngineCard
from stator.jobs import log
from stator.jobs.models import Photo, Timer
from stator.shop.models import Chiller
from tests.browser.base import BrowserCase
from tests.factories import Hands, job, person

LONG = "Hovercraft lift engine of the ferry company, rebuilt twice"


class AFullBench(BrowserCase):
    def setUp(self):
        for number in range(500, 515):
            Hands(job(number)).keep("room", "18")
        EngineCard.objects.filter(pk__in=EngineCard.objects.values("pk")[:3]).update(
            name=LONG, summary="horizontally opposed four-cylinder two-stroke"
        )
        super().setUp()

    def test_fifteen_engines_and_long_names_stay_inside_the_page(self):
        self.go("/")
        self.assertEqual(self.page.locator(".bench-line").count(), 15)
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 1280)
        self.assertAccessible()
        self.page.locator(".bench-line").first.click()
        self.sees("It drops in")
        for region in (".tag", ".run", ".drawing", ".call", ".strip"):
            box = self.page.locator(region).bounding_box()
            self.assertLessEqual(box["x"] + box["width"], 1280.5, region)
            self.assertLessEqual(box["y"] + box["height"], 800.5, region)
        self.assertQuiet()


class APhonesBench(BrowserCase):
    mobile = True

    def test_nothing_sticks_out_at_phone_width(self):
        hands = Hands(job())
        EngineCard.objects.update(name=LONG)
        for path in ("/", hands.address, "/jobs/0412/log/", "/jobs/0412/card/", "/book-in/", "/shop/", "/jobs/0412/seals/"):
            with self.subTest(path):
                self.go(path)
                self.page.locator("h1").first.wait_for()
                self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)
        self.assertQuiet()

    def test_the_field_and_the_action_at_hand_are_big_enough_for_a_glove(self):
        hands = Hands(job())
        hands.tick_all()
        self.go(hands.address)
        self.assertGreaterEqual(self.page.locator(".button.main").first.bounding_box()["height"], 64)
        small = self.page.evaluate(
            """[...document.querySelectorAll('a, button, select, input:not([type=hidden])')]
               .filter((e) => e.offsetParent && !e.closest('svg') && !e.closest('.more'))
               .map((e) => [e.textContent.trim() || e.id, Math.round(e.getBoundingClientRect().height)])
               .filter(([, height]) => height < 44)"""
        )
        self.assertEqual(small, [])


class TwoDevices(BrowserCase):
    def test_a_clock_started_on_one_runs_on_the_other(self):
        hands = Hands(job())
        hands.tick_all()
        self.go(hands.address)
        other = self.device("bram").pages[0]
        other.goto(f"{self.live_server_url}{hands.address}")
        self.page.click("button[value=chill]")
        self.sees("bearing: read the temperature", where=".tag")
        other.locator(".tag-timers", has_text="bearing: read the temperature").wait_for(timeout=9000)
        mine, theirs = (page.get_attribute(".timer", "data-due") for page in (self.page, other))
        self.assertEqual(mine, theirs)
        self.assertEqual(Timer.objects.count(), 1)
        self.assertQuiet()

    def test_an_entry_signed_on_one_is_answered_in_words_on_the_other(self):
        hands = Hands(job())
        hands.keep("room", "18")
        self.go(hands.address)
        self.page.keyboard.type("46.9")
        log.sign(hands.entry, person(), log.VerdictSnapshot("in", "Seated", ""), hands.work().result())
        self.page.keyboard.press("Enter")
        self.sees("signed meanwhile")


class Forms(BrowserCase):
    def test_a_wrong_marking_is_answered_while_it_is_typed_and_after_and_nothing_is_lost(self):
        Hands(job())
        self.go("/book-in/")
        self.page.get_by_label("Engine", exact=True).fill("Plover 125")
        self.page.get_by_label("What is wrong with it").fill("Rattles.")
        self.page.get_by_label("One bearing, cases already bare").check()
        self.page.get_by_label("Bearing marking").fill("69999 2RS")
        self.sees("Understood: 2RS: sealed both sides")
        self.page.click("text=Book it in")
        self.page.locator(".field.wrong").wait_for()
        self.assertEqual(self.page.get_by_label("Bearing marking").input_value(), "69999 2RS")
        self.assertEqual(self.page.get_by_label("Engine", exact=True).input_value(), "Plover 125")
        self.page.click("text=No marking? Type its sizes")
        for label, size in (("or its bore, mm", "25"), ("outside, mm", "2.047 in"), ("width, mm", "15")):
            self.page.get_by_label(label, exact=True).fill(size)
        self.page.get_by_label("Bearing marking").fill("")
        self.assertAccessible()
        self.page.click("text=Book it in")
        self.sees("It drops in")
        self.assertQuiet()

    def test_a_known_engine_hides_what_need_not_be_typed_again(self):
        Hands(job())
        self.go("/book-in/")
        self.page.get_by_label("Seen here before").select_option(label="Corrie 272, trials single")
        self.page.locator("#id_name").wait_for(state="hidden")
        self.page.get_by_label("What is wrong with it").fill("Back again.")
        self.page.get_by_label("One bearing, cases already bare").check()
        self.page.click("text=Book it in")
        self.sees("Back again.", where=".tag")

    def test_a_file_that_is_no_picture_is_refused_by_name(self):
        Hands(job())
        self.go("/jobs/0412/pictures/")
        with tempfile.TemporaryDirectory() as folder:
            notes = Path(folder) / "notes.jpg"
            notes.write_text("not a picture")
            self.page.set_input_files("#photo", str(notes))
            self.page.click("text=Add them")
            self.sees("notes.jpg: That file is no picture")
        self.assertFalse(Photo.objects.exists())
        self.assertAccessible()

    def test_the_owner_changes_the_shop_and_is_told_what_is_wrong(self):
        Hands(job())
        self.go("/shop/")
        self.page.click("text=Freezer >> nth=0")
        self.page.get_by_label("Temperature inside").fill("-20 furlong")
        self.page.get_by_role("button", name="Save", exact=True).click()
        self.sees("is no unit known here")
        self.page.get_by_label("Temperature inside").fill("-4F")
        self.page.get_by_role("button", name="Save", exact=True).click()
        self.sees("What chills")
        self.assertEqual(Chiller.objects.get(name="Freezer").temperature_c, -20)
        self.assertQuiet()


class Superseding(BrowserCase):
    def test_a_signed_entry_is_superseded_with_a_reason_and_stays_in_the_log(self):
        hands = Hands(job())
        hands.keep("room", "18")
        first = hands.entry
        log.sign(first, person(), log.VerdictSnapshot("in", "Seated", "Even all round."), hands.work().result(), at=timezone.now())
        self.go(hands.address)
        self.sees("Signed by Una")
        self.page.click("text=Replace this entry")
        self.sees("why the signed entry is no longer right")
        self.page.get_by_label("Reason for replacing this entry").fill("found it proud next morning")
        self.page.click("text=Replace this entry")
        self.sees("Bore of the seat")  # the air was read before, and is here again
        self.go("/jobs/0412/log/")
        self.sees("Replaced by a later entry")
        self.assertAccessible()
        self.assertQuiet()
