"""The working screen: the work an address names, and what its page shows.

No rule of the trade lives here.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import redirect, render
from django.utils.safestring import SafeString
from django.utils.translation import gettext as _
from django.utils.translation import gettext_lazy
from django_htmx.http import HttpResponseClientRedirect, trigger_client_event

from shopmath.validation import BadInput
from stator.engines.models import Seat
from stator.engines.typical_ranges import AGAIN
from stator.jobs import clock
from stator.jobs.models import Job, Photo, Reading
from stator.jobs.photos import photos_of
from stator.shop.equipment_snapshot import shelves
from stator.shop.models import Gauge
from stator.stations.framework import COMMANDS, WORD, BoundStation, PageState, Question, ReadingRow, bind
from stator.stations.framework.hidden_verdict import is_verdict_hidden
from stator.stations.framework.messages import capital
from stator.stations.framework.page_state import SAID_FOR
from stator.stations.framework.reading_notes import OF_ALL
from stator.ui.glossary import GLOSSARY
from stator.ui.partial_request import is_partial
from stator.ui.units import Units, read_as_typed, units_now
from stator.ui.url_values import job_number, station_address
from stator.workbench.bulk_answers import as_before, places_left, skip_optional_questions
from stator.workbench.offline import offline_bundle
from stator.workbench.photo_views import pinned
from stator.workbench.reading_commands import job_of
from stator.workbench.registry import STATION_BY_KEY

WHOLE = 0  # in the place of a seat: all of them at once
SECOND = gettext_lazy(
    "{asked}: {stands} from {first} stands. {typed} from {by} came after it and was withdrawn; to use it, take that reading again."
)


def find_work(
    request: HttpRequest, tag: str, key: str, seat: int | None = None, *, landing: bool = False, job: Job | None = None
) -> BoundStation:
    """Return the station of an address, or 404 with a message.

    `landing` is a visit without a seat, which shows the present one; `job` is its job if it was loaded already.
    """
    if key not in STATION_BY_KEY:
        raise Http404
    job = job_of(job_number(tag), job)
    if job is None or (job.practice and job.booked_in_by_id != request.user.pk):
        raise Http404
    stage = next((each for each in job.run.all() if each.key == key), None)
    found = next((each for each in job.card.seats.all() if each.pk == seat), None)
    seatless = STATION_BY_KEY[key].by_seat and found is None and not STATION_BY_KEY[key].goes_whole
    if stage is None or (seat and found is None) or (seatless and not landing):
        raise Http404
    work: BoundStation = bind(STATION_BY_KEY[key], job, stage, found, request.user, clock.now(job))  # type: ignore[arg-type]
    paper = request.COOKIES.get("paper", "")
    work.papers = (paper,) if paper in work.papers else work.papers
    if units_now() == Units.TYPED:
        read_as_typed(units_typed(work))
    if request.method == "POST":
        work.seen = PageState.of(request.POST.get("seen", ""))
    return work


def units_typed(work: BoundStation) -> dict[str, str]:
    """Return the unit in which each kind of quantity was typed last at this job; a station's own readings have priority."""
    rows = Reading.objects.filter(entry__job=work.job, withdrawn_at=None, canonical__isnull=False, carried_from=None)
    found = dict(rows.order_by("pk").values_list("kind", "unit"))
    return found | {each.kind: each.unit for each in work.readings if each.canonical is not None and not each.withdrawn_at}


def offers_whole(work: BoundStation) -> bool:
    """Return True if there is work on all seats at once, or on what sits in none."""
    return work.station.goes_whole and (work.station.at_once or work.job.card.fitted.exists())


