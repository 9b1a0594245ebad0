"""Read in released files beside the same jobs in an upgraded database, and print what differs: `python -m tests.two_ways jobs-3`."""

from __future__ import annotations

import os
import sys
from pathlib import Path
from typing import Any

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stator.settings")
RELEASED = Path(__file__).parent / "released"
ONE_S_OWN = {"uid", "by", "client_key", "carried_from", "gauge"}  # new in a copy, or named with the file it came from


def differing(upgraded: dict[str, Any], read_in: dict[str, Any]) -> dict[str, Any]:
    names = (upgraded.keys() | read_in.keys()) - ONE_S_OWN
    return {name: (upgraded.get(name), read_in.get(name)) for name in names if upgraded.get(name) != read_in.get(name)}


def compare(folder: str) -> tuple[int, list[str]]:
    """How many readings were compared, and each place where the two ways part."""
    import django

    django.setup()
    from django.db import transaction

    from exchange.job_in import job_from_zip
    from exchange.job_json import job_as_json
    from jobs.models import Job
    from shop.models import Person

    owner, compared, found = Person.objects.filter(role="owner")[0], 0, []
    for path in sorted((RELEASED / folder).glob("*.zip")):
        with transaction.atomic():
            upgraded = job_as_json(Job.objects.get(number=int(path.stem.removeprefix("job-"))))
            read_in = job_as_json(job_from_zip(path.read_bytes(), owner))
            transaction.set_rollback(True)
        for one, other in zip(upgraded["entries"], read_in["entries"], strict=True):
            for reading, copy in zip(one["readings"], other["readings"], strict=True):
                compared += 1
                if parts := differing(reading, copy):
                    found.append(f"{path.name}, {one['station']}: {parts}")
    return compared, found


if __name__ == "__main__":
    compared, found = compare(sys.argv[1])
    print(f"{compared} readings", *found, sep="\n")
    sys.exit(bool(found))
