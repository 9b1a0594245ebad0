"""Middleware that requires sign-in on every page and reports failures of the computer."""

from __future__ import annotations

import logging
from collections.abc import Callable

from django.contrib.auth.views import redirect_to_login
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone, translation
from django.utils.cache import patch_vary_headers
from django.utils.html import format_html
from django.utils.translation import gettext_lazy

from stator.shop.models import Shop
from stator.ui.partial_request import is_partial
from stator.ui.server_errors import page_of, render_server_error
from stator.ui.units import reading_in

OPEN_NAMES = {
    *("sign-in", "sign-out", "alive", "worker", "offline", "manifest", "certificate"),
    *("owner-sheet", "owner-pdf", "owner-photo", "owner-drawing", "owner-making", "owner-made"),
}
OWN_PASSWORD = {"password", "sign-out"}
POLICY = "accelerometer=(), camera=(), display-capture=(), geolocation=(), gyroscope=(), microphone=(), payment=(), usb=()"
GONE = gettext_lazy("Not kept: this is not here any more. It was finished or taken away meanwhile, perhaps on another device.")
LOG = logging.getLogger(__name__)


def wants_part(request: HttpRequest) -> bool:
    """Return True if a script waits for a part of a page."""
    return bool(is_partial(request) or request.headers.get("X-Partial"))


def beside_field(response: HttpResponse) -> HttpResponse:
    """Return a message for the reading bar, so that nothing typed is lost."""
    response["HX-Retarget"] = "#strip-words"
    response["HX-Reswap"] = "innerHTML"
    response["X-Kept"] = "no"
    return response


class ReaderMiddleware:
    """Set the units, the language and the time zone of a request from the person, the shop and the browser."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        shop, person = Shop.current(), request.user
        language = getattr(person, "language", "") or translation.get_language_from_request(request)
        units = getattr(person, "units", "") or shop.units
        with shop.for_this_page(), reading_in(units), timezone.override(shop.zone), translation.override(language):
            response = self.get_response(request)
            response.headers.setdefault("Content-Language", translation.get_language() or "")
            patch_vary_headers(response, ("Accept-Language",))
            return response


class SignedInMiddleware:
    """Redirect people who are not signed in; a partial request gets a message next to its field, so that nothing typed is lost."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        response.headers.setdefault("Permissions-Policy", POLICY)
        if response.get("Content-Type", "").startswith("text/html") and request.user.is_authenticated:
            response.headers.setdefault("Cache-Control", "no-store")  # Back asks again: no page with spent keys
        return response

    def process_view(self, request: HttpRequest, view: object, args: object, kwargs: object) -> HttpResponse | None:
        name = request.resolver_match.url_name if request.resolver_match else None
        if name in OPEN_NAMES:
            return None
        if request.user.is_authenticated:
            if getattr(request.user, "must_change", False) and name not in OWN_PASSWORD:
                return redirect("password")
            return None
        if wants_part(request):
            page = request.headers.get("HX-Current-URL", "")
            return beside_field(render(request, "shop/signed_out.html", {"back_to": page}, status=401))
        return redirect_to_login(request.get_full_path())

    def process_exception(self, request: HttpRequest, exception: Exception) -> HttpResponse | None:
        """Report a full disk, a folder without write permission, a damaged database or a missing file with what to do."""
        if isinstance(exception, Http404) and request.method == "POST" and wants_part(request):
            return beside_field(HttpResponse(format_html('<p role="alert">{}</p>', GONE), status=404))
        found = render_server_error(exception)
        if found is None:
            return None
        status, words = found
        LOG.error("%s %s: %s (%s)", request.method, request.resolver_match.url_name if request.resolver_match else "", words, exception)
        if wants_part(request):
            return beside_field(HttpResponse(f'<p role="alert">{words}</p>', status=status))
        return page_of(status, words)
