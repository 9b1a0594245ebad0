"""Pages of the engine card, of a job or an engine template.

Each part has a small form of its own; marks are added by tapping on the mating surface.
"""

from __future__ import annotations

import secrets
from functools import partial
from typing import Any

from django.contrib import messages
from django.core.exceptions import PermissionDenied
from django.core.files.base import ContentFile
from django.db.models import ProtectedError
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.utils.translation import gettext_lazy
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from shopmath.validation import BadInput
from stator.engines.card_copy import reusable, save_as_template
from stator.engines.card_loader import load_card
from stator.engines.case import joined_anew, joints_of, keeps
from stator.engines.models import CasePart, EngineCard, Joint, Mark, Seat
from stator.engines.parts import JOINT
from stator.jobs.idempotency import idempotent, link_request_to_job, sent
from stator.jobs.models import Entry, Job
from stator.jobs.permissions import JobClosed, changeable_card, job_of, visible_card
from stator.jobs.photos import LARGEST_BYTES, clean
from stator.stations.common.face import seats_at
from stator.stations.framework.messages import Sentence
from stator.ui.fields import QuantityField
from stator.ui.number_format import listed
from stator.ui.partial_request import is_partial
from stator.ui.units import Units, core_per_shown, units_now
from stator.ui.url_values import row_number
from stator.workbench.check_in.card_forms import FactsForm, FittedForm, FlywheelForm, MarkForm, SealForm
from stator.workbench.check_in.case_forms import CasePartForm, JointForm
from stator.workbench.check_in.drawing import DESK, PHONE, Paper, draw_card_face, face_of
from stator.workbench.check_in.forms import SeatForm
from stator.workbench.check_in.limit_form import SpecForm

TYPED_BESIDE = {"pitch": "pitch_mm", "length": "length_mm", "torque": "torque_nm", "place": "x_mm"}  # of the next mark, beside the face
REMOVABLE = {"seat": "seats", "seal": "seals", "fitted": "fitted", "spec": "specs", "mark": "marks", "case": "case_parts"}
CHANGEABLE = {**REMOVABLE, "joint": "joints"}  # a joint goes with its part


def _home(card: EngineCard) -> HttpResponseRedirect:
    job = job_of(card)
    return HttpResponseRedirect(reverse("card", args=[job.tag]) if job else reverse("shelf-card", args=[card.pk]))


def card_to_change(request: HttpRequest, pk: int) -> EngineCard:
    """A card that may still be changed."""
    card = visible_card(pk, request.user)  # type: ignore[arg-type]
    try:
        link_request_to_job(request, changeable_card(card))
    except JobClosed as error:
        raise PermissionDenied(error.message) from error
    return card


def changed(card: EngineCard) -> None:
    job = job_of(card)
    if job:
        job.touch()
    elif card.on_shelf:
        EngineCard.objects.filter(pk=card.pk).update(version=card.version + 1)


PARTS: dict[str, tuple[Sentence, Sentence]] = {
    "facts": (gettext_lazy("The engine"), gettext_lazy("Keep the engine's facts")),
    "wheel": (gettext_lazy("Flywheel"), gettext_lazy("Keep the flywheel's figures")),
    "case": (gettext_lazy("A centre section, gearbox half or cover"), gettext_lazy("Put the part on the card")),
    "joint": (gettext_lazy("A joint"), gettext_lazy("Keep what is known of the joint")),
    "seat": (gettext_lazy("A seat"), gettext_lazy("Put it on the card")),
    "seal": (gettext_lazy("A seal"), gettext_lazy("Put the seal on the card")),
    "fitted": (gettext_lazy("A pin or bush"), gettext_lazy("Put the part on the card")),
    "spec": (gettext_lazy("A figure"), gettext_lazy("Put the figure on the card")),
}


