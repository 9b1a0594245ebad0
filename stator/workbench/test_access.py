"""Tests of sign-in, permissions, and commands in the reading bar."""

from __future__ import annotations

from stator.engines.card_copy import save_as_template
from stator.engines.models import EngineCard, Mark
from stator.jobs.models import Job, TrayPlace
from stator.stations.split_crankcase.analysis import length_of
from stator.stations.split_crankcase.tests import face
from stator.workbench.test_navigation import Around, photo_file
from tests.factories import person, shown_on


class AtTheDoor(Around):
    """Tests of check-in: a job type, three questions, and what is known of the engine already."""

    def book(self, **fields):
        usual = {"case_material": "al-si7-mg", "left_name": "drive side", "right_name": "magneto side", "complaint": "Seized."}
        return self.client.post("/book-in/", {**usual, "work_order": "bottom-end", **fields}, follow=True)

    def test_a_new_engine_opens_on_its_card_and_a_known_one_where_it_stands(self):
        self.assertEqual(self.book(name="Merle 198").request["PATH_INFO"], "/jobs/0413/card/")
        known = Job.objects.get(number=413).card
        self.assertEqual(self.book(known=known.pk).request["PATH_INFO"], "/jobs/0414/flywheel-off/")

    def test_three_questions_are_enough_and_the_rest_is_marked_as_taken(self):
        self.book(name="Merle 198")
        card = Job.objects.get(number=413).card
        self.assertEqual((card.case_material_assumed, card.face_assumed, card.lifts, card.seats.count()), (True, True, "", 0))
        self.assertContains(self.client.get("/jobs/0413/card/"), "assumed (typical value)")

    def test_one_bearing_wants_its_seat_at_once(self):
        self.assertContains(self.book(name="Merle 198", work_order="heat"), "Type the marking on the ring")
        self.assertEqual(Job.objects.count(), 1)

    def test_the_next_of_its_kind_starts_from_the_shelf_and_not_from_a_half_known_job(self):
        face(self.card)
        save_as_template(self.card)
        Mark.objects.filter(card=self.card).delete()
        self.book(known=EngineCard.objects.get(on_shelf=True).pk)
        self.assertEqual(Job.objects.get(number=413).card.marks.count(), 10)
        page = self.client.get("/book-in/").content.decode()
        self.assertEqual(page.count("Corrie 272, trials single</option>"), 1)

    def test_an_unknown_order_or_card_is_answered_in_words(self):
        self.assertContains(self.book(name="Merle", work_order="paint"), "Select a valid choice")
        self.assertContains(self.book(known="999"), "Select a valid choice")
        self.assertEqual(Job.objects.count(), 1)


class WhoMay(Around):
    def test_a_mechanic_works_but_does_not_change_the_shelves(self):
        self.client.force_login(person("bram", "mechanic"))
        for page in ("/shop/tools/", "/cards/", "/jobs/0412/card/", "/jobs/0412/tray/"):
            self.assertEqual(self.client.get(page).status_code, 200, page)
        self.assertNotContains(self.client.get("/shop/tools/"), "Add a press")
        self.assertEqual(self.client.post("/shop/presses/", {"name": "P", "capacity_text": "12 t"}).status_code, 403)

    def test_nobody_sees_anything_unsigned(self):
        self.client.logout()
        for page in ("/cards/", "/find/", "/jobs/0412/tray/1/", "/jobs/0412/pictures/", f"/cards/{self.card.pk}/card.json", "/shop/tools/"):
            with self.subTest(page):
                self.assertRedirects(self.client.get(page), f"/sign-in/?next={page}")

    def test_old_links_are_answered_in_words(self):
        for page in (
            "/jobs/9999/run/",
            "/jobs/abc/tray/",
            "/jobs/0412/tray/7/",
            "/photos/77/",
            "/cards/999/",
            f"/cards/{self.card.pk}/noise.csv",
        ):
            with self.subTest(page):
                self.assertContains(self.client.get(page), "The link may be old", status_code=404)

    def test_a_way_back_that_leads_out_of_the_shop_is_not_taken(self):
        answer = self.client.post("/jobs/0412/photos/", {"photo": photo_file(), "back": "https://elsewhere.example/"})
        self.assertRedirects(answer, "/jobs/0412/log/")


class InTheStrip(Around):
    """Tests of words and numbers in the reading bar."""

    def setUp(self):
        super().setUp()
        face(self.card)
        self.page = "/jobs/0412/split/"

    def keep(self, ask, text):
        values = {"ask": ask, "text": text, "client_key": f"{ask}{text}", "seen": shown_on(self.client.get(self.page).content.decode())}
        return self.client.post(f"{self.page}keep/", values, headers={"HX-Request": "true"}).content.decode()

    def test_a_whole_command_alone_is_a_command_even_where_words_are_asked(self):
        self.page = "/jobs/0412/strip/"
        self.keep("crank-out", "lifted")
        self.assertIn("What comes out first?", self.keep("part.strip-1", "back it off the shaft"[:4]))
        self.assertFalse(TrayPlace.objects.exists())
        self.assertIn("From which shaft", self.keep("part.strip-1", "back plate"))

    def test_a_strip_with_nothing_left_to_measure_waits_for_a_word(self):
        self.page = "/jobs/0412/strip/"
        for key, text in (("crank-out", "lifted"), ("part.strip-1", ""), ("note", "")):
            page = self.keep(key, text)
        self.assertIn("First tick what must be so", page)
        self.client.post(f"{self.page}tick/", {"key": "tray", "on": "1"})
        self.client.post(f"{self.page}go_on/", {"need": "halves_apart", "reason": "came apart"})
        page = self.client.get(self.page).content.decode()
        self.assertIn("Type one of: sign", page)
        self.assertIn("No reading is asked for now, so 7.2 was not kept.", self.keep("word", "7.2"))
        self.assertIn("is no word known here", self.keep("word", "seven"))
        self.assertIn("Type one of: sign", self.keep("word", ""))
        self.assertIn("Signed by Una", self.keep("word", "sig"))

    def test_a_length_in_the_wrong_unit_keeps_what_was_typed(self):
        bolt = length_of(Mark.objects.first()).key
        page = self.keep(bolt, "40 Nm")
        self.assertIn("unit of torque", page)
        self.assertIn('value="40 Nm"', page)
        self.assertIn("is not believable", self.keep(bolt, "4 m"))