def page_data(work: BoundStation, ask: str | None = None, error: BadInput | None = None, typed: str = "") -> dict[str, Any]:
    """Everything the working screen shows."""
    run = [
        (stage, STATION_BY_KEY[stage.key].name, station_address(work.job.tag, stage.key))
        for stage in work.job.run.all()
        if stage.key in STATION_BY_KEY
    ]
    veiled = is_verdict_hidden(work)
    for stage, _name, _address in run if veiled else ():
        stage.call_state = ""  # nothing on the page says beforehand what the learner is to say
    asked = work.question_for(ask)
    in_turn = [each for each in work.current_questions if not each.quiet]
    left = len(work.open_questions())
    seats = list(work.job.card.seats.all()) if work.station.by_seat else []
    now = clock.now(work.job)
    return {
        "work": work,
        "job": work.job,
        "plate": work.current_verdict,
        "ask": asked,
        "asked_at": len(in_turn) - left + 1 if left else len(in_turn),
        "asked_of": len(in_turn),
        "before": work.answers.last(asked.key) if asked else None,
        "alike": _alike(work, asked),
        "round_alike": _round_alike(work, asked),
        "together": skip_optional_questions(work, asked),
        "as_before": as_before(work, asked),
        "saw": len(work.answers.live(asked.key)) if asked else 0,
        "hears": _heard_by(work, asked),
        **log_of(work, asked),
        "error": error,
        "typed": typed,
        "notes": notes(work),
        "run": run,
        "seats": seats,
        "offers_whole": offers_whole(work),
        "slider": work.slider(),
        "timers": [timer for timer in work.job.timers.all() if not timer.ended_at and not timer.long_over(now)],
        "photographed": _photographed(work),
        "commands": COMMANDS,
        "example": _example(work),
        "glossary": GLOSSARY,
        "inches": units_now() == Units.INCH,
        "now": now,
        "pace": clock.pace(work.job),
        "veiled": veiled,
        "onward": _onward(work, seats) if work.signed else None,
        "earlier": work.entry.supersedes if work.entry else None,
        "along": offline_bundle(work, asked),
        "actions": work.actions(),
        "checks": work.checks(),
        "gate": work.blocking_check(),
        "methods": work.methods(),
        "tabs": work.tabs(),
    }


def pictures_of(work: BoundStation) -> list[tuple[Photo, SafeString]]:
    """The photos taken here, each with its pins on it."""
    return [(photo, pinned(photo)) for photo in photos_of(work.stage, work.seat).prefetch_related("pins")]


def _photographed(work: BoundStation) -> int:
    """Return how many photos were taken here."""
    at_station: int | None = getattr(work.stage, "photographed", None)  # counted with the run, where the page asked for it
    if at_station is None or (at_station and work.seat):
        return photos_of(work.stage, work.seat).count()
    return at_station


def _alike(work: BoundStation, ask: Question | None) -> ReadingRow | None:
    """Return the last reading of the same property at another place, offered again because such values are often the same."""
    if ask is None or ask.slot is None or ask.options or ask.slot.what not in AGAIN or work.answers.live(ask.key):
        return None
    latest = work.latest
    return latest if latest and latest.reading.property == ask.slot.what else None


def _round_alike(work: BoundStation, ask: Question | None) -> tuple[ReadingRow, int] | None:
    """Return the last reading if it belongs to the same round, offered for all other places, and the number of these."""
    places = places_left(work, ask)
    latest = work.latest if len(places) > 1 else None
    same = latest and ask and ask.slot and latest.reading.property == ask.slot.what and not latest.reading.extra.get(OF_ALL)
    return (latest, len(places)) if latest and same else None


def _example(work: BoundStation) -> str:
    """Return what an answer of this station looks like, while nothing is measured yet."""
    begun = work.signed or any(not each.withdrawn_at for each in work.readings)
    return "" if begun else str(getattr(work.station.words, "EXAMPLE", ""))


def notes(work: BoundStation) -> list[str]:
    """Return notes for every reader of the page: two answers to one question, a clock that was set back."""
    found = []
    for late, first in _second_answers(work):
        values = {
            "asked": capital(work.reading_label(late)),
            "by": late.by.called,
            "typed": late.text,
            "stands": first.text,
            "first": first.by.called,
        }
        found.append(SECOND.format(**values))
    return found + _clock_notes(work)


def _second_answers(work: BoundStation) -> list[tuple[Reading, Reading]]:
    """Return recent answers that came after another device's answer to the same question, each with the valid one."""
    late = [each for each in work.readings if each.came_second and work.now - each.taken_at < SAID_FOR and not work.signed]
    found = [(each, work.answers.live(each.ask)) for each in late]
    return [(each, stands[-1]) for each, stands in found if stands and stands[-1].pk < each.pk]


def _clock_notes(work: BoundStation) -> list[str]:
    """Return notes on the computer's clock that concern this station."""
    if work.signed:
        return []
    taken = [each.taken_at for each in work.readings] + [each.started_at for each in work.timers]
    if work.entry:
        before = work.entry.supersedes
        taken += [work.entry.opened_at, *([before.signed_at] if before and before.signed_at else [])]
    return clock.notes(work.now, taken)


