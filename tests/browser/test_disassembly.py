"""From sign-in to empty cases: check-in, split, disassembly and bearings; by keyboard and on the phone."""

from __future__ import annotations

from stator.engines.models import Mark, Seal
from stator.jobs.models import Entry, Job, Photo, TrayPlace
from stator.stations.split_crankcase.tests import Halves, face
from stator.workbench.test_navigation import photo_file
from tests.browser.base import BrowserCase
from tests.factories import Hands, job


class AtTheDoor(BrowserCase):
    def test_a_new_engine_is_booked_in_and_its_face_filled_by_tapping(self):
        self.go("/book-in/")
        self.assertAccessible()
        self.page.get_by_label("Bottom end with crank rebuild").check()
        self.page.get_by_label("Engine", exact=True).fill("Corrie 272")
        self.page.get_by_label("What is wrong with it").fill("Seized once.")
        self.page.click("text=Book it in")
        self.sees("Tap the joint face to add a")
        self.page.get_by_label("Length, mm", exact=True).fill("40")
        box = self.page.locator("#face svg").bounding_box()
        for index, (across, down) in enumerate(((0.3, 0.3), (0.7, 0.3), (0.5, 0.7)), 1):
            self.page.mouse.click(box["x"] + across * box["width"], box["y"] + down * box["height"])
            self.page.locator(f"#face a[aria-label='bolt {index}']").wait_for()
        self.assertEqual(list(Mark.objects.values_list("name", "length_mm")), [("1", 40.0), ("2", 40.0), ("3", 40.0)])
        self.assertLess(Mark.objects.get(name="1").x_mm, 0)
        self.assertGreater(Mark.objects.get(name="1").y_mm, 0)
        self.page.locator("#face a[aria-label='bolt 2']").focus()
        self.page.keyboard.press("Enter")
        self.sees("Take it off")
        self.assertAccessible()
        self.page.get_by_label("Name").fill("long one")
        self.page.get_by_role("button", name="Save", exact=True).click()
        self.page.locator("#face a[aria-label='bolt long one']").wait_for()
        self.assertQuiet()

    def test_by_keyboard_a_place_is_typed_and_one_off_the_face_is_answered(self):
        made = job(order="bottom-end")
        self.go("/jobs/0412/card/")
        self.page.get_by_label("Or type its place: x").focus()
        self.page.keyboard.type("900")
        self.page.keyboard.press("Tab")
        self.page.keyboard.type("0")
        self.page.keyboard.press("Enter")
        self.sees("900 mm lies off it")
        self.assertEqual(self.page.get_by_label("Or type its place: x").input_value(), "900")
        self.page.get_by_label("Or type its place: x").fill("90")
        self.page.keyboard.press("Enter")
        self.page.locator("#face a[aria-label='bolt 1']").wait_for()
        self.assertEqual(made.card.marks.get().x_mm, 90)

    def test_a_photo_is_pinned_and_seen_beside_the_drawing(self):
        job(order="bottom-end")
        self.go("/jobs/0412/pictures/?station=split")
        self.page.set_input_files("#photo", [{"name": "slip.jpg", "mimeType": "image/jpeg", "buffer": photo_file(size=(600, 400)).read()}])
        self.page.click("text=Add them")
        self.page.locator("figure a").click()
        self.sees("Tap the place on the picture")
        self.page.locator(".tap svg").click(position={"x": 120, "y": 80})
        self.page.keyboard.type("washer stuck here")
        self.page.keyboard.press("Enter")
        self.sees("washer stuck here", where=".pins")
        pin = Photo.objects.get().pins.get()
        self.assertTrue(0.1 < pin.x < 0.3 and 0.1 < pin.y < 0.4)
        self.assertAccessible()
        self.go("/jobs/0412/split/")
        self.page.click("text=Photos 1")
        self.sees("washer stuck here", where="#pictures")
        self.page.keyboard.press("Escape")
        self.page.locator("#strip-field:focus, .strip-options").first.wait_for()
        self.assertQuiet()


class Taken(BrowserCase):
    def setUp(self):
        made = job(order="bottom-end", x_mm=-30, y_mm=0)
        face(made.card)
        self.made, self.hands = made, Hands(made)
        super().setUp()

    def option(self, letter, then, where="body"):
        self.page.keyboard.press(letter)
        self.page.keyboard.press("Enter")
        self.sees(then, where)

    def tick(self, *words):
        for each in words:
            self.page.locator(".tick", has_text=each).focus()
            self.page.keyboard.press("Enter")
            self.page.locator(".tick[aria-pressed=true]", has_text=each).wait_for()


