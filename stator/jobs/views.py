"""Photos in and out. They are served to signed-in people only, never from a public folder."""

from __future__ import annotations

from django.contrib import messages
from django.core.files.uploadedfile import UploadedFile
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect
from django.urls import reverse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET, require_POST

from shopmath.validation import BadInput
from stator.jobs.fact_loader import subject_of
from stator.jobs.idempotency import sent
from stator.jobs.models import Job, Photo
from stator.jobs.permissions import JobClosed, hide_practice_of_others, require_open_job
from stator.jobs.photos import Cleaned, cleaned_upload, keep_photo, parts_of
from stator.ui.url_values import job_number, local_address

MOST_AT_ONCE = 12


@require_GET
def alive(request: HttpRequest) -> HttpResponse:
    return HttpResponse("alive", content_type="text/plain")


@require_POST
def add(request: HttpRequest, tag: str) -> HttpResponse:
    """Save the photos that are valid, and name the others."""
    job = get_object_or_404(Job, number=job_number(tag))
    goes = local_address(request.POST.get("back", ""), reverse("job-log", args=[job.tag]))
    uploads = request.FILES.getlist("photo")
    if not uploads:
        messages.error(request, _("No picture was chosen."))
    if len(uploads) > MOST_AT_ONCE:
        messages.error(
            request,
            _("At most {most} pictures are added at once; {left_out} were left out.").format(
                most=MOST_AT_ONCE, left_out=len(uploads) - MOST_AT_ONCE
            ),
        )
    try:
        require_open_job(job)
        photos = _cleaned(request, uploads[:MOST_AT_ONCE])  # takes a moment: outside the transaction
        with sent(request) as doing:
            doing.job, doing.outcome["goes"] = job, goes
            if not doing.repeats:
                _keep(request, require_open_job(job), photos)
            doing.refused = not photos
    except JobClosed as error:
        messages.error(request, error.message)
    return redirect(goes)


def _cleaned(request: HttpRequest, uploads: list[UploadedFile]) -> list[Cleaned]:
    """The pictures among what was sent; the others are named."""
    found = []
    for upload in uploads:
        try:
            found.append(cleaned_upload(upload))
        except BadInput as error:
            messages.error(request, f"{upload.name}: {error.message}")
    return found


def _keep(request: HttpRequest, job: Job, pictures: list[Cleaned]) -> None:
    stage = job.run.filter(key=request.POST.get("station", "")).first()
    caption = request.POST.get("caption", "").strip()
    part = next((each for each in parts_of(job.card) if f"{each.kind}:{each.uid}" == request.POST.get("part", "")), None)
    about = subject_of(job.card_id, part) if part else None
    saved: list[Photo] = []
    try:
        for picture in pictures:
            saved.append(keep_photo(job, stage, picture, caption, request.user, subject=about))  # type: ignore[arg-type]
    except BaseException:
        for photo in saved:  # their rows are taken back with the act; no file of theirs stays
            photo.forget_files()
        raise


@require_GET
def photo(request: HttpRequest, pk: int, size: str) -> HttpResponse:
    found = get_object_or_404(Photo.objects.select_related("job"), pk=pk)
    hide_practice_of_others(found.job, request.user)  # type: ignore[arg-type]
    if size not in ("full", "small"):
        raise Http404
    try:
        with (found.image if size == "full" else found.thumb).open("rb") as file:
            response = HttpResponse(file.read(), content_type="image/jpeg")
    except FileNotFoundError as error:
        raise Http404 from error
    response["Cache-Control"] = "private, max-age=31536000, immutable"
    return response
