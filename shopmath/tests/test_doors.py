"""No public function of the core answers what cannot be: NaN, or an error that is no word to the user."""

from __future__ import annotations

import inspect
from unittest import TestCase

from shopmath.checks import BadInput
from shopmath.tests.doors import Skip, calls, functions, impossible, made

STILL_OPEN = {  # doors that some number still comes through; each that is shut is taken off this list
    "shopmath.amounts.celsius",
    "shopmath.amounts.chance",
    "shopmath.amounts.count",
    "shopmath.amounts.degrees",
    "shopmath.amounts.duration",
    "shopmath.amounts.gram_millimetres",
    "shopmath.amounts.kelvin",
    "shopmath.amounts.kilograms",
    "shopmath.amounts.mm",
    "shopmath.amounts.newton_metres",
    "shopmath.amounts.newtons",
    "shopmath.amounts.quarters",
    "shopmath.amounts.seconds",
    "shopmath.amounts.share",
    "shopmath.amounts.turns",
    "shopmath.balance.drilling.drill_plan",
    "shopmath.bearings.mounted.mounted_clearance",
    "shopmath.centring.centred",
    "shopmath.endfloat.from_table",
    "shopmath.iso286.measured_um",
    "shopmath.joints.joint_evidence",
    "shopmath.joints.press_call",
    "shopmath.pullin.binding",
    "shopmath.pulling.torque_call",
    "shopmath.runout.doubt_of_turn",
    "shopmath.runout.fit",
    "shopmath.runout.turn_doubt",
    "shopmath.seals.seat_of_seal",
    "shopmath.splitting.next_move",
    "shopmath.splitting.split_call",
    "shopmath.tables.number",
    "shopmath.thermal.confidence.normal_cdf",
    "shopmath.thermal.films.casting_time_constant_s",
    "shopmath.thermal.seat.curve",
    "shopmath.thermal.taking_out.freeing",
    "shopmath.truing.refuse_on_support",
}
REFUSED = (BadInput, TypeError)  # a wrong type may stay a TypeError


class EveryDoor(TestCase):
    def comes_through(self, function):
        """The first call that something impossible comes through, in words; empty where nothing does."""
        for label, wanted in calls(function):
            try:
                answer = function(**{name: made(kind, number) for name, (kind, number) in wanted.items()})
                answer = list(answer) if inspect.isgenerator(answer) else answer
            except (*REFUSED, Skip):
                continue
            except Exception as error:  # that is what is looked for
                return f"{label}: {error!r:.80}"
            if impossible(answer):
                return f"{label}: NaN in {answer!r:.80}"
        return ""

    def test_nothing_impossible_comes_through(self):
        count = 0
        for name, function in functions():
            count += 1
            if name not in STILL_OPEN:
                with self.subTest(name):
                    self.assertEqual(self.comes_through(function), "")
        self.assertGreater(count, 200)

    def test_the_list_of_open_doors_names_none_that_is_shut(self):
        known = dict(functions())
        self.assertEqual({name for name in STILL_OPEN if name not in known or not self.comes_through(known[name])}, set())
