"""The parts tray: places in the order the parts came out."""

from __future__ import annotations

from django.db import IntegrityError, transaction
from django.db.models import Max

from jobs.models import Job, RunStation, TrayPlace
from shop.models import Person


def put(
    job: Job, person: Person, client_key: str, *, name: str, station: RunStation | None = None, count: int = 1, **words: str
) -> TrayPlace:
    """Lay a part into the next free place; the same key twice lays it once."""
    try:
        with transaction.atomic():
            known = TrayPlace.objects.filter(client_key=client_key).first()
            if known:
                return known
            last = TrayPlace.objects.filter(job=job).aggregate(last=Max("number"))["last"] or 0
            place = TrayPlace.objects.create(
                job=job, number=last + 1, name=name[:80], count=count, station=station, by=person, client_key=client_key, **words
            )
            job.touch()
            return place
    except IntegrityError:
        return TrayPlace.objects.get(client_key=client_key)
