"""Every simulation by its name, with the number of cases that `bin/simulate` takes."""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator, Mapping
from types import MappingProxyType

from simulations.cranks import cranks
from simulations.drops import drops
from simulations.gauges import gauges
from simulations.planes import planes
from simulations.share import Share
from simulations.turns import turns
from simulations.wheels import wheels

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
