"""Tests of Install without heat: readings in, verdict out."""

from __future__ import annotations

import math

from django.test import TestCase

from shopmath.compounds import seat_friction
from stator.engines.models import EngineCard, Seat
from stator.engines.properties import Property
from stator.jobs.models import DerivedFact
from stator.shop.models import Driver, Press
from stator.stations.install_without_heat.analysis import Code
from stator.stations.split_crankcase.tests import AtSeat
from tests.factories import job


class Pusher(AtSeat):
    """Hands at one seat."""

    key = "fit-cold"

    def slot(self, ask):
        """By its property, with the clock behind an @, and an s where it starts."""
        what, _, clock = ask.partition("@")
        slots = [each.slot for each in self.work().current_questions if each.slot and each.slot.what == what]
        if not clock:
            return slots[0]
        return next(each for each in slots if each.at.clock == int(clock.rstrip("s")) and bool(each.at.stage) == clock.endswith("s"))

    def says(self, *answers):
        for question, text in answers:
            super().answer(self.slot(question).key, text)

    def starts(self, *depths):
        self.says(*((f"seating-depth@{clock}s", str(depth)) for clock, depth in zip((12, 3, 6, 9), depths, strict=True)))

    def lies(self, *gaps, what="seating-gap"):
        self.says(*((f"{what}@{clock}", str(gap)) for clock, gap in zip((12, 3, 6, 9), gaps, strict=True)))

    def ready(self):
        self.tick_all()


class Cold(TestCase):
    order = "cold"
    seat: dict = {"designation": "6204", "code": "N7"}

    def setUp(self):
        self.made = job(order=self.order, **self.seat)
        EngineCard.objects.filter(pk=self.made.card_id).update(case_material="al-si7-mg", case_material_assumed=False)
        self.hands = Pusher(self.made)
        self.hands.choose(way="draw")

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def codes(self):
        return self.displayed_verdict().code, self.displayed_verdict().state


class WhatItTakes(Cold):
    def test_a_ring_in_a_wall_of_ten_takes_the_force_that_lame_gives_and_says_so(self):
        self.hands.says(("seat-size", "46.980"), ("ring-size", "47.000"), ("wall-thickness", "10"))
        force = self.hands.work().analysis.force
        over_its_face = 5.75 * math.pi * 47 * 14
        self.assertAlmostEqual(force.likely, over_its_face * seat_friction("al-si7-mg", "oiled").likely, delta=10)
        self.assertLess(force.low, force.likely)
        self.assertIn("It takes", self.displayed_verdict().reason)

    def test_a_screw_gives_its_turns_and_the_torque_that_says_home(self):
        self.hands.says(("centre-screw-diameter", "M12x1.75"))
        found = self.hands.work().analysis
        self.assertEqual(found.draw.turns, 8.0)
        self.assertGreater(found.draw.home_nm, found.draw.torque_nm.high)
        self.assertEqual(self.displayed_verdict().code, Code.GOES)
        self.assertIn("8", str(self.displayed_verdict().detail))

    def test_no_wall_measured_is_said_to_be_typical(self):
        self.assertIn("metal round the seat", " ".join(str(each) for each in self.displayed_verdict().assumed))
        self.hands.says(("wall-thickness", "6"))
        self.assertNotIn("metal round the seat", " ".join(str(each) for each in self.displayed_verdict().assumed))

    def test_more_than_a_hammer_should_is_not_for_a_hammer_and_a_small_press_says_no(self):
        self.hands.says(("seat-size", "46.930"))
        self.hands.choose(way="tap", oil="dry")
        self.assertEqual(self.codes(), (Code.NOT_COLD, "stop"))
        self.assertIn("Warm the case", self.displayed_verdict().next_step)
        self.hands.choose(way="press")
        self.assertEqual(self.codes(), (Code.NO_PRESS, "stop"))
        Press.objects.create(name="Arbor", capacity_n=60000, capacity_text="60 kN")
        self.assertEqual(self.codes(), (Code.WARM_IS_BETTER, "too_close"))  # more than a thousandth of its diameter

    def test_a_seat_measured_too_large_holds_nothing(self):
        self.hands.says(("seat-size", "47.030"))
        self.assertEqual(self.codes(), (Code.NOTHING_HOLDS, "out"))

    def test_the_shop_s_driver_is_named(self):
        Driver.objects.create(name="46 ring", outside_mm=46, inside_mm=36)
        self.hands.says(("seat-size", ""), ("ring-size", ""), ("wall-thickness", ""), ("centre-screw-diameter", "M12x1.75"), ("travel", ""))
        self.hands.ready()
        self.assertIn("driver 46 ring on the outer ring", self.displayed_verdict().next_step)


