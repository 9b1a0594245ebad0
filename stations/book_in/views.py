"""Book an engine in, read its card, look through its log."""

from __future__ import annotations

from dataclasses import dataclass, field

from django.db import transaction
from django.db.models import Exists, OuterRef
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_GET, require_http_methods

from engines.copies import copied
from engines.layouts import lay_out
from engines.models import EngineCard
from jobs.acts import about, one_act
from jobs.models import Entry, Job, Origin, Photo, Reading, Record
from shopmath.bearings import lookup
from shopmath.checks import BadInput
from stations import provenance
from stations.base.named import answered, called
from stations.book_in.card_views import card_page
from stations.book_in.forms import EngineForm, SeatForm
from stations.registry import BY_KEY, WORK_ORDERS, lay_run
from ui.addresses import job_number


def _seat_wanted(request: HttpRequest) -> bool:
    return any(request.POST.get(f"{SeatForm.prefix}-{name}") for name in ("designation", "bore_mm", "outside_mm", "code", "measured_mm"))


@require_http_methods(["GET", "POST"])
@one_act
def book_in(request: HttpRequest) -> HttpResponse:
    """A new job: its engine, what is wrong, and its first seat."""
    order = request.GET.get("order", "")
    first = {"work_order": order} if order in WORK_ORDERS else None
    engine, seat = EngineForm(request.POST or None, initial=first), SeatForm(request.POST or None)
    if request.method == "POST":
        known = engine.is_valid() and engine.cleaned_data["known"]
        with_seat = _seat_wanted(request) or (not known and request.POST.get("work_order") in ("heat", "cold"))
        if engine.is_valid() and (not with_seat or seat.is_valid()):
            made = _make(request, engine, seat if with_seat else None)
            about(request, made)
            return redirect("job" if with_seat or known else "card", tag=made.tag)
        if not with_seat:
            seat = SeatForm()
    # a form that nothing was typed into follows from the order and from the engines to choose from
    made = (order, tuple(engine.fields["known"].choices)) if not engine.is_bound else None  # type: ignore[attr-defined]
    return render(request, "stations/book_in/book_in.html", {"engine": engine, "seat": seat, "made": made})


def _make(request: HttpRequest, engine: EngineForm, seat: SeatForm | None) -> Job:
    data = engine.cleaned_data
    with transaction.atomic():
        card = data["known"]
        if card is None:
            fields = ("name", "summary", "case_material", "painted", "left_name", "right_name")
            card = EngineCard.objects.create(**{name: data[name] for name in fields})
            if data["layout"]:
                lay_out(card, data["layout"])
        else:
            card = copied(card)
        if seat:
            seat.instance.card = card
            seat.save()
        job = Job.objects.create(
            number=Job.next_number(),
            card=card,
            complaint=data["complaint"],
            comes_back=data["comes_back"],
            work_order=data["work_order"],
            booked_in_by=request.user,  # type: ignore[misc]
        )
        lay_run(job)
    return job


@require_GET
def read_marking(request: HttpRequest) -> HttpResponse:
    """What a bearing's marking was understood as, while it is typed."""
    text = request.GET.get(f"{SeatForm.prefix}-designation", "").strip()
    found, words = None, ""
    if text:
        try:
            found = lookup(text)
        except BadInput as error:
            words = error.message
    return render(request, "stations/book_in/marking.html", {"found": found, "words": words})


def _job(tag: str) -> Job:
    return get_object_or_404(Job.objects.select_related("card", "booked_in_by", "origin__read_by"), number=job_number(tag))


@require_http_methods(["GET", "POST"])
@one_act
def card(request: HttpRequest, tag: str) -> HttpResponse:
    """The engine card of a job."""
    job = _job(tag)
    return card_page(request, job.card, job)


@dataclass
class Line:
    """An entry on the log: its station, what was read, and the pictures taken there."""

    entry: Entry
    name: str
    readings: list[tuple[Reading, str, str]]
    photos: list[Photo] = field(default_factory=list)


def _written(reading: Reading, entry: Entry, job: Job) -> tuple[Reading, str, str]:
    """A reading with what it is of and what it says, in words."""
    return reading, called(reading, entry, job.card), answered(reading, entry)


@require_GET
def job_log(request: HttpRequest, tag: str) -> HttpResponse:
    """Everything written down about a job, oldest first; superseded entries stay, marked."""
    job = _job(tag)
    entries = (
        Entry.objects.filter(job=job)
        .select_related("station", "seat", "signed_by", "opened_by", "superseded_by")
        .prefetch_related("readings__by", "readings__gauge", "readings__withdrawn_by", "readings__subject")
        .annotate(drawn=Exists(Record.objects.filter(entry=OuterRef("pk")).exclude(drawing=b"")))
    )
    photos = list(job.photos.all())
    lines = [
        Line(entry, str(BY_KEY[entry.station.key].name), [_written(reading, entry, job) for reading in entry.readings.all()])
        for entry in entries
    ]
    last = {line.entry.station_id: line for line in lines}  # a station's pictures stand at the last that was done there
    for photo in photos:
        if photo.station_id in last:
            last[photo.station_id].photos.append(photo)
    origin = Origin.objects.filter(job=job).first()
    data = {
        "job": job,
        "lines": lines,
        "photos": [each for each in photos if each.station_id not in last],
        "origin_said": provenance.said(origin) if origin else "",
    }
    return render(request, "stations/book_in/log.html", data)
