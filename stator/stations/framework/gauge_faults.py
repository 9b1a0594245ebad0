"""Gauges that were found wrong after they had measured."""

from __future__ import annotations

from collections.abc import Iterable

from stator.jobs.models import Reading
from stator.stations.framework import messages as shared
from stator.stations.framework.messages import fill
from stator.stations.framework.page_components import Caution


def untrusted(readings: Iterable[Reading]) -> tuple[Caution, ...]:
    """A caution for each gauge that read here on a day from which it is not trusted."""
    taken = [each for each in readings if each.gauge and not each.withdrawn_at]
    wrong = {each.gauge.pk: each.gauge for each in taken if each.gauge and each.gauge.was_wrong(each.taken_at.date())}
    return tuple(
        Caution(f"wrong{gauge.pk}", fill(shared.GAUGE_WRONG, {"gauge": gauge.name, "because": gauge.wrong_because}))
        for gauge in wrong.values()
    )
