"""Tests of numbers that are probably typing errors: a question if they were typed, a mark if a gauge sent them."""

from __future__ import annotations

import uuid

from django.test import TestCase

from stator.engines.models import Mark
from stator.stations.split_crankcase.analysis import length_of
from stator.stations.split_crankcase.tests import Halves, face
from tests.factories import job


class ABoltOfThirtyFive(TestCase):
    """Eleven bolts of 35, and one that is typed as 350."""

    def setUp(self):
        made = job(order="bottom-end")
        face(made.card)
        self.hands = Halves(made)
        for name in "1234":
            self.hands.bolt(name, "35")
        self.last = length_of(Mark.objects.get(card=made.card, name="5")).key

    def send(self, text, **more):
        return self.hands.post("keep", ask=self.last, text=text, client_key=uuid.uuid4().hex, **more)

    def kept(self):
        return [(each.text, each.extra.get("confirmed"), each.extra.get("doubtful")) for each in self.hands.work().answers.live(self.last)]

    def test_it_is_asked_once_with_what_was_probably_meant_and_what_was_typed_stays(self):
        answer = self.send("350")
        self.assertIn("Did you mean 35 mm?", answer)
        self.assertIn('value="350"', answer)
        self.assertEqual(self.kept(), [])

    def test_the_right_value_is_kept_without_a_mark(self):
        self.send("350")
        self.send("35.0")
        self.assertEqual(self.kept(), [("35.0", None, None)])

    def test_enter_on_the_same_value_keeps_it_marked_as_confirmed(self):
        self.send("350")
        self.send("350", suspect="350")
        self.assertEqual(self.kept(), [("350", True, None)])
        self.assertIn("unusual; confirmed as typed", [row.note for row in self.hands.work().readings_table()])

    def test_a_gauge_s_next_pulse_confirms_nothing(self):
        self.send("350", heard="1")
        self.assertEqual(self.kept(), [("350", None, True)])
        self.send("350", heard="1", suspect="350")
        self.assertEqual(self.kept()[-1], ("350", None, True))
