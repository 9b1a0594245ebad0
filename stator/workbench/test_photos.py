"""Photos at a station."""

from __future__ import annotations

import re

from django.test import TestCase

from stator.engines.models import Seat
from stator.jobs.models import Photo
from stator.workbench.test_navigation import photo_file
from tests.factories import job, person


class PhotosBeside(TestCase):
    def test_at_one_seat_those_of_other_parts_are_left_out_of_the_count_and_the_panel(self):
        made = job(412)
        self.client.force_login(person())
        first = made.card.seats.get()
        other = Seat.objects.create(card=made.card, name="Gearbox", role="gearbox", half="left", designation="6203", code="N7")
        for caption, part in (("of the first", first.part), ("of the other", other.part), ("of none", None)):
            values = {"photo": photo_file(), "station": "heat-and-drop", "caption": caption}
            self.client.post("/jobs/0412/photos/", {**values, "part": f"{part.kind}:{part.uid}"} if part else values)
        self.assertEqual(Photo.objects.count(), 3)
        for seat, seen in ((first, "of the first"), (other, "of the other")):
            at = f"/jobs/0412/heat-and-drop/{seat.pk}/"
            self.assertContains(self.client.get(at), "Photos 2")
            panel = self.client.get(f"{at}photographed/").content.decode()
            self.assertEqual(sorted(re.findall(r">(of [a-z ]+)</a>", panel)), sorted([seen, "of none"]))
            opened = self.client.get(at, headers={"HX-Request": "true", "X-Panel": "pictures"}).content.decode()
            self.assertIn(seen, opened)  # what is open over the drawing is filled with the answer
