"""The parts tray: its places, one place as its label opens it on a phone, and the labels to print."""

from __future__ import annotations

from functools import lru_cache

import segno
from django import forms
from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.safestring import SafeString, mark_safe
from django.utils.translation import gettext as _
from django.utils.translation import gettext_lazy
from django.views.decorators.http import require_GET, require_http_methods

from shopmath.validation import BadInput
from stator.engines.case import case_choices
from stator.engines.models import EngineCard
from stator.jobs import clock
from stator.jobs.idempotency import IdempotentRequest, idempotent, link_request_to_job, new_key
from stator.jobs.models import Job, TrayPlace
from stator.jobs.permissions import require_open_job
from stator.jobs.photos import add_photo
from stator.jobs.tray import add_to_tray
from stator.shop.models import Shop
from stator.ui.plain_text import PlainTextMixin
from stator.ui.url_values import job_number


class PlaceForm(PlainTextMixin, forms.ModelForm):
    class Meta:
        model = TrayPlace
        fields = ("name", "count", "where_from", "half", "way_round", "wear")
        labels = {
            "name": gettext_lazy("What lies here"),
            "count": gettext_lazy("How many"),
            "where_from": gettext_lazy("From which shaft or place"),
            "half": gettext_lazy("Found on the"),
        }
        help_texts = {
            "way_round": gettext_lazy("marked side out, chamfer inward"),
            "where_from": gettext_lazy("gearbox output, 2nd from the case"),
        }

    def __init__(self, *args: object, card: EngineCard, **kwargs: object) -> None:
        super().__init__(*args, **kwargs)
        halves = [("", _("neither, or unknown")), *case_choices(card)]
        self.fields["half"] = forms.ChoiceField(choices=halves, required=False, label=_("Found on the"))
        self.fields["count"].required = False

    def clean_count(self) -> int:
        count = self.cleaned_data.get("count")
        count = 1 if count is None else count
        if not 1 <= count <= 200:
            raise forms.ValidationError(_("A place holds 1 to 200 pieces; {count} was understood.").format(count=count))
        return int(count)


def _job(tag: str) -> Job:
    return get_object_or_404(Job.objects.select_related("card"), number=job_number(tag))


def code(request: HttpRequest, place: TrayPlace) -> SafeString:
    """The QR code that opens a place on a phone."""
    return _drawn(Shop.current().address_of(request, reverse("tray-place", args=[place.job.tag, place.number])))


@lru_cache(maxsize=512)
def _drawn(address: str) -> SafeString:
    drawn = segno.make(address, error="m", micro=False).svg_inline(scale=3, border=2, omitsize=True, svgclass="qr", lineclass=None)
    return mark_safe(drawn)  # noqa: S308  drawn by segno from our own address


@require_http_methods(["GET", "POST"])
@idempotent
def tray(request: HttpRequest, tag: str) -> HttpResponse:
    """The whole tray in order; lay a part into the next place."""
    job = _job(tag)
    form = PlaceForm(request.POST or None, card=job.card)
    if request.method == "POST":
        link_request_to_job(request, require_open_job(job))
        if form.is_valid():
            doing: IdempotentRequest = request.act  # type: ignore[attr-defined]
            laid = add_to_tray(job, request.user, new_key(), **form.cleaned_data)  # type: ignore[arg-type]
            doing.outcome["did"] = _("laid {name} in place {number}").format(name=laid.name, number=laid.number)
            if doing.corrects:  # the same form came again, filled in otherwise
                before = doing.corrects.outcome.get("did", "")
                messages.info(
                    request,
                    _("That form had {before} already. {name} lies in place {number}.").format(
                        before=before, name=laid.name, number=laid.number
                    ),
                )
            return redirect("tray", tag=job.tag)
    data = {"job": job, "places": job.tray.select_related("photo"), "form": form}
    return render(request, "workbench/tray.html", data)


@require_http_methods(["GET", "POST"])
@idempotent
def place(request: HttpRequest, tag: str, number: int) -> HttpResponse:
    """Change one tray position: the part, its photo, and whether it was taken back."""
    job = _job(tag)
    found = get_object_or_404(job.tray.select_related("photo"), number=number)
    found.job = job
    act = request.POST.get("act", "")
    form = PlaceForm(request.POST if act == "keep" else None, card=job.card, instance=found)
    error = ""
    if request.method == "POST":
        link_request_to_job(request, require_open_job(job))
        if act == "empty":
            TrayPlace.objects.filter(pk=found.pk).update(emptied_at=None if found.emptied_at else clock.now(job))
            job.touch()
        elif act == "photo":
            upload = request.FILES.get("photo")
            try:
                if upload is None:
                    raise BadInput("photo", _("No picture was chosen."))
                found.photo = add_photo(job, found.station, upload, f"Tray {found.number}: {found.name}", request.user)  # type: ignore[arg-type]
                found.save(update_fields=["photo"])
            except BadInput as refused:
                error = refused.message
        elif act == "gone":
            if request.POST.get("sure") != "1":
                confirmation = {
                    "title": _("Place {number}: nothing there?").format(number=number),
                    "words": _("{name} leaves the tray for good; the other places keep their numbers.").format(name=found.name),
                    "does": _("Take the place away"),
                    "back": reverse("tray-place", args=[job.tag, number]),
                    "fields": {"act": "gone"},
                }
                return render(request, "workbench/confirm.html", confirmation)
            found.delete()
            job.touch()
            return redirect("tray", tag=job.tag)
        elif act == "keep" and form.is_valid():
            form.save()
            job.touch()
        if not error and not form.errors:
            return redirect("tray-place", tag=job.tag, number=number)
    last = job.tray.order_by("-number").values_list("number", flat=True).first() or number
    data = {"job": job, "place": found, "form": form, "error": error, "before": number - 1, "after": number + 1 if number < last else 0}
    return render(request, "workbench/tray_position.html", data)


@require_GET
def labels(request: HttpRequest, tag: str) -> HttpResponse:
    """A sheet of labels to cut out, one a place."""
    job = _job(tag)
    places = list(job.tray.all())
    for each in places:
        each.job = job
    return render(request, "workbench/tray_labels.html", {"job": job, "labels": [(each, code(request, each)) for each in places]})
