"""A job as its sheet says it: out of the records of its signed entries, as plain words and numbers that a page and a PDF both set."""

from __future__ import annotations

import zlib
from dataclasses import dataclass
from datetime import datetime
from itertools import chain
from typing import Any

from django.utils.safestring import SafeString

from engines.models import Seat
from exchange.making import Tell, quietly
from jobs.models import Entry, Job, Origin, Photo, RunStation
from shop.models import Person, Shop
from stations.base.binding import computed
from stations.base.recording import frozen
from stations.registry import BY_KEY, STATIONS
from ui.inked import in_page

MOST_DRAWINGS = 12
NAMES = {station.key: str(station.name) for station in STATIONS}


@dataclass(frozen=True)
class Figure:
    """One line of the sheet: as it was found, as it was left, against what, by whom."""

    station: str
    part: str
    words: str
    found: str
    left: str
    limits: str
    source: str
    state: str
    gauge: str
    by: str
    at: str

    @property
    def call(self) -> str:
        return self.state.replace("_", " ")


@dataclass(frozen=True)
class Said:
    """One signed call. What it rests on that was assumed stands beside it."""

    station: str
    part: str
    state: str
    words: str
    reason: str
    assumed: list[str]
    by: str
    at: datetime
    earlier: str  # why it took the place of another


@dataclass(frozen=True)
class Drawn:
    """A drawing as it was recorded, with what it shows, as words."""

    title: str
    words: str
    entry: int
    svg: str
    inline: SafeString | None  # None where it was drawn in another shop: then it is shown as a picture only


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


@dataclass(frozen=True)
class Recorded:
    """A signed entry with its record."""

    entry: Entry
    content: dict[str, Any]
    drawing: bytes

    @property
    def name(self) -> str:
        return NAMES.get(self.entry.station.key, self.entry.station.key)

    @property
    def part(self) -> str:
        return self.entry.seat.name if isinstance(self.entry.seat, Seat) else ""


def recorded(job: Job, person: Person) -> list[Recorded]:
    """Every signed entry of a job, in working order."""
    rows = job.entries.filter(signed_at__isnull=False).select_related("station", "seat", "signed_by", "supersedes", "record")
    return [_recorded(job, entry, person) for entry in rows.order_by("station__order", "opened_at")]


def _recorded(job: Job, entry: Entry, person: Person) -> Recorded:
    record = getattr(entry, "record", None)
    if record is None:  # signed before there were records, and not upgraded yet: nothing is written here
        entry.job = job
        work = computed(BY_KEY[entry.station.key], job, entry.station, entry.seat, person, entry.signed_at or entry.opened_at, entry)
        record = frozen(work, work.plate())
    return Recorded(entry, record.content, bytes(record.drawing))


def report_of(job: Job, person: Person, now: datetime, tell: Tell = quietly) -> Report:
    """Gather a job's sheet; drawings are those of the entries that stand."""
    tell("Gathering what was read and judged", 0.05)
    signed = recorded(job, person)
    replaced = {each.entry.supersedes_id for each in signed if each.entry.supersedes_id}
    stand = [each for each in signed if each.entry.pk not in replaced]
    handed = next((each.entry for each in reversed(stand) if each.entry.station.key == "hand-over"), None)
    last = handed.result if handed else {}
    skipped = [stage for stage in job.run.all() if stage.state == RunStation.State.SKIPPED]
    return Report(
        shop=Shop.current(),
        job=job,
        figures=figures(signed),
        calls=[_said(each) for each in stand if each.entry.station.key != "hand-over"],
        drawings=_drawings([each for each in stand if BY_KEY[each.entry.station.key].drawn], tell, Origin.objects.filter(job=job).exists()),
        photos=list(job.photos.all()),
        parts=list(last.get("parts", [])),
        decisions=_decisions(stand, str(last.get("against_advice", ""))),
        otherwise=list(chain.from_iterable(each.content["otherwise"] for each in stand)),
        unknown=_unknown(stand, str(last.get("unknown", ""))),
        left_out=[(NAMES.get(stage.key, stage.key), stage.because) for stage in skipped],
        note=str(last.get("note", "")),
        signed=handed,
    )


def figures(signed: list[Recorded]) -> list[Figure]:
    """Every figure once, in working order: the first entry that has it says how it was found, the last how it was left."""
    lines: dict[tuple[str, str, str], list[dict[str, Any]]] = {}
    for each in signed:
        for line in each.content["figures"]:
            lines.setdefault((each.entry.station.key, line["part"], line["key"]), []).append(line)
    return [_figure(station, found) for (station, _, _), found in lines.items()]


def _figure(station: str, lines: list[dict[str, Any]]) -> Figure:
    first, last = lines[0], lines[-1]
    left = last["left"] or (last["value"] if len(lines) > 1 else "")
    found = first["value"]
    came_to = first["key"].startswith("told ")
    if not left and not came_to and not BY_KEY[station].as_found:
        found, left = "", found
    kept = ("part", "words", "limits", "source", "state", "gauge", "by", "at")
    return Figure(station=NAMES.get(station, station), found=found, left=left, **{name: last[name] for name in kept})


def _said(each: Recorded) -> Said:
    entry = each.entry
    earlier = str(entry.choices.get("because", "")) if entry.supersedes_id else ""
    by = entry.signed_by.called if entry.signed_by else ""
    call = each.content["call"]
    at = entry.signed_at or entry.opened_at
    return Said(each.name, each.part, entry.call_state, call["headline"], call["reason"], call.get("assumed", []), by, at, earlier)


def _decisions(stand: list[Recorded], advice: str) -> list[str]:
    """What was decided against advice, with the reason given for it."""
    found = [f"Signed against the call: {advice}"] if advice else []
    for each in stand:
        found += [f"{each.name}: {line}" for line in each.content.get("decisions", [])]
        if each.entry.supersedes_id and each.entry.choices.get("because"):
            found.append(f"{each.name} replaced: {each.entry.choices['because']}")
    return found


def _unknown(stand: list[Recorded], said: str) -> list[str]:
    """What was left unmeasured, and what the mechanic says stays unknown."""
    found = [said] if said else []
    for each in stand:
        part = f", {each.part}" if each.part else ""
        if each.content.get("unmeasured"):
            found.append(f"{each.name}{part}: {each.content['unmeasured']} not measured")
    return found


def _drawings(stand: list[Recorded], tell: Tell, foreign: bool) -> list[Drawn]:
    found = []
    stand = [each for each in stand if each.drawing]
    for index, each in enumerate(stand[:MOST_DRAWINGS]):
        title = each.name + (f", {each.part}" if each.part else "")
        tell(f"Drawing {title}", 0.2 + 0.5 * index / len(stand))
        call = each.content["call"]
        svg = zlib.decompress(each.drawing).decode() if each.drawing else ""
        inline = None if foreign or not svg else in_page(svg, f"record{each.entry.pk}")
        found.append(Drawn(title, f"{call['headline']}. {call['reason']}", each.entry.pk, svg, inline))
    return found
