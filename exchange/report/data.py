"""A job as its sheet says it: plain words and numbers that a page and a PDF both set."""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import datetime

from django.utils.safestring import SafeString, mark_safe

from engines.models import Seat
from exchange.making import Tell, quietly
from exchange.report.figures import Figure, figures
from jobs.models import Entry, Job, Photo, Reading, RunStation
from shop.models import Person, Shop
from stations.base import Work
from stations.registry import BY_KEY, STATIONS

DRAWN = ("inspect", "true", "heat-and-drop", "seals", "end-float", "crank-in", "close", "centre", "balance", "flywheel-on")
MOST_DRAWINGS = 12


@dataclass(frozen=True)
class Said:
    """One signed call."""

    station: str
    part: str
    state: str
    words: str
    reason: str
    by: str
    at: datetime
    earlier: str  # why it took the place of another


@dataclass(frozen=True)
class Drawn:
    """A drawing with what it shows, as words."""

    title: str
    words: str
    svg: SafeString


@dataclass(frozen=True)
class Report:
    """Everything on the sheet."""

    shop: Shop
    job: Job
    figures: list[Figure]
    calls: list[Said]
    drawings: list[Drawn]
    photos: list[Photo]
    parts: list[str]
    decisions: list[str]
    otherwise: list[dict[str, str]]
    unknown: list[str]
    left_out: list[tuple[str, str]]
    note: str
    signed: Entry | None

    @property
    def sealed(self) -> bool:
        return self.job.gone_at is not None


NAMES = {station.key: station.name for station in STATIONS}


def _works(job: Job, person: Person, now: datetime) -> list[tuple[Entry, Work]]:
    """Each entry bound as it stood, its readings read in one question for all of them."""
    entries = list(job.entries.select_related("station", "seat", "signed_by", "supersedes").order_by("station__order", "opened_at"))
    taken: dict[int, list[Reading]] = {}
    rows = Reading.objects.filter(entry__job=job).select_related("gauge", "by").order_by("taken_at", "pk")
    for reading in rows:
        taken.setdefault(reading.entry_id, []).append(reading)
    shop = Shop.current()
    found = []
    for entry in entries:
        entry.job, station = job, BY_KEY[entry.station.key]
        work = station.binding(entry.seat)(
            station, job, entry.station, entry.seat, None, person, entry.signed_at or now, shop, taken.get(entry.pk, [])
        )
        work.entry, work.papers = entry, ("wide",)
        work.timers = [timer for timer in job.timers.all() if timer.entry_id == entry.pk]
        found.append((entry, work))
    return found


def report_of(job: Job, person: Person, now: datetime, tell: Tell = quietly) -> Report:
    """Gather a job's sheet. The card and the clocks are read once; drawings are those of the entries that stand."""
    tell("Gathering what was read and judged", 0.05)
    works = _works(job, person, now)
    replaced = {entry.supersedes_id for entry, _ in works if entry.supersedes_id}
    signed = [(entry, work) for entry, work in works if entry.is_signed]
    stand = [(entry, work) for entry, work in signed if entry.pk not in replaced]
    handed = next((entry for entry, _ in reversed(stand) if entry.station.key == "hand-over"), None)
    last = handed.result if handed else {}
    calls = [_said(entry) for entry, _ in stand if entry.station.key != "hand-over"]
    return Report(
        shop=Shop.current(),
        job=job,
        figures=figures(signed, NAMES),
        calls=calls,
        drawings=_drawings([pair for pair in stand if pair[0].station.key in DRAWN], tell),
        photos=list(job.photos.all()),
        parts=list(last.get("parts", [])),
        decisions=_decisions(stand, str(last.get("against_advice", ""))),
        otherwise=[line for entry, _ in stand for line in (*entry.result.get("contradicts", []), *entry.result.get("contradictions", []))],
        unknown=_unknown(stand, str(last.get("unknown", ""))),
        left_out=[(NAMES.get(stage.key, stage.key), stage.because) for stage in job.run.all() if stage.state == RunStation.State.SKIPPED],
        note=str(last.get("note", "")),
        signed=handed,
    )


def _said(entry: Entry) -> Said:
    earlier = str(entry.choices.get("because", "")) if entry.supersedes_id else ""
    by = entry.signed_by.called if entry.signed_by else ""
    part = entry.seat.name if isinstance(entry.seat, Seat) else ""
    at = entry.signed_at or entry.opened_at
    return Said(NAMES.get(entry.station.key, entry.station.key), part, entry.call_state, entry.call_words, entry.reason, by, at, earlier)


def _decisions(stand: list[tuple[Entry, Work]], advice: str) -> list[str]:
    """What was decided otherwise than advised, with the reason given for it."""
    found = [f"Signed against the call: {advice}"] if advice else []
    for entry, work in stand:
        for reading in work.readings:
            key = reading.ask.rpartition("-")[2]
            if not reading.withdrawn_at and key in ("why", "cite"):
                found.append(f"{NAMES.get(entry.station.key, '')}: {reading.extra.get('asked', 'why')} {reading.text}")
        if entry.supersedes_id and entry.choices.get("because"):
            found.append(f"{NAMES.get(entry.station.key, '')} done again: {entry.choices['because']}")
    return found


def _unknown(stand: list[tuple[Entry, Work]], said: str) -> list[str]:
    """What was left unmeasured, and what the mechanic says stays unknown."""
    found = [said] if said else []
    for entry, work in stand:
        skipped = set(entry.choices.get("skipped", [])) - {reading.ask for reading in work.readings if not reading.withdrawn_at}
        part = f", {entry.seat.name}" if entry.seat else ""
        if skipped:
            found.append(f"{NAMES.get(entry.station.key, '')}{part}: {len(skipped)} not measured")
    return found


def unlinked(svg: SafeString) -> SafeString:
    """A drawing that leads nowhere: what is tapped at the bench is only looked at on paper."""
    plain = re.sub(r"</?a\b[^>]*>", "", str(svg)).replace('role="group"', 'role="img"')
    return mark_safe(plain)  # noqa: S308  a rendered sheet with its links taken off


def _drawings(stand: list[tuple[Entry, Work]], tell: Tell) -> list[Drawn]:
    found = []
    for index, (entry, work) in enumerate(stand[:MOST_DRAWINGS]):
        title = NAMES.get(entry.station.key, entry.station.key) + (f", {entry.seat.name}" if entry.seat else "")
        tell(f"Drawing {title}", 0.2 + 0.5 * index / len(stand))
        found.append(Drawn(title, f"{entry.call_words}. {entry.reason}", unlinked(work.drawing())))
    return found
