"""Photos in and out. They are served to signed-in people only, never from a public folder."""

from __future__ import annotations

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect
from django.urls import reverse
from django.utils.http import url_has_allowed_host_and_scheme
from django.views.decorators.http import require_GET, require_POST

from jobs.models import Job, Photo
from jobs.photos import add_photo
from shopmath.checks import BadInput

MOST_AT_ONCE = 12


@require_GET
def alive(request: HttpRequest) -> HttpResponse:
    return HttpResponse("alive", content_type="text/plain")


@require_POST
def add(request: HttpRequest, tag: str) -> HttpResponse:
    """Keep the pictures that are pictures; say which were not."""
    job = get_object_or_404(Job, number=int(tag)) if tag.isdigit() else None
    if job is None:
        raise Http404
    stage = job.run.filter(key=request.POST.get("station", "")).first()
    uploads = request.FILES.getlist("photo")
    if not uploads:
        messages.error(request, "No picture was chosen.")
    for upload in uploads[:MOST_AT_ONCE]:
        try:
            add_photo(job, stage, upload, request.POST.get("caption", "").strip(), request.user)  # type: ignore[arg-type]
        except BadInput as error:
            messages.error(request, f"{upload.name}: {error.message}")
    if len(uploads) > MOST_AT_ONCE:
        messages.error(request, f"{MOST_AT_ONCE} pictures at once are taken; {len(uploads) - MOST_AT_ONCE} were left out.")
    back = request.POST.get("back", "")
    return redirect(back if url_has_allowed_host_and_scheme(back, None) else reverse("job-log", args=[job.tag]))


@require_GET
def photo(request: HttpRequest, pk: int, size: str) -> HttpResponse:
    found = get_object_or_404(Photo, pk=pk)
    if size not in ("full", "small"):
        raise Http404
    try:
        with (found.image if size == "full" else found.thumb).open("rb") as file:
            response = HttpResponse(file.read(), content_type="image/jpeg")
    except FileNotFoundError as error:
        raise Http404 from error
    response["Cache-Control"] = "private, max-age=31536000, immutable"
    return response