class SplitByKeyboard(Taken):
    def bolts(self, *lengths):
        for number, length in enumerate(lengths, 1):
            self.enter(length, then=f"Bolt {number + 1} out" if number < 5 else "Pieces on the tray")

    def test_from_the_first_bolt_to_the_loose_washer(self):
        self.go("/jobs/0412/split/")
        self.assertAccessible()
        self.bolts("40", "40", "50", "2 1/4 in", "60")
        self.enter("5", then="Splitter screws")
        self.enter("6", then="Pitch of the splitter screws")
        self.enter("1.0", then="Turns the screws go into the case")
        self.enter("9", then="Ready to part")
        self.tick("drained", "Cylinder and head off", "Primary gear")
        self.enter("begin", then="Gap at front")
        for value, then in (("0.9", "Gap at top"), ("1.5", "Gap at rear"), ("2.1", "Gap at sump"), ("1.5 mm", "Level the halves first")):
            self.enter(value, then=then)
        self.sees("Tap the lifting half outward at front")
        self.assertAccessible()
        self.enter("next", then="Round 2")
        for value, then in (("4.0", "Gap at top"), ("4.1", "Gap at rear"), ("4.2", "Gap at sump"), ("4.1", "Nothing more to measure")):
            self.enter(value, then=then)
        self.sees("Halves are level")
        self.enter("apart", then="Apart: look for loose parts")
        self.enter("washer 1.0", then="Which shaft was it on?")
        self.enter("output, 1st", then="Found on")
        self.option("d", then="Another loose washer or shim?", where=".strip")
        self.enter("skip", then="Anything to note?")
        self.enter("Stuck at the front dowel.", then="Nothing more to measure")
        self.enter("sign", then="Signed by Una")
        self.assertEqual(TrayPlace.objects.get().where_from, "output, 1st")
        self.assertEqual(Entry.objects.get().result["contradicts"][0]["found"], "57.1 mm")
        self.assertQuiet()

    def test_the_one_left_in_is_stop_and_shown_on_the_face(self):
        self.go("/jobs/0412/split/")
        self.bolts("40", "40", "skip", "50", "60")
        self.enter("4", then="One bolt still in")
        self.sees("Look at 3 first")
        self.page.locator("#picture .likely").first.wait_for()
        self.page.locator("#picture a[aria-label='Reading: length of bolt 3']").focus()
        self.page.keyboard.press("Enter")
        self.sees("Bolt 3 out", where=".strip")
        self.assertQuiet()


class TheRest(Taken):
    def test_stripped_into_the_tray_by_keyboard(self):
        self.go("/jobs/0412/strip/")
        self.page.keyboard.press("p")
        self.page.keyboard.press("Enter")
        self.sees("Did it come evenly?")
        self.option("c", then="Stop pushing")
        self.page.locator(".side [data-panel=sheet]").click()
        self.page.locator("#sheet tr", has_text="Did it come evenly").get_by_text("Again").click()
        self.sees("Did it come evenly?", where=".strip")
        self.option("e", then="What comes out first?")
        self.enter("2 x washer 1.0", then="From which shaft or place?")
        self.enter("output, 2nd", then="Which way round")
        self.option("e", then="Any wear on it?")
        self.option("s", then="What comes out next?")
        self.enter("skip", then="Bare, with wear to check")
        self.assertAccessible()
        self.tick("clean tray")
        self.page.keyboard.type("skip")
        self.page.keyboard.press("Enter")
        self.sees("Nothing more to measure")
        self.sees("Split is not signed with the halves apart", where=".call")
        self.page.get_by_label("Reason for going on without it").fill("came in halves")
        self.page.get_by_role("button", name="Go on with this reason").click()
        self.page.get_by_text("Not done yet").wait_for(state="detached")
        self.enter("sign", then="Signed by Una")
        self.go("/jobs/0412/tray/")
        self.sees("2 × washer 1.0")
        self.assertAccessible()
        self.assertQuiet()

    def test_a_crooked_seal_then_the_bearing_by_heat(self):
        seat = self.made.card.seats.get()
        Seal.objects.create(card=self.made.card, name="Crank seal", seat=seat, shaft_mm=20, bore_mm=35, width_mm=7, lip="inside")
        self.go(f"/jobs/0412/bearings-out/{seat.pk}/")
        self.page.get_by_role("button", name="to the outside").click()
        self.sees("depth at 12 o'clock")
        for value, then in (("0.1", "at 3 o'clock"), ("0.4", "at 6 o'clock"), ("0.9", "at 9 o'clock"), ("0.4", "Seal sat wrong")):
            self.enter(value, then=then)
        self.assertAccessible()
        self.option("y", then="Depth of the bearing's face")
        self.enter("8.5", then="What holds the bearing in?")
        self.option("n", then="Can it be reached from behind?")
        self.option("y", then="The bearing is", where=".strip")
        self.option("o", then="Its marking faces")
        self.option("n", then="kept if it can be")  # not seen: left out
        self.option("k", then="First tick what must be so")
        self.tick("Washed and dry", "It comes out toward")
        self.sees("How did it come out?")
        self.sees("Heat: it will drop out")
        self.sees("found to the outside, the card says to the inside")
        self.option("s", then="Bearing still in")
        self.assertQuiet()


