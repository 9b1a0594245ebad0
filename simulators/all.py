"""Every simulated part: those that the stand-ins speak for, in their order, and those that only practice has."""

from __future__ import annotations

from simulators.alike import Alike
from simulators.case import Case
from simulators.crank import Crank
from simulators.halves import Halves
from simulators.hot_half import HotHalf
from simulators.part import Part
from simulators.ram import Ram
from simulators.stack import Stack
from simulators.swinging import Swinging
from simulators.twin import TwinCrank
from simulators.wheel import Wheel
from simulators.wheel_on_taper import StuckWheel

PARTS: tuple[type[Part], ...] = (Crank, Case, Ram, Wheel)
PRACTISED: tuple[type[Part], ...] = (TwinCrank, Swinging, StuckWheel, Halves, HotHalf, Alike, Stack)  # those that only practice has
