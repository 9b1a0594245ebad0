"""Tests of formatted numbers, and of labels that neither overlap nor lie off the drawing."""

from __future__ import annotations

from xml.etree import ElementTree as Tree

from django.test import SimpleTestCase

from shopmath.amounts import Amount, celsius, count, degrees, mm, newtons, share
from stator.ui.labels import Labels, box_of
from stator.ui.number_format import band, bare, between, listed, show, shown
from stator.ui.svg import Sheet


class Numbers(SimpleTestCase):
    def test_no_more_digits_than_the_gauge_has(self):
        self.assertEqual([show(mm(0.05, step)) for step in (0.1, 0.01, 0.001)], ["0.1 mm", "0.05 mm", "0.050 mm"])

    def test_uncertainty_has_the_digits_of_its_value(self):
        self.assertEqual(show(mm(25.0124, 0.001, 0.0041)), "25.012 ± 0.004 mm")

    def test_what_rounds_to_zero_wears_no_sign_and_what_is_below_it_does(self):
        self.assertEqual((show(mm(-0.001, 0.01)), show(mm(-0.02, 0.01))), ("0.00 mm", "−0.02 mm"))

    def test_units_follow_the_kind(self):
        self.assertEqual(show(newtons(12_340)), "12.3 kN")
        self.assertEqual((show(celsius(99.6)), show(degrees(2.5, 0.1)), show(share(0.8)), show(count(5))), ("100 °C", "2.5°", "80 %", "5"))
        self.assertEqual(bare(newtons(12_340)), "12.3")

    def test_limits_on_one_side_say_which(self):
        low, high = mm(0.1, 0.01), mm(0.2, 0.01)
        self.assertEqual([between(low, high), between(None, high), between(low, None), between(None, None)], LIMITS)
        self.assertEqual(band(low, high), "0.10 to 0.20 mm")

    def test_names_are_listed_as_they_are_said(self):
        self.assertEqual([listed(names) for names in ((), ("1",), ("1", "2"), ("1", "2", "3"))], ["", "1", "1 and 2", "1, 2 and 3"])

    def test_values_of_a_sentence_are_spelled_whatever_they_are(self):
        values = {"gap": mm(0.3, 0.01), "bolts": ("3", "7"), "all": [mm(1, 1), mm(2, 1)], "side": "left", "number": 4}
        self.assertEqual(shown(values), {"gap": "0.30 mm", "bolts": "3 and 7", "all": "1 mm and 2 mm", "side": "left", "number": 4})

    def test_no_limit_is_said_and_not_printed_as_infinity(self):
        self.assertEqual(show(Amount(float("inf"), "length", 0.01)), "no limit")


LIMITS = ["0.10 to 0.20 mm", "max 0.20 mm", "min 0.10 mm", ""]


class Placing(SimpleTestCase):
    def setUp(self):
        self.sheet = Sheet(400, 300, "A drawing", "for labels", "wide")
        self.labels = Labels(self.sheet)

    def placed(self):
        """Return the text and the rectangle of every placed label."""
        self.labels.put()
        drawn = Tree.fromstring(str(self.sheet.render()))
        found = [each for each in drawn.iter() if each.tag.rpartition("}")[2] == "text"]
        placed = [((float(each.get("x")), float(each.get("y"))), each.text, each.get("text-anchor", "start")) for each in found]
        return {words: box_of(at, words, "", anchor) for at, words, anchor in placed}

    def assert_apart(self, boxes):
        for index, one in enumerate(boxes):
            for other in boxes[index + 1 :]:
                self.assertEqual(one.overlap(other), 0)

    def test_labels_of_marks_close_together_do_not_lie_over_one_another(self):
        for number, x in enumerate((180, 196, 212)):
            self.labels.around((x, 150), 8, f"reading {number}")
        boxes = self.placed()
        self.assertEqual(len(boxes), 3)
        self.assert_apart(list(boxes.values()))

    def test_none_is_cut_at_the_edge(self):
        self.labels.around((392, 150), 8, "at the right")
        self.labels.around((8, 150), 8, "at the left", left=True)
        for box in self.placed().values():
            self.assertGreaterEqual(box.left, -3.1)  # what is kept free round it may hang over
            self.assertLessEqual(box.right, 403.1)

    def test_a_mark_is_kept_clear(self):
        self.labels.keep_clear((225, 150), 20)
        self.labels.around((200, 150), 4, "beside")
        (box,) = self.placed().values()
        self.assertEqual(box.overlap(self.labels.taken[0]), 0)

    def test_the_first_place_that_is_free_is_taken_and_the_least_bad_where_none_is(self):
        free = [((100, 100), "start"), ((100, 200), "start"), ((100, 250), "start")]
        self.labels.keep_clear_box(90, 85, 200, 105)
        self.labels.at(free, "second of three")
        self.assertEqual(self.placed()["second of three"], box_of((100, 200), "second of three", "", "start"))

    def test_one_that_is_free_nowhere_moves_up_or_down(self):
        self.labels.keep_clear_box(0, 85, 400, 105)
        self.labels.at([((100, 100), "start")], "moved")
        (moved,) = self.placed().values()
        self.assertEqual(moved.overlap(self.labels.taken[0]), 0)
        self.assertNotEqual(moved, box_of((100, 100), "moved", "", "start"))

    def test_the_important_one_gets_the_place_that_both_want(self):
        places = [((100, 100), "start"), ((100, 200), "start")]
        self.labels.at(places, "quiet one", rank=5)
        self.labels.at(places, "asked now", rank=1)
        boxes = self.placed()
        self.assertLess(boxes["asked now"].top, boxes["quiet one"].top)
