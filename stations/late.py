"""Records of entries that were signed before there were records, or in another shop: made once, by the core of today."""

from __future__ import annotations

import logging

from django.db.models import QuerySet

from jobs import log
from jobs.log import Frozen
from jobs.models import Entry, Job
from shop.models import Person
from stations.base.binding import computed, freeze_late
from stations.base.recording import bare
from stations.registry import BY_KEY

LOG = logging.getLogger(__name__)


def derive_late(entry: Entry) -> None:
    """What follows from the readings of an entry that is about to be sealed, by the core of today, where its file does not tell it."""
    person: Person = entry.signed_by or entry.opened_by
    try:
        found = computed(BY_KEY[entry.station.key], entry.job, entry.station, entry.seat, person, entry.signed_at or entry.opened_at, entry)
        log.derive(entry, found.findings())
    except Exception:  # whatever an old entry rests on: its call stands without it
        LOG.warning("entry %s tells others nothing of what followed from it", entry.pk, exc_info=True)


WITH = ("job__card", "job__booked_in_by", "station", "seat", "signed_by", "opened_by", "supersedes")


def without_record() -> QuerySet[Entry]:
    """Signed entries that have none, oldest first."""
    return Entry.objects.filter(signed_at__isnull=False, record=None).order_by("pk")


def record_all(job: Job | None = None) -> int:
    """Record every signed entry that has no record, of one job or of all; how many there were.

    An entry that today's core cannot lay out any more keeps its call, its reason and its readings as they were typed.
    """
    rows = without_record().filter(job=job) if job else without_record()
    entries = list(rows.values_list("pk", flat=True))
    for number in entries:  # one at a time: what each is computed from is let go again
        entry = Entry.objects.select_related(*WITH).get(pk=number)
        person: Person = entry.signed_by or entry.opened_by
        try:
            freeze_late(BY_KEY[entry.station.key], entry, person)
        except Exception:  # whatever an old entry rests on: its call stands, and the upgrade goes on
            LOG.warning("entry %s is recorded without its drawing and figures", entry.pk, exc_info=True)
            log.record_late(entry, Frozen(bare(entry, str(BY_KEY[entry.station.key].name)), b""))
    return len(entries)
