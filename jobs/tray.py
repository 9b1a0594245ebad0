"""The parts tray: places in the order the parts came out."""

from __future__ import annotations

from django.db import IntegrityError, transaction
from django.db.models import Max

from jobs.models import Job, RunStation, TrayPlace
from shop.models import Person


def put(
    job: Job, person: Person, client_key: str, *, name: str, station: RunStation | None = None, count: int = 1, **words: str
) -> TrayPlace:
    """Lay a part into the next free place. The same key again is the same part: it stays where it lies, its words are corrected."""
    told = {"name": name[:80], "count": count, **words}
    try:
        with transaction.atomic():
            if TrayPlace.objects.filter(client_key=client_key).update(**told):
                job.touch()
                return TrayPlace.objects.get(client_key=client_key)
            last = TrayPlace.objects.filter(job=job).aggregate(last=Max("number"))["last"] or 0
            place = TrayPlace.objects.create(job=job, number=last + 1, station=station, by=person, client_key=client_key, **told)
            job.touch()
            return place
    except IntegrityError:
        return TrayPlace.objects.get(client_key=client_key)
