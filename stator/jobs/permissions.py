"""Permission to change a job or a card. `stator.jobs.immutability` enforces it in the database."""

from __future__ import annotations

from django.http import Http404
from django.shortcuts import get_object_or_404
from django.utils.translation import gettext_lazy

from shopmath.validation import BadInput
from stator.engines.models import EngineCard
from stator.jobs.models import Job
from stator.shop.models import Person

CLOSED = gettext_lazy(
    "This job has been handed over and is closed: nothing in it changes. An owner opens it again at Hand over, with the reason."
)


def hide_practice_of_others(job: Job, person: Person) -> None:
    """Answer as if a job did not exist if it is the practice of another person. Raises Http404."""
    if job.practice and job.booked_in_by_id != person.pk:
        raise Http404


def visible_card(pk: int, person: Person) -> EngineCard:
    """Return an engine card; Http404 if there is none, or if it belongs to the practice of another person."""
    card = get_object_or_404(EngineCard, pk=pk)
    if Job.every.filter(card=card, practice=True).exclude(booked_in_by=person.pk).exists():
        raise Http404
    return card


class JobClosed(BadInput):
    """The job was handed over."""

    def __init__(self) -> None:
        super().__init__("closed", str(CLOSED))


def require_open_job(job: Job) -> Job:
    """Return the job as it is in the database; raise `JobClosed` if it was handed over."""
    fresh = Job.every.select_related("card").get(pk=job.pk)
    if fresh.is_closed:
        raise JobClosed
    return fresh


def job_of(card: EngineCard) -> Job | None:
    """The job whose own copy a card is."""
    return Job.objects.filter(card=card).order_by("-pk").first()


def changeable_card(card: EngineCard) -> Job | None:
    """Return the job of a card if it may be changed; None for an engine template."""
    job = job_of(card)
    return require_open_job(job) if job else None
