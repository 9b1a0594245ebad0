"""Book an engine in, read its card, look through its log."""

from __future__ import annotations

from dataclasses import dataclass, field

from django.db import transaction
from django.db.models import Exists, OuterRef
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET, require_http_methods

from shopmath.bearings import lookup
from shopmath.validation import BadInput
from stator.engines.card_copy import copied
from stator.engines.layouts import apply_layout
from stator.engines.models import EngineCard
from stator.jobs.fact_loader import all_readings_of
from stator.jobs.idempotency import idempotent, link_request_to_job
from stator.jobs.models import Entry, Job, Photo, Reading, Record
from stator.shop.models import Shop
from stator.stations.framework import provenance
from stator.stations.framework.log_labels import answered, called
from stator.ui.times import time_of_day, to_the_second
from stator.ui.url_values import job_number
from stator.workbench.check_in.card_views import card_page
from stator.workbench.check_in.forms import EngineForm, SeatForm
from stator.workbench.registry import STATION_BY_KEY, WORK_ORDERS, create_work_plan


def _seat_wanted(request: HttpRequest) -> bool:
    return any(request.POST.get(f"{SeatForm.prefix}-{name}") for name in ("designation", "bore_mm", "outside_mm", "code", "measured_mm"))


@require_http_methods(["GET", "POST"])
@idempotent
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
            link_request_to_job(request, made)
            return redirect("job" if with_seat or known else "card", tag=made.tag)
        if not with_seat:
            seat = SeatForm()
    return render(request, "workbench/check_in/check_in.html", {"engine": engine, "seat": seat})


def _make(request: HttpRequest, engine: EngineForm, seat: SeatForm | None) -> Job:
    data = engine.cleaned_data
    with transaction.atomic():
        card = data["known"]
        if card is None:
            fields = ("name", "summary", "case_material", "painted", "left_name", "right_name")
            card = EngineCard.objects.create(**{name: data[name] for name in fields})
            if data["layout"]:
                apply_layout(card, data["layout"])
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
        create_work_plan(job)
    return job


@require_GET
def read_marking(request: HttpRequest) -> HttpResponse:
    """Return the meaning of a bearing's marking while it is typed."""
    text = request.GET.get(f"{SeatForm.prefix}-designation", "").strip()
    found, words = None, ""
    if text:
        try:
            found = lookup(text)
        except BadInput as error:
            words = error.message
    return render(request, "workbench/check_in/marking.html", {"found": found, "words": words})


def _job(tag: str) -> Job:
    job: Job = get_object_or_404(Job.objects.select_related("card", "booked_in_by", "origin__read_by"), number=job_number(tag))
    return job


@require_http_methods(["GET", "POST"])
@idempotent
def card(request: HttpRequest, tag: str) -> HttpResponse:
    """The engine card of a job."""
    job = _job(tag)
    return card_page(request, job.card, job)


@dataclass
class Line:
    """An entry in the log: its station, its readings, and its photos."""

    entry: Entry
    job: Job
    taken: list[Reading]
    photos: list[Photo] = field(default_factory=list)

    @property
    def name(self) -> str:
        return str(STATION_BY_KEY[self.entry.station.key].name)

    @property
    def replaced(self) -> bool:
        return getattr(self.entry, "superseded_by", None) is not None

    def readings(self) -> list[Written]:
        return [_written(reading, self.entry, self.job) for reading in self.taken]


@dataclass(frozen=True)
class Written:
    """A reading of the log as text: what was measured, the value, the time and the author."""

    called: str
    said: str
    taken: str
    withdrawn: bool


def _written(reading: Reading, entry: Entry, job: Job) -> Written:
    taken = [to_the_second(reading.taken_at), reading.by.called, *([str(reading.gauge)] if reading.gauge else [])]
    text = "; ".join((", ".join(taken), *([_withdrawn(reading)] if reading.withdrawn_at else [])))
    return Written(called(reading, entry, job.card), answered(reading, entry), text, reading.withdrawn_at is not None)


def _withdrawn(reading: Reading) -> str:
    assert reading.withdrawn_at is not None
    at, by = time_of_day(reading.withdrawn_at), reading.withdrawn_by
    if reading.came_second:
        return _("withdrawn {at}: another answer came first").format(at=at)
    return _("withdrawn {at} by {who}").format(at=at, who=by.called) if by else _("withdrawn {at}").format(at=at)


_drawn = Exists(Record.objects.filter(entry=OuterRef("pk")).exclude(drawing=b""))


@require_GET
def job_log(request: HttpRequest, tag: str) -> HttpResponse:
    """Show the log of a job from the oldest entry; replaced entries are included with a mark."""
    job = _job(tag)
    readings, photos = all_readings_of(job, Shop.current()), list(job.photos.all())
    entries = Entry.objects.filter(job=job).select_related("station", "seat", "signed_by", "superseded_by").annotate(drawn=_drawn)
    lines = [Line(entry, job, readings.get(entry.pk, [])) for entry in entries]
    last = {line.entry.station_id: line for line in lines}  # a station's pictures stand at the last that was done there
    for photo in photos:
        if photo.station_id in last:
            last[photo.station_id].photos.append(photo)
    origin = getattr(job, "origin", None)
    data = {
        "job": job,
        "lines": lines,
        "photos": [each for each in photos if each.station_id not in last],
        "origin_said": provenance.render_provenance(origin) if origin else "",
    }
    return render(request, "workbench/check_in/log.html", data)
