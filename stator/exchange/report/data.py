"""Data of the job report: a first page for the customer, then every reading with its source.

It uses the records of signed entries only, so that it is the same in every shop.
"""

from __future__ import annotations

import zlib
from dataclasses import dataclass
from datetime import datetime
from itertools import chain

from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from stator.exchange.background_tasks import Tell, no_progress
from stator.exchange.report import messages as words
from stator.exchange.report.signed_entries import HAND_OVER, NAMES, Recorded, recorded, standing
from stator.exchange.report.values import BAD, KeyValue, ReportValue, figures, mattering
from stator.exchange.signing import own_fingerprint
from stator.jobs.models import Job, Origin, Photo, Reading, RunStation
from stator.shop.models import Gauge, Person, Shop
from stator.stations.framework.messages import capital, format_message
from stator.ui.static_svg import in_page
from stator.ui.times import day_time
from stator.workbench.registry import STATION_BY_KEY, STATIONS

MOST_DRAWINGS, MOST_NAMED = 12, 4
NOT_DONE = ("stop",)


@dataclass(frozen=True)
class ReportVerdict:
    """A signed verdict with its assumptions."""

    station: str
    part: str
    state: str
    words: str
    reason: str
    assumed: tuple[str, ...]
    by: str
    at: datetime


@dataclass(frozen=True)
class ReportDrawing:
    """A drawing as it was recorded, with what it shows, as words."""

    title: str
    words: str
    entry: int
    svg: str
    inline: SafeString | None  # None where it was drawn in another shop: then it is shown as a picture only


@dataclass(frozen=True)
class FirstPage:
    """The page for the customer: what was done, the state of the engine, and the important values."""

    done: str
    state: str
    headline: str
    line: str
    figures: list[KeyValue]
    drawing: ReportDrawing | None
    before: Photo | None
    after: Photo | None


@dataclass(frozen=True)
class Report:
    """The complete job report."""

    shop: str
    job: Job
    origin: Origin | None
    fingerprint: str  # of the key that signs files of this job; of the file's signer if the job was imported
    first: FirstPage
    figures: list[ReportValue]
    calls: list[ReportVerdict]
    drawings: list[ReportDrawing]
    photos: list[Photo]
    parts: list[str]
    decisions: list[str]
    otherwise: list[dict[str, str]]
    unknown: list[str]
    replaced: list[str]
    left_out: list[tuple[str, str]]
    note: str
    signed: Recorded | None

    @property
    def sealed(self) -> bool:
        return self.job.gone_at is not None


def report_of(job: Job, person: Person, now: datetime, tell: Tell = no_progress) -> Report:
    """Return the report of a job; only valid entries count."""
    tell(_("Gathering what was read and judged"), 0.05)
    signed = recorded(job, person)
    stand = standing(signed)
    handed = next((each for each in reversed(stand) if each.entry.station.key == HAND_OVER), None)
    last = handed.entry.result if handed else {}
    origin: Origin | None = getattr(job, "origin", None)
    drawings = _drawings([each for each in stand if each.station.drawn], tell, origin is not None)
    decisions = _decisions(stand, str(last.get("against_advice", "")))
    photos, matter = list(job.photos.all()), mattering(stand)
    skipped = [stage for stage in job.run.all() if stage.state == RunStation.State.SKIPPED]
    return Report(
        shop=(origin.shop if origin else "") or Shop.current().name,
        job=job,
        origin=origin,
        fingerprint=origin.told.get("fingerprint", "") if origin else own_fingerprint(),
        first=_first(job, stand, matter, bool(decisions), photos, drawings),
        figures=figures(stand),
        calls=[_said(each) for each in stand if each.entry.station.key != HAND_OVER],
        drawings=drawings,
        photos=photos,
        parts=list(last.get("parts", [])),
        decisions=decisions,
        otherwise=list(chain.from_iterable(each.content["otherwise"] for each in stand)),
        unknown=[*_unknown(stand, str(last.get("unknown", ""))), *_gauges(stand)],
        replaced=_replaced(signed),
        left_out=[(str(NAMES.get(stage.key, stage.key)), stage.because) for stage in skipped],
        note=str(last.get("note", "")),
        signed=handed,
    )


# the first page


def _first(
    job: Job, stand: list[Recorded], matter: list[KeyValue], decided: bool, photos: list[Photo], drawings: list[ReportDrawing]
) -> FirstPage:
    shaky = decided or any(each.state in BAD for each in matter) or any(each.entry.call_state in BAD for each in stand)
    code = "ended" if job.ended_because else "open" if job.gone_at is None else "reservations" if shaky else "ready"
    state = {"ended": "stop", "open": "wait", "reservations": "too_close", "ready": "in"}[code]
    rebuilding = {stage.pk for stage in job.run.all() if stage.key in STATION_BY_KEY and STATION_BY_KEY[stage.key].rebuilds}
    late = [photo for photo in photos if photo.station_id in rebuilding]
    early = [photo for photo in photos if photo not in late]
    return FirstPage(
        done=_done(stand),
        state=state,
        headline=str(words.HEADLINE[code]),
        line=capital(f"{job.ended_because}.") if code == "ended" else _counted(matter, job),
        figures=matter,
        drawing=_as_left(drawings, stand),
        before=early[0] if early else None,
        after=late[-1] if late else None,
    )