def log_of(work: BoundStation, ask: Question | None) -> dict[str, Any]:
    """Return the data for importing a gauge's own log here."""
    gauges = shelves(work.shop).gauges if work.from_log and ask and not work.signed else ()
    return {"log_gauges": gauges, "log_gauge": work.gauge_for(ask) if ask and gauges else None}


def _heard_by(work: BoundStation, ask: Question | None) -> Gauge | None:
    """Return the gauge that is connected to the reading bar; in practice the exercise has a gauge of its own."""
    gauge = work.gauge_for(ask) if ask and not ask.options and not work.job.practice else None
    return gauge if gauge and gauge.port else None


def place_called(work: BoundStation, typed: str) -> str:
    """Return the address of the station or seat whose name begins with the input.

    It is empty if there is none or more than one.
    """
    run = [(str(STATION_BY_KEY[stage.key].name), stage.key, None) for stage in work.job.run.all() if stage.key in STATION_BY_KEY]
    seats = [(each.name, work.station.key, each.pk) for each in work.job.card.seats.all()] if work.station.by_seat else []
    named = [(name.lower(), key, seat) for name, key, seat in (*run, *seats)]
    found = [each for each in named if each[0] == typed] or [each for each in named if each[0].startswith(typed)]
    return station_address(work.job.tag, *found[0][1:]) if len(found) == 1 else ""


def next_seat(work: BoundStation) -> str:
    """Return the address of the next seat without a signed entry; empty if there is none."""
    onward = _onward(work, list(work.job.card.seats.all())) if work.station.by_seat and work.seat and work.signed else None
    return onward[0] if onward and onward[0].startswith(station_address(work.job.tag, work.station.key)) else ""


def _onward(work: BoundStation, seats: list[Seat]) -> tuple[str, str] | None:
    """Return where to go once this is signed: the next seat without an entry, else the next station ahead."""
    signed = set(work.stage.entries.filter(signed_at__isnull=False).values_list("seat_id", flat=True)) if seats else set()
    seat = next((each for each in seats if each.pk not in signed and not work.fitted_elsewhere(each)), None)
    if seat:
        return station_address(work.job.tag, work.station.key, seat.pk), seat.name
    stage = next((each for each in work.job.run.all() if each.state in ("now", "ahead", "waits") and each.pk != work.stage.pk), None)
    return (station_address(work.job.tag, stage.key), str(STATION_BY_KEY[stage.key].name)) if stage else None


def not_a_word(work: BoundStation, ask: Question, typed: str) -> str:
    """Return why what was typed is not taken, and what may be typed here."""
    if ask.key == WORD and typed[0].isdigit():
        text = _("No reading is asked for now, so {typed} was not kept. To correct one, open the readings. Words known here: {known}.")
    else:
        text = _("{typed!r} is no word known here. Known: {known}. A reading starts with a digit.")
    return text.format(typed=typed, known=", ".join([*(each.word for each in work.actions()), *COMMANDS]))


@dataclass(frozen=True)
class Answer:
    """The response to a request: the page with the next question or a refusal, or another page."""

    work: BoundStation
    ask: str | None = None
    error: BadInput | None = None
    typed: str = ""
    event: str = ""
    note: str = ""
    goes: str = ""
    reading: Reading | None = None

    def render(self, request: HttpRequest) -> HttpResponse:
        """The screen: whole for a visit, its working part for a partial request."""
        if request.headers.get("X-Later"):
            return JsonResponse({"kept": not self.error, "said": str(self.error.message if self.error else self.note)})
        partial = is_partial(request)
        if self.goes:
            if self.note:
                messages.info(request, self.note)
            there: HttpResponse = HttpResponseClientRedirect(self.goes) if partial else redirect(self.goes)
            return there
        if request.method == "POST" and not partial and not self.error:
            if self.note:
                messages.info(request, self.note)
            return redirect(f"{self.work.address}?ask={self.ask}" if self.ask else self.work.address)
        template = "workbench/station.html" if partial else "workbench/page.html"
        panel = request.headers.get("X-Panel", "")  # what is open over the drawing is filled; else it is fetched when it is opened
        data = page_data(self.work, self.ask, self.error, self.typed)
        data["notes"] = [*([self.note] if self.note else []), *data["notes"]]
        if panel == "pictures":
            data["pictures"] = pictures_of(self.work)
        response = render(request, template, {**data, "panel": panel})
        response["X-Kept"] = "no" if self.error else "yes"  # tells the page whether to let go of what was typed
        if self.event:
            trigger_client_event(response, "open-panel", {"value": self.event}, after="settle")
        return response
