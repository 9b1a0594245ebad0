"""Suspect readings that are withdrawn so that they are measured again."""

from __future__ import annotations

from collections.abc import Iterable

from stator.engines.fact_keys import FactKey
from stator.jobs import log
from stator.stations.framework.bound_station import BoundStation


def request_remeasurement(bound: BoundStation, slots: Iterable[FactKey]) -> None:
    """Withdraw the readings of these fact keys in the current attempt."""
    for fact_key in slots:
        for each in bound.answers.live(fact_key.key):
            log.withdraw(each, bound.person)
