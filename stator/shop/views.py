"""Sign-in, and the shop's equipment."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from django import forms
from django.conf import settings
from django.contrib import messages
from django.core.exceptions import PermissionDenied
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.utils.functional import Promise
from django.utils.translation import gettext as _
from django.utils.translation import gettext_lazy, ngettext
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from shopmath.amounts import newtons
from stator.shop import forms as shelf_forms
from stator.shop.defaults import add_usual_tools, lacks_tools
from stator.shop.forms import ShopForm
from stator.shop.models import Person, Shop
from stator.ui.number_format import between, exact, format_for, show, size, thread
from stator.ui.times import day
from stator.ui.units import question_unit

NONE_YET = gettext_lazy("None yet.")


@dataclass(frozen=True)
class EquipmentPage:
    """One kind of equipment: its form, its words, and what the shop's page says of each thing."""

    form: type[forms.ModelForm]
    title: str | Promise
    one: str | Promise
    columns: tuple[tuple[str | Promise, Callable[[Any], str]], ...]
    none: str | Promise = NONE_YET

    def lines(self) -> list[tuple[Any, list[str]]]:
        """Return each piece of equipment with the text of its columns."""
        return [(thing, [say(thing) for _, say in self.columns]) for thing in self.form._meta.model.objects.filter(from_file="")]


def _unless_unknown(value: float | None, kind: str) -> str:
    return show(exact(value, kind)) if value is not None else str(_("unknown"))


def _ring(driver: Any) -> str:
    outside = size(driver.outside_mm)
    return f"{outside}, {size(driver.inside_mm)}" if driver.inside_mm else str(_("{outside}, solid").format(outside=outside))


def _thicknesses(sizes_mm: Sequence[float]) -> str:
    unit = question_unit("length", 0.0)
    return f"{' '.join(format_for(each, 'length', unit, exact(each).resolution) for each in sizes_mm)} {unit.name}"


def _kind(thing: Any) -> str:
    return str(thing.get_kind_display())


def _minutes(seconds: float | None) -> str:
    if seconds is None:
        return str(_("unknown"))
    if seconds < 7200:
        return str(_("{count} min").format(count=round(seconds / 60)))
    return str(_("{count} h").format(count=round(seconds / 3600)))


SHELVES: dict[str, EquipmentPage] = {
    "heaters": EquipmentPage(
        shelf_forms.HeaterForm,
        gettext_lazy("What heats"),
        gettext_lazy("a heater"),
        (
            (
                gettext_lazy("Kind"),
                lambda it: it.get_method_display() + (_(", fan") if it.fan else "") + (_(", cooks food") if it.cooks_food else ""),
            ),
            (gettext_lazy("Up to"), lambda it: _unless_unknown(it.highest_c, "temperature")),
        ),
    ),
    "chillers": EquipmentPage(
        shelf_forms.ChillerForm,
        gettext_lazy("What chills"),
        gettext_lazy("a chiller"),
        (
            (gettext_lazy("Kind"), lambda it: it.get_method_display()),
            (gettext_lazy("Inside"), lambda it: show(exact(it.temperature_c, "temperature"))),
        ),
    ),
    "gauges": EquipmentPage(
        shelf_forms.GaugeForm,
        gettext_lazy("Gauges"),
        gettext_lazy("a gauge"),
        (
            (gettext_lazy("Kind"), _kind),
            (gettext_lazy("Resolves"), lambda it: it.step_shown),
            (gettext_lazy("Connected"), lambda it: it.port or _("typed")),
            (gettext_lazy("Last checked"), lambda it: day(it.last_checked) if it.last_checked else _("unknown")),
        ),
    ),
    "pullers": EquipmentPage(
        shelf_forms.PullerForm,
        gettext_lazy("Flywheel pullers"),
        gettext_lazy("a puller"),
        (
            (gettext_lazy("Thread"), lambda it: thread(it.thread_mm, it.pitch_mm)),
            (gettext_lazy("Hand"), lambda it: it.get_hand_display()),
            (gettext_lazy("Centre screw"), lambda it: thread(it.screw_mm, it.screw_pitch_mm)),
        ),
        gettext_lazy("None yet; Flywheel off measures the one in your hand."),
    ),
    "splitters": EquipmentPage(
        shelf_forms.SplitterForm,
        gettext_lazy("Case splitters"),
        gettext_lazy("a splitter"),
        (
            (gettext_lazy("Screws"), lambda it: f"{it.screws} of {thread(it.thread_mm, it.pitch_mm)}"),
            (gettext_lazy("Push screw"), lambda it: _("{pitch} a turn").format(pitch=size(it.push_pitch_mm))),
        ),
        gettext_lazy("None yet; Split measures the one in your hand."),
    ),
    "drivers": EquipmentPage(
        shelf_forms.DriverForm,
        gettext_lazy("Drivers, sockets, old rings"),
        gettext_lazy("a driver"),
        (
            (gettext_lazy("Kind"), _kind),
            (gettext_lazy("Outside, inside"), lambda it: _ring(it)),
        ),
        gettext_lazy("None yet. Bearings out shows the window and then finds the one that fits."),
    ),
    "extractors": EquipmentPage(
        shelf_forms.ExtractorForm,
        gettext_lazy("Bearing pullers"),
        gettext_lazy("a bearing puller"),
        ((gettext_lazy("Kind"), _kind), (gettext_lazy("Takes"), lambda it: between(exact(it.low_mm), exact(it.high_mm)))),
    ),
    "pull-in": EquipmentPage(
        shelf_forms.PullInForm,
        gettext_lazy("Crank pull-in tools"),
        gettext_lazy("a pull-in tool"),
        (
            (gettext_lazy("Adapter"), lambda it: thread(it.thread_mm, it.thread_pitch_mm)),
            (gettext_lazy("Pulls"), lambda it: _("{pitch} a turn").format(pitch=size(it.pitch_mm))),
        ),
    ),
    "presses": EquipmentPage(
        shelf_forms.PressForm,
        gettext_lazy("Presses"),
        gettext_lazy("a press"),
        (
            (gettext_lazy("Capacity"), lambda it: it.capacity_text),
            (gettext_lazy("which is"), lambda it: show(newtons(it.capacity_n, 1000.0))),
        ),
    ),
    "blades": EquipmentPage(
        shelf_forms.BladesForm,
        gettext_lazy("Shims and feelers"),
        gettext_lazy("a set"),
        ((gettext_lazy("Kind"), _kind), (gettext_lazy("Thicknesses"), lambda it: _thicknesses(it.sizes_mm))),
    ),
    "compounds": EquipmentPage(
        shelf_forms.CompoundForm,
        gettext_lazy("Compounds and sealants"),
        gettext_lazy("a compound"),
        (
            (gettext_lazy("Kind"), _kind),
            (gettext_lazy("Open time"), lambda it: _minutes(it.open_s)),
            (gettext_lazy("Cured in"), lambda it: _minutes(it.cure_s)),
        ),
    ),
}
PAGES = {
    "shop": (("heaters", "chillers", "gauges"), ("blades", "compounds")),
    "tools": (("pullers", "splitters", "pull-in", "presses"), ("drivers", "extractors")),
}