def part_form(card: EngineCard, part: str, data: Any = None, editing: Any = None) -> Any:
    """The form of one part, of the thing on it that is being changed when there is one."""
    if part in ("facts", "wheel"):
        kind = FactsForm if part == "facts" else FlywheelForm
        return kind(data, instance=EngineCard.objects.get(pk=card.pk))
    kinds = {"seat": SeatForm, "seal": SealForm, "fitted": FittedForm, "spec": SpecForm, "case": CasePartForm, "joint": JointForm}
    return kinds[part](data, card=card, instance=editing)


def _editing(request: HttpRequest, card: EngineCard) -> tuple[str, Any]:
    """Return which part is meant, and the thing on it that is being changed."""
    source = request.POST if request.method == "POST" else request.GET
    part, number = source.get("part", "seat"), source.get("id", "")
    pk = row_number(number)
    if part in CHANGEABLE and pk is not None:
        return part, get_object_or_404(getattr(card, CHANGEABLE[part]), pk=pk)
    if part == "joint":
        raise Http404
    return part, None


def card_page(request: HttpRequest, card: EngineCard, job: Job | None) -> HttpResponse:
    """The whole card; a post changes one part of it."""
    part, editing = _editing(request, card)
    card = load_card(card) if request.method == "GET" else card
    seats = list(card.seats.all())
    if request.method == "GET" and "part" not in request.GET:
        part = "" if seats else "seat"
    form = part_form(card, part, request.POST or None, editing) if part in PARTS else None
    if request.method == "POST" and form is not None:
        card_to_change(request, card.pk)
        if form.is_valid():
            if part == "seat":
                form.instance.card = card
            form.save()
            changed(card)
            home = _home(card)
            return HttpResponseRedirect(f"{home.url}?part={part}#{part}-form") if "another" in request.POST else home
    shown = {
        **face_data(_joint(card, request.GET.get("joint")), paper=_paper(request)),
        "job": job,
        "form": form,
        "part": part,
        "parts": {key: title for key, (title, _keep) in PARTS.items()},
        "keep": PARTS[part][1] if part in PARTS else "",
        "editing": editing,
        "seats": seats,
        "seals": card.seals.select_related("seat"),
        "fitted": card.fitted.select_related("after"),
        "specs": card.specs.all(),
        "further": [each for each in card.case_parts.all() if each.what != CasePart.What.HALF],
        "found_otherwise": found_otherwise(job) if job else [],
        "closed": bool(job and job.is_closed),
        "unpictured": bool(job and not job.photos.exists()),
    }
    return render(request, "workbench/check_in/card.html", shown)


def found_otherwise(job: Job) -> list[dict[str, str]]:
    """Return what signed entries found that the card says otherwise."""
    signed = Entry.objects.filter(job=job, signed_at__isnull=False, superseded_by=None)
    return [line for lines in signed.values_list("result__contradicts", flat=True) for line in lines or []]


@require_GET
def cards(request: HttpRequest) -> HttpResponse:
    """Every engine known here, once."""
    return render(request, "workbench/check_in/cards.html", {"cards": reusable()})


@require_http_methods(["GET", "POST"])
@idempotent
def shelf_card(request: HttpRequest, pk: int) -> HttpResponse:
    found = visible_card(pk, request.user)  # type: ignore[arg-type]
    job = job_of(found)
    return redirect("card", tag=job.tag) if job else card_page(request, found, None)


@require_POST
@idempotent
def to_shelf(request: HttpRequest, pk: int) -> HttpResponse:
    """Save this card as an engine template."""
    found = visible_card(pk, request.user)  # type: ignore[arg-type]
    saved = save_as_template(found)
    messages.success(
        request,
        _("{name} is on the shelf, version {version}. The next one of its kind starts from it.").format(
            name=saved.name, version=saved.version
        ),
    )
    return _home(found)


