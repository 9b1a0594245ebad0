"""Measurements of engines of one kind, job by job: one value over time."""

from __future__ import annotations

import math
from collections import defaultdict
from dataclasses import dataclass
from datetime import datetime

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.safestring import SafeString
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET

from stator.engines.models import EngineCard
from stator.exchange.report.signed_entries import NAMES
from stator.jobs.fact_loader import slot_of
from stator.jobs.models import Reading
from stator.jobs.permissions import visible_card
from stator.stations.framework.question_factory import label
from stator.ui.number_format import exact, format_for, show
from stator.ui.svg import Sheet, papers
from stator.ui.times import day, month
from stator.ui.units import unit_for
from stator.workbench.registry import STATION_BY_KEY

MOST = 4000  # readings looked at, the newest
WIDTHS = {"wide": 760.0, "narrow": 330.0}  # of the drawing on a desk and on a phone


@dataclass(frozen=True)
class Point:
    """The latest value of one job."""

    tag: str
    at: datetime
    value: float


def series(card: EngineCard) -> dict[str, tuple[str, list[Point]]]:
    """Return values that at least two jobs of this engine measured, by name: kind of quantity and points, from the oldest."""
    rows = (
        Reading.objects.filter(
            entry__job__card__family=card.family,
            entry__signed_at__isnull=False,
            entry__superseded_by=None,
            withdrawn_at=None,
            canonical__isnull=False,
        )
        .exclude(kind__in=("count", "time"))
        .order_by("-taken_at")
        .select_related("subject", "entry__station", "entry__seat", "entry__job")[:MOST]
    )
    found: dict[str, dict[int, Point]] = defaultdict(dict)
    kinds: dict[str, str] = {}
    for reading in rows:
        name = _name(reading)
        if not name or reading.canonical is None:
            continue
        kinds[name] = reading.kind
        of_job = reading.entry.job
        found[name].setdefault(of_job.number, Point(of_job.tag, reading.taken_at, reading.canonical))  # the newest comes first
    return {name: (kinds[name], sorted(jobs.values(), key=lambda point: point.at)) for name, jobs in sorted(found.items()) if len(jobs) > 1}


def _name(reading: Reading) -> str:
    """The same in every job for what is measured at the same place; empty for what cannot be named."""
    entry, fact_key = reading.entry, slot_of(reading)
    station = STATION_BY_KEY.get(entry.station.key)
    if fact_key and station and station.words:
        return f"{station.name}, {label(station.words, fact_key)}"
    asked = reading.extra.get("asked")
    seat = entry.seat.name if entry.seat else ""
    return ", ".join(filter(None, (str(NAMES.get(entry.station.key, entry.station.key)), seat, asked))) if asked else ""


def draw(name: str, kind: str, points: list[Point]) -> SafeString:
    """Draw one value over its jobs, evenly spaced."""
    return papers({paper: _drawn(name, kind, points, f"trend-{paper}", width) for paper, width in WIDTHS.items()})


def _drawn(name: str, kind: str, points: list[Point], drawing: str, width: float) -> SafeString:
    text = "; ".join(
        _("job {tag}, {day}: {value}").format(tag=point.tag, day=day(point.at), value=show(exact(point.value, kind))) for point in points
    )
    sheet, right = Sheet(width, 320, name, text, drawing), width - 30
    values = [point.value for point in points]
    unit = unit_for(kind, max(abs(value) for value in values))
    low, high = min(values), max(values)
    pad = 0.15 * (high - low) or max(abs(high) * 0.05, 0.01)
    step = 10.0 ** min(0, math.floor(math.log10(2 * pad)) - 2)

    def at(index: int, value: float) -> tuple[float, float]:
        across = 90 + (right - 110) * (index + 0.5) / len(points)
        return across, 260 - 220 * (value - low + pad) / (high - low + 2 * pad)

    sheet.line((84, 30), (84, 264), "axis")
    sheet.line((84, 264), (right, 264), "axis thin")
    for value in dict.fromkeys((low, high)):
        y = at(0, value)[1]
        sheet.line((78, y), (right, y), "rule")
        sheet.text((74, y + 5), format_for(value, kind, unit, step), "tick", "end")
    sheet.text((84, 20), unit.name, "tick", "middle")
    sheet.trace([at(index, point.value) for index, point in enumerate(points)], "ink")
    for index, point in enumerate(points):
        x, y = at(index, point.value)
        sheet.circle((x, y), 6, "ink solid")
        sheet.text((x, y - 14), format_for(point.value, kind, unit, step), "halo reading-label ink", "middle")
        sheet.text((x, 284), point.tag, "tick", "middle")
        sheet.text((x, 304), month(point.at), "tick", "middle")
    return sheet.render()


@require_GET
def trend(request: HttpRequest, pk: int) -> HttpResponse:
    """Return what this engine measured last time, and the times before."""
    card = visible_card(pk, request.user)  # type: ignore[arg-type]
    found = series(card)
    name = request.GET.get("figure", "") or next(iter(found), "")
    if name and name not in found:
        raise Http404
    drawing = draw(name, *found[name]) if name else ""
    data = {"card": card, "names": list(found), "chosen": name, "drawing": drawing, "points": found[name][1] if name else []}
    return render(request, "exchange/trend.html", {**data, "kind": found[name][0] if name else ""})
