"""The parts tray: places in the order the parts came out."""

from __future__ import annotations

from django.db import transaction
from django.db.models import Max

from stator.jobs.models import Job, RunStation, TrayPlace
from stator.jobs.permissions import require_open_job
from stator.shop.models import Person


def add_to_tray(
    job: Job, person: Person, client_key: str, *, name: str, station: RunStation | None = None, count: int = 1, **words: str
) -> TrayPlace:
    """Put a part on the next free position.

    The same key again in this job corrects the description of the part.
    """
    with transaction.atomic():
        require_open_job(job)
        values = {"name": name[:80], "count": count, **words}
        known = TrayPlace.objects.filter(job=job, client_key=client_key)
        if known.update(**values):
            job.touch()
            return known.get()
        last = TrayPlace.objects.filter(job=job).aggregate(last=Max("number"))["last"] or 0
        place = TrayPlace.objects.create(job=job, number=last + 1, station=station, by=person, client_key=client_key, **values)
        job.touch()
        return place
