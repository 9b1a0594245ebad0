"""Tests that every code has its message, every question its label, and every value a name."""

from __future__ import annotations

import importlib
import string
from enum import StrEnum

from django.test import SimpleTestCase

from shopmath.amounts import celsius, chance, duration, mm
from shopmath.bearings import lookup
from shopmath.materials import get
from shopmath.thermal.limits import LEFT_IN, ring_cold_limits, ring_hot_limits, shaft_cold_limits
from shopmath.thermal.plan import plan
from shopmath.thermal.seat import example_setup
from stator.stations.framework import next_step
from stator.stations.framework.messages import NEEDS, OVERRIDES, lazily
from stator.stations.framework.prerequisites import CLOSED, CRANK_SEATED, EVERY_BEARING_SEATED, HALVES_APART
from stator.stations.framework.verdict import again, plain_values
from stator.stations.install_with_heat import messages as heat
from stator.workbench.registry import STATION_BY_KEY, STATIONS

ROOMS = [each for station in STATIONS for each in (station, station.whole) if each and each.words]
SENTENCES = ("HEADLINE", "REASON", "NEXT", "DETAIL", "ASSUMED", "LABEL", "QUESTION", "WHERE", "SKIP", "LIMIT_FROM")


def codes_of(room):
    """Return the codes that a station's analysis defines, if it has any."""
    try:
        facts = importlib.import_module(f"{room.words.__name__.rpartition('.')[0]}.analysis")
    except ModuleNotFoundError:
        return ()
    found = getattr(facts, "Code", None)
    return tuple(found) if isinstance(found, type) and issubclass(found, StrEnum) else ()


class Tables(SimpleTestCase):
    def test_every_code_has_a_headline(self):
        lacking = [(room.words.__name__, code) for room in ROOMS for code in codes_of(room) if code not in room.words.HEADLINE]
        self.assertEqual(lacking, [])
        self.assertGreater(sum(len(codes_of(room)) for room in ROOMS), 150)

    def test_what_is_asked_has_a_label_in_the_tables(self):
        questions = [(room.words, what) for room in ROOMS for what in getattr(room.words, "QUESTION", {})]
        lacking = [(words.__name__, what.value) for words, what in questions if what not in words.LABEL]
        self.assertEqual(lacking, [])

    def test_values_are_called_by_name_in_every_sentence(self):
        for room in ROOMS:
            for table in SENTENCES:
                for code, said in getattr(room.words, table, {}).items():
                    names = [name for _, name, _, _ in string.Formatter().parse(str(said)) if name is not None]
                    self.assertTrue(all(name.isidentifier() for name in names), (room.words.__name__, table, code, names))

    def test_a_choice_has_answers_and_no_two_of_one_key(self):
        for room in ROOMS:
            for what, rows in getattr(room.words, "OPTIONS", {}).items():
                keys = [row[0] for row in rows]
                self.assertEqual(len(keys), len(set(keys)), (room.words.__name__, what))
                self.assertTrue(keys, (room.words.__name__, what))

    def test_every_need_can_be_said_and_can_be_gone_on_without(self):
        needed = {need.code for room in ROOMS for need in room.needs}
        self.assertEqual(needed, {HALVES_APART.code, EVERY_BEARING_SEATED.code, CRANK_SEATED.code, CLOSED.code})
        self.assertEqual((needed - set(NEEDS), needed - set(OVERRIDES)), (set(), set()))
        given = {giver for room in ROOMS for need in room.needs for giver in need.given_by}
        self.assertLessEqual(given, set(STATION_BY_KEY))


class HeatWords(SimpleTestCase):
    """Test that the core's codes of a heat have messages; a metal has a text of its own."""

    def test_every_limit_is_named_with_its_reason(self):
        bearings = [lookup(marking) for marking in ("6205-2RS", "6205-ZZ", "6205 TN9")]
        rings = [limit for each in bearings for limit in (*ring_hot_limits(each), *ring_cold_limits(each))]
        for limit in (*LEFT_IN.values(), *rings, *shaft_cold_limits()):
            self.assertIn(limit.code, heat.LIMIT_WHAT)
            self.assertIn(limit.code, heat.LIMIT_WHY)

    def test_everything_that_would_help_is_said(self):
        for each in plan(example_setup()).wideners:
            self.assertIn(each.code, heat.HELPS)

    def test_a_case_of_magnesium_has_its_refusal(self):
        self.assertTrue(get("az91d").flammable)
        self.assertIn("refused_method", heat.STOPPED)


class KeptValues(SimpleTestCase):
    """Test that the values of a verdict are the same after storage."""

    def test_numbers_come_back_as_they_were_also_what_has_no_end(self):
        numbers = {"room": mm(0.039, 0.001, 0.004), "sure": duration(float("inf")), "how": chance(0.999)}
        saved = plain_values({**numbers, "parts": ["Main", celsius(95)]})
        self.assertEqual({name: again(saved[name]) for name in numbers}, numbers)
        self.assertEqual(saved["sure"]["value"], "inf")
        self.assertEqual(again(saved["parts"][1]), celsius(95))

    def test_a_sentence_made_for_one_reader_is_not_kept(self):
        made = lazily(heat.NAMES, "case", {})
        self.assertEqual(plain_values({"said": made, "several": [made], "n": 3}), {"n": 3})

    def test_a_next_move_is_said_anew_and_left_to_its_words_where_a_value_is_missing(self):
        station = STATION_BY_KEY["heat-and-drop"]
        move = next_step.next_step_code("push_home", {"sure": duration(412)}, whole=False)
        self.assertEqual(next_step.render_next_step(station, move), "Start it square and push it home. You have 6:50.")
        self.assertEqual(next_step.render_next_step(station, next_step.next_step_code("push_home", {}, whole=False)), "")
        self.assertEqual(
            next_step.render_next_step(station, next_step.next_step_code("lay_bench", {}, whole=True)),
            "Lay the bench out in the order drawn.",
        )
        self.assertEqual(
            next_step.render_next_step(station, next_step.next_step_code(next_step.SIGNED, {"person": "Una"}, whole=False)),
            "Signed by Una.",
        )
        self.assertEqual(next_step.render_next_step(station, {}), "")
