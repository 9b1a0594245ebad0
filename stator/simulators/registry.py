"""All simulated parts: those of the simulated gauges in order, and those of practice only."""

from __future__ import annotations

from stator.simulators.base import Part
from stator.simulators.case import Case
from stator.simulators.case_halves import Halves
from stator.simulators.crank import Crank
from stator.simulators.flywheel_balance import Wheel
from stator.simulators.flywheel_on_taper import StuckWheel
from stator.simulators.heated_case_half import HotHalf
from stator.simulators.press import Ram
from stator.simulators.seals import SealSet
from stator.simulators.shaft_runout import ShaftRunout
from stator.simulators.stack import Stack
from stator.simulators.twin_crank import TwinCrank

PARTS: tuple[type[Part], ...] = (Crank, Case, Ram, Wheel)
PRACTISED: tuple[type[Part], ...] = (TwinCrank, ShaftRunout, StuckWheel, Halves, HotHalf, SealSet, Stack)  # those that only practice has
