"""Gauges that proved to be faulty: from which day, why, and every entry that depends on their readings since."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from django import forms
from django.contrib import messages
from django.db.models import Count, Max, Min
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_http_methods

from stator.jobs.models import Entry, Reading
from stator.shop.models import Gauge
from stator.shop.views import owner_only
from stator.stations.framework.registry import station_name
from stator.ui.url_values import station_address


class FaultyGaugeForm(forms.ModelForm):
    class Meta:
        model = Gauge
        fields = ("wrong_from", "wrong_because")
        labels = {"wrong_from": _("Not to be trusted from"), "wrong_because": _("What is wrong with it")}
        widgets = {"wrong_from": forms.DateInput(attrs={"type": "date"})}
        help_texts = {"wrong_from": _("The day after it was last known to be right."), "wrong_because": _("reads 0.02 high, dropped")}

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        if not data.get("wrong_from") and "wrong_from" not in self.errors:
            self.add_error("wrong_from", _("Say from which day on its readings are not trusted."))
        if not data.get("wrong_because"):
            self.add_error("wrong_because", _("Say what is wrong with it: it stands on every sheet that rests on it."))
        return data


@dataclass(frozen=True)
class AffectedEntry:
    """An entry that depends on a gauge."""

    entry: Entry
    station: str
    address: str
    readings: int
    first: Any
    last: Any


def rests_on(gauge: Gauge) -> list[AffectedEntry]:
    """Return valid entries with readings of a gauge: all, or those since it was faulty; the newest job first."""
    taken = Reading.objects.filter(gauge=gauge, withdrawn_at=None, entry__superseded_by=None, entry__job__practice=False)
    if gauge.wrong_from:
        taken = taken.filter(taken_at__date__gte=gauge.wrong_from)
    counted = taken.values("entry").annotate(readings=Count("pk"), first=Min("taken_at"), last=Max("taken_at"))
    by_entry = {row["entry"]: row for row in counted}
    entries = (
        Entry.objects.filter(pk__in=by_entry).select_related("job__card", "station", "seat").order_by("-job__number", "station__order")
    )
    return [_rests(entry, by_entry[entry.pk]) for entry in entries]


def _rests(entry: Entry, row: Mapping[str, Any]) -> AffectedEntry:
    address = station_address(entry.job.tag, entry.station.key, entry.seat_id)
    return AffectedEntry(entry, station_name(entry.station.key), address, row["readings"], row["first"], row["last"])


@require_http_methods(["GET", "POST"])
def found_wrong(request: HttpRequest, pk: int) -> HttpResponse:
    """Show what depends on a gauge; an owner of the shop records that it is faulty, or correct again."""
    gauge = get_object_or_404(Gauge, pk=pk)
    form = FaultyGaugeForm(request.POST or None, instance=gauge)
    if request.method == "POST":
        owner_only(request)
        if "right" in request.POST:
            gauge.wrong_from, gauge.wrong_because = None, ""
            gauge.save()
            messages.success(request, _("{gauge} is trusted again.").format(gauge=gauge.name))
            return redirect("gauge-rests", pk=pk)
        if form.is_valid():
            form.save()
            messages.success(request, _("What {gauge} read since is marked wherever it is shown.").format(gauge=gauge.name))
            return redirect("gauge-rests", pk=pk)
        gauge.refresh_from_db()
    return render(request, "workbench/gauge_impact.html", {"gauge": gauge, "form": form, "lines": rests_on(gauge)})
