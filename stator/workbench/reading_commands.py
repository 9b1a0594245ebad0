"""Saving of a reading that was typed, sent by a gauge, or read from a gauge's own log."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.db.models import Count, Prefetch, prefetch_related_objects

from shopmath.quantity import CANONICAL, Quantity, decimals
from stator.engines.card_loader import load_card
from stator.engines.models import EngineCard
from stator.jobs import clock, log
from stator.jobs.models import Job, Reading, RunStation, Timer
from stator.shop.models import Gauge
from stator.stations.framework import BoundStation, Question, bind, plausibility

_OF_JOB = (*(each.name for each in Job._meta.concrete_fields), "card__stamp")  # the rest of its card is read with its parts, or kept


def numbered(number: int) -> Job | None:
    """Return the job of a number without its stations; None if there is none."""
    return Job.every.filter(number=number).select_related("card").only(*_OF_JOB).first()


def job_of(number: int, found: Job | None = None) -> Job | None:
    """The job of a number with its run, its timers and its whole card; None where there is none.

    `found`: as it has been read already.
    """
    found = found or numbered(number)
    return _with_its_run(found, load_card(found.card)) if found else None


def _with_its_run(job: Job, card: EngineCard) -> Job:
    job.card = card
    stages = RunStation.objects.annotate(photographed=Count("photos")).order_by("order")
    prefetch_related_objects([job], Prefetch("run", stages), Prefetch("timers", Timer.objects.select_related("entry__station")))
    return job


def again(work: BoundStation, *, only_here: bool = False) -> BoundStation:
    """Return the same station, loaded again after a request.

    `only_here` means that nothing was written outside its own entry, so that other data need not be loaded.

    The transaction of a request locks the database, so that what it has read before is up to date.
    """
    found = Job.every.select_related("card").only(*_OF_JOB).get(pk=work.job.pk)
    job = _with_its_run(found, work.job.card if only_here else load_card(found.card))
    stage = next(each for each in job.run.all() if each.pk == work.stage.pk)
    fresh: BoundStation = bind(work.station, job, stage, work.seat, work.person, clock.now(job))
    fresh.papers, fresh.seen = work.papers, work.seen
    if only_here and not (fresh.entry and fresh.entry.supersedes_id and work.entry is None):
        fresh.share_facts(work)
    return fresh


def with_reading(work: BoundStation, reading: Reading) -> BoundStation:
    """Return the same station after one more reading, if nothing else has changed except readings that it replaced."""
    known = any(each.pk == reading.pk for each in work.readings)
    fresh = work.recomputed(work.readings if known else [*work.readings, reading])
    fresh.now = work.now
    fresh.share_facts(work)
    return fresh


def opened(work: BoundStation) -> BoundStation:
    """The work with an open entry to write into."""
    if work.entry and not work.entry.is_signed:
        return work
    log.open_entry(work.stage, work.seat, work.person)
    return again(work, only_here=True)


def save_reading(
    work: BoundStation,
    ask: Question,
    text: str,
    client_key: str,
    *,
    data: dict[str, str] | None = None,
    gauge: Gauge | None = None,
    at: datetime | None = None,
    extra: dict[str, Any] | None = None,
) -> Reading:
    """Save the answer to a question of an open entry in place of an earlier one.

    Raises `BadInput` if it is refused.
    """
    assert work.entry is not None
    quantity = work.parse_answer(ask, text)
    usual, corrected = work.extra_for(ask, quantity, data or {})
    saved = {**corrected, **(extra or {})}
    if not saved.get(plausibility.CONFIRMED) and plausibility.why_unlikely(work, ask, quantity):
        saved[plausibility.UNCONFIRMED] = True
    reading = log.save_reading(
        work.entry,
        work.person,
        ask.key,
        quantity,
        client_key,
        attempt=work.answers.attempt,
        gauge=gauge or usual,
        extra=saved,
        at=at,
        slot=ask.slot,
    )
    if not ask.repeats:
        standing = [each for each in work.answers.live(ask.key) if each.pk != reading.pk]  # sent twice, it does not withdraw itself
        for older in standing if len(standing) >= ask.times else ():
            log.withdraw(older, work.person)
    if work.has_follow_up:
        again(work).after_save(reading)
    return reading


def accept_offered_fact(work: BoundStation, ask: Question, client_key: str) -> Reading:
    """Save a fact of another entry with its uncertainty, so that it counts once, where it was measured."""
    fact = ask.offer
    assert work.entry is not None
    assert fact is not None
    kind = fact.slot.about.kind
    text = fact.text if fact.value is None else f"{fact.value:.{decimals(fact.resolution or ask.resolution)}f}"
    unit = "" if fact.value is None else CANONICAL.get(kind, "")
    quantity = Quantity(fact.value or 0.0, unit, fact.value or 0.0, text, kind)
    extra = {"from": fact.station, **({"uncertainty": fact.uncertainty} if fact.uncertainty else {})}
    more: dict[str, Any] = {"slot": ask.slot, "carried_from": fact.reading or None, "attempt": work.answers.attempt, "extra": extra}
    reading = log.save_reading(work.entry, work.person, ask.key, quantity, client_key, **more)
    if work.has_follow_up:
        again(work).after_save(reading)
    return reading


def take_second(work: BoundStation, ask: Question, text: str, client_key: str, *, data: dict[str, str], extra: dict[str, Any]) -> Reading:
    """Save an answer to a question that another device has answered, withdrawn with the person and the time."""
    assert work.entry is not None
    quantity = work.parse_answer(ask, text)
    usual, corrected = work.extra_for(ask, quantity, data)
    saved = {**corrected, **extra}
    reading = log.save_reading(
        work.entry, work.person, ask.key, quantity, client_key, attempt=work.answers.attempt, gauge=usual, extra=saved, slot=ask.slot
    )
    log.withdraw(reading, work.person, came_second=True)
    return reading
