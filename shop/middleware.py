"""Nobody works here unsigned."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse

OPEN_NAMES = {"sign-in", "sign-out", "alive", "owner-sheet", "owner-pdf", "owner-photo", "owner-making", "owner-made"}


class SignedInMiddleware:
    """Send the unsigned to the door; a partial request gets words beside its field instead, so that nothing typed is lost."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        if request.user.is_authenticated and response.get("Content-Type", "").startswith("text/html"):
            response.headers.setdefault("Cache-Control", "no-store")  # Back asks again: no page with spent keys
        return response

    def process_view(self, request: HttpRequest, view: object, args: object, kwargs: object) -> HttpResponse | None:
        match = request.resolver_match
        if request.user.is_authenticated or (match and match.url_name in OPEN_NAMES):
            return None
        if request.headers.get("HX-Request") or request.headers.get("X-Partial"):
            page = request.headers.get("HX-Current-URL", "")
            response = render(request, "shop/signed_out.html", {"back_to": page}, status=401)
            response["HX-Retarget"] = "#strip-words"
            response["HX-Reswap"] = "innerHTML"
            return response
        return redirect(f"{reverse('sign-in')}?next={request.get_full_path()}")
