"""Accuracy of predictions: what each station predicted and what happened, over all valid signed entries."""

from __future__ import annotations

from collections import defaultdict
from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.safestring import SafeString
from django.utils.text import slugify
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET

from shopmath.amounts import share
from stator.jobs.models import Entry
from stator.stations.framework.predictions import TAG, Prediction, PredictionComparison
from stator.stations.framework.registry import station_name
from stator.ui.number_format import show
from stator.ui.svg import Sheet, papers
from stator.workbench.registry import STATIONS

WIDTHS = {"wide": 760.0, "narrow": 330.0}  # of a plot on a desk and on a phone
ROW, TOP = 34.0, 30.0  # px
FOOT = {"wide": 44.0, "narrow": 84.0}  # a phone has its axis named in two lines


@require_GET
def held(request: HttpRequest) -> HttpResponse:
    """Predicted against happened."""
    signed = Entry.objects.filter(signed_at__isnull=False, superseded_by=None).order_by("pk")
    by_station: dict[str, list[dict[str, Any]]] = defaultdict(list)
    for key, number, result in signed.values_list("station__key", "job__number", "result").iterator():
        by_station[key].append({**result, TAG: f"{number:04} {station_name(key)}"})
    made: dict[Prediction, list[dict[str, Any]]] = {}
    for station in STATIONS:
        if station.prediction:
            made.setdefault(station.prediction, []).extend(by_station[station.key])
    kinds = [(each.name, each.predicted, each.held(results), plot(each, each.beside(results))) for each, results in made.items()]
    return render(request, "exchange/prediction_accuracy.html", {"kinds": kinds})


def plot(prediction: Prediction, lines: list[PredictionComparison]) -> SafeString:
    """Return a plot of predicted ranges with the outcomes as dots; empty if nothing is signed yet."""
    if not lines:
        return SafeString("")
    return papers({paper: _drawn(prediction, lines, f"{paper}-{slugify(prediction.name)}", width) for paper, width in WIDTHS.items()})


def _drawn(prediction: Prediction, lines: list[PredictionComparison], drawing: str, width: float) -> SafeString:
    narrow = width < WIDTHS["wide"]
    text = "; ".join(
        _("{case}: predicted {low} to {high}, happened {happened}").format(
            case=each.label, low=_percent(each.low), high=_percent(each.high), happened=_percent(each.happened)
        )
        for each in lines
    )
    over = ROW * (1.7 if narrow else 1.0)  # a phone has the label above its line
    below = FOOT["narrow" if narrow else "wide"]
    sheet = Sheet(width, TOP + over * len(lines) + below, str(prediction.name), text, drawing)
    left, right = (16.0, width - 24.0) if narrow else (250.0, width - 40.0)
    highest = max(1.0, *(max(each.high, each.happened, *(each.unsure or ())) for each in lines))
    foot = TOP + over * len(lines)

    def x(share: float) -> float:
        return left + (right - left) * max(0.0, share) / highest

    ticks = [tick / 2 for tick in range(int(highest * 2) + 1)]
    for tick in ticks:
        sheet.line((x(tick), TOP - 8), (x(tick), foot), "rule" if tick != 1.0 else "thin")
        sheet.text((x(tick), foot + 18), _percent(tick), "tick", "middle")
    sheet.text(((left + right) / 2, foot + (62 if narrow else 38)), str(prediction.axis), "tick", "middle")
    for number, each in enumerate(lines):
        y = TOP + over * (number + 1) - ROW / 2
        label = ((left, y - 20), "start") if narrow else ((left - 14, y + 5), "end")
        sheet.text(label[0], each.label, "quiet", label[1])
        if each.high > each.low:
            sheet.rect(x(each.low), y - 9, x(each.high) - x(each.low), 18, "band")
        if each.unsure:
            sheet.line((x(each.unsure[0]), y), (x(each.unsure[1]), y), "ink")
        sheet.circle((x(each.happened), y), 6, "ink solid")
    return sheet.render()


def _percent(value: float) -> str:
    return show(share(value))
