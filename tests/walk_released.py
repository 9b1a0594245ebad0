"""Walk the pages of a data folder, every kind of signed entry among them, and print what broke: `python -m tests.walk_released`."""

from __future__ import annotations

import os
import sys

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stator.settings")


def walk() -> list[str]:
    import django

    django.setup()
    from django.conf import settings
    from django.test import Client

    from engines.models import EngineCard
    from jobs.gather import slot_of
    from jobs.models import Entry, Job, Reading
    from shop.models import Person
    from stations.registry import BY_KEY

    settings.ALLOWED_HOSTS = ["*"]
    settings.STORAGES = {**settings.STORAGES, "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"}}
    client = Client(raise_request_exception=False)
    client.force_login(Person.objects.filter(role="owner")[0], backend="django.contrib.auth.backends.ModelBackend")
    pages = ["/", "/cards/", "/shop/", "/shop/tools/", "/held/", "/find/?q=0412", "/bench.csv", "/gauges/"]
    pages += [f"/cards/{card.pk}/" for card in EngineCard.objects.all()]
    for job in Job.objects.prefetch_related("run"):
        at = f"/jobs/{job.tag}/"
        pages += [at, f"{at}log/", f"{at}sheet/", f"{at}export.json", f"{at}tray/", f"{at}run/", f"{at}card/"]
        for stage in job.run.exclude(entries=None):
            seat = job.card.seats.first() if BY_KEY[stage.key].by_seat else None
            pages.append(f"{at}{stage.key}/{f'{seat.pk}/' if seat else ''}")
    kinds = {(entry.station.key, str(entry.result.get("schema")), entry.seat_id is None): entry.pk for entry in Entry.objects.all()}
    pages += [f"/entries/{pk}/sheet/" for pk in kinds.values()]
    found = [(page, client.get(page).status_code) for page in pages]
    moved = [key for key, station in BY_KEY.items() if station.words]
    readings = Reading.objects.filter(entry__station__key__in=moved).exclude(entry__result__schema__startswith="by-hand")
    addresses = [(reading, slot_of(reading)) for reading in readings.select_related("entry__station", "subject")]
    lost = [reading for reading, slot in addresses if slot is None or slot.key != reading.ask]
    print(f"{len(found)} pages, {len(addresses)} addresses")
    broken = [f"{status} {page}" for page, status in found if status >= 400]
    return [*broken, *(f"no address: {reading.entry.station.key} {reading.ask}" for reading in lost)]


if __name__ == "__main__":
    wrong = walk()
    print("\n".join(wrong))
    sys.exit(bool(wrong))
