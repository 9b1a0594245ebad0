"""Tests of the schedule of a heat with many parts, and of the remaining schedule while it runs."""

from __future__ import annotations

import random
import unittest
from itertools import permutations

from shopmath.thermal.ordering import HeatPart, finish_times_s
from shopmath.thermal.schedule import SheetPart, heat_sheet, replan
from shopmath.validation import BadInput


def heat(dice, count):
    """A heat of so many parts, some that must go in, some that come after others."""
    parts = []
    for index in range(count):
        after = (f"p{dice.randrange(index)}",) if index and dice.random() < 0.3 else ()
        parts.append(HeatPart(f"p{index}", dice.uniform(10, 50), dice.uniform(20, 220), dice.uniform(10, 60), dice.random() < 0.2, after))
    return parts


class Sheets(unittest.TestCase):
    def test_everything_is_ready_at_its_turn(self):
        dice = random.Random(3)
        for _ in range(40):
            parts = [SheetPart(part, dice.choice(("", "freezer", "dry ice")), dice.uniform(100, 4000)) for part in heat(dice, 6)]
            sheet = heat_sheet(parts, 2400, {"freezer": 4, "dry ice": 4})
            turn = {step.part: step.from_s for step in sheet.steps if step.where == "in"}
            for each in parts:
                cold = [step for step in sheet.steps if step.part == each.part.name and step.where == each.chiller]
                if each.part.name in turn and each.chiller and each.part.name not in sheet.crowded:
                    self.assertAlmostEqual(cold[0].to_s, turn[each.part.name])
                    self.assertAlmostEqual(cold[0].to_s - cold[0].from_s, each.chill_s)
            self.assertEqual([step.from_s for step in sheet.steps], sorted(step.from_s for step in sheet.steps))
            self.assertLessEqual(sheet.begins_s, -2400)

    def test_no_chiller_ever_holds_more_than_it_has_places(self):
        parts = [SheetPart(HeatPart(f"p{index}", 20, 600), "freezer", 1800) for index in range(5)]
        sheet = heat_sheet(parts, 1200, {"freezer": 3})
        inside = [step for step in sheet.steps if step.where == "freezer"]
        for step in inside:
            self.assertLessEqual(sum(other.from_s <= step.from_s < other.to_s for other in inside), 3)
        self.assertEqual(sheet.crowded, sheet.order[3:])

    def test_what_cannot_be_is_refused_by_name(self):
        ring = SheetPart(HeatPart("ring", 20, 60), "cellar", 100)
        for wrong in (lambda: heat_sheet([ring], 100, {"freezer": 1}), lambda: heat_sheet([ring], 100, {"cellar": 0})):
            with self.assertRaises(BadInput):
                wrong()
        with self.assertRaises(BadInput):
            replan([ring.part], ["pin"], 0)
        with self.assertRaises(BadInput):
            replan([ring.part], [], 10, slower=0)


class WhileItRuns(unittest.TestCase):
    def test_no_other_order_of_what_is_left_gets_more_in(self):
        dice = random.Random(17)
        for _ in range(25):
            parts = heat(dice, 6)
            elapsed = dice.uniform(0, 120)
            found = replan(parts, [], elapsed)
            named = {part.name: part for part in parts}

            def counts(order, named=named, elapsed=elapsed):
                fitted, clock = [], elapsed
                for name in order:
                    part = named[name]
                    if set(part.after) <= set(fitted) and clock + part.handling_s <= part.closes_s:
                        clock += part.handling_s
                        fitted.append(name)
                return sum(named[name].must for name in fitted), len(fitted)

            best = max(counts(order) for order in permutations(named))
            self.assertEqual(counts(found.order), best)

    def test_a_part_that_jams_costs_those_that_would_have_followed(self):
        parts = [HeatPart("a", 30, 100), HeatPart("b", 30, 110), HeatPart("c", 30, 400)]
        self.assertEqual(replan(parts, ["a"], 30).order, ("b", "c"))
        late = replan(parts, ["a"], 95)
        self.assertEqual((late.order, late.left_out), (("c",), ("b",)))

    def test_a_case_that_reads_cool_closes_every_window_sooner(self):
        parts = [HeatPart("a", 30, 60), HeatPart("b", 30, 100)]
        self.assertEqual(len(replan(parts, [], 0).order), 2)
        self.assertEqual(len(replan(parts, [], 0, slower=0.55).order), 1)

    def test_all_in_is_nothing_left(self):
        parts = [HeatPart("a", 30, 60), HeatPart("clip", 10, 60, after=("a",))]
        self.assertEqual(replan(parts, ["a", "clip"], 50).order, ())
        self.assertEqual(replan(parts, ["a"], 40).order, ("clip",))
        self.assertEqual(finish_times_s(parts, ["a", "clip"])["clip"], 40)
