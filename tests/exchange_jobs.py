"""Export every job of a data folder, or import the exported jobs, in a process of its own.

`python -m tests.exchange_jobs out FOLDER` writes the ZIP of each job and its report, imports every fourth ZIP into the same shop and prints
what differs. `python -m tests.exchange_jobs in FOLDER` imports the ZIPs into the shop of the data folder and prints what differs.
"""

from __future__ import annotations

import json
import os
import re
import sqlite3
import sys
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stator.settings")
NOW = datetime(2026, 12, 24, 12, tzinfo=UTC)
OF_ITS_SHOP = re.compile(r"Read in from file [^<]*")  # what a report says of the file it came from


def plain(job: Any, person: Any) -> tuple[str, dict[str, Any]]:
    """Return the report of a job as page and as PDF data, without what depends on the shop."""
    from django.test import Client

    from stator.exchange.report.data import report_of
    from stator.exchange.report.pdf import _data
    from stator.exchange.report.views import JOB

    client = Client()
    client.force_login(person, backend="django.contrib.auth.backends.ModelBackend")
    page = client.get(f"/jobs/{job.tag}/sheet/").content.decode()
    body = re.sub(r"<form.*?</form>|<svg.*?</svg>|<img[^>]*>", " ", page[page.index("<main") :], flags=re.S)
    text = " ".join(re.sub(r"<[^>]+>", " ", OF_ITS_SHOP.sub("", body.replace(job.tag, "NUMBER"))).split())
    data = _data(report_of(JOB.get(pk=job.pk), person, NOW), "a4")
    data.pop("origin")
    return text, json.loads(json.dumps(data).replace(job.tag, "NUMBER"))


def differences(name: str, made: Any, person: Any, report: list[Any], code: str) -> list[str]:
    """Return what differs between an imported job and the report it had where it was exported."""
    found = [] if made.origin.told["code"] == code else [f"{name}: {made.origin.told}"]
    text, data = plain(made, person)
    if text != report[0]:
        at = next(index for index, pair in enumerate(zip(text, report[0], strict=False)) if pair[0] != pair[1])
        found.append(f"{name}: the page has {text[at - 40 : at + 80]!r} instead of {report[0][at - 40 : at + 80]!r}")
    found += [f"{name}: {key} of the PDF differs" for key in data if data[key] != report[1].get(key)]
    return found + [f"{name}: {line}" for line in made.origin.left_out]


def _watch_for_locks(found: list[str]) -> None:
    """Note when another writer would have to wait while the import of a file is tried out."""
    from django.conf import settings

    from stator.exchange import import_dry_run

    run = import_dry_run.dry_run

    def watched(job: Any, *more: Any) -> None:
        run(job, *more)
        with closing(sqlite3.connect(settings.DATABASES["default"]["NAME"], timeout=0)) as other:
            try:
                other.execute("BEGIN IMMEDIATE")
            except sqlite3.OperationalError as error:
                found.append(f"{job.tag}: another writer waits during the dry run ({error})")

    import_dry_run.dry_run = watched


def main(what: str, folder: Path) -> list[str]:
    import django

    django.setup()
    from django.conf import settings

    from shopmath.validation import BadInput
    from stator.exchange.job_import import job_from_zip
    from stator.exchange.job_zip import job_as_zip
    from stator.exchange.report.views import JOB
    from stator.jobs.models import Job
    from stator.shop.models import Person

    settings.ALLOWED_HOSTS = ["*"]
    settings.STORAGES = {**settings.STORAGES, "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"}}
    person = Person.objects.filter(username="skipper").first() or Person.objects.create_user("owner", role="owner")
    if what == "out":
        for job in Job.objects.all():
            (folder / f"{job.tag}.zip").write_bytes(job_as_zip(JOB.get(pk=job.pk), person, NOW))
            (folder / f"{job.tag}.json").write_text(json.dumps(plain(JOB.get(pk=job.pk), person)))
    found: list[str] = []
    _watch_for_locks(found)
    for path in sorted(folder.glob("*.zip"))[:: 4 if what == "out" else 1]:
        try:
            made = job_from_zip(path.read_bytes(), person)
        except BadInput as error:
            found.append(f"{path.stem}: {error.message}")
        else:
            report = json.loads(path.with_suffix(".json").read_text())
            found += differences(path.stem, made, person, report, "own" if what == "out" else "agrees")
    return found


if __name__ == "__main__":
    print("\n".join(main(sys.argv[1], Path(sys.argv[2]))))