def owner_only(request: HttpRequest) -> None:
    if not getattr(request.user, "is_owner", False):
        raise PermissionDenied(_("The shop's figures are changed by its owner. Ask for it, or sign in as owner."))


def _columns(page: str) -> list[list[tuple[str, EquipmentPage]]]:
    """Return the equipment lists of a page."""
    return [[(key, SHELVES[key]) for key in keys] for keys in PAGES[page]]


@require_http_methods(["GET", "POST"])
def shop(request: HttpRequest) -> HttpResponse:
    """Show people, settings and equipment of the shop; the owner may change them."""
    current = Shop.current()
    form = ShopForm(request.POST, instance=current) if request.method == "POST" else None
    if form:
        owner_only(request)
        if form.is_valid():
            form.save()
            return redirect("shop")
    people = Person.objects.filter(is_active=True).order_by("username")
    data = {
        "shop": current,
        "form": form or ShopForm(instance=current),
        "columns": _columns("shop"),
        "people": people,
        **backups(),
    }
    return render(request, "shop/shop.html", data)


def backups() -> dict[str, Any]:
    """Return how the daily backups are doing: the last one, how many, where."""
    folder = Path(settings.BACKUPS)
    found = sorted(folder.glob("stator-*.zip")) if folder.is_dir() else []
    last = max((datetime.fromtimestamp(path.stat().st_mtime, UTC) for path in found), default=None)
    late = last is None or timezone.now() - last > timedelta(hours=30)
    return {"backups": {"folder": folder, "count": len(found), "kept": settings.BACKUPS_KEPT, "last": last, "late": late}}


@require_GET
def tools(request: HttpRequest) -> HttpResponse:
    """Pullers, splitters, presses, drivers."""
    return render(request, "shop/tools.html", {"columns": _columns("tools"), "lacks_tools": lacks_tools()})


@require_POST
def usual_tools(request: HttpRequest) -> HttpResponse:
    """Add the usual tools of such a shop."""
    owner_only(request)
    count = add_usual_tools()
    messages.success(request, ngettext("{count} tool was added.", "{count} tools were added.", count).format(count=count))
    return redirect("tools")


@require_http_methods(["GET", "POST"])
def equipment(request: HttpRequest, shelf: str, pk: int | None = None) -> HttpResponse:
    """Add or change one piece of equipment."""
    if shelf not in SHELVES:
        raise Http404
    owner_only(request)
    kind, title = SHELVES[shelf].form, SHELVES[shelf].title
    instance = get_object_or_404(kind._meta.model, pk=pk) if pk else None
    form = kind(request.POST or None, instance=instance)
    if request.method == "POST" and form.is_valid():
        saved = form.save()
        if "another" in request.POST:
            messages.success(request, _("{name} was added.").format(name=saved.name))
            return redirect("equipment-new", shelf=shelf)
        return redirect("tools" if shelf in sum(PAGES["tools"], ()) else "shop")
    return render(request, "shop/form.html", {"form": form, "title": title, "thing": instance, "shelf": shelf})
