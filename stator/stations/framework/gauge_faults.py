"""Gauges that proved to be faulty after they had measured."""

from __future__ import annotations

from collections.abc import Iterable

from stator.jobs.models import Reading
from stator.stations.framework import messages as shared
from stator.stations.framework.messages import format_message
from stator.stations.framework.page_components import SafetyWarning


def faulty_gauge_warnings(readings: Iterable[Reading]) -> tuple[SafetyWarning, ...]:
    """Return a warning for each gauge that was used here on a day from which it is not trusted."""
    taken = [each for each in readings if each.gauge and not each.withdrawn_at]
    wrong = {each.gauge.pk: each.gauge for each in taken if each.gauge and each.gauge.was_wrong(each.taken_at.date())}
    return tuple(
        SafetyWarning(f"wrong{gauge.pk}", format_message(shared.GAUGE_WRONG, {"gauge": gauge.name, "because": gauge.wrong_because}))
        for gauge in wrong.values()
    )
