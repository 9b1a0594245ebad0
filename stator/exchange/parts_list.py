"""The parts of a job that were decided to be replaced, as a list for ordering: on a page and as CSV.

It uses facts only and no station.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Iterator
from dataclasses import dataclass

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.utils.translation import gettext_lazy as _
from django.views.decorators.http import require_GET

from stator.engines.models import Seat
from stator.engines.parts import Kind
from stator.engines.properties import Property
from stator.exchange.csv_escape import plain
from stator.jobs.fact_loader import facts_of
from stator.jobs.facts import Fact, Facts
from stator.jobs.models import Job
from stator.stations.framework.registry import station_name
from stator.ui.number_format import trade
from stator.ui.url_values import job_number

NAMES = {
    "bearing": _("Bearing"),
    "seal": _("Seal"),
    "rod-kit": _("Rod kit"),
    "key": _("Key of the flywheel"),
    "gasket": _("Gasket of the crankcase"),
}
COLUMNS = ("part", "size", "place", "decided_at", "by", "on")


@dataclass(frozen=True)
class PartToOrder:
    """One part to order: what it is, which, where it goes, and who decided so."""

    what: str
    size: str
    place: str
    station: str
    by: str
    on: str

    @property
    def name(self) -> str:
        return str(NAMES.get(self.what, self.what))


def wanted(job: Job) -> list[PartToOrder]:
    """Everything that a signed entry has decided to replace, bearings first."""
    facts = facts_of(job)
    return [*_bearings(job, facts), *_others(job, facts)]


def _bearings(job: Job, facts: Facts) -> Iterator[PartToOrder]:
    for seat in job.card.seats.all():
        decided = facts.as_left(seat.part, Property.BEARING_DECISION)
        if decided and decided.signed and decided.text == "scrap":
            yield _line("bearing", _size_of(seat, facts), seat.name, decided)


def _size_of(seat: Seat, facts: Facts) -> str:
    """The marking as found, else as on the card, else the sizes."""
    sizes = [trade(size) for size in (seat.bore_mm, seat.outside_mm, seat.width_mm) if size]
    return facts.said(seat.part, Property.BEARING_MARKING) or seat.designation or " × ".join(sizes)


def _others(job: Job, facts: Facts) -> Iterator[PartToOrder]:
    seals = {seal.uid: seal for seal in job.card.seals.all()}
    for part in facts.parts_with(Property.REPLACED):
        decided = facts.as_left(part, Property.REPLACED)
        if decided is None:
            continue
        seal = seals.get(part.uid) if part.kind == Kind.SEAL else None
        size = trade(seal.shaft_mm, seal.bore_mm, seal.width_mm) if seal else ""
        yield _line(decided.text, size, part.name, decided)


def _line(what: str, size: str, place: str, decided: Fact) -> PartToOrder:
    on = f"{decided.at:%Y-%m-%d}" if decided.at else ""
    return PartToOrder(what, size, place, station_name(decided.station), decided.by, on)


def _job(tag: str) -> Job:
    return get_object_or_404(Job.objects.select_related("card").prefetch_related("card__seats", "card__seals"), number=job_number(tag))


@require_GET
def parts_to_order(request: HttpRequest, tag: str) -> HttpResponse:
    job = _job(tag)
    return render(request, "exchange/parts_list.html", {"job": job, "wanted": wanted(job)})


@require_GET
def parts_csv(request: HttpRequest, tag: str) -> HttpResponse:
    job, out = _job(tag), io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for each in wanted(job):
        writer.writerow([plain(cell) for cell in (each.name, each.size, each.place, each.station, each.by, each.on)])
    response = HttpResponse(out.getvalue(), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="parts-{job.tag}.csv"'
    return response
