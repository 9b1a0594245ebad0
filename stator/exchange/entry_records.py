"""Pages of the record of a signed entry: printed, its drawing, and the result of today's core for the same readings."""

from __future__ import annotations

import logging
import zlib
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.utils import timezone
from django.utils.translation import gettext_lazy as _
from django.views.decorators.http import require_GET

from shopmath import __version__ as core_version
from stator.jobs import clock
from stator.jobs.models import Entry, Record
from stator.jobs.permissions import hide_practice_of_others
from stator.shop.models import Shop
from stator.stations.framework import bind
from stator.stations.framework.binding import again
from stator.stations.framework.record_snapshot import frozen
from stator.workbench.registry import STATION_BY_KEY

ENTRY = Entry.objects.select_related("job__card", "station", "seat__card", "signed_by", "supersedes", "record")
LOG = logging.getLogger(__name__)
SANDBOX = "default-src 'none'; style-src 'unsafe-inline'; sandbox"
UNFIT = _("Today's core cannot compute this entry again: what it rests on is no longer there, or is read differently now.")
CALL = (("state", "State"), ("headline", "Call"), ("reason", "Reason"))


@require_GET
def sheet(request: HttpRequest, pk: int) -> HttpResponse:
    """One entry on paper."""
    entry = get_object_or_404(ENTRY, pk=pk)
    hide_practice_of_others(entry.job, request.user)  # type: ignore[arg-type]
    station = STATION_BY_KEY[entry.station.key]
    work = bind(station, entry.job, entry.station, entry.seat, request.user, clock.now(entry.job), entry=entry)  # type: ignore[arg-type]
    later = Entry.objects.filter(supersedes=entry).first()
    data = {
        "work": work,
        "entry": entry,
        "job": entry.job,
        "plate": work.displayed_verdict(),
        "later": later,
        "shop": Shop.current(),
        "printed_at": timezone.now(),
    }
    return render(request, "exchange/entry_record.html", data)


def svg_of(record: Record) -> HttpResponse:
    """Return a recorded drawing, which can do nothing wherever it is opened; 404 for a record without one."""
    if not record.drawing:
        raise Http404
    response = HttpResponse(zlib.decompress(bytes(record.drawing)), content_type="image/svg+xml")
    response["Content-Security-Policy"] = SANDBOX
    response["X-Content-Type-Options"] = "nosniff"
    return response


@require_GET
def drawing(request: HttpRequest, pk: int) -> HttpResponse:
    return svg_of(get_object_or_404(Record, entry=get_object_or_404(Entry, pk=pk)))


@require_GET
def computed_again(request: HttpRequest, pk: int) -> HttpResponse:
    """Show the result of today's core for a signed entry, next to the record."""
    entry = get_object_or_404(ENTRY, pk=pk, signed_at__isnull=False)
    record = getattr(entry, "record", None)
    if record is None:
        raise Http404
    station = STATION_BY_KEY[entry.station.key]
    data: dict[str, Any] = {"entry": entry, "job": entry.job, "station": station.name, "core": core_version}
    try:
        work = again(station, entry, request.user)  # type: ignore[arg-type]
        data["differences"] = _differences(record.content, frozen(work, work.verdict()).content)
    except Exception:  # whatever is wrong with what it rests on, the record stands
        LOG.warning("entry %s cannot be computed again", pk, exc_info=True)
        data["trouble"] = UNFIT
    return render(request, "exchange/recalculated.html", data)


def _differences(old: dict[str, Any], new: dict[str, Any]) -> list[tuple[str, str, str]]:
    """Return the differences in verdict, values and sources."""
    found = [(name, str(old["call"][key]), str(new["call"][key])) for key, name in CALL]
    for table, name, value in (("figures", "words", "value"), ("sources", "label", "value")):
        before = {each[name]: str(each[value]) for each in old[table]}
        now = {each[name]: str(each[value]) for each in new[table]}
        found += [(each, before.get(each, ""), now.get(each, "")) for each in dict.fromkeys([*before, *now])]
    return [line for line in found if line[1] != line[2]]