class OnItsWay(Cold):
    def setUp(self):
        super().setUp()
        self.hands.says(("centre-screw-diameter", "M12x1.75"))
        self.hands.ready()

    def test_out_of_square_it_is_started_again_and_square_it_goes_on(self):
        self.hands.starts(9.6, 9.4, 9.0, 9.2)
        self.assertEqual(self.codes(), (Code.STARTS_CROOKED, "out"))
        self.assertIn("12 o'clock", self.displayed_verdict().next_step)
        self.hands.act("again")
        self.hands.starts(9.60, 9.60, 9.60, 9.60)
        self.assertEqual(self.displayed_verdict().code, Code.STARTED)
        self.assertIn("says it is home", self.displayed_verdict().next_step)

    def test_torque_short_of_its_turns_binds_and_is_not_home(self):
        self.hands.says(("screw-turns-done", "5"), ("screw-torque", "90"), ("fit-outcome", "home"))
        self.assertEqual(self.codes(), (Code.BINDS, "out"))
        self.assertIn("5 turns, where 8", self.displayed_verdict().reason)
        self.assertFalse(self.hands.work().analysis.is_home)

    def test_turns_torque_and_no_gap_are_home_for_the_stations_after_it(self):
        self.hands.starts(9.6, 9.6, 9.6, 9.6)
        self.hands.says(("screw-turns-done", "8"), ("screw-torque", "90"), ("fit-outcome", "home"))
        self.assertEqual(self.codes(), (Code.IS_IT_HOME, "wait"))
        self.hands.lies(0, 0, 0, 0)
        self.assertEqual(self.codes(), (Code.HOME, "in"))
        self.hands.act("sign")
        self.assertTrue(DerivedFact.objects.filter(property=Property.BEARING_HOME, text="yes").exists())

    def test_a_gap_at_its_shoulder_is_not_home(self):
        self.hands.says(("fit-outcome", "home"))
        self.hands.lies(0, 0, 0.2, 0)
        self.assertEqual(self.codes(), (Code.NOT_HOME, "out"))

    def test_stopped_short_it_starts_again_and_what_was_read_stays(self):
        self.hands.says(("fit-outcome", "stopped"))
        self.assertEqual(self.codes(), (Code.STOPPED, "out"))
        self.hands.act("again")
        self.assertEqual(self.hands.work().answers.attempt, 2)
        self.assertEqual(self.hands.work().analysis.screw, (12.0, 1.75))


class OnThePress(Cold):
    def test_less_force_than_any_pair_takes_is_said_before_it_is_signed(self):
        Press.objects.create(name="Arbor", capacity_n=60000, capacity_text="60 kN")
        self.hands.choose(way="press")
        self.hands.ready()
        self.hands.says(("press-peak", "0 N"), ("fit-outcome", "home"))
        self.hands.lies(0, 0, 0, 0)
        self.assertEqual(self.codes(), (Code.HOME, "in"))  # the loosest pair of these codes takes nothing
        Seat.objects.update(code="R7")
        self.assertEqual(self.codes(), (Code.TOO_LITTLE_FORCE, "too_close"))


class ADrawnCup(Cold):
    seat = {"designation": "HK0810", "code": "N7", "stop": "through"}

    def test_unmeasured_its_force_is_not_known_and_it_goes_by_its_marked_end(self):
        self.hands.says(("centre-screw-diameter", "M8"))
        work = self.hands.work()
        self.assertEqual(work.displayed_verdict().code, Code.FORCE_UNKNOWN)
        self.assertIn("its marked end", " ".join(each.words for each in work.checks()))
        self.hands.says(("ring-size", "12.02"))
        self.assertGreater(self.hands.work().analysis.force.likely, 0)
        self.assertEqual(self.displayed_verdict().code, Code.GOES)  # it takes the shape of its seat: how tight it is sends it to no oven
        self.assertNotIn("Heat and drop", " ".join(str(each.words) for each in self.hands.work().alternatives()))

    def test_flush_or_below_is_home_and_standing_out_is_not(self):
        self.hands.says(("centre-screw-diameter", "M8"))
        self.hands.ready()
        self.hands.says(("fit-outcome", "home"))
        self.hands.lies(-0.4, -0.4, -0.4, -0.4, what="seating-depth")
        self.assertEqual(self.codes(), (Code.NOT_HOME, "out"))
        for _ in range(4):
            self.hands.post("undo")
        self.hands.lies(0.5, 0.5, 0.5, 0.5, what="seating-depth")
        self.assertEqual(self.codes(), (Code.HOME, "in"))


class OntoAShaft(Cold):
    seat = {"designation": "6204", "code": "k5", "on": "shaft", "half": "crank"}

    def test_it_is_pushed_by_its_inner_ring_and_no_wall_is_asked(self):
        self.hands.says(("centre-screw-diameter", "M12x1.75"))
        work = self.hands.work()
        self.assertNotIn("wall-thickness", [each.slot.what for each in work.current_questions])
        self.assertGreater(work.analysis.force.likely, 0)
        self.assertIn("inner ring", " ".join(each.words for each in work.checks()))
