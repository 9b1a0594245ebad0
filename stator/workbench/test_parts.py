"""What an answer sends of the working screen: the parts that the page does not have as they are now, and no others."""

from __future__ import annotations

import re

from django.test import TestCase

from stator.engines.models import Seat
from stator.jobs.models import Photo, Reading
from stator.workbench.test_navigation import photo_file
from tests.factories import job, person

PART = re.compile(r'<(\w+) data-part="(\w+)"[^>]*?\sid="([\w-]+)"')
STAYS = re.compile(r'<\w+ id="([\w-]+)" hx-preserve="true"></\w+>')
PAGE = "/jobs/0412/true/"


def parts_of(html):
    """The digests of a page's parts, by their ids."""
    return {name: digest for _, digest, name in PART.findall(html)}


def header(parts):
    return " ".join(f"{name}={digest}" for name, digest in parts.items())


class OfTheScreen(TestCase):
    def setUp(self):
        self.made = job(order="crank")
        self.client.force_login(person())
        self.client.cookies["paper"] = "wide"
        self.page = self.client.get(PAGE).content.decode()
        self.held = parts_of(self.page)

    def keeps(self, ask, text, held):
        headers = {"HX-Request": "true", "X-Parts": held}
        return self.client.post(f"{PAGE}keep/", {"ask": ask, "text": text}, headers=headers).content.decode()

    def test_a_page_tells_its_parts_and_leaves_none_out(self):
        self.assertLessEqual({"tag", "run", "picture", "sheet", "keys", "pictures", "checklist", "methods"}, set(self.held))
        again = self.client.get(PAGE, headers={"X-Parts": header(self.held)}).content.decode()
        self.assertEqual(parts_of(again), self.held)  # a visit is the whole page, whatever it says it has

    def test_a_reading_is_answered_with_what_it_changed(self):
        answer = self.keeps("support-place.left", "92", header(self.held))
        self.assertLessEqual({"tag", "sheet", "pictures", "checklist", "methods"}, set(STAYS.findall(answer)))
        self.assertIn("picture", parts_of(answer))
        self.assertNotIn("Rumbles.", answer)
        self.assertIn('data-ask="', answer)  # what is asked next always comes
        whole = self.keeps("gauge-place.left", "34", "")
        self.assertIn("Rumbles.", whole)
        self.assertLess(len(answer), 0.8 * len(whole))

    def test_a_part_that_another_device_changed_is_sent_to_a_page_that_has_it_as_it_was(self):
        self.client.post(f"{PAGE}tick/", {"key": self.tick_of(self.page), "on": "1"}, headers={"HX-Request": "true"})
        answer = self.keeps("support-place.left", "92", header(self.held))
        self.assertNotIn("checklist", STAYS.findall(answer))
        self.assertIn('aria-pressed="true"', answer)

    def test_the_run_that_was_changed_elsewhere_is_sent(self):
        held = self.held | parts_of(self.keeps("support-place.left", "92", header(self.held)))
        self.assertIn("run", STAYS.findall(self.keeps("gauge-place.left", "34", header(held))))
        stage = self.made.run.exclude(key="true").last()
        stage.state, stage.waits_for = stage.State.WAITS, "a new pin"
        stage.save()
        answer = self.keeps("support-place.right", "92", header(held))
        self.assertIn("run", parts_of(answer))
        self.assertIn("Waiting: a new pin", answer)

    def test_a_panel_that_is_open_is_sent_with_its_rows(self):
        self.keeps("support-place.left", "92", header(self.held))
        headers = {"HX-Request": "true", "X-Panel": "sheet", "X-Parts": header(self.held)}
        said = {"ask": "gauge-place.left", "text": "34"}
        answer = self.client.post(f"{PAGE}keep/", said, headers=headers).content.decode()
        self.assertIn("sheet", parts_of(answer))
        self.assertIn("34", answer.partition('id="sheet"')[2].partition("</section>")[0])

    def tick_of(self, page):
        return re.findall(r'name="key" value="([^"]+)"', page)[0]

    def test_a_part_named_wrongly_is_sent(self):
        for held in ("tag=0000", "tag", "=", "tag=" + "f" * 5000, "x " * 400, "<b>=1"):
            with self.subTest(held[:20]):
                self.assertIn("Rumbles.", self.keeps("support-place.left", "92", held))
        self.assertTrue(Reading.objects.filter(text="92", withdrawn_at=None).exists())


class PhotosBeside(TestCase):
    def test_at_one_seat_those_of_other_parts_are_left_out_of_the_count_and_the_panel(self):
        made = job(412)
        self.client.force_login(person())
        first = made.card.seats.get()
        other = Seat.objects.create(card=made.card, name="Gearbox", role="gearbox", half="left", designation="6203", code="N7")
        for caption, part in (("of the first", first.part), ("of the other", other.part), ("of none", None)):
            said = {"photo": photo_file(), "station": "heat-and-drop", "caption": caption}
            self.client.post("/jobs/0412/photos/", {**said, "part": f"{part.kind}:{part.uid}"} if part else said)
        self.assertEqual(Photo.objects.count(), 3)
        for seat, seen in ((first, "of the first"), (other, "of the other")):
            at = f"/jobs/0412/heat-and-drop/{seat.pk}/"
            self.assertContains(self.client.get(at), "Photos 2")
            panel = self.client.get(f"{at}photographed/").content.decode()
            self.assertEqual(sorted(re.findall(r">(of [a-z ]+)</a>", panel)), sorted([seen, "of none"]))
            opened = self.client.get(at, headers={"HX-Request": "true", "X-Panel": "pictures"}).content.decode()
            self.assertIn(seen, opened)  # what is open over the drawing is filled with the answer
