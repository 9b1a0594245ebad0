"""The photos of a job, and the pins on one of them."""

from __future__ import annotations

from django.contrib import messages
from django.db import transaction
from django.db.models import Max
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.safestring import SafeString
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET, require_http_methods

from stator.jobs.idempotency import idempotent, link_request_to_job
from stator.jobs.models import Job, Photo, Pin
from stator.jobs.permissions import hide_practice_of_others, require_open_job
from stator.jobs.photos import named_by, parts_of
from stator.ui.svg import Sheet
from stator.ui.url_values import job_number, row_number
from stator.workbench.registry import STATION_BY_KEY


def pinned(photo: Photo, wide: float = 760.0) -> SafeString:
    """A photo with its pins on it, as a drawing of its own shape."""
    high = wide * photo.height / max(photo.width, 1)
    pins = list(photo.pins.all())
    text = "; ".join(f"{pin.number}: {pin.note}" for pin in pins) or "no pins"
    sheet = Sheet(wide, high, photo.caption or "Photo", text, f"photo{photo.pk}")
    sheet.add("image", href=f"/photos/{photo.pk}/full.jpg", x=0.0, y=0.0, width=wide, height=high)
    for pin in pins:
        at = (pin.x * wide, pin.y * high)
        sheet.circle(at, 24, "pin")
        sheet.text((at[0], at[1] + 9), str(pin.number), "pin-number", "middle")
    return sheet.render()


def _job(tag: str) -> Job:
    return get_object_or_404(Job.objects.select_related("card"), number=job_number(tag))


@require_GET
def photos(request: HttpRequest, tag: str) -> HttpResponse:
    """Every picture of a job, by station, and more of them."""
    job = _job(tag)
    run = [stage for stage in job.run.all() if stage.key in STATION_BY_KEY]
    names = {stage.pk: STATION_BY_KEY[stage.key].name for stage in run}
    taken = list(job.photos.select_related("subject").prefetch_related("pins"))
    groups = [(names[stage.pk], [photo for photo in taken if photo.station_id == stage.pk]) for stage in run]
    groups.append((_("Of no station"), [photo for photo in taken if photo.station_id not in names]))
    here = request.GET.get("station", "")
    data = {
        "job": job,
        "groups": [(name, found) for name, found in groups if found],
        "stages": [(stage.key, names[stage.pk]) for stage in run],
        "parts": parts_of(job.card),
        "here": here if here in {stage.key for stage in run} else "book-in",
    }
    return render(request, "workbench/photos.html", data)


@require_http_methods(["GET", "POST"])
@idempotent
def photo_page(request: HttpRequest, pk: int) -> HttpResponse:
    """Show one photo; a tap adds a marker with a note."""
    photo = get_object_or_404(Photo.objects.select_related("job__card", "station", "subject").prefetch_related("pins"), pk=pk)
    hide_practice_of_others(photo.job, request.user)  # type: ignore[arg-type]
    error, typed = "", {"note": "", "x": "", "y": ""}
    if request.method == "POST":
        link_request_to_job(request, require_open_job(photo.job))
        off = row_number(request.POST.get("off", ""))
        if off is not None:
            photo.pins.filter(number=off).delete()
            photo.job.touch()
            return redirect("photo-page", pk=pk)
        typed = {name: request.POST.get(name, "").strip() for name in typed}
        error = _pin(photo, request, typed)
        if not error:
            return redirect("photo-page", pk=pk)
    data = {
        "photo": photo,
        "job": photo.job,
        "picture": pinned(photo),
        "station": STATION_BY_KEY[photo.station.key].name if photo.station and photo.station.key in STATION_BY_KEY else "",
        "kept_with": kept_with(photo),
        "beside": beside(photo),
        "error": error,
        "typed": typed,
    }
    return render(request, "workbench/photo.html", data)


def _pin(photo: Photo, request: HttpRequest, typed: dict[str, str]) -> str:
    """Stick one pin; the reason when it cannot be."""
    try:
        x, y = float(typed["x"][:40]), float(typed["y"][:40])
    except ValueError:
        return _("Tap the place on the picture, or give it as shares of its width and height, 0 to 1.")
    if not (0 <= x <= 1 and 0 <= y <= 1):
        return _("That place is off the picture: shares run from 0 to 1.")
    if not typed["note"]:
        return _("Say what is there: washer stuck here.")
    with transaction.atomic():
        last = photo.pins.aggregate(last=Max("number"))["last"] or 0
        Pin.objects.create(photo=photo, number=last + 1, x=x, y=y, note=typed["note"][:160], by=request.user)  # type: ignore[misc]
        photo.job.touch()
    return ""


def beside(photo: Photo) -> list[Photo]:
    """Return photos to compare with: those of the same part, then others of the job, in the order they were taken."""
    others = Photo.objects.filter(job=photo.job_id).exclude(pk=photo.pk).select_related("station", "subject").order_by("taken_at", "pk")
    return sorted(others, key=lambda other: other.subject_id is None or other.subject_id != photo.subject_id)


@require_GET
def compared(request: HttpRequest, pk: int, other: int) -> HttpResponse:
    """Two pictures of a job side by side, the older first."""
    found = {each.pk: each for each in Photo.objects.filter(pk__in=(pk, other)).select_related("job__card", "station", "subject", "by")}
    if len(found) < 2 or found[pk].job_id != found[other].job_id:
        raise Http404
    pair = sorted(found.values(), key=lambda each: (each.taken_at, each.pk))
    taken = [
        (each, pinned(each), STATION_BY_KEY[each.station.key].name if each.station and each.station.key in STATION_BY_KEY else "")
        for each in pair
    ]
    return render(request, "workbench/compare_photos.html", {"job": pair[0].job, "pair": taken, "title": _("two photos")})


def kept_with(photo: Photo) -> str:
    """Return the signed entry that a photo belongs to, as text; empty while it can be deleted."""
    entry = named_by(photo)
    if entry is None:
        return ""
    name = str(STATION_BY_KEY[entry.station.key].name) if entry.station.key in STATION_BY_KEY else entry.station.key
    return f"{name}, {entry.seat.name}" if entry.seat else name


@require_http_methods(["POST"])
@idempotent
def photo_remove(request: HttpRequest, pk: int) -> HttpResponse:
    photo = get_object_or_404(Photo.objects.select_related("job"), pk=pk)
    hide_practice_of_others(photo.job, request.user)  # type: ignore[arg-type]
    link_request_to_job(request, require_open_job(photo.job))
    if saved := kept_with(photo):
        messages.error(request, _("The signed entry of {kept} names this picture: it is kept with it.").format(kept=saved))
        return redirect("photo-page", pk=pk)
    if request.POST.get("sure") != "1":
        words = _("The picture and its pins cannot be brought back.")
        return render(
            request,
            "workbench/confirm.html",
            {"title": _("Throw it away?"), "words": words, "does": _("Throw it away"), "back": f"/photos/{pk}/"},
        )
    photo.delete()
    photo.job.touch()
    messages.success(request, _("The picture is gone."))
    return redirect("photos", tag=photo.job.tag)
