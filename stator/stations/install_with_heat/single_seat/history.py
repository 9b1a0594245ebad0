"""Predictions and outcomes of earlier heats: shown with the next plan for the same heater, and used to correct it."""

from __future__ import annotations

import statistics
from dataclasses import dataclass
from datetime import datetime

from django.db.models import Q

from stator.jobs.models import Entry
from stator.jobs.models.log import OfAHeater
from stator.shop.models import Heater

HEATED = Q(OfAHeater("result"), signed_at__isnull=False)  # the first as the index has it
SHOWN = 5
ENOUGH = 2  # heats before the shop's own rate is believed


@dataclass(frozen=True)
class Heat:
    """One signed heat with this heater."""

    entry: int
    tag: str
    signed_at: datetime | None
    confidence: float
    outcome: str
    tau_ratio: float | None


def heats(heater: Heater | None, on: str, besides: int) -> list[Heat]:
    """Return the latest signed heats with this heater, from the newest, without one entry and without replaced ones."""
    if heater is None:
        return []
    return [
        _heat(entry)
        for entry in (
            Entry.objects.filter(HEATED, superseded_by__isnull=True, result__heater_id=heater.pk, result__on=on)
            .exclude(pk=besides)
            .select_related("job")
            .only("result", "signed_at", "job__number")
            .order_by("-signed_at")[:SHOWN]
        )
    ]


def _heat(entry: Entry) -> Heat:
    told = entry.result
    confidence, outcome = told.get("confidence") or 0.0, told.get("outcome", "")
    return Heat(entry.pk, entry.job.tag, entry.signed_at, confidence, outcome, told.get("soak_tau_ratio"))


def slower(past: list[Heat]) -> float:
    """Return how much slower this oven is than the tables: the median of the heats that measured it, if there are enough."""
    ratios = [heat.tau_ratio for heat in past if heat.tau_ratio]
    return statistics.median(ratios) if len(ratios) >= ENOUGH else 1.0
