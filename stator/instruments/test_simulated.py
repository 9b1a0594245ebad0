"""Tests of simulated gauges: the flywheel with putty and drill, and parts of practice on a line."""

from __future__ import annotations

import socket

from django.test import SimpleTestCase

from shopmath.balance import drilled_mass_g, stops
from stator.simulators.flywheel_balance import Wheel
from stator.simulators.registry import PRACTISED
from tests.simulated_gauges import StandIns


class ThePartsOfPractice(SimpleTestCase):
    def test_each_speaks_over_a_line_and_takes_its_levers_from_it(self):
        others = StandIns(PRACTISED)
        self.addCleanup(others.stop)
        for part in PRACTISED:
            with socket.create_connection(("127.0.0.1", int(others.port(part.name).rpartition(":")[2])), timeout=10) as line:
                heard = line.makefile("r", encoding="utf-8")
                self.assertIn(part.remark, heard.readline())
                line.sendall(b"melt\r\n")
                self.assertIn("# cannot melt", next(each for each in heard if each.startswith("# cannot")))


class TheWheel(SimpleTestCase):
    def test_putty_and_drill_move_the_heavy_spot_as_they_would(self):
        wheel = Wheel(3)
        before = abs(wheel.heavy)
        for _ in range(8):
            wheel.pull("roll")
            wheel.after(0.1)
        wheel.pull("more")
        self.assertLess(abs(wheel.felt), before)
        self.assertEqual(abs(wheel.heavy), before)  # putty takes nothing off
        wheel.pull("less")
        self.assertAlmostEqual(abs(wheel.felt), before)
        wheel.pull("small")
        self.assertAlmostEqual(before - abs(wheel.heavy), drilled_mass_g(4, 5, 7850) * 80, delta=6)
        wheel.pull("new")
        self.assertNotAlmostEqual(abs(wheel.heavy), before, delta=0.1)
        self.assertEqual(wheel.putty_g, 0)

    def test_with_the_right_putty_it_stops_anywhere(self):
        wheel = Wheel(3)
        for _ in range(8):
            wheel.pull("roll")
            wheel.after(0.1)
        while abs(wheel.felt) > wheel.truth.rubs_gmm:
            wheel.pull("more")
        marks = []
        for _ in range(12):
            wheel.pull("roll")
            marks.append(float(wheel.after(0.1).split()[0]))
        self.assertFalse(stops(marks).telling)
