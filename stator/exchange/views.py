"""Export of a job as JSON, and of an entry for printing."""

from __future__ import annotations

import csv
import io
from hashlib import sha256

from django.contrib import messages
from django.db.models import Case, F, OuterRef, Subquery, When
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect
from django.urls import reverse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET, require_POST
from pydantic_core import to_json

from shopmath.validation import BadInput
from stator.exchange.background_task_views import made_or_making
from stator.exchange.background_tasks import TaskOutput, Tell, no_progress
from stator.exchange.csv_escape import plain
from stator.exchange.job_archive import MOST_BYTES
from stator.exchange.job_export import job_as_json
from stator.exchange.job_import import job_from_zip
from stator.jobs.models import Job, RunStation
from stator.stations.framework import provenance
from stator.ui.url_values import job_number, job_tag
from stator.workbench.registry import next_of


@require_GET
def export(request: HttpRequest, tag: str) -> HttpResponse:
    job = get_object_or_404(Job.objects.select_related("card", "booked_in_by"), number=job_number(tag))
    response = HttpResponse(to_json(job_as_json(job), indent=2), content_type="application/json")
    response["Content-Disposition"] = f'attachment; filename="job-{job.tag}.json"'
    return response


@require_POST
def job_in(request: HttpRequest) -> HttpResponse:
    """A job from its ZIP."""
    upload = request.FILES.get("file")
    large = upload is not None and (upload.size or 0) > MOST_BYTES
    data = upload.read() if upload and not large else b""

    def make(tell: Tell) -> TaskOutput:
        if not data:
            raise BadInput("file", _("That file is over 400 MB: no job is that large.") if large else _("No file was chosen."))
        job = job_from_zip(data, request.user, tell)  # type: ignore[arg-type]
        imported = _("{name} was imported as job {tag}.").format(name=job.card.name, tag=job.tag)
        return TaskOutput(goes=reverse("job-log", args=[job.tag]), words=f"{imported} {provenance.render_provenance(job.origin)}")

    if request.headers.get("X-Partial"):
        return made_or_making(request, f"reading {sha256(data).hexdigest()}", make)
    try:
        made = make(no_progress)
    except BadInput as error:
        messages.error(request, error.message)
        return redirect("find")
    messages.success(request, made.words)
    return redirect(made.goes)


COLUMNS = ("job", "engine", "complaint", "work_order", "booked_in", "gone", "station", "state", "call", "next_move", "waits_for")


@require_GET
def bench_csv(request: HttpRequest) -> HttpResponse:
    """Return every job with its current station as CSV, in two queries regardless of the number of jobs."""
    ahead = (RunStation.State.NOW, RunStation.State.WAITS, RunStation.State.AHEAD)  # in this order, as `at_station` chooses
    rank = Case(*(When(state=state, then=index) for index, state in enumerate(ahead)), default=len(ahead))
    place = Case(When(state__in=ahead, then=F("order")), default=-F("order"))
    current = RunStation.objects.filter(job=OuterRef("pk")).order_by(rank, place).values("pk")[:1]
    columns = ("number", "card__name", "complaint", "work_order", "booked_in_at", "gone_at", "current")
    found = Job.objects.annotate(current=Subquery(current))
    jobs = list(found.values_list(*columns))
    stations = {stage.pk: stage for stage in RunStation.objects.filter(pk__in=found.values("current"))}
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for number, name, complaint, work_order, booked_in_at, gone_at, station in jobs:
        stage = stations.get(station)
        here = (stage.key, stage.state, stage.call_state, plain(next_of(stage)), plain(stage.waits_for)) if stage else ("",) * 5
        gone = gone_at.date().isoformat() if gone_at else ""
        writer.writerow([job_tag(number), plain(name), plain(complaint), work_order, booked_in_at.date().isoformat(), gone, *here])
    response = HttpResponse(out.getvalue(), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="bench.csv"'
    return response
