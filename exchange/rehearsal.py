"""A job read in is shown once, everywhere it will be shown, before it is taken: what breaks a page is refused with the file."""

from __future__ import annotations

import logging

from django.utils.translation import gettext as _

from exchange.job_json import job_as_json
from exchange.report.data import report_of
from exchange.report.views import JOB
from jobs import clock
from jobs.models import Job
from shop.models import Person
from shopmath.checks import BadInput
from stations.base import bind
from stations.registry import BY_KEY

UNFIT = "What the file holds does not fit together. Nothing was taken."
LOG = logging.getLogger(__name__)


def rehearse(job: Job, person: Person) -> None:
    """Ask every station of a job what its pages would say, and lay out its sheet.

    Raises
    ------
    BadInput
        Naming the station that cannot be shown.
    """
    fresh = JOB.get(pk=job.pk)
    now = clock.now(job)
    for stage in fresh.run.all():
        station = BY_KEY[stage.key]
        seats = [*fresh.card.seats.all(), *([None] if station.whole else [])] if station.by_seat else [None]
        entries = list(stage.entries.select_related("seat", "supersedes", "signed_by", "opened_by"))
        bound = [(seat, None) for seat in seats] + [(entry.seat, entry) for entry in entries]
        for seat, entry in bound:
            try:
                work = bind(station, fresh, stage, seat, person, now, entry=entry)
                shown = (work.call, work.drawing(), work.sheet(), work.told(), work.traces(), work.methods(), work.checks(), work.actions())
                shown += (work.cautions(), work.open_asks(), work.latest, work.history(), work.tabs(), work.slider())  # type: ignore[assignment]
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
