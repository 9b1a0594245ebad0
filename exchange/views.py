"""What leaves the shop: a job as JSON, an entry on paper."""

from __future__ import annotations

from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404, render
from django.utils import timezone
from django.views.decorators.http import require_GET

from exchange.job_json import job_as_json
from jobs.models import Entry, Job
from shop.models import Shop
from stations.registry import BY_KEY


@require_GET
def export(request: HttpRequest, tag: str) -> HttpResponse:
    if not tag.isdigit():
        raise Http404
    job = get_object_or_404(Job.objects.select_related("card", "booked_in_by"), number=int(tag))
    response = JsonResponse(job_as_json(job), json_dumps_params={"indent": 2, "ensure_ascii": False})
    response["Content-Disposition"] = f'attachment; filename="job-{job.tag}.json"'
    return response


@require_GET
def sheet(request: HttpRequest, pk: int) -> HttpResponse:
    """One entry as a sheet for the binder."""
    entry = get_object_or_404(Entry.objects.select_related("job__card", "station", "seat__card", "signed_by", "supersedes"), pk=pk)
    station = BY_KEY[entry.station.key]
    work = station.bind(entry.job, entry.station, entry.seat, request.user, timezone.now(), entry=entry)  # type: ignore[arg-type]
    later = Entry.objects.filter(supersedes=entry).first()
    data = {
        "work": work,
        "entry": entry,
        "job": entry.job,
        "plate": work.plate(),
        "later": later,
        "shop": Shop.current(),
        "printed_at": timezone.now(),
    }
    return render(request, "exchange/entry_sheet.html", data)
