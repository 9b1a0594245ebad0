"""Card, tray and equipment by mouse, keyboard and touch."""

from __future__ import annotations

from stator.engines.models import EngineCard, Mark, Seal, Spec
from stator.jobs.models import Photo, TrayPlace
from stator.shop.models import Driver, Person
from stator.stations.split_crankcase.tests import face
from stator.workbench.test_navigation import photo_file
from tests.browser.base import BrowserCase
from tests.factories import job, person


class TheCard(BrowserCase):
    def setUp(self):
        self.made = job(order="bottom-end", x_mm=-30, y_mm=0)
        face(self.made.card)
        super().setUp()
        self.go("/jobs/0412/card/")

    def part(self, name):
        self.page.locator(".part-link", has_text=name).click()

    def test_a_seal_and_a_figure_are_put_on_it_and_a_wrong_one_keeps_what_was_typed(self):
        self.part("A seal")
        self.page.get_by_label("Shaft, mm", exact=True).fill("1 in")
        self.page.get_by_label("Its bore in the case").fill("20")
        self.page.get_by_label("Width, mm", exact=True).fill("7")
        self.page.get_by_text("Put the seal on the card").click()
        self.sees("must be larger than the shaft")
        self.assertEqual(self.page.get_by_label("Shaft, mm", exact=True).input_value(), "1 in")
        self.assertAccessible()
        self.page.get_by_label("Its bore in the case").fill("40 mm")
        self.page.get_by_label("In front of the bearing of").select_option(label="Main, drive side")
        self.page.get_by_text("Put the seal on the card").click()
        self.sees("25.4 × 40 × 7")
        self.assertEqual(Seal.objects.get().seat.name, "Main, drive side")
        self.part("A figure")
        self.page.get_by_label("Figure", exact=True).fill("End float")
        self.page.get_by_label("At least").fill("4 thou")
        self.page.get_by_label("At most").fill("0,2")
        self.page.get_by_text("Put the figure on the card").click()
        self.sees("0.1016")
        self.assertAlmostEqual(Spec.objects.get().low, 0.1016)
        self.assertQuiet()

    def test_a_bolt_is_put_on_in_inches_where_the_face_is_tapped(self):
        Person.objects.update(units="inch")
        Mark.objects.all().delete()
        self.go("/jobs/0412/card/")
        box = self.page.locator("#face svg").bounding_box()
        self.page.mouse.click(box["x"] + 0.6 * box["width"], box["y"] + 0.35 * box["height"])
        self.page.locator("#face a[aria-label='bolt 1']").wait_for()
        tapped = Mark.objects.get()
        self.page.locator("#face a[aria-label='bolt 1']").click()
        self.page.locator("#face:not(.htmx-added) input[name=mark]").wait_for(state="attached")
        self.assertAlmostEqual(float(self.page.get_by_label("x, in", exact=True).input_value()), tapped.x_mm / 25.4, 2)
        self.page.get_by_label("Length under the head, in").fill("1.5")
        self.page.get_by_label("Torque, ft-lb").fill("7.5")
        self.page.locator("#face form button.button").first.click()
        self.page.get_by_label("Length, in", exact=True).wait_for()
        self.assertEqual(self.page.get_by_label("Length, in", exact=True).input_value(), "1.5")  # offered for the next bolt
        mark = Mark.objects.get()
        self.assertEqual((round(mark.length_mm, 3), round(mark.torque_nm, 2), mark.x_mm), (38.1, 10.17, tapped.x_mm))
        self.assertQuiet()

    def test_a_mark_taken_off_is_put_back_and_a_seat_asks_first(self):
        self.page.locator("#face a[aria-label='bolt 3']").click()
        self.page.locator("#face:not(.htmx-added) input[name=mark]").wait_for(state="attached")
        self.page.get_by_text("Take it off").click()
        self.sees("3 was taken off.")
        self.assertFalse(Mark.objects.filter(name="3").exists())
        self.page.get_by_text("Restore it").click()
        self.page.locator("#face a[aria-label='bolt 3']").wait_for()
        self.assertEqual(Mark.objects.get(name="3").length_mm, 50)
        self.page.get_by_role("link", name="Main, drive side").first.click()
        self.page.get_by_text("Take Main, drive side off the card").click()
        self.sees("Take Main, drive side off the card?")
        self.assertAccessible()
        self.page.get_by_text("Cancel").click()
        self.sees("The joint face")
        self.assertEqual(self.made.card.seats.count(), 1)
        self.assertQuiet()

    def test_it_goes_to_the_shelf_and_out_as_a_file_and_a_bad_one_is_refused(self):
        self.page.get_by_text("Save as engine template").click()
        self.sees("on the shelf, version 1")
        with self.page.expect_download() as caught:
            self.page.get_by_text("The card as JSON").click()
        self.assertEqual(caught.value.suggested_filename, "card-corrie-272.json")
        self.go("/cards/")
        self.page.set_input_files("#card-file", [{"name": "card.json", "mimeType": "application/json", "buffer": b'{"schema": "x"}'}])
        self.page.get_by_role("button", name="Read the file").click()
        self.sees("card.json was refused, nothing of it is kept. Line 1")
        self.assertEqual(EngineCard.objects.filter(on_shelf=True).count(), 1)
        self.assertQuiet()


