"""Finding a job again: by number, engine, whose it is, complaint, bearing, or what was written."""

from __future__ import annotations

from datetime import timedelta

from django.db.models import Q
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils import timezone
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET

from engines.models import Seat
from jobs.models import Job, Reading
from shop.models import Shop
from stations.registry import STATIONS
from ui.times import week_of

MOST = 20
SHORTEST = 4  # letters of a word that is looked for among the answers


def answered(word: str) -> Q:
    """Readings whose answer has a word in it as the stations say it: an answer is kept by its key."""
    found = Q(pk__in=[])
    if len(word) < SHORTEST:
        return found
    for station in (each for one in STATIONS for each in (one, one.whole) if each and each.words):
        for what, rows in getattr(station.words, "OPTIONS", {}).items():
            keys = [row[0] for row in rows if word.lower() in str(row[1]).lower()]
            if keys:
                found |= Q(property=what, text__in=keys)
    return found


@require_GET
def find(request: HttpRequest) -> HttpResponse:
    """Jobs that have every word asked for somewhere, the newest first."""
    asked = " ".join(request.GET.get("q", "").split())[:80]
    jobs = Job.objects.select_related("card").order_by("-number")
    if asked:
        for word in asked.split()[:6]:
            wanted = Q(card__name__icontains=word) | Q(card__summary__icontains=word) | Q(complaint__icontains=word)
            seats = Seat.objects.filter(Q(designation__icontains=word) | Q(name__icontains=word))
            notes = Reading.objects.filter(kind="words", text__icontains=word, withdrawn_at=None)
            notes |= Reading.objects.filter(answered(word), withdrawn_at=None)
            wanted |= Q(comes_back__icontains=word) | Q(card__in=seats.values("card")) | Q(pk__in=notes.values("entry__job"))
            for name in Job.WHOSE:
                wanted |= Q(**{f"{name}__icontains": word})
            if word.isdecimal():
                wanted |= Q(number=int(word))
            jobs = jobs.filter(wanted)
    found = list(jobs[: MOST + 1])
    data = {"asked": asked, "jobs": found[:MOST], "weeks": _by_week(found[:MOST]), "more": len(found) > MOST}
    return render(request, "stations/find.html", data)


def _by_week(jobs: list[Job]) -> list[tuple[str, list[Job]]]:
    """Jobs under the week in which they were booked in, as the shop counts its weeks."""
    first = Shop.current().first_weekday
    now = week_of(timezone.now(), first)
    names = {now: _("Booked in this week"), now - timedelta(days=7): _("Booked in last week")}
    found: dict[str, list[Job]] = {}
    for job in jobs:
        found.setdefault(names.get(week_of(job.booked_in_at, first), _("Booked in earlier")), []).append(job)
    return list(found.items())
