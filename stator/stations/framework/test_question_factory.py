"""Tests that a question is rendered in the reader's units."""

from __future__ import annotations

from django.test import SimpleTestCase

from shopmath.amounts import mm
from stator.engines.fact_keys import FactKey, Location
from stator.engines.parts import CRANK
from stator.engines.properties import Property
from stator.stations.framework.page_components import Option, Question
from stator.stations.framework.question_factory import question
from stator.stations.true_crank import messages
from stator.ui.units import Units, reading_in


class Asked(SimpleTestCase):
    def asked(self, **more):
        limit = {"step": mm(0.0254), "limit": mm(0.0508), "side": "drive side", "Side": "Drive side", "angle": "0", "count": 1}
        return question(
            messages, FactKey(CRANK, Property.SHAFT_READING, Location("left", 0.0)), limit, where="{step} against {limit}", **more
        )

    def test_words_are_in_the_units_of_the_reader_and_then_stand(self):
        with reading_in(Units.INCH):
            read = self.asked()
            self.assertEqual(read.where, "1.00 thou against 2.00 thou")
        unread = self.asked()
        self.assertEqual(read.where, "1.00 thou against 2.00 thou")
        self.assertIn("mm against", unread.where)

    def test_a_question_without_words_is_none(self):
        with self.assertRaises(TypeError):
            Question("key")
        self.assertEqual((Question("key", "How far?").where, Option("yes", "Yes").hint), ("", ""))

    def test_two_that_say_the_same_are_the_same_question(self):
        self.assertEqual(self.asked(), self.asked())
        self.assertNotEqual(self.asked(), self.asked(text="Other words"))
        self.assertIs(type(self.asked().text), str)
