"""Pages for what went wrong, in words."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render


def _plain(request: HttpRequest, status: int, title: str, words: str) -> HttpResponse:
    return render(request, "ui/plain.html", {"title": title, "words": words}, status=status)


def not_found(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    return _plain(
        request, 404, "Not here", "There is no such page. The link may be old: the job, seat or entry it named is not in this shop."
    )


def refused(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    return _plain(request, 403, "Not for this sign-in", str(exception or "") or "This needs the owner's sign-in.")


def broken(request: HttpRequest) -> HttpResponse:
    return _plain(
        request,
        500,
        "Stator broke",
        "That was our fault, not yours. What was signed and every reading kept is safe; go back and try once more.",
    )
