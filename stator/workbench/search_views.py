"""Finding a job again: by number, engine, whose it is, complaint, bearing, or what was written."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import timedelta

from django.db.models import Prefetch, Q
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils import timezone
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET

from stator.jobs.models import Job, Reading, RunStation
from stator.jobs.search import lines_with, with_word, with_words
from stator.shop.models import Shop
from stator.ui.times import week_of
from stator.workbench.registry import STATION_BY_KEY, STATIONS

MOST = 20
LINES = 3  # of what was found, under a job
SHORTEST = 4  # letters of a word that is looked for among the answers


def answered(word: str) -> Q:
    """Return the condition for readings whose option contains a word, because options are stored by key.

    It is empty if there is none.
    """
    found = Q()
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
    standing = RunStation.objects.filter(state__in=(RunStation.State.NOW, RunStation.State.WAITS))
    newest = Job.objects.filter(_having(asked.split()[:6])).order_by("-number").values("pk")[: MOST + 1]
    jobs = Job.objects.filter(pk__in=newest).select_related("card").prefetch_related(Prefetch("run", standing, to_attr="stands_at"))
    found = list(jobs.order_by("-number"))
    told = lines_with([job.pk for job in found], asked.split()) if asked else {}
    for job in found:
        job.at = [STATION_BY_KEY[stage.key].name for stage in job.stands_at if stage.key in STATION_BY_KEY]  # type: ignore[attr-defined]
        shown = f"{job.tag} {job.card.name} {job.card.summary} {job.complaint}"
        job.found_in = [line for line in told.get(job.pk, []) if line not in shown][:LINES]  # type: ignore[attr-defined]
    data = {"asked": asked, "jobs": found[:MOST], "weeks": _by_week(found[:MOST]), "more": len(found) > MOST}
    return render(request, "workbench/search.html", data)


def _having(words: list[str]) -> Q:
    """Jobs that have every word: as `_written`, or one of them is the job's number."""
    having = _written(words)
    for number in {int(word) for word in words if word.isdecimal()}:
        having |= Q(number=number) & _written([each for each in words if not each.isdecimal() or int(each) != number])
    return having


def _written(words: list[str]) -> Q:
    """Jobs in which every word was written down, or is part of an answer as its station says it."""
    keyed = {word: found for word in words if (found := answered(word))}
    written = with_words(word for word in words if word not in keyed)
    for word, found in keyed.items():
        written &= with_word(word) | Q(pk__in=Reading.objects.filter(found, withdrawn_at=None).values("entry__job"))
    return written


def _by_week(jobs: Sequence[Job]) -> list[tuple[str, list[Job]]]:
    """Return jobs by the week of their check-in, as the shop counts its weeks."""
    first = Shop.current().first_weekday
    now = week_of(timezone.now(), first)
    names = {now: _("Booked in this week"), now - timedelta(days=7): _("Booked in last week")}
    found: dict[str, list[Job]] = {}
    for job in jobs:
        found.setdefault(names.get(week_of(job.booked_in_at, first), _("Booked in earlier")), []).append(job)
    return list(found.items())
