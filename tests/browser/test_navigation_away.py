"""An engine at handover: flywheel installed, report read by the customer, file imported; and a flywheel left alone."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path

from django.core.files.uploadedfile import SimpleUploadedFile

from stator.engines.models import EngineCard, Spec
from stator.jobs.models import Job, OwnerLink
from stator.jobs.photos import add_photo
from stator.jobs.tests import picture
from tests.browser.base import BrowserCase
from tests.factories import job, person

WHEEL = {"taper_ratio": 8, "cone": "taper", "nut_d_mm": 12, "nut_torque_nm": 55, "shaft_d_mm": 16, "wheel_kg": 1.9, "wheel_rpm": 8500}


class Leaving(BrowserCase):
    def setUp(self):
        self.made = job(order="flywheel")
        EngineCard.objects.filter(pk=self.made.card_id).update(**WHEEL)
        Spec.objects.create(card=self.made.card, name="Air gap", property="air-gap", low=0.3, high=0.4, source="page 70")
        super().setUp()

    def pick(self, question, answer):
        self.sees(question, where=".strip")
        self.page.locator(".strip-options").get_by_role("button", name=answer).click()
        self.page.locator(".strip").get_by_text(question).wait_for(state="detached")

    def tick(self, words):
        self.page.get_by_role("button", name=words).click()
        self.page.locator(f".tick[aria-pressed=true]:has-text('{words}')").wait_for()

    def only(self, *keys):
        """Skip the rest of the work plan."""
        self.made.run.exclude(key__in=keys).update(state="skipped", because="off and on elsewhere (Una)")


class TheWheel(Leaving):
    def test_one_that_did_not_shake_is_left(self):
        self.go("/jobs/0412/balance/")
        self.sees("Should it be touched?")
        self.assertAccessible()
        self.pick("Did it shake the engine?", "no, it ran smooth")
        self.pick("Looked over and rung", "sound all over")
        self.sees("Leave it alone")
        self.page.keyboard.type("sign")
        self.page.keyboard.press("Enter")
        self.sees("Signed by Una")
        self.assertQuiet()

    def test_a_cracked_one_goes_no_further(self):
        self.go("/jobs/0412/balance/")
        self.pick("Did it shake the engine?", "yes, it shook")
        self.pick("Looked over and rung", "a crack")
        self.sees("Wheel is out of use")
        self.assertEqual(self.page.locator("#strip-field[data-ask=stop-angle]").count(), 0)

    def test_it_goes_on_lapped_torqued_and_gapped(self):
        self.go("/jobs/0412/flywheel-on/")
        self.enter("55", then="Does the blue reach the large end?")
        self.pick("Does the blue reach the large end?", "yes, a closed ring")
        self.sees("Lap the taper")
        self.assertAccessible()
        self.page.get_by_role("button", name="Lapped: blue it again").click()
        self.sees("How much of the taper shows blue", where=".strip")
        self.page.locator("#strip-field").focus()
        self.enter("80", then="Does the blue reach the large end?")
        self.pick("Does the blue reach the large end?", "yes, a closed ring")
        self.pick("The key is", "stepped on purpose")
        self.page.locator("#strip-field").focus()
        self.enter("0.4", then="Middle of the cone")
        self.sees("advances the ignition by 2.9°")
        for text, then in (
            ("skip", "Torque it must carry"),
            ("60 Nm", "Nut tightened to"),
            ("55", "Runout of the rim"),
            ("skip", "Air gap"),
        ):
            self.enter(text, then=then)
        self.enter("0.6", then="Shift the coil until the gap is within its limits")
        self.page.get_by_role("button", name="Sign this entry").wait_for()
        self.assertEqual(self.page.get_by_role("button", name="Sign this entry").get_attribute("aria-disabled"), "true")
        self.page.get_by_role("button", name="Readings").click()
        self.sees("80 %", where="#sheet")
        self.assertAccessible()
        self.assertQuiet()


class TheOwner(Leaving):
    def setUp(self):
        super().setUp()
        self.only("hand-over")
        add_photo(self.made, None, SimpleUploadedFile("a.jpg", picture("JPEG", (640, 480))), "As it came", person())

    def signed_out(self):
        self.go("/jobs/0412/hand-over/")
        self.sees("Last questions")
        self.assertAccessible()
        for text, then in (("6204 C3", "6204 C3"), ("Seal 20 x 35 x 7", "Seal 20 x 35 x 7"), ("skip", "What stays unknown?")):
            self.enter(text, then=then)
        self.enter("The rod was not measured.", then="A word to the owner")
        self.enter("Run it in gently.", then="Ready to go")
        self.page.keyboard.type("sign")
        self.page.keyboard.press("Enter")
        self.sees("Signed by Una")

    def test_signed_out_it_is_closed_and_opened_again_only_with_a_reason(self):
        self.signed_out()
        self.go("/jobs/0412/flywheel-on/")
        self.page.keyboard.type("80")
        self.page.keyboard.press("Enter")
        self.sees("handed over and is closed")
        self.assertEqual(self.page.input_value("#strip-field"), "80")
        self.go("/jobs/0412/hand-over/")
        self.page.get_by_role("button", name="Replace this entry").click()
        self.sees("Say in a few words why")
        self.page.get_by_label("Reason for replacing this entry").fill("It weeps again.")
        self.page.get_by_role("button", name="Replace this entry").click()
        self.sees("Everything that was read is here again")
        self.assertIsNone(Job.objects.get(number=412).gone_at)

    def test_the_owner_reads_the_sheet_by_its_link_until_it_is_taken_back(self):
        self.signed_out()
        self.go("/jobs/0412/sheet/")
        self.sees("Run it in gently.")
        self.assertAccessible()
        self.page.get_by_role("button", name="Make a link").click()
        self.sees("Copy it now, it is shown once")
        link = self.page.locator(".words .mono").inner_text()
        stranger = self.device("odd")
        stranger.clear_cookies()
        owner = stranger.pages[0]
        owner.goto(link)
        owner.get_by_text("The rod was not measured.").wait_for()
        owner.locator("img").last.scroll_into_view_if_needed()  # they are loaded once they are looked at
        owner.wait_for_function("[...document.images].every((i) => i.complete && i.naturalWidth > 0)")
        self.assertEqual(owner.locator("a[href*='/jobs/']").count(), 0)
        self.assertTrue(owner.request.get(f"{link}sheet.pdf").body().startswith(b"%PDF"))
        with owner.expect_response(lambda answer: answer.url.endswith("/file")) as made:
            owner.get_by_role("link", name="The same as PDF").click()
        self.assertEqual((made.value.status, made.value.headers["content-type"]), (200, "application/pdf"))
        owner = stranger.new_page()  # one browser shows a PDF, another puts it among its downloads
        owner.goto(f"{self.live_server_url}/jobs/0412/")
        owner.get_by_label("Sign-in name").or_(owner.locator("#id_username")).first.wait_for()
        self.page.reload()
        self.assertNotIn(link, self.page.content())
        self.page.get_by_role("button", name="Withdraw this link").click()
        self.sees("opens nothing any more")
        self.assertIsNotNone(OwnerLink.objects.get().revoked_at)
        self.assertEqual(owner.request.get(link).status, 404)

    def test_the_whole_job_is_taken_as_a_file_and_read_in_again(self):
        self.signed_out()
        self.go("/jobs/0412/sheet/")
        with self.page.expect_download() as started:
            self.page.get_by_role("link", name="All of it as ZIP").click()
        data = Path(started.value.path()).read_bytes()
        with zipfile.ZipFile(io.BytesIO(data)) as found:
            self.assertIn("photos/001.jpg", found.namelist())
        self.go("/find/")
        self.assertAccessible()
        self.page.set_input_files("#job-file", {"name": "job.zip", "mimeType": "application/zip", "buffer": data[:200]})
        self.page.get_by_role("button", name="Read the file").click()
        self.sees("damaged, or no ZIP. Nothing was taken.", where="#waiting")
        self.page.set_input_files("#job-file", {"name": "job.zip", "mimeType": "application/zip", "buffer": data})
        self.page.get_by_role("button", name="Read the file").click()
        self.sees("Corrie 272 was imported as job 0413. This shop wrote the file, and it is unchanged.")
        self.assertEqual(Job.objects.get(number=413).photos.get().caption, "As it came")
        self.assertQuiet()


class OnThePhone(Leaving):
    mobile = True

    def test_nothing_that_leaves_is_wider_than_the_phone(self):
        self.only("hand-over", "balance", "flywheel-on")
        for path in ("balance", "flywheel-on", "hand-over", "sheet"):
            with self.subTest(path):
                self.go(f"/jobs/0412/{path}/")
                self.page.locator("h1").first.wait_for()
                self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)
                self.assertAccessible()
        for path in ("/held/", "/find/", f"/cards/{self.made.card_id}/trend/"):
            with self.subTest(path):
                self.go(path)
                self.page.locator("h1").first.wait_for()
                self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)
                self.assertAccessible()
        self.assertQuiet()
