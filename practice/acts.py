"""Beginning a go, what hands do in it, and ending it: its job is made and taken away again."""

from __future__ import annotations

import random
from typing import Any

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from jobs.models import Act, Entry, Job, Move, Reading, RunStation, Timer
from practice import crank
from practice.models import Attempt
from shop.models import Person
from ui.addresses import PRACTICE_FROM

LARGEST_SEED = 999_999
COMPLAINT = "practice"


def begin(person: Person, level: str, seed: int | None = None) -> Attempt:
    """A new go on an engine that does not exist; the seed chooses its truth."""
    seed = seed if seed is not None else random.SystemRandom().randint(1, LARGEST_SEED)
    with transaction.atomic():
        last = Job.every.filter(practice=True).aggregate(last=Max("number"))["last"] or PRACTICE_FROM
        job = Job.every.create(
            number=last + 1, card=crank.card(), complaint=COMPLAINT, work_order="crank", booked_in_by=person, practice=True
        )
        RunStation.objects.create(job=job, order=0, key=crank.STATION, state=RunStation.State.NOW)
        state = crank.begin(seed, level)
        return Attempt.objects.create(person=person, exercise=crank.KEY, level=level, seed=seed, job=job, state=state)


def do(attempt: Attempt, lever: str, share: float) -> None:
    """One lever pulled."""
    attempt.state, move = crank.pull(attempt.seed, attempt.state, lever, share)
    if move:
        attempt.moves = [*attempt.moves, move]
    attempt.save(update_fields=["state", "moves"])


def finish(attempt: Attempt) -> None:
    """Open the truth, and take the job away without a trace."""
    with transaction.atomic():
        readings = Reading.objects.filter(entry__job=attempt.job_id, withdrawn_at=None).count() if attempt.job_id else 0
        result: dict[str, Any] = crank.came_to(attempt.seed, attempt.level, attempt.state, attempt.moves)
        attempt.result, attempt.ended_at = {**result, "readings": readings}, timezone.now()
        job, attempt.job = attempt.job, None
        attempt.save()
        if job:
            take_away(job)


def take_away(job: Job) -> None:
    """Everything of a practice job, its engine card too."""
    assert job.practice
    entries = Entry.objects.filter(job=job)
    Move.objects.filter(entry__in=entries).delete()
    Reading.objects.filter(entry__in=entries).delete()
    Timer.objects.filter(job=job).delete()
    entries.delete()
    Act.objects.filter(job=job).update(job=None)
    card = job.card
    Job.every.filter(pk=job.pk).delete()
    card.delete()
