"""Equipment that the open jobs need and the shop lacks: drivers for bearings and seals, gauges, heaters, a splitter."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext as _
from django.utils.translation import gettext_lazy
from django.views.decorators.http import require_GET

from shopmath import drivers
from shopmath.amounts import mm
from stator.engines.fits import bearing_of
from stator.engines.models import Seat
from stator.jobs.models import Job, RunStation
from stator.shop.equipment_snapshot import EquipmentSnapshot, shelves
from stator.shop.models import Shop
from stator.ui.number_format import listed, show
from stator.workbench.registry import STATION_BY_KEY

GAUGES = {  # of a station, what it cannot go without
    "true": ("dial", gettext_lazy("A dial gauge")),
    "split": ("feeler", gettext_lazy("Feeler gauges")),
    "centre": ("feeler", gettext_lazy("Feeler gauges")),
    "inspect": ("bore", gettext_lazy("A bore gauge")),
}
MOST_NAMED = 3
OPEN = (RunStation.State.AHEAD, RunStation.State.NOW, RunStation.State.WAITS)


@dataclass(frozen=True)
class MissingItem:
    """A piece of missing equipment, its kind, and what it is for."""

    what: str
    shelf: str
    wanted: list[str]


def lacking(shelf: EquipmentSnapshot) -> list[MissingItem]:
    """Return each missing piece of equipment once, with every engine that needs it."""
    found: dict[tuple[str, str], list[str]] = defaultdict(list)
    jobs = Job.objects.filter(gone_at=None).select_related("card").prefetch_related("run", "card__seats", "card__seals")
    for job in jobs:
        ahead = {stage.key for stage in job.run.all() if stage.state in OPEN}
        for what, where, part in (*_tools(job, ahead, shelf), *_drivers(job, ahead, shelf)):
            found[what, where].append(f"{job.tag} {part}")
    return [MissingItem(what, where, needed) for (what, where), needed in found.items()]


def _tools(job: Job, ahead: set[str], shelf: EquipmentSnapshot) -> Iterator[tuple[str, str, str]]:
    have = {gauge.kind for gauge in shelf.gauges}
    for key, (kind, what) in GAUGES.items():
        if key in ahead and kind not in have:
            yield str(what), "gauges", str(STATION_BY_KEY[key].name)
    if "heat-and-drop" in ahead and not shelf.heaters:
        yield _("Something that heats a case"), "heaters", str(STATION_BY_KEY["heat-and-drop"].name)
    if "split" in ahead and not shelf.splitters:
        yield _("A case splitter"), "splitters", str(STATION_BY_KEY["split"].name)


def _drivers(job: Job, ahead: set[str], shelf: EquipmentSnapshot) -> Iterator[tuple[str, str, str]]:
    """Yield a driver for each part that is still to be fitted and that no driver of the shop fits."""
    parts: list[tuple[drivers.Window, str]] = []
    if "heat-and-drop" in ahead:
        for seat in job.card.seats.all():
            bearing = bearing_of(seat)
            if bearing:
                window = drivers.inner_ring(bearing) if seat.on == Seat.On.SHAFT else drivers.outer_ring(bearing)
                parts.append((window, f"{seat.name} ({bearing.designation})"))
    if "seals" in ahead:
        parts += [(drivers.seal(each.shaft_mm, each.bore_mm), each.name) for each in job.card.seals.all()]
    for window, name in parts:
        if any(not window.refusal(each.outside_mm, each.inside_mm) for each in shelf.drivers):
            continue
        outside = (show(mm(window.outside_low_mm, 0.1)), show(mm(window.outside_high_mm, 0.1)))
        inside = show(mm(window.inside_low_mm, 0.1))
        text = _("A driver of {low} to {high} across, its bore at least {inside}").format(low=outside[0], high=outside[1], inside=inside)
        yield text, "drivers", name


def _for(wanted: list[str]) -> str:
    """Return what it is needed for; if there are many, the first few."""
    left = len(wanted) - MOST_NAMED
    return listed(wanted if left < 2 else [*wanted[:MOST_NAMED], _("{count} more").format(count=left)])


@require_GET
def missing(request: HttpRequest) -> HttpResponse:
    """Return the list for the equipment pages, which request it after they are shown."""
    found = [(each, _for(each.wanted)) for each in lacking(shelves(Shop.current()))]
    return render(request, "workbench/missing_equipment.html", {"found": found})
