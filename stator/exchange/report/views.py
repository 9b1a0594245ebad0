"""Pages of the job report: for the shop, and for the customer with a link."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils import timezone
from django.utils.translation import gettext as _
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_GET, require_POST

from stator.engines.card_loader import load_card
from stator.exchange import customer_links
from stator.exchange.background_task_views import made_or_making
from stator.exchange.background_tasks import TaskOutput, Tell, no_progress
from stator.exchange.entry_records import svg_of
from stator.exchange.job_zip import job_as_zip
from stator.exchange.report.data import Report, report_of
from stator.exchange.report.messages import CLOSING
from stator.exchange.report.pdf import PAPERS, report_pdf
from stator.jobs.idempotency import idempotent, link_request_to_job
from stator.jobs.models import Entry, Job, OwnerLink, Photo, Record
from stator.shop.models import Shop
from stator.stations.framework import provenance
from stator.ui.url_values import job_number

JOB = Job.objects.select_related("card", "booked_in_by", "origin").prefetch_related("run", "photos")


def _job(tag: str) -> Job:
    job = get_object_or_404(JOB, number=job_number(tag))
    job.card = load_card(job.card)
    return job


def _origin(report: Report) -> str:
    return provenance.render_provenance(report.origin) if report.origin else ""


def _page(request: HttpRequest, report: Report, **more: Any) -> HttpResponse:
    return render(
        request, "exchange/report.html", {"report": report, "job": report.job, "origin": _origin(report), "closing": CLOSING, **more}
    )


def _pdf(report: Report, paper: str, tell: Tell) -> TaskOutput:
    tell(_("Setting the pages"), 0.75)
    return TaskOutput(report_pdf(report, paper), f"job-{report.job.tag}.pdf", "application/pdf", inline=True)


@require_GET
def sheet(request: HttpRequest, tag: str) -> HttpResponse:
    """Show the job report as one page for printing: as found next to as left, with every verdict."""
    job = _job(tag)
    report = report_of(job, request.user, timezone.now())  # type: ignore[arg-type]
    return _with_links(request, report)


def _with_links(request: HttpRequest, report: Report, told: str = "") -> HttpResponse:
    now = timezone.now()
    held = [link for link in OwnerLink.objects.filter(job=report.job.pk).select_related("made_by") if link.holds(now)]
    return _page(request, report, links=held, told=told, days=customer_links.DAYS)


@require_GET
def pdf(request: HttpRequest, tag: str, paper: str) -> HttpResponse:
    job, person = _job(tag), request.user
    if paper not in PAPERS:
        raise Http404

    def make(tell: Tell) -> TaskOutput:
        return _pdf(report_of(job, person, timezone.now(), tell), paper, tell)  # type: ignore[arg-type]

    return made_or_making(request, _("the sheet of {tag} on {paper}").format(tag=tag, paper=paper), make)


@require_GET
def whole_job(request: HttpRequest, tag: str) -> HttpResponse:
    """The job as one ZIP of open files."""
    job, person = _job(tag), request.user

    def make(tell: Tell) -> TaskOutput:
        return TaskOutput(job_as_zip(job, person, timezone.now(), tell), f"job-{job.tag}.zip", "application/zip")  # type: ignore[arg-type]

    return made_or_making(request, _("all of {tag}").format(tag=tag), make)


@require_POST
@idempotent
def give_link(request: HttpRequest, tag: str) -> HttpResponse:
    """Create a link for the customer and show it once."""
    job = _job(tag)
    link_request_to_job(request, job)
    days = request.POST.get("days", "")
    if days not in [str(each) for each in customer_links.DAYS]:
        messages.error(request, _("Choose how long the link lasts."))
        return redirect("report", tag=tag)
    token = customer_links.create_link(job, request.user, int(days))  # type: ignore[arg-type]
    told = Shop.current().address_of(request, reverse("owner-sheet", args=[token]))
    request.act.outcome["goes"] = reverse("report", args=[tag])  # type: ignore[attr-defined]
    response = _with_links(request, report_of(job, request.user, timezone.now()), told)  # type: ignore[arg-type]
    response["X-Kept"] = "yes"
    return response


@require_POST
@idempotent
def take_link(request: HttpRequest, tag: str, pk: int) -> HttpResponse:
    customer_links.revoke_link(get_object_or_404(OwnerLink, pk=pk, job=_job(tag)))
    messages.success(request, _("That link opens nothing any more."))
    return redirect("report", tag=tag)


# the owner's side: no session, no other page


def _owners(token: str, tell: Tell = no_progress) -> tuple[OwnerLink, Report]:
    link = customer_links.opened(token)
    job = JOB.get(pk=link.job_id)
    return link, report_of(job, link.made_by, timezone.now(), tell)


def _private(response: HttpResponse) -> HttpResponse:
    """Set headers so that a response is not cached, not indexed, and its address is not passed on."""
    response["Referrer-Policy"] = "no-referrer"
    response["X-Robots-Tag"] = "noindex, nofollow"
    return response


@require_GET
@never_cache
def owner_sheet(request: HttpRequest, token: str) -> HttpResponse:
    link, report = _owners(token)
    return _private(_page(request, report, token=token, until=link.expires_at))


@require_GET
@never_cache
def owner_pdf(request: HttpRequest, token: str) -> HttpResponse:
    customer_links.opened(token)
    return _private(made_or_making(request, _("the sheet"), lambda tell: _pdf(_owners(token, tell)[1], "a4", tell), token))


@require_GET
@never_cache
def owner_drawing(request: HttpRequest, token: str, pk: int) -> HttpResponse:
    """A recorded drawing of this very job."""
    record = get_object_or_404(Record, entry=get_object_or_404(Entry, pk=pk, job=customer_links.opened(token).job_id))
    response = svg_of(record)
    response["Referrer-Policy"] = "no-referrer"
    return response


@require_GET
@never_cache
def owner_photo(request: HttpRequest, token: str, pk: int) -> HttpResponse:
    """A picture of this very job; re-encoded when it came in, so that no place is in it."""
    photo = get_object_or_404(Photo, pk=pk, job_id=customer_links.opened(token).job_id)
    with photo.image.open("rb") as file:
        return _private(HttpResponse(file.read(), content_type="image/jpeg"))
