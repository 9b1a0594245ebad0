"""Open every page of a data folder for one or two readers in a new process and save them: `python -m tests.open_pages FOLDER READER ...`.

The readers are `metric` (the owner, in English) and `inch` (a mechanic, in the test language). What the formatter of numbers made of each
estimate is saved beside the pages, in `FOLDER/estimates.json`.
"""

from __future__ import annotations

import json
import os
import re
import sys
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from unittest.mock import patch

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stator.settings")
SPENT = re.compile(  # different for each page that is rendered
    r'name="(?:csrfmiddlewaretoken|client_key)" value="[^"]*"|data-part="\w+"|"X-CSRFToken": "[^"]*"|content="[A-Za-z0-9]{64}"'
)
READERS = {"metric": ("skipper", "metric", "en"), "inch": ("hand", "inch", "eo")}


def open_pages(folder: Path, readers: list[str]) -> None:
    """Save each page of each reader under `folder/READER/`."""
    import django
    from django.conf import settings

    settings.USE_I18N = True  # off in the product while it has one language
    django.setup()
    import time_machine
    from django.contrib.sessions.models import Session
    from django.test import Client

    from stator.shop.models import Person
    from tests.estimates import recorded
    from tests.languages import pages
    from tests.pseudo import everything_accented

    settings.ALLOWED_HOSTS = ["*"]
    settings.STORAGES = {**settings.STORAGES, "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"}}
    made = datetime.fromtimestamp((settings.DATA_DIR / "demo-sign-in.txt").stat().st_mtime, UTC)
    addresses = pages()
    unmoved = patch(
        "stator.jobs.clock.DRIFT.jumped", return_value=timedelta()
    )  # the frozen clock falls behind the running time of the process
    estimates: list[dict[str, Any]] = []
    with everything_accented(), time_machine.travel(made, tick=False), unmoved, recorded(estimates):
        Session.objects.all().delete()
        clients = {}
        for reader, (name, units, language) in READERS.items():  # both, so that a list of people shows the same in every run
            Person.objects.filter(username=name).update(units=units, language=language)
            clients[reader] = Client(raise_request_exception=False)
            clients[reader].force_login(Person.objects.get(username=name), backend="django.contrib.auth.backends.ModelBackend")
        for reader in readers:
            place, before = folder / reader, len(estimates)
            place.mkdir(parents=True, exist_ok=True)
            for number, address in enumerate(addresses):
                answer = clients[reader].get(address, follow=True)
                text = SPENT.sub("", answer.content.decode(errors="replace"))
                (place / f"{number}.json").write_text(json.dumps({"address": address, "status": answer.status_code, "text": text}))
            if reader == "metric":
                (folder / "estimates.json").write_text(json.dumps(estimates[before:]))


if __name__ == "__main__":
    open_pages(Path(sys.argv[1]), sys.argv[2:])