@require_POST
@idempotent
def remove(request: HttpRequest, pk: int) -> HttpResponse:
    """Remove a seat, a seal or a limit from a card."""
    found = card_to_change(request, pk)
    _part, thing = _editing(request, found)
    if thing is None or _part not in REMOVABLE or (isinstance(thing, CasePart) and thing.what == CasePart.What.HALF):
        raise Http404
    saved = keeps(thing) if isinstance(thing, CasePart) else []
    if saved:
        text = _("{name} stays on the card as long as {things} are on it.")
        messages.error(request, text.format(name=thing.name, things=listed(saved)))
        return _home(found)
    if request.POST.get("sure") != "1":
        confirmation: dict[str, Any] = {
            "title": _("Take {name} off the card?").format(name=thing.name),
            "words": _("What the card says of it is gone then; it would have to be typed again."),
            "does": _("Take it off the card"),
            "back": _home(found).url,
            "fields": {"part": request.POST.get("part", ""), "id": thing.pk},
        }
        return render(request, "workbench/confirm.html", confirmation)
    try:
        thing.delete()
        if isinstance(thing, CasePart):
            joined_anew(found)
        changed(found)
    except ProtectedError:
        messages.error(request, _("{thing} stays: work on it is written in the log.").format(thing=thing))
    return _home(found)


# the face


def _paper(request: HttpRequest) -> Paper:
    return PHONE if request.COOKIES.get("paper") == "narrow" else DESK


def _joint(card: EngineCard, uid: str | None) -> Joint:
    """The joint whose face is shown: the one meant, else the first along the crank."""
    found = joints_of(card)
    return next((joint for joint in found if joint.uid == uid), None) or next(joint for joint in found if joint.is_first)


def face_data(
    joint: Joint, chosen: Mark | None = None, form: MarkForm | None = None, kept: Any = None, *, paper: Paper = DESK
) -> dict[str, Any]:
    """Return the data of the mating surface and its form; `kept` are the values of the last mark, offered for the next tap."""
    card = joint.card
    underlay = reverse("card-underlay-picture", args=[card.pk]) if card.underlay and joint.is_first else ""
    face = face_of(joint, paper)
    marks, seats = [mark for mark in card.marks.all() if mark.joint == joint.uid], seats_at(joint)
    last = next((mark for mark in reversed(marks) if mark.is_fastener), None)
    return {
        "card": card,
        "joint": joint,
        "joints": joints_of(card),
        "drawing": partial(draw_card_face, joint, marks, seats, chosen, underlay, paper),
        "face": {
            "scale": face.scale * core_per_shown("length"),
            "digits": 3 if units_now() == Units.INCH else 1,
            "x": face.middle[0],
            "y": face.middle[1],
        },
        "mark": chosen,
        "mark_form": form or MarkForm(card=card, instance=chosen),
        "wrong": form is not None and not form.is_valid(),
        "units": _units(),
        "whats": Mark.What.choices,
        "placing": (kept or {}).get("place", "bolt"),
        "next": {
            name: (kept or {}).get(f"mark-{name}", "") or _again(last, name) for name in ("d_mm", "pitch_mm", "length_mm", "torque_nm")
        },
        "marks": marks,
        "unplaced": seats,
    }


def _units() -> dict[str, str]:
    """Return the units of bare numbers in the form of the mating surface."""
    fields = {name: MarkForm.base_fields[field] for name, field in TYPED_BESIDE.items()}
    return {name: field.unit.name for name, field in fields.items() if isinstance(field, QuantityField)}


def _again(last: Mark | None, name: str) -> str:
    """Return what the fastener before had, as its reader would type it."""
    value = getattr(last, name, None)
    return str(MarkForm.base_fields[name].prepare_value(value)) if value else ""