class OnThePhone(Taken):
    mobile = True

    def keep(self, text, then):
        self.page.fill("#strip-field", text)
        self.page.tap(".phone-keep")
        self.sees(then)

    def test_parting_with_the_thumb(self):
        self.go("/jobs/0412/split/")
        for number in range(1, 6):
            self.keep("40", then=f"Bolt {number + 1} out" if number < 5 else "Pieces on the tray")
        self.keep("5", then="Splitter screws")
        for then in ("Pitch of the splitter screws", "Turns the screws go into the case", "Thread strength not checked"):
            self.page.tap(".phone-keep")
            self.sees(then)
        for words in ("Drained", "Cylinder and head off", "Primary gear"):
            self.page.locator(".tick", has_text=words).tap()
            self.page.locator(".tick[aria-pressed=true], .actions .main:not([aria-disabled])").first.wait_for()
        self.page.locator("button[value=begin]").tap()
        self.sees("Gap at front")
        self.keep("0.2", then="Gap at top")
        self.keep("1.2", then="Gap at rear")
        self.keep("2.2", then="Gap at sump")
        self.keep("1.2", then="Dowels are binding")
        self.assertAccessible()
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)
        self.assertQuiet()

    def option(self, words, then):
        self.page.locator(".strip-options .button", has_text=words).tap()
        self.sees(then)

    def test_a_part_is_laid_into_the_tray_with_the_thumb(self):
        self.go("/jobs/0412/strip/")
        self.option("lifted out", then="What comes out first?")
        self.keep("2 x washer", then="From which shaft")
        self.keep("output", then="Which way round")
        self.option("either way", then="Any wear on it?")
        self.option("some", then="What comes out next?")
        self.sees("washer", where="#picture")
        self.assertEqual(TrayPlace.objects.get().count, 2)
        self.assertAccessible()
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)
        self.assertQuiet()

    def test_a_signed_drawing_can_be_read_and_pushed_along_with_the_thumb(self):
        Halves(self.made).whole()
        self.go("/jobs/0412/split/")
        frame = self.page.locator(".recorded-frame")
        self.assertGreater(frame.evaluate("each => each.scrollWidth"), 600)
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)
        frame.evaluate("each => each.scrollBy(200, 0)")
        self.assertEqual(frame.evaluate("each => each.scrollLeft"), 200)
        self.assertAccessible()
        self.assertQuiet()

    def test_a_bearing_that_a_circlip_holds_is_stop_on_the_phone_too(self):
        self.go(f"/jobs/0412/bearings-out/{self.made.card.seats.get().pk}/")
        self.option("a circlip", then="Bearing is held by a circlip")
        self.sees("Take the circlip out")
        self.page.tap("text=Warnings, methods, numbers")
        self.sees("the card says shoulder")
        self.assertAccessible()
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)
        self.assertQuiet()

    def test_a_label_opens_its_place_and_the_card_and_photos_fit_the_hand(self):
        TrayPlace.objects.create(job=self.made, number=1, name="thin washer", client_key="t", by=self.made.booked_in_by)
        self.go("/jobs/0412/tray/1/")
        self.page.tap("text=Taken back into the engine")
        self.sees("Not taken back after all")
        for page in ("tray", "tray/1", "tray/labels", "card", "pictures", "run", "log"):
            self.go(f"/jobs/0412/{page}/")
            self.assertAccessible()
            self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390, page)
        self.assertQuiet()


class TheShop(BrowserCase):
    def test_cards_shelves_run_and_find_are_read_without_a_mouse(self):
        job(order="bottom-end")
        for page in ("/cards/", "/shop/", "/shop/tools/", "/shop/drivers/", "/jobs/0412/run/", "/find/?q=corrie"):
            self.go(page)
            self.assertAccessible()
        self.assertQuiet()

    def test_a_station_is_left_out_with_its_reason(self):
        job(order="bottom-end")
        self.go("/jobs/0412/run/")
        line = self.page.locator(".run-lines li", has_text="Flywheel off")
        line.get_by_text("Skip or wait").click()
        line.get_by_text("Skip this station").click()
        self.sees("Say in a few words why")
        line.locator("input[name=words]").fill("came without it")
        self.page.keyboard.press("Enter")
        self.sees("came without it (Una)")
        self.go("/")
        self.sees("Split is next")
        self.assertEqual(Job.objects.get().run.get(key="flywheel-off").state, "skipped")
