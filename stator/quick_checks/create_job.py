"""The job that a check becomes: its card, its seat, and every number as a reading."""

from __future__ import annotations

from django.utils import timezone

from shopmath.quantity import CANONICAL
from shopmath.validation import BadInput
from stator.engines.models import Seat
from stator.jobs import log
from stator.jobs.models import Job
from stator.quick_checks.base import CheckContext, CheckForm, QuickCheck
from stator.shop.models import Person
from stator.stations.framework import BoundStation, bind
from stator.workbench.reading_commands import again, opened, save_reading
from stator.workbench.registry import STATION_BY_KEY, create_work_plan


def job_from(check: QuickCheck, form: CheckForm, name: str, complaint: str, person: Person, key: str) -> tuple[Job, Seat | None, str]:
    """Check in an engine with the inputs of the check, as if these had been typed at the station."""
    assert check.known is not None
    known = check.known(form.cleaned_data, CheckContext.here())
    card, seat = known.card, known.seat
    card.name = name
    card.save()
    if seat is not None:
        seat.card = card
        seat.name = seat.name or "Main bearing"
        seat.save()
    for mark in known.marks:
        mark.card = card
        mark.save()
    job = Job.objects.create(number=Job.next_number(), card=card, complaint=complaint, work_order=check.order, booked_in_by=person)
    create_work_plan(job)
    key_of = known.station or check.station
    stage = job.run.select_related("job__card").get(key=key_of)
    work: BoundStation = opened(bind(STATION_BY_KEY[key_of], job, stage, seat, person, timezone.now()))
    assert work.entry is not None
    chosen = {each: value for each, value in known.chosen.items() if value and value != "-1"}  # what is on no shelf is chosen there
    skipped = [fact_key.key for fact_key in known.skipped]
    log.set_method(work.entry, **chosen, **({"skipped": skipped} if skipped else {}))
    work = again(work)
    for number, each in enumerate(known.said):
        question = next((one for one in work.current_questions if one.slot == each.slot), None)
        if question is None:
            continue
        text = each.value if isinstance(each.value, str) else f"{each.value:.6g} {CANONICAL[each.slot.about.kind]}"
        try:
            save_reading(work, question, _spelled(text), f"{key[:40]}-{number}")
        except BadInput:
            continue  # what the station would refuse is asked there
        work = again(work)
    work.update_work_plan()
    return job, seat, key_of


def _spelled(text: str) -> str:
    """A value in the core's unit as a bench types it."""
    for word, spelled in (("degC", "C"), ("N*m", "Nm")):
        text = text.replace(word, spelled)
    return text
