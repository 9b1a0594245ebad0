"""Responses to writes that a database trigger refused."""

from __future__ import annotations

import logging
from collections.abc import Callable

from django.db import IntegrityError
from django.db.models import ProtectedError
from django.http import HttpRequest, HttpResponse
from django.utils.html import format_html
from django.utils.translation import gettext_lazy as _

from stator.jobs import immutability, permissions
from stator.shop.middleware import beside_field, wants_part
from stator.ui.server_errors import page_of

WORDS = {
    immutability.SIGNED: _("This entry is signed and cannot be changed. Replace it with a new entry."),
    immutability.CLOSED: permissions.CLOSED,
    immutability.RECORDED: _("A signed entry names this photo, so the photo stays with it."),
    immutability.PRACTICE: _("Practice work cannot be signed."),
}
CONFLICT = _(
    "Nothing was saved: this does not fit what is saved, perhaps because another device changed it. Reload the page and try again."
)
LOG = logging.getLogger(__name__)


class RefusalMiddleware:
    """Return status 409 with a message for a write that the database refused; the transaction was rolled back."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        return self.get_response(request)

    def process_exception(self, request: HttpRequest, exception: Exception) -> HttpResponse | None:
        """Return the answer for a refusal; None for any other exception."""
        if not isinstance(exception, IntegrityError | ProtectedError):
            return None
        words = next((words for message, words in WORDS.items() if message in str(exception)), CONFLICT)
        LOG.warning("%s %s was refused by the database: %s", request.method, request.path, exception)
        if wants_part(request):
            return beside_field(HttpResponse(format_html('<p role="alert">{}</p>', words), status=409))
        return page_of(409, words)