@require_http_methods(["GET", "POST"])
@idempotent
def face(request: HttpRequest, pk: int) -> HttpResponse:
    """Change the mating surface: select, add, change or remove a mark, or move a seat."""
    card = card_to_change(request, pk) if request.method == "POST" else visible_card(pk, request.user)  # type: ignore[arg-type]
    card = load_card(card) if request.method == "GET" else card
    number = row_number((request.POST or request.GET).get("mark", ""))
    chosen = get_object_or_404(card.marks, pk=number) if number is not None else None
    meant = chosen.joint if chosen else (request.POST or request.GET).get("mark-joint")
    form: MarkForm | None = None
    taken: dict[str, Any] = {}
    if request.method == "POST" and chosen and request.POST.get("off") == "1":
        taken, chosen = _taken_off(chosen), None
        changed(card)
    elif request.method == "POST":
        form = _put(card, request, chosen)
        if form is None:
            chosen = None
            changed(card)
    shown = face_data(_joint(card, meant), chosen, form, request.POST or None, paper=_paper(request))
    shown["taken"] = taken
    if is_partial(request):
        response = render(request, "workbench/check_in/face.html", shown)
        response["X-Kept"] = "no" if form else "yes"
        return response
    home = _home(card)
    return HttpResponseRedirect(f"{home.url}?joint={meant}") if meant and meant != JOINT.uid else home


def _put(card: EngineCard, request: HttpRequest, chosen: Mark | None) -> MarkForm | None:
    """Put a new mark, change the chosen one, or move a seat to the place; its form when it was refused."""
    data, place = request.POST.dict(), request.POST.get("place", "")
    number = row_number(place.removeprefix("seat-")) if place.startswith("seat-") else None
    if number is not None:
        seat = get_object_or_404(card.seats, pk=number)
        form = MarkForm(
            {**data, "mark-what": Mark.What.GAP, "mark-name": _("place of {name}").format(name=seat.name)}, card=card
        )  # judged like a mark, not kept
        if form.is_valid():
            Seat.objects.filter(pk=seat.pk).update(x_mm=form.cleaned_data["x_mm"], y_mm=form.cleaned_data["y_mm"])
            return None
        return form
    if not chosen:
        data["mark-what"] = place or Mark.What.BOLT
    form = MarkForm(data, card=card, instance=chosen)
    if form.is_valid():
        form.save()
        return None
    return form


def _taken_off(mark: Mark) -> dict[str, Any]:
    """Take a mark off; what is needed to put it back."""
    names = [name for name in MarkForm.base_fields if getattr(mark, name) not in (None, "")]
    taken = {f"mark-{name}": getattr(mark, name) for name in names}
    mark.delete()
    return taken


@require_POST
def underlay(request: HttpRequest, pk: int) -> HttpResponse:
    """A picture of the case under the drawing of its face."""
    card_to_change(request, pk)
    upload = request.FILES.get("underlay")
    if upload is None:
        messages.error(request, _("No picture was chosen."))
        return _home(EngineCard(pk=pk))
    try:
        if (upload.size or 0) > LARGEST_BYTES:
            raise BadInput("underlay", _("That file is over 25 MB. Send a smaller picture."))
        photo, size = clean(upload.read(), 1400)
    except BadInput as error:
        messages.error(request, f"{upload.name}: {error.message}")
        return _home(EngineCard(pk=pk))
    with sent(request) as doing:
        card = visible_card(pk, request.user)  # type: ignore[arg-type]
        doing.job = changeable_card(card)
        if not doing.repeats:
            card.underlay.save(f"{secrets.token_urlsafe(12)}.jpg", ContentFile(photo), save=False)
            if card.face_assumed:  # until the face is measured, it takes the picture's shape
                card.face_h_mm = round(card.face_w_mm * size[1] / size[0], 1)
            card.save()
            changed(card)
    return _home(card)


@require_GET
def underlay_picture(request: HttpRequest, pk: int) -> HttpResponse:
    card = visible_card(pk, request.user)  # type: ignore[arg-type]
    if not card.underlay:
        raise Http404
    with card.underlay.open("rb") as file:
        return HttpResponse(file.read(), content_type="image/jpeg")
