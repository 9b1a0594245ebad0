"""Quick checks: a question, its answer as one types, a link to both, and the job that it may become.

Nothing is stored before that.
"""

from __future__ import annotations

import uuid
from typing import Any
from urllib.parse import urlencode

from django import forms
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET, require_POST

from shopmath.validation import BadInput
from stator.jobs.idempotency import idempotent, link_request_to_job
from stator.quick_checks.base import Answer, CheckContext, CheckForm, QuickCheck
from stator.quick_checks.create_job import job_from
from stator.quick_checks.registry import BY_KEY, CHECKS
from stator.shop.models import Shop
from stator.stations.framework import RenderedVerdict, State
from stator.ui.fields import QuantityField
from stator.ui.partial_request import is_partial
from stator.ui.units import Units, reading_in, units_now
from stator.ui.url_values import station_address

UNITS = "u"  # of the bare numbers in an address


def _check(key: str) -> QuickCheck:
    if key not in BY_KEY:
        raise Http404
    return BY_KEY[key]


def _bound(check: QuickCheck, data: Any) -> CheckForm:
    """Return the form with the values of an address; missing choices have their defaults."""
    found = data.copy()
    for name, field in check.form.base_fields.items():
        if isinstance(field, forms.ChoiceField) and name not in found:
            first = field.choices[0][0] if field.choices else ""  # type: ignore[index]
            found[name] = str(field.initial if field.initial is not None else first)
    return check.form(found)


def _asked(check: QuickCheck, request: HttpRequest) -> bool:
    """Return True if anything was typed."""
    chips = check.form.chips
    plain = [name for name, field in check.form.base_fields.items() if name not in chips and not isinstance(field, forms.ChoiceField)]
    return any(request.GET.get(name, "").strip() for name in plain)


def _waiting(headline: str, line: str) -> RenderedVerdict:
    return RenderedVerdict(State.WAIT, headline, line, "")


def answered(check: QuickCheck, form: CheckForm, desk: CheckContext) -> Answer:
    """Return the answer, or what the form still needs."""
    if form.is_valid():
        try:
            return check.answer(form.cleaned_data, desk)
        except BadInput as error:
            return Answer(_waiting(_("Cannot be worked out"), error.message))
    named, errors = next(iter(form.errors.items()))
    name = next((each for each in form.fields if each in form.errors), named)
    label = str(form.fields[name].label or "") if name in form.fields else ""
    empty = not str(form.data.get(name, "")).strip()
    return Answer(_waiting(label, str(check.begin) if empty else str(form.errors[name][0] if name in form.errors else errors[0])))


def _turned(check: QuickCheck, request: HttpRequest) -> str:
    """Return the same address with bare numbers in the reader's units; empty if they are already."""
    units = request.GET.get(UNITS, "")
    if units not in (Units.METRIC, Units.INCH) or units == units_now() or units_now() == Units.TYPED:
        return ""
    saved = request.GET.dict()
    for name, field in check.form.base_fields.items():
        if not isinstance(field, QuantityField) or not saved.get(name, "").strip():
            continue
        with reading_in(units):
            try:
                value = field.clean(saved[name])
            except forms.ValidationError:
                continue
        saved[name] = str(field.prepare_value(value))
    return f"{request.path}?{urlencode({**saved, UNITS: units_now()})}"


@require_GET
def first(request: HttpRequest) -> HttpResponse:
    return redirect("check", key=CHECKS[0].key)


@require_GET
def check(request: HttpRequest, key: str) -> HttpResponse:
    """Show one check: its form and its answer, or only the answer if a script requests it."""
    found = _check(key)
    turned = "" if is_partial(request) else _turned(found, request)
    if turned:
        return redirect(turned)
    desk = CheckContext.here()
    asked = _asked(found, request)
    form = _bound(found, request.GET) if asked else found.form()
    answer = answered(found, form, desk) if asked else Answer(_waiting(str(found.question), str(found.begin)))
    shown = {name: errors for name, errors in form.errors.items() if asked and str(form.data.get(name, "")).strip()}
    data: dict[str, Any] = {
        "check": found,
        "checks": CHECKS,
        "form": form,
        "answer": answer,
        "plate": answer.call,
        "asked": asked,
        "errors": shown,
        "units": units_now() if units_now() != Units.TYPED else Units.METRIC,
        "example": f"?{urlencode(found.example)}",
        "becomes_job": bool(found.known) and asked and form.is_valid(),
        "inputs": [(name, value) for name, value in request.GET.items() if value],
        "link": Shop.current().address_of(request, request.get_full_path()),
    }
    return render(request, "quick_checks/answer.html" if is_partial(request) else "quick_checks/check.html", data)


@require_POST
@idempotent
def make_job(request: HttpRequest, key: str) -> HttpResponse:
    """Check in an engine with the inputs of the check."""
    found = _check(key)
    form = _bound(found, request.POST)
    name, complaint = (request.POST.get(each, "").strip()[:highest] for each, highest in (("engine", 60), ("complaint", 200)))
    if found.known is None or not form.is_valid() or not name or not complaint:
        raise Http404
    job, seat, station = job_from(found, form, name, complaint, request.user, str(request.POST.get("client_key") or uuid.uuid4().hex))  # type: ignore[arg-type]
    link_request_to_job(request, job)
    return redirect(station_address(job.tag, station, seat.pk if seat else None))
