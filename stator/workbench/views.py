"""The pages of a station that only show. No rule of the trade lives here, and nothing is written."""

from __future__ import annotations

from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_GET

from stator.engines.models import Seat
from stator.jobs.models import Job
from stator.stations.framework import BoundStation
from stator.ui.url_values import job_number
from stator.workbench.reading_commands import numbered
from stator.workbench.registry import BOOK_IN, current_station
from stator.workbench.station_page import WHOLE, Answer, find_work, log_of, offers_whole, page_data, pictures_of

ASK_NO_MORE = 286  # htmx stops what it repeats


@require_GET
def job_page(request: HttpRequest, tag: str) -> HttpResponse:
    """Redirect to the present station of a job."""
    job = get_object_or_404(Job, number=job_number(tag))
    stage = current_station(job)
    if not stage:
        raise Http404
    return redirect("station", tag=job.tag, key=stage.key)


@require_GET
def station_page(request: HttpRequest, tag: str, key: str, seat: int | None = None) -> HttpResponse:
    work = find_work(request, tag, key, seat, landing=True)
    if key == BOOK_IN:
        return redirect("card", tag=tag)
    if work.station.by_seat and not work.seat and not (work.station.whole and seat == WHOLE):
        if _all_at_once(work):
            return redirect("seat", tag=work.job.tag, key=key, seat=WHOLE)
        first = _seat_in_hand(work)
        if first is None and offers_whole(work):
            return redirect("seat", tag=work.job.tag, key=key, seat=WHOLE)
        return redirect("seat", tag=work.job.tag, key=key, seat=first.pk) if first else redirect("card", tag=tag)
    return Answer(work, request.GET.get("ask")).render(request)


def _all_at_once(work: BoundStation) -> bool:
    """Return True if a station should show all seats at once: it was begun so, or two seats of one half wait."""
    if not work.station.at_once:
        return False
    begun: dict[int | None, Any] = dict(work.stage.entries.order_by("pk").values_list("seat_id", "signed_at"))
    if None in begun:
        return begun[None] is None
    if any(signed is None for signed in begun.values()):
        return False
    waiting = [seat.half for seat in work.job.card.seats.all() if seat.on == Seat.On.CASE and seat.pk not in begun]
    return len(waiting) > len(set(waiting))


def _seat_in_hand(work: BoundStation) -> Seat | None:
    """The seat being worked on, else the first without a signed entry."""
    seats = list(work.job.card.seats.all())
    entries = {entry.seat_id: entry for entry in work.stage.entries.order_by("pk")}
    for seat in seats:
        if seat.pk in entries and not entries[seat.pk].is_signed:
            return seat
    return next((seat for seat in seats if seat.pk not in entries), seats[0] if seats else None)


@require_GET
def pulse(request: HttpRequest, tag: str, key: str, seat: int | None = None) -> HttpResponse:
    """Return what has changed on the page.

    The response is 204 if nothing has; drawing and verdict while something cools; the whole page after another device wrote. A page of a
    finished practice job is told to stop.
    """
    job = numbered(job_number(tag))
    if job is None:
        return HttpResponse(status=ASK_NO_MORE, headers={"HX-Reswap": "none"})
    same = request.GET.get("rev") == str(job.revision)
    if same and request.GET.get("live") != "1":
        return HttpResponse(status=204)
    work = find_work(request, tag, key, seat, job=job)
    if not same:
        return Answer(work, request.GET.get("ask")).render(request)
    response = render(request, "workbench/live_update.html", page_data(work))
    response["HX-Reswap"] = "none"
    return response


@require_GET
def readings(request: HttpRequest, tag: str, key: str, seat: int | None = None) -> HttpResponse:
    """All readings, for the panel that has just been opened."""
    work = find_work(request, tag, key, seat)
    return render(request, "workbench/parts/readings_rows.html", {"work": work, **log_of(work, work.question_for(None))})


@require_GET
def photographed(request: HttpRequest, tag: str, key: str, seat: int | None = None) -> HttpResponse:
    """The photos taken here, for the panel that has just been opened."""
    work = find_work(request, tag, key, seat)
    return render(request, "workbench/parts/photos_rows.html", {"work": work, "pictures": pictures_of(work)})


@require_GET
def picture(request: HttpRequest, tag: str, key: str, seat: int | None = None) -> HttpResponse:
    """The drawing at one instant."""
    work = find_work(request, tag, key, seat)
    try:
        at_s = float(request.GET.get("t", "0"))
    except ValueError:
        at_s = 0.0
    longest = (work.slider() or (0.0, 0.0))[0]
    return HttpResponse(work.drawing(min(max(at_s, 0.0), longest)))
