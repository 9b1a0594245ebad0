"""Readings that are suspect, withdrawn so that the strip asks for them again."""

from __future__ import annotations

from collections.abc import Iterable

from stator.engines.fact_keys import FactKey
from stator.jobs import log
from stator.stations.framework.bound_station import BoundStation


def request_remeasurement(bound: BoundStation, slots: Iterable[FactKey]) -> None:
    """Withdraw what stands at each address in this attempt."""
    for slot in slots:
        for each in bound.answers.live(slot.key):
            log.withdraw(each, bound.person)
