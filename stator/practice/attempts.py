"""Attempts at exercises: begin, actions, the learner's verdict, finish.

Their job is created and deleted again.
"""

from __future__ import annotations

import random
from collections import defaultdict
from datetime import timedelta
from typing import Any

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from stator.jobs import clock, log
from stator.jobs.models import Act, Entry, Job, Move, Reading, RunStation, Timer
from stator.practice import messages
from stator.practice.exercises.base import ControlAction, Exercise
from stator.practice.exercises.registry import EXERCISES
from stator.practice.models import Attempt, Given
from stator.shop.models import Person
from stator.stations.framework import BoundStation, bind
from stator.ui.url_values import PRACTICE_FROM
from stator.workbench.reading_commands import opened, save_reading
from stator.workbench.registry import STATION_BY_KEY

LARGEST_SEED = 999_999
MOST_PULLS = 2000
JUDGED = ("in", "out", "too_close", "stop")  # states of a call that a learner can say beforehand


def exercise_of(attempt: Attempt) -> Exercise:
    """Return what is practised, aimed as the instructor's file has it."""
    found = EXERCISES[attempt.exercise]
    return found.aimed(attempt.given.content) if attempt.given else found


def begin(
    person: Person, exercise: str, level: str, seed: int | None = None, *, judges: bool = False, given: Given | None = None
) -> Attempt:
    """Begin an attempt with an engine that does not exist; the seed determines its true values."""
    seed = seed if seed is not None else random.SystemRandom().randint(1, LARGEST_SEED)
    take_away_old()
    with transaction.atomic():
        attempt = Attempt(person=person, exercise=exercise, level=level, seed=seed, judges=judges, given=given)
        kind = exercise_of(attempt)
        last = Job.every.filter(practice=True).aggregate(last=Max("number"))["last"] or PRACTICE_FROM
        order = {"complaint": str(messages.SAID[exercise].asks)[:200], "work_order": "practice", "booked_in_by": person, "practice": True}
        attempt.job = Job.every.create(number=last + 1, card=kind.card(), **order)
        stage = RunStation.objects.create(job=attempt.job, order=0, key=kind.station, state=RunStation.State.NOW)
        if kind.chooses:
            log.set_method(log.open_entry(stage, None, person), **kind.chooses)
        attempt.save()
        _set_up(attempt, kind)
    return attempt


def _set_up(attempt: Attempt, kind: Exercise) -> None:
    """Save the answers on the setup, which is not what is practiced."""
    for number, (question, text) in enumerate(kind.presets):
        work = bound_work(attempt)
        asked = next((each for each in work.current_questions if each.key == question), None)
        if asked:
            save_reading(opened(work), asked, text, f"practice-{attempt.pk}-{number}")


def pulls_of(attempt: Attempt) -> list[ControlAction]:
    return [ControlAction(**each) for each in attempt.pulls]


def passed_s(attempt: Attempt) -> float:
    """Seconds since it began, by the clock of its job."""
    assert attempt.job is not None
    return max(0.0, (clock.now(attempt.job) - attempt.started_at).total_seconds())


def standing(attempt: Attempt) -> Any:
    """Return the simulated part in its present state."""
    return exercise_of(attempt).standing(attempt.seed, attempt.level, pulls_of(attempt), attempt.truth, passed_s(attempt))


def do(attempt: Attempt, control: str, share: float, typed: dict[str, float]) -> None:
    """Run one control; some take time."""
    against = control in exercise_of(attempt).working and bound_work(attempt).current_verdict.state == "stop"
    attempt.pulls = [*attempt.pulls, ControlAction(control, share, passed_s(attempt), typed, against).row()][-MOST_PULLS:]
    attempt.save(update_fields=["pulls"])
    if seconds := exercise_of(attempt).takes_s.get(control):
        go_on(attempt, seconds)


def go_on(attempt: Attempt, seconds: float) -> None:
    """Let time pass at the job's bench without waiting for it."""
    job = attempt.job
    assert job is not None
    Job.every.filter(pk=job.pk).update(ahead_s=job.ahead_s + seconds)
    job.ahead_s += seconds
    job.touch()


# what the learner says first


def bound_work(attempt: Attempt) -> BoundStation:
    """Return the station of an attempt in its present state."""
    assert attempt.job is not None
    kind = exercise_of(attempt)
    stage = RunStation.objects.select_related("job__card").get(job=attempt.job)
    return bind(STATION_BY_KEY[kind.station], stage.job, stage, None, attempt.person, clock.now(attempt.job))


def judge(attempt: Attempt, said: str, shown: str, work: BoundStation) -> None:
    """Record the learner's verdict, with Stator's and the true one."""
    verdict = {
        "said": said,
        "stator": str(work.current_verdict.state),
        "true": exercise_of(attempt).verdict(standing(attempt)),
        "of": shown,
    }
    attempt.calls = [*attempt.calls, verdict]
    attempt.save(update_fields=["calls"])


def calls_said(calls: list[dict[str, str]]) -> dict[str, int]:
    """Return how many of a learner's verdicts were right, wrong or unsure, and how often Stator agreed."""
    right = sum(each["said"] == each["true"] or (each["said"] == "stop" and each["true"] == "out") for each in calls)
    unsure = sum(each["said"] == "too_close" for each in calls)
    same = sum(each["said"] == each["stator"] for each in calls)
    return {"right": right, "unsure": unsure, "wrong": len(calls) - right - unsure, "same": same, "all": len(calls)}


# the end


def read_of(job: Job) -> dict[str, list[float]]:
    """Return what was saved at the station, by question."""
    found = defaultdict(list)
    for key, value in Reading.objects.filter(entry__job=job, withdrawn_at=None, canonical__isnull=False).values_list("ask", "canonical"):
        found[key].append(float(value or 0.0))
    return dict(found)


def finish(attempt: Attempt) -> None:
    """Show the true values, and delete the job completely."""
    job = attempt.job
    assert job is not None
    kind, read = exercise_of(attempt), read_of(job)
    with transaction.atomic():
        found = kind.found(bound_work(attempt).analysis)
        result = kind.came_to(attempt.seed, attempt.level, pulls_of(attempt), read, found, attempt.truth)
        more = {"readings": sum(map(len, read.values())), "minutes": round(passed_s(attempt) / 60), "calls": calls_said(attempt.calls)}
        attempt.result, attempt.ended_at, attempt.job = {**result, **more}, timezone.now(), None
        attempt.save()
        delete_attempt_job(job)


def delete_attempt_job(job: Job) -> None:
    """Everything of a practice job, its engine card too."""
    assert job.practice
    entries = Entry.objects.filter(job=job)
    Move.objects.filter(entry__in=entries).delete()
    Reading.objects.filter(entry__in=entries).update(carried_from=None)  # a row that another one comes from is protected
    Reading.objects.filter(entry__in=entries).delete()
    Timer.objects.filter(job=job).delete()
    entries.delete()
    Act.objects.filter(job=job).update(job=None)
    card = job.card
    Job.every.filter(pk=job.pk).delete()
    card.delete()


def take_away_old(before: timedelta = timedelta(days=60)) -> int:
    """Goes that were begun long ago and never finished, with their jobs; how many."""
    old = Attempt.objects.filter(ended_at=None, started_at__lt=timezone.now() - before).select_related("job__card")
    for attempt in old:
        job = attempt.job
        attempt.delete()
        if job:
            delete_attempt_job(job)
    return len(old)
