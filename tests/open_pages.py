"""Open the pages of a data folder in a new process and save them: `python -m tests.open_pages FOLDER all|kinds READER ...`.

The readers are `metric` (the owner, in English) and `inch` (a mechanic, in the test language). `kinds` opens one page of each kind. Saved
beside the pages are `estimates.json` (what the formatter of numbers made of each estimate) and `unaccented.json` (texts that were not
translated into the test language, and where).
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


def open_pages(folder: Path, which: str, readers: list[str]) -> None:
    """Save each page of each reader under `folder/READER/`."""
    import django
    from django.conf import settings

    settings.USE_I18N = True  # off in the product while it has one language
    django.setup()
    import time_machine
    from django.contrib.sessions.models import Session
    from django.db import connection
    from django.test import Client
    from django.test.utils import CaptureQueriesContext

    from stator.shop.models import Person
    from tests.estimates import recorded
    from tests.languages import kinds_of, pages, unaccented
    from tests.pseudo import everything_accented

    settings.ALLOWED_HOSTS = ["*"]
    settings.STORAGES = {**settings.STORAGES, "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"}}
    made = datetime.fromtimestamp((settings.DATA_DIR / "demo-sign-in.txt").stat().st_mtime, UTC)
    addresses = pages() if which == "all" else kinds_of(pages())
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
            texts: dict[str, str] = {}
            for number, address in enumerate(addresses):
                with CaptureQueriesContext(connection) as asked:
                    answer = clients[reader].get(address, follow=True)
                texts[address] = SPENT.sub("", answer.content.decode(errors="replace"))
                page = {"address": address, "status": answer.status_code, "text": texts[address]}
                queries = 0 if answer.redirect_chain else len(asked)
                (place / f"{number}.json").write_text(json.dumps({**page, "queries": queries}))
            if reader == "metric":
                (folder / "estimates.json").write_text(json.dumps(estimates[before:]))
            if reader == "inch" and which == "all":
                (folder / "unaccented.json").write_text(json.dumps(unaccented(texts)))


if __name__ == "__main__":
    open_pages(Path(sys.argv[1]), sys.argv[2], sys.argv[3:])
