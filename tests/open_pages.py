"""Open every page of a data folder for one or two readers in a new process and save them: `python -m tests.open_pages FOLDER READER ...`.

The readers are `metric` (the owner, in English) and `inch` (a mechanic, in the test language). What the formatter of numbers made of each
estimate is saved beside the pages, in `FOLDER/estimates.json`.
"""

from __future__ import annotations

import json
import os
import re
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from functools import partial
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
            place = folder / reader
            place.mkdir(parents=True, exist_ok=True)
            for number, address in enumerate(addresses):
                answer = clients[reader].get(address, follow=True)
                text = SPENT.sub("", answer.content.decode(errors="replace"))
                (place / f"{number}.json").write_text(json.dumps({"address": address, "status": answer.status_code, "text": text}))
    (folder / "estimates.json").write_text(json.dumps(estimates))


@contextmanager
def recorded(estimates: list[dict[str, Any]]) -> Iterator[None]:
    """Record each estimate that is formatted: what is known of it, and its text."""
    from shopmath.amounts import Amount
    from stator.ui import number_format as numbers

    spell, spell_in_words = numbers._bare, dict(numbers.IN_WORDS)

    def record(amount: Amount, factor: float, text: str) -> str:
        half = amount.uncertainty * factor if amount.uncertainty else amount.uncertainty
        estimates.append({"kind": amount.kind, "half": half, "step": amount.resolution * factor, "toward": amount.toward, "text": text})
        return text

    def spelled(amount: Amount, unit: numbers.Unit) -> str:
        text = spell(amount, unit)
        return record(amount, numbers.scale_to(amount.kind, unit)[0], text) if amount.uncertainty or amount.toward else text

    in_words = {kind: partial(lambda write, amount: record(amount, 1.0, write(amount)), write) for kind, write in spell_in_words.items()}
    with patch.object(numbers, "_bare", spelled), patch.dict(numbers.IN_WORDS, in_words):
        yield


if __name__ == "__main__":
    open_pages(Path(sys.argv[1]), sys.argv[2:])
