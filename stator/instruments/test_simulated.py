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
        flywheel = Wheel(3)
        before = abs(flywheel.heavy)
        for _ in range(8):
            flywheel.pull("roll")
            flywheel.after(0.1)
        flywheel.pull("more")
        self.assertLess(abs(flywheel.felt), before)
        self.assertEqual(abs(flywheel.heavy), before)  # putty takes nothing off
        flywheel.pull("less")
        self.assertAlmostEqual(abs(flywheel.felt), before)
        flywheel.pull("small")
        self.assertAlmostEqual(before - abs(flywheel.heavy), drilled_mass_g(4, 5, 7850) * 80, delta=6)
        flywheel.pull("new")
        self.assertNotAlmostEqual(abs(flywheel.heavy), before, delta=0.1)
        self.assertEqual(flywheel.putty_g, 0)

    def test_with_the_right_putty_it_stops_anywhere(self):
        flywheel = Wheel(3)
        for _ in range(8):
            flywheel.pull("roll")
            flywheel.after(0.1)
        while abs(flywheel.felt) > flywheel.truth.rubs_gmm:
            flywheel.pull("more")
        marks = []
        for _ in range(12):
            flywheel.pull("roll")
            marks.append(float(flywheel.after(0.1).split()[0]))
        self.assertFalse(stops(marks).telling)