class TheShelves(BrowserCase):
    def test_a_driver_added_by_the_owner_is_found_at_the_seat(self):
        made = job(order="bottom-end", designation="6205 C3")
        seat = made.card.seats.get()
        self.go(f"/jobs/0412/bearings-out/{seat.pk}/")
        self.assertIn("none on the shelf fits", self.page.text_content("#picture svg"))
        self.go("/shop/tools/")
        self.page.get_by_text("Add a driver").click()
        self.page.get_by_label("Name").fill("50 tube")
        self.page.get_by_label("Outside diameter").fill("50")
        self.page.get_by_label("Inside diameter").fill("60")
        self.page.get_by_role("button", name="Save", exact=True).click()
        self.sees("The inside is smaller than the outside")
        self.page.get_by_label("Inside diameter").fill("41")
        self.page.get_by_role("button", name="Save", exact=True).click()
        self.sees("50 mm, 41 mm")
        self.assertEqual(Driver.objects.get().name, "50 tube")
        self.go(f"/jobs/0412/bearings-out/{seat.pk}/")
        self.assertIn("50 tube", self.page.text_content("#picture svg"))
        self.assertQuiet()

    def test_found_again_by_a_word_and_by_a_bearing(self):
        job(order="bottom-end")
        self.go("/")
        self.page.get_by_text("Find", exact=True).click()
        self.page.locator("#q:focus").wait_for()
        self.page.keyboard.type("rumbles 6204")
        self.page.keyboard.press("Enter")
        self.sees("0412")
        self.page.get_by_role("link", name="0412").click()
        self.sees("Measure the threads")
        self.assertQuiet()


class WithTheThumb(BrowserCase):
    mobile = True

    def test_a_bolt_is_tapped_onto_the_face_and_a_photo_into_the_tray(self):
        made = job(order="bottom-end")
        TrayPlace.objects.create(job=made, number=1, name="thin washer", client_key="t", by=person())
        self.go("/jobs/0412/card/")
        box = self.page.locator("#face svg").bounding_box()
        self.page.touchscreen.tap(box["x"] + 0.4 * box["width"], box["y"] + 0.4 * box["height"])
        self.page.locator("#face a[aria-label='bolt 1']").wait_for()
        self.go("/jobs/0412/tray/1/")
        photo = {"name": "w.jpg", "mimeType": "image/jpeg", "buffer": photo_file(size=(200, 150)).read()}
        self.page.set_input_files("#photo", [photo])
        self.page.get_by_text("Add the picture").tap()
        self.page.locator("img[height='220']").wait_for()
        self.assertEqual(TrayPlace.objects.get().photo, Photo.objects.get())
        self.assertAccessible()
        self.assertQuiet()

    def test_the_run_is_a_drawer_with_the_tray_and_the_card_in_it(self):
        job(order="bottom-end")
        self.go("/jobs/0412/split/")
        self.page.tap(".drawer-key")
        self.page.locator(".run.open").get_by_text("Tray").tap()
        self.sees("The tray is empty")
        self.go("/jobs/0412/split/")
        self.page.locator(".side").get_by_text("Photos").scroll_into_view_if_needed()
        self.page.locator(".side").get_by_text("Photos").tap()
        self.sees("None of this station yet")
        self.assertAccessible()
        photo = {"name": "now.jpg", "mimeType": "image/jpeg", "buffer": photo_file().read()}
        self.page.locator("[data-snap]").set_input_files(files=[photo])  # one tap and the camera: it is sent by itself
        self.page.locator(".side", has_text="Photos 1").wait_for()
        self.assertEqual(Photo.objects.get().station.key, "split")
        self.assertQuiet()
