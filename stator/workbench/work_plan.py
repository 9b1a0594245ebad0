"""The work plan of a job: set by its job type, changed with a reason.

The log of a station remains, whatever happens to its place in the work plan.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.views.decorators.http import require_http_methods

from shopmath.validation import BadInput
from stator.engines.card_loader import load_card
from stator.jobs.fact_loader import facts_of
from stator.jobs.idempotency import idempotent, link_request_to_job
from stator.jobs.models import Entry, Job, RunStation
from stator.jobs.permissions import require_open_job
from stator.shop.models import Person
from stator.stations.framework import next_step
from stator.stations.framework.prerequisites import unmet
from stator.ui.url_values import job_number
from stator.workbench.registry import BOOK_IN, STATION_BY_KEY, STATIONS

State = RunStation.State


def _said(words: str, field: str, missing: str) -> str:
    found = " ".join(words.split())
    if not found:
        raise BadInput(field, missing)
    return found


def skip_station(stage: RunStation, person: Person, because: str) -> None:
    """Skip a station, with the reason and the user."""
    if stage.key == BOOK_IN:
        raise BadInput("because", _("Booking in is done; it cannot be skipped."))
    if stage.state == State.DONE:
        raise BadInput("because", _("This station is signed and cannot be skipped. Replace its entry if it is no longer right."))
    if Entry.objects.filter(station=stage, signed_at=None, readings__withdrawn_at=None, readings__isnull=False).exists():
        raise BadInput("because", _("Readings are open here. Sign them, or withdraw them, before this station is skipped."))
    reason = _said(because, "because", _("Say in a few words why it is skipped; the sheet will carry it."))
    _set(stage, state=State.SKIPPED, because=f"{reason[:160]} ({person.called})", waits_for="")


def restore_station(stage: RunStation) -> None:
    """Restore a station that was skipped or is waiting."""
    begun = stage.entries.exists()
    _set(stage, state=State.NOW if begun else State.AHEAD, because="", waits_for="")


def mark_as_waiting(stage: RunStation, what: str) -> None:
    """The work waits at this station for something: parts, a cure, a word from the owner."""
    if stage.state in (State.DONE, State.SKIPPED):
        raise BadInput("waits_for", _("Only what is still to be done can wait."))
    _set(
        stage,
        state=State.WAITS,
        waits_for=_said(what, "waits_for", _("Say what the station waits for: parts, sealant that cures, an answer from the owner."))[:100],
    )


def add_station(job: Job, key: str, person: Person, because: str) -> None:
    """Put a station into the run at its place in working order."""
    reason = _said(because, "because", _("Say in a few words why it is added."))
    order = [station.key for station in STATIONS]
    if key not in order:
        raise BadInput("key", _("There is no such station."))
    with transaction.atomic():
        require_open_job(job)
        run = list(job.run.all())
        if any(stage.key == key for stage in run):
            raise BadInput("key", _("{name} is in the run already.").format(name=STATION_BY_KEY[key].name))
        added = RunStation(job=job, key=key, because=f"added: {reason[:150]} ({person.called})")
        run = sorted([*run, added], key=lambda stage: order.index(stage.key))
        for stage in reversed(run):  # from the last, so that two never share a place
            stage.order = run.index(stage)
            stage.save()
        job.touch()


def _set(stage: RunStation, **fields: str) -> None:
    with transaction.atomic():
        require_open_job(stage.job)
        RunStation.objects.filter(pk=stage.pk).update(**fields)
        stage.job.touch()


@dataclass
class Line:
    """A station as the run page shows it."""

    stage: RunStation
    name: str
    address: str
    may_leave: bool
    may_wait: bool
    unmet_prerequisites: list[str]
    gave: list[Entry] = field(default_factory=list)
    more: int = 0  # signed entries beyond those
    error: str = ""
    typed: str = ""
    closed: bool = False

    @property
    def move(self) -> str:
        """Return the next step there, for this reader."""
        return next_step.render_next_step(STATION_BY_KEY[self.stage.key], self.stage.next_said) or self.stage.next_move


MOST_SHOWN = 4  # signed entries of one station on the run


def _signed(job: Job) -> dict[int, list[Entry]]:
    """Return what each station was signed with, and nothing that was replaced since."""
    found: dict[int, list[Entry]] = {}
    standing = Entry.objects.filter(job=job, signed_at__isnull=False).exclude(superseded_by__signed_at__isnull=False)
    for entry in standing.select_related("seat", "signed_by").defer("result", "choices", "ticks").order_by("pk"):
        found.setdefault(entry.station_id, []).append(entry)
    return found


@require_http_methods(["GET", "POST"])
@idempotent
def run_page(request: HttpRequest, tag: str) -> HttpResponse:
    """Show the work plan; skip, add or restore a station, or mark it as waiting."""
    job = get_object_or_404(Job.objects.select_related("card").prefetch_related("run"), number=job_number(tag))
    job.card = load_card(job.card)
    person: Person = request.user  # type: ignore[assignment]
    wrong: dict[str, tuple[str, str]] = {}
    if request.method == "POST":
        key, act, words = request.POST.get("key", ""), request.POST.get("act", ""), request.POST.get("words", "")
        stage = next((each for each in job.run.all() if each.key == key), None)
        try:
            link_request_to_job(request, require_open_job(job))
            if act == "add":
                add_station(job, key, person, words)
            elif stage is None:
                raise Http404
            elif act == "leave":
                skip_station(stage, person, words)
            elif act == "wait":
                mark_as_waiting(stage, words)
            else:
                restore_station(stage)
            return redirect("run", tag=job.tag)
        except BadInput as error:
            wrong["add" if act == "add" else key] = (error.message, words)
    lines = []
    facts, signed = facts_of(job), _signed(job)
    for stage in job.run.all():
        if stage.key in STATION_BY_KEY:
            said, typed = wrong.get(stage.key, ("", ""))
            still = stage.state not in (State.DONE, State.SKIPPED)
            address = reverse("station", args=[job.tag, stage.key])
            first = [sentence for _, sentence in unmet(STATION_BY_KEY[stage.key].needs, job, facts, None)] if still else []
            gave = signed.get(stage.pk, [])
            shown, more = gave[:MOST_SHOWN], len(gave) - MOST_SHOWN
            name, leave = str(STATION_BY_KEY[stage.key].name), still and stage.key != BOOK_IN
            lines.append(Line(stage, name, address, leave, still, first, shown, max(0, more), said, typed, job.is_closed))
    here = {line.stage.key for line in lines}
    data = {
        "job": job,
        "lines": lines,
        "others": [(station.key, station.name) for station in STATIONS if station.key not in here],
        "add_error": wrong.get("add", ("", "")),
    }
    return render(request, "workbench/work_plan.html", data)
