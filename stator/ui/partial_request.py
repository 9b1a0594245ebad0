"""Detection of requests for a part of a page."""

from __future__ import annotations

from django.http import HttpRequest
from django_htmx.middleware import HtmxDetails


def is_partial(request: HttpRequest) -> bool:
    """Return True if a script swaps in what is answered."""
    asked: HtmxDetails | None = getattr(request, "htmx", None)
    return bool(asked)
