"""Error pages."""

from __future__ import annotations

import sys

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.translation import gettext as _

from stator.ui.server_errors import page_of, render_server_error


def _plain(request: HttpRequest, status: int, title: str, words: str) -> HttpResponse:
    return render(request, "ui/plain.html", {"title": title, "words": words}, status=status)


def not_found(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    return _plain(
        request, 404, _("Not here"), _("There is no such page. The link may be old: the job, seat or entry it named is not in this shop.")
    )


def refused(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    return _plain(request, 403, _("Not for this sign-in"), str(exception or "") or _("This needs the owner's sign-in."))


def not_understood(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    return _plain(request, 400, _("Not understood"), _("No page of Stator's sends that. Go back and send it from the page."))


def stale_form(request: HttpRequest, reason: str = "") -> HttpResponse:
    words = _("This page was open for too long, or you signed in again elsewhere. Go back, load it again, and send it once more.")
    return _plain(request, 403, _("The page is out of date"), words)


def broken(request: HttpRequest) -> HttpResponse:
    error = sys.exc_info()[1]
    found = render_server_error(error) if error else None
    if found:
        return page_of(*found)
    return _plain(
        request,
        500,
        _("Stator broke"),
        _("That was our fault, not yours. What was signed and every reading kept is safe; go back and try once more."),
    )
