"""Every simulation by its name, with the number of cases that `bin/simulate` takes."""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator, Mapping
from types import MappingProxyType

from stator.simulations.cranks import cranks
from stator.simulations.flywheels import wheels
from stator.simulations.gap_planes import planes
from stator.simulations.gauges import gauges
from stator.simulations.heat_fits import drops
from stator.simulations.pass_rate import Share
from stator.simulations.runout_readings import turns

Simulation = Callable[[random.Random, int], Iterator[Share]]
SIMULATIONS: Mapping[str, tuple[Simulation, int]] = MappingProxyType(
    {
        "gauges": (gauges, 20_000),
        "turns": (turns, 10_000),
        "drops": (drops, 100_000),
        "planes": (planes, 10_000),
        "cranks": (cranks, 300),
        "wheels": (wheels, 2_000),
    }
)
