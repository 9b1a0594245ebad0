"""How well predictions held: what each station predicted beside what happened, over every signed entry that stands."""

from __future__ import annotations

from collections import defaultdict
from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from jobs.models import Entry
from stations.base.predicted import Prediction
from stations.registry import STATIONS


@require_GET
def held(request: HttpRequest) -> HttpResponse:
    """Predicted against happened."""
    signed = Entry.objects.filter(signed_at__isnull=False, superseded_by=None).values_list("station__key", "result")
    by_station: dict[str, list[dict[str, Any]]] = defaultdict(list)
    for key, result in signed.iterator():
        by_station[key].append(result)
    made: dict[Prediction, list[dict[str, Any]]] = {}
    for station in STATIONS:
        if station.prediction:
            made.setdefault(station.prediction, []).extend(by_station[station.key])
    kinds = [(each.name, each.predicted, each.held(results)) for each, results in made.items()]
    return render(request, "exchange/held.html", {"kinds": kinds})
