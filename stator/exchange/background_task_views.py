"""Pages for background tasks: their progress, and their output."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from django.contrib import messages
from django.http import FileResponse, Http404, HttpRequest, HttpResponse, JsonResponse
from django.urls import reverse
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_GET

from shopmath.validation import BadInput
from stator.exchange import customer_links
from stator.exchange.background_tasks import BENCH, BackgroundTask, TaskOutput, Tell, no_progress


def asker_of(request: HttpRequest, owner: str = "") -> str:
    """Return who may see a task: the signed-in person, or the holder of a customer link."""
    return f"owner {owner}" if owner else f"person {request.user.pk}"


def made_or_making(request: HttpRequest, what: str, make: Callable[[Tell], TaskOutput], owner: str = "") -> HttpResponse:
    """Return the address of the progress of a task for a page that can wait, otherwise its output."""
    if not request.headers.get("X-Partial"):
        return _sent(make(no_progress))
    try:
        making = BENCH.begin(asker_of(request, owner), what, make)
    except BadInput as error:
        return JsonResponse({"refused": error.message})
    names = ["owner-making", owner, making.token] if owner else ["making", making.token]
    return JsonResponse({"address": reverse(names[0], args=names[1:])})


def _sent(made: TaskOutput) -> HttpResponse:
    response = HttpResponse(made.data, content_type=made.kind)
    response["Content-Disposition"] = f'{"inline" if made.inline else "attachment"}; filename="{made.name}"'
    return response


def _found(asker: str, token: str) -> BackgroundTask:
    making = BENCH.found(asker, token)
    if making is None:
        raise Http404
    return making


def _told(request: HttpRequest, making: BackgroundTask, file: str) -> HttpResponse:
    values = {"words": making.words, "share": round(making.share, 3)}
    if making.refused:
        values["refused"] = making.refused
    if making.made:
        values.update(words="Ready", share=1, goes=making.made.goes or file)
        if making.made.goes and making.made.words:
            messages.success(request, making.made.words)
    return JsonResponse(values)


def _file(making: BackgroundTask) -> FileResponse:
    if making.made is None or making.file is None:
        raise Http404
    made = making.made
    saved = Path(making.file.name).open("rb")  # noqa: SIM115  the response closes it
    return FileResponse(saved, as_attachment=not made.inline, filename=made.name, content_type=made.kind)


@require_GET
@never_cache
def making(request: HttpRequest, token: str) -> HttpResponse:
    return _told(request, _found(asker_of(request), token), reverse("made", args=[token]))


@require_GET
@never_cache
def made(request: HttpRequest, token: str) -> FileResponse:
    return _file(_found(asker_of(request), token))


@require_GET
@never_cache
def owner_making(request: HttpRequest, owner: str, token: str) -> HttpResponse:
    customer_links.opened(owner)
    return _told(request, _found(asker_of(request, owner), token), reverse("owner-made", args=[owner, token]))


@require_GET
@never_cache
def owner_made(request: HttpRequest, owner: str, token: str) -> FileResponse:
    customer_links.opened(owner)
    response = _file(_found(asker_of(request, owner), token))
    response["Referrer-Policy"] = "no-referrer"
    response["X-Robots-Tag"] = "noindex, nofollow"
    return response
