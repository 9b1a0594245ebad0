"""Details of a job: the customer, numbers and complaint; and removal of jobs that never began or will not be finished."""

from __future__ import annotations

from typing import Any

from django import forms
from django.core.exceptions import PermissionDenied
from django.db import transaction
from django.db.models import Q
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext as _
from django.views.decorators.http import require_http_methods

from shopmath.validation import BadInput
from stator.jobs import clock, log
from stator.jobs.idempotency import idempotent, link_request_to_job
from stator.jobs.models import Job, Move, Reading
from stator.jobs.permissions import require_open_job
from stator.shop.audit_log import audit
from stator.shop.models import Person
from stator.ui.plain_text import PlainTextMixin
from stator.ui.url_values import job_number


class JobForm(PlainTextMixin, forms.ModelForm):
    """The customer of an engine, and the complaint."""

    class Meta:
        model = Job
        fields = ("complaint", "comes_back", *Job.WHOSE)

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for field in self.fields.values():
            field.show_hidden_initial = True  # what the page showed: what another device changed meanwhile stays

    def keep(self, job: Job) -> None:
        """Write what was changed on this page, and nothing else."""
        Job.objects.filter(pk=job.pk).update(**{name: self.cleaned_data[name] for name in self.changed_data})
        job.touch()


def never_began(job: Job) -> bool:
    """Return True if nothing was ever written down about it: then it may be deleted."""
    read, moved = (model.objects.filter(entry__job=job) for model in (Reading, Move))
    decided = job.entries.filter(Q(signed_at__isnull=False) | Q(choices__has_key="against"))
    return not any(rows.exists() for rows in (read, moved, decided, job.timers, job.photos, job.tray))


def delete(job: Job, person: Person) -> None:
    """Take away a job that never began; its card stays."""
    if not never_began(job):
        raise BadInput("delete", _("Something is written down about this job, so it stays. Close it without finishing instead."))
    tag = job.tag
    job.entries.all().delete()
    job.delete()
    audit(person, _("deleted, never begun,"), tag)


def end(job: Job, person: Person, because: str) -> None:
    """Close a job that will not be finished, with the reason."""
    reason = " ".join(because.split())[:200]
    if not reason:
        raise BadInput("because", _("Give the reason in a few words; the job sheet carries it."))
    Job.objects.filter(pk=job.pk).update(ended_because=f"{reason} ({person.called})"[:240])
    for timer in job.timers.filter(ended_at=None):
        log.stop_timer(timer)
    log.close(job, clock.now(job))


def take_back(job: Job, person: Person) -> None:
    """Onto the bench again, of a job that was closed unfinished."""
    if not person.is_owner:
        raise PermissionDenied
    log.reopen(job)
    Job.objects.filter(pk=job.pk).update(ended_because="")


@require_http_methods(["GET", "POST"])
@idempotent
def about_job(request: HttpRequest, tag: str) -> HttpResponse:
    job = get_object_or_404(Job.objects.select_related("card"), number=job_number(tag))
    person: Person = request.user  # type: ignore[assignment]
    form, error, act = JobForm(instance=job), None, request.POST.get("act", "")
    if request.method == "POST":
        try:
            with transaction.atomic():
                if act == "back" and job.ended_because:
                    link_request_to_job(request, job)
                    take_back(job, person)
                    return redirect("about-job", tag=job.tag)
                require_open_job(job)
                if act == "delete":
                    delete(job, person)
                    return redirect("bench")
                link_request_to_job(request, job)
                if act == "end":
                    end(job, person, request.POST.get("because", ""))
                    return redirect("bench")
                form = JobForm(request.POST, instance=job)
                if form.is_valid():
                    form.keep(job)
                    return redirect("job", tag=job.tag)
        except BadInput as refused:
            error = refused
    because = request.POST.get("because", "")
    data = {"job": job, "form": form, "error": error, "because": because, "unbegun": never_began(job)}
    return render(request, "workbench/job_details.html", data)
