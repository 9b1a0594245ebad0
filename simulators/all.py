"""Every simulated part, in the order in which the stand-ins speak."""

from __future__ import annotations

from simulators.case import Case
from simulators.crank import Crank
from simulators.part import Part
from simulators.ram import Ram
from simulators.wheel import Wheel

PARTS: tuple[type[Part], ...] = (Crank, Case, Ram, Wheel)
