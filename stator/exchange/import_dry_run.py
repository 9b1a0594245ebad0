"""Dry run of an import: the job is written into a copy of the database, and every page that will show it is rendered.

A file that breaks a page is refused. The copy takes no lock that another writer waits for, so a slow file delays nobody.
"""

from __future__ import annotations

import logging
import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path

from django.db import DEFAULT_DB_ALIAS, connections
from django.utils.translation import gettext as _

from shopmath.validation import BadInput
from stator.exchange.background_tasks import Tell, no_progress
from stator.exchange.job_export import job_as_json
from stator.exchange.report.data import report_of
from stator.exchange.report.views import JOB
from stator.jobs import clock
from stator.jobs.models import Job
from stator.shop.models import Person
from stator.stations.framework import bind
from stator.workbench.registry import STATION_BY_KEY

UNFIT = "What the file holds does not fit together. Nothing was taken."
PRAGMAS = "PRAGMA foreign_keys=ON; PRAGMA synchronous=OFF; PRAGMA journal_mode=MEMORY"
LOG = logging.getLogger(__name__)


@contextmanager
def copy_of_database() -> Iterator[None]:
    """Let this thread work on a copy of the database, which is deleted afterward."""
    original = connections[DEFAULT_DB_ALIAS]
    original.ensure_connection()
    with tempfile.TemporaryDirectory(prefix="stator-import-") as folder:
        path = Path(folder) / "copy.sqlite3"
        if original.in_atomic_block:  # SQLite copies no database whose writer asks for the copy; only tests import inside a transaction
            path.write_bytes(original.connection.serialize())
        else:
            with closing(sqlite3.connect(path)) as target:
                original.connection.backup(target)
        copy = connections.create_connection(DEFAULT_DB_ALIAS)
        copy.settings_dict = {**original.settings_dict, "NAME": str(path), "OPTIONS": {"init_command": PRAGMAS}}
        connections[DEFAULT_DB_ALIAS] = copy
        try:
            yield
        finally:
            connections[DEFAULT_DB_ALIAS] = original
            copy.close()


def dry_run(job: Job, person: Person, tell: Tell = no_progress) -> None:
    """Render every station of a job and create its report.

    Parameters
    ----------
    job : Job
        A job in a copy of the database.
    person : Person
        The user who imports it.
    tell : Tell
        Receives the progress, 0 to 1.

    Raises
    ------
    BadInput
        With the station that cannot be shown.
    """
    fresh = JOB.get(pk=job.pk)
    now = clock.now(job)
    stages = list(fresh.run.all())
    for index, stage in enumerate(stages):
        tell(_("Checking station {number} of {count}").format(number=index + 1, count=len(stages)), index / len(stages))
        station = STATION_BY_KEY[stage.key]
        seats = [*fresh.card.seats.all(), *([None] if station.whole else [])] if station.by_seat else [None]
        entries = list(stage.entries.select_related("seat", "supersedes", "signed_by", "opened_by"))
        bound = [(seat, None) for seat in seats] + [(entry.seat, entry) for entry in entries]
        for seat, entry in bound:
            try:
                work = bind(station, fresh, stage, seat, person, now, entry=entry)
                shown = (
                    work.current_verdict,
                    work.drawing(),
                    work.readings_table(),
                    work.report_results(),
                    work.sources(),
                    work.methods(),
                    work.checks(),
                    work.actions(),
                )
                shown += (work.warnings(), work.open_questions(), work.latest, work.history(), work.tabs(), work.slider())  # type: ignore[assignment]
            except Exception as error:
                LOG.warning("a job read in breaks %s", stage.key, exc_info=True)
                raise BadInput("file", _("Its station {name} cannot be shown. {unfit}").format(name=station.name, unfit=UNFIT)) from error
            del shown
    try:
        report_of(fresh, person, now)
        job_as_json(fresh)
    except Exception as error:
        LOG.warning("the sheet of a job read in cannot be laid out", exc_info=True)
        raise BadInput("file", _("Its sheet cannot be laid out. {unfit}").format(unfit=UNFIT)) from error
