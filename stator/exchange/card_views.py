"""Cards in and out of the shop as files."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import redirect
from django.utils.text import slugify
from django.utils.translation import gettext as _
from django.utils.translation import ngettext
from django.views.decorators.http import require_GET, require_POST

from shopmath.validation import BadInput
from stator.exchange.card_files import CSV_COLUMNS, card_as_csv, card_as_json, card_from_json, read_csv
from stator.jobs.idempotency import idempotent
from stator.jobs.permissions import visible_card
from stator.workbench.check_in.card_views import card_to_change, changed


def _named(response: HttpResponse, name: str) -> HttpResponse:
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response


@require_GET
def card_json(request: HttpRequest, pk: int) -> HttpResponse:
    card = visible_card(pk, request.user)  # type: ignore[arg-type]
    answer = JsonResponse(card_as_json(card), json_dumps_params={"indent": 2, "ensure_ascii": False})
    return _named(answer, f"card-{slugify(card.name)}.json")


@require_GET
def card_csv(request: HttpRequest, pk: int, what: str) -> HttpResponse:
    if what not in CSV_COLUMNS:
        raise Http404
    card = visible_card(pk, request.user)  # type: ignore[arg-type]
    return _named(HttpResponse(card_as_csv(card, what), content_type="text/csv; charset=utf-8"), f"{what}-{slugify(card.name)}.csv")


def _taken(request: HttpRequest, read: Callable[[bytes], Any]) -> Any:
    """Return what was read from the uploaded file; None with a message if it was refused."""
    upload = request.FILES.get("file")
    if upload is None:
        messages.error(request, _("No file was chosen."))
        return None
    try:
        return read(upload.read())
    except BadInput as error:
        messages.error(request, _("{name} was refused, nothing of it is kept. {reason}").format(name=upload.name, reason=error.message))
        return None


@require_POST
@idempotent
def card_json_in(request: HttpRequest) -> HttpResponse:
    card = _taken(request, card_from_json)
    if card is None:
        return redirect("cards")
    messages.success(request, _("{name} is on the shelf.").format(name=card.name))
    return redirect("shelf-card", pk=card.pk)


@require_POST
@idempotent
def card_csv_in(request: HttpRequest, pk: int) -> HttpResponse:
    card = card_to_change(request, pk)
    found = _taken(request, lambda data: read_csv(card, data))
    if found:
        changed(card)
        messages.success(
            request,
            (
                ngettext("{count} line read: figures.", "{count} lines read: figures.", found[1])
                if found[0] == "figures"
                else ngettext("{count} line read: the face.", "{count} lines read: the face.", found[1])
            ).format(count=found[1]),
        )
    return redirect("shelf-card", pk=card.pk)