def _counted(matter: list[KeyValue], job: Job) -> str:
    judged = [each for each in matter if each.state]
    within = sum(each.state == "in" for each in judged)
    said = [format_message(words.WITHIN, {"within": within, "count": len(judged)})] if judged else []
    if len(matter) > len(judged):
        said.append(format_message(words.WITHOUT, {"without": len(matter) - len(judged)}))
    line = f"{', '.join(said)}." if said else str(words.NO_FIGURES)
    return line if job.gone_at else f"{line} {words.NOT_YET}"


def _done(stand: list[Recorded]) -> str:
    """Return what was done, in a sentence: the putting together, where there was any."""
    counts: dict[str, int] = {}
    for each in stand:
        if each.entry.call_state not in NOT_DONE and each.entry.station.key != HAND_OVER:
            seats = 1 if each.entry.seat_id or not each.station.by_seat else 0  # of a heat of a whole half each seat tells
            counts[each.entry.station.key] = counts.get(each.entry.station.key, 0) + seats
    keys = [station.key for station in STATIONS if counts.get(station.key)]
    rebuilt = [key for key in keys if STATION_BY_KEY[key].rebuilds]
    phrases = [format_message(STATION_BY_KEY[key].done, {"count": counts[key]}) for key in rebuilt or keys if STATION_BY_KEY[key].done]
    return f"{capital(', '.join(phrases))}." if phrases else ""


def _as_left(drawings: list[ReportDrawing], stand: list[Recorded]) -> ReportDrawing | None:
    """Return the drawing of the last station that assembled something and has values, or of the last that measured."""
    rebuilt = {each.entry.pk for each in stand if each.station.rebuilds and each.station.sheet}
    return next((each for each in reversed(drawings) if each.entry in rebuilt), drawings[-1] if drawings else None)


# the rest


def _said(each: Recorded) -> ReportVerdict:
    verdict, entry = each.content["call"], each.entry
    at = entry.signed_at or entry.opened_at
    return ReportVerdict(
        each.name, each.part, entry.call_state, verdict["headline"], verdict["reason"], tuple(verdict.get("assumed", ())), each.by, at
    )


def _decisions(stand: list[Recorded], advice: str) -> list[str]:
    """Return what was decided against advice, with the reason given for it."""
    found = [format_message(words.AGAINST, {"reason": advice})] if advice else []
    return found + [f"{each.name}: {line}" for each in stand for line in each.content.get("decisions", [])]


def _named(each: Recorded) -> str:
    return f"{each.name}, {each.part}" if each.part else each.name


def _replaced(signed: list[Recorded]) -> list[str]:
    """Entries that another took the place of, each with the reason."""
    by_pk = {each.entry.pk: each for each in signed}
    found = []
    for each in signed:
        old = by_pk.get(each.entry.supersedes_id or 0)
        if old is not None:
            at = old.entry.signed_at or old.entry.opened_at
            values = {"name": _named(each), "because": each.because, "by": old.by, "at": day_time(at)}
            found.append(format_message(words.REPLACED, {**values, "call": old.content["call"]["headline"]}))
    return found


def _unknown(stand: list[Recorded], said: str) -> list[str]:
    """Return what was left unmeasured, and what the mechanic says stays unknown."""
    found = [said] if said else []
    for each in stand:
        what = [str(name) for name in each.content.get("unmeasured_what", [])]
        more = len(what) - MOST_NAMED
        if what:
            listed = [*what[:MOST_NAMED], *([format_message(words.AND_MORE, {"count": more})] if more > 0 else [])]
            found.append(format_message(words.UNMEASURED, {"name": _named(each), "what": ", ".join(listed)}))
        elif each.content.get("unmeasured"):  # of a record that counted them only
            found.append(format_message(words.COUNT_UNMEASURED, {"name": _named(each), "count": each.content["unmeasured"]}))
    return found


def _gauges(stand: list[Recorded]) -> list[str]:
    """Return the gauges that proved to be faulty after they were used in this job."""
    entries = {each.entry.pk: each for each in stand}
    found = []
    for gauge in Gauge.objects.exclude(wrong_from=None):
        taken = Reading.objects.filter(entry__in=entries, gauge=gauge, withdrawn_at=None, taken_at__date__gte=gauge.wrong_from)
        rests = dict.fromkeys(_named(entries[pk]) for pk in taken.values_list("entry", flat=True))
        if rests:
            found.append(format_message(words.GAUGE_WRONG, {"gauge": gauge.name, "because": gauge.wrong_because, "stations": tuple(rests)}))
    return found


def _drawings(stand: list[Recorded], tell: Tell, foreign: bool) -> list[ReportDrawing]:
    found = []
    stand = [each for each in stand if each.drawing]
    for index, each in enumerate(stand[:MOST_DRAWINGS]):
        title = _named(each)
        tell(f"Drawing {title}", 0.2 + 0.5 * index / len(stand))
        verdict = each.content["call"]
        svg = zlib.decompress(each.drawing).decode() if each.drawing else ""
        inline = None if foreign or not svg else in_page(svg, f"record{each.entry.pk}")
        found.append(ReportDrawing(title, f"{verdict['headline']}. {verdict['reason']}", each.entry.pk, svg, inline))
    return found
