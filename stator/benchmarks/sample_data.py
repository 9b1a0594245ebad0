"""Data of a shop of many years for `bin/bench`: twenty thousand jobs, two hundred thousand readings, eight thousand photos.

It is filled in two steps, first with as many open jobs, engine templates and search results as it has in the end. The additional cost of a
page after the second step is that of the years.
"""

from __future__ import annotations

import io
import itertools
import random
import uuid
from datetime import timedelta

from django.conf import settings
from django.utils import timezone
from PIL import Image

from stator.engines.models import EngineCard, Mark, Seat
from stator.jobs.models import Entry, Job, Photo, Reading, RunStation
from stator.shop.models import Person
from stator.workbench.registry import WORK_ORDERS

AT_FIRST, JOBS, ON_BENCH = 1000, 20_000, 15
READINGS_EACH, PHOTOS_EACH = 10, 0.4
KINDS = ("Corrie", "Merle", "Skerry", "Haugh", "Bellows", "Plover", "Tarn", "Fulmar", "Sound", "Voe")
BEARINGS = ("6204 C3", "6205", "6203-2RS", "6305 C3", "6206", "6202-2Z")
FIRST = 1001


def fill(count: int, on_bench: int = 0) -> None:
    """So many jobs more, straight into the tables, as no person would: only for measuring."""
    dice, now = random.Random(7), timezone.now()  # noqa: S311  the same shop every time
    first = max(FIRST, Job.next_number())
    person = Person.objects.get(username="hand")
    names = [f"{kind} {size}" for kind in KINDS for size in dice.sample(range(50, 900), 4)]
    engines = [(uuid.uuid5(uuid.NAMESPACE_OID, name), name) for name in names]
    chosen = [dice.choice(engines) for _ in range(count)]
    cards = EngineCard.objects.bulk_create(EngineCard(family=family, name=name, summary="trials single") for family, name in chosen)
    Seat.objects.bulk_create(
        Seat(card=card, name=name, role="main", half=half, designation=dice.choice(BEARINGS), code="N7")
        for card in cards
        for name, half in (("Main, drive side", "left"), ("Main, magneto side", "right"))
    )
    Mark.objects.bulk_create(
        (Mark(card=card, name=str(n), x_mm=dice.uniform(-100, 100), y_mm=dice.uniform(-80, 80)) for card in cards for n in range(1, 11)),
        2000,
    )
    jobs = Job.objects.bulk_create(
        Job(
            number=first + index,
            card=card,
            complaint=dice.choice(("Rumbles on the overrun.", "Oil past the seal.", "Seized.", "Will not turn.")),
            work_order="bottom-end",
            booked_in_at=now - timedelta(days=count - index),
            booked_in_by=person,
            gone_at=None if index >= count - on_bench else now - timedelta(days=count - index - 1),
        )
        for index, card in enumerate(cards)
    )
    keys = WORK_ORDERS["bottom-end"][1]
    stations = RunStation.objects.bulk_create(
        (
            RunStation(job=job, order=order, key=key, state="done" if job.gone_at or order < 6 else "ahead")
            for job in jobs
            for order, key in enumerate(keys)
        ),
        2000,
    )
    worked = [stage for stage in stations if stage.key in ("split", "strip", "inspect", "seals", "close", "centre")]
    entries = Entry.objects.bulk_create((Entry(job_id=stage.job_id, station=stage, opened_by=person) for stage in worked), 2000)
    readings = READINGS_EACH * count
    each = -(-readings // len(entries))
    Reading.objects.bulk_create(
        (
            Reading(
                entry=entry, ask="note", text="46.98", kind="length", unit="mm", canonical=46.98, by=person, client_key=f"big{entry.pk}-{n}"
            )
            for entry, n in itertools.islice(itertools.product(entries, range(each)), readings)
        ),
        5000,
    )
    Entry.objects.filter(pk__gte=entries[0].pk).update(signed_at=now, signed_by=person, call_state="in", call_words="Done by hand")
    photo = io.BytesIO()
    Image.new("RGB", (32, 24), "#777").save(photo, "JPEG")
    folder = settings.MEDIA_ROOT / "big"
    folder.mkdir(parents=True, exist_ok=True)
    photos = range(first, first + round(PHOTOS_EACH * count))
    for index in photos:
        (folder / f"{index}.jpg").write_bytes(photo.getvalue())
    Photo.objects.bulk_create(
        (
            Photo(
                job=jobs[i % count],
                station=None,
                image=f"big/{i}.jpg",
                thumb=f"big/{i}.jpg",
                width=32,
                height=24,
                caption="side",
                by=person,
            )
            for i in photos
        ),
        2000,
    )
