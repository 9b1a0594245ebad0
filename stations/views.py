"""The working screen: find the work, do one act, show it again. No rule of the trade lives here."""

from __future__ import annotations

import json
import uuid
from functools import wraps
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.views.decorators.http import require_GET, require_POST

from engines.models import Seat
from jobs import log
from jobs.models import Job, Reading
from shop.models import Gauge
from shop.shelves import shelves
from shopmath.checks import BadInput
from stations.base import COMMANDS, WORD, Ask, Work
from stations.photo_pages import pinned
from stations.registry import BOOK_IN, BY_KEY, at_station
from stations.taking import JOB, again, opened, take

WHOLE = 0  # in the place of a seat: all of them at once
SEALED = "This job has been handed over and is sealed. What you typed is still here; an owner opens it again at Hand over, with the reason."
MOVED_ON = "This was signed meanwhile, perhaps on another device. What you typed is still here; supersede the entry to change it."


def find_work(request: HttpRequest, tag: str, key: str, seat: int | None = None) -> Work:
    """The work an address names, or 404 in words."""
    if not tag.isdigit() or key not in BY_KEY:
        raise Http404
    job = get_object_or_404(JOB, number=int(tag))
    stage = next((each for each in job.run.all() if each.key == key), None)
    found = next((each for each in job.card.seats.all() if each.pk == seat), None)
    if stage is None or (seat and found is None):
        raise Http404
    work = BY_KEY[key].bind(job, stage, found, request.user, timezone.now())  # type: ignore[arg-type]
    paper = request.COOKIES.get("paper", "")
    work.papers = (paper,) if paper in work.papers else work.papers
    return work


def page_data(work: Work, ask: str | None = None, error: BadInput | None = None, typed: str = "") -> dict[str, Any]:
    """Everything the working screen shows."""
    run = [(stage, BY_KEY[stage.key].name, f"/jobs/{work.job.tag}/{stage.key}/") for stage in work.job.run.all() if stage.key in BY_KEY]
    asked = work.ask_for(ask)
    in_turn = [each for each in work.wanted if not each.quiet]
    left = len(work.open_asks())
    seats = list(work.job.card.seats.all()) if work.station.by_seat else []
    return {
        "work": work,
        "job": work.job,
        "plate": work.call,
        "ask": asked,
        "asked_at": len(in_turn) - left + 1 if left else len(in_turn),
        "asked_of": len(in_turn),
        "before": work.last(asked.key) if asked else None,
        "hears": _heard_by(work, asked),
        **_log_of(work, asked),
        "error": error,
        "typed": typed,
        "client_key": uuid.uuid4().hex,
        "run": run,
        "seats": seats,
        "slider": work.slider(),
        "timers": [timer for timer in work.job.timers.all() if not timer.ended_at and not timer.long_over(timezone.now())],
        "pictures": [(photo, pinned(photo)) for photo in work.job.photos.filter(station=work.stage).prefetch_related("pins")],
        "commands": COMMANDS,
        "now": timezone.now(),
        "onward": _onward(work, seats) if work.signed else None,
        "earlier": work.entry.supersedes if work.entry else None,
    }


def _log_of(work: Work, ask: Ask | None) -> dict[str, Any]:
    """Whose own log may be read in here."""
    gauges = shelves(work.shop).gauges if work.from_log and ask and not work.signed else ()
    return {"log_gauges": gauges, "log_gauge": work.gauge_for(ask) if ask and gauges else None}


def _heard_by(work: Work, ask: Ask | None) -> Gauge | None:
    """The gauge whose line feeds the strip now."""
    gauge = work.gauge_for(ask) if ask and not ask.options else None
    return gauge if gauge and gauge.port else None


def _onward(work: Work, seats: list[Seat]) -> tuple[str, str] | None:
    """Where to go once this is signed: the next seat without an entry, else the next station ahead."""
    signed = set(work.stage.entries.filter(signed_at__isnull=False).values_list("seat_id", flat=True)) if seats else set()
    seat = next((each for each in seats if each.pk not in signed), None)
    if seat:
        return f"/jobs/{work.job.tag}/{work.station.key}/{seat.pk}/", seat.name
    stage = next((each for each in work.job.run.all() if each.state in ("now", "ahead", "waits") and each.pk != work.stage.pk), None)
    return (f"/jobs/{work.job.tag}/{stage.key}/", BY_KEY[stage.key].name) if stage else None


def show(
    request: HttpRequest, work: Work, ask: str | None = None, error: BadInput | None = None, typed: str = "", event: str = ""
) -> HttpResponse:
    """The screen again: whole for a visit, its working part for a partial request."""
    partial = bool(request.headers.get("HX-Request"))
    if request.method == "POST" and not partial and not error:
        return redirect(f"{work.address}?ask={ask}" if ask else work.address)
    template = "stations/work.html" if partial else "stations/page.html"
    panel = request.headers.get("X-Panel", "")  # what is open over the drawing is filled; else it is fetched when it is opened
    response = render(request, template, {**page_data(work, ask, error, typed), "panel": panel})
    response["X-Kept"] = "no" if error else "yes"  # tells the page whether to let go of what was typed
    if event:
        response["HX-Trigger-After-Settle"] = json.dumps({"open-panel": event})
    return response


def on_work(view: Any) -> Any:
    """Hand a view its work, and turn a signed entry into words."""

    @wraps(view)
    def wrapped(request: HttpRequest, tag: str, key: str, seat: int | None = None, **more: Any) -> HttpResponse:
        work = find_work(request, tag, key, seat)
        if work.job.gone_at and not work.open_when_sealed:
            typed = request.POST.get("text", "")
            return show(request, work, error=BadInput("sealed", SEALED), typed=typed)
        try:
            return view(request, work, **more)  # type: ignore[no-any-return]
        except log.Signed:
            typed = request.POST.get("text", "")
            return show(request, again(work), error=BadInput("signed", MOVED_ON), typed=typed)

    return wrapped


@require_GET
def job_page(request: HttpRequest, tag: str) -> HttpResponse:
    """A job's tag leads to where the engine stands."""
    job = get_object_or_404(Job, number=int(tag)) if tag.isdigit() else None
    stage = at_station(job) if job else None
    if not job or not stage:
        raise Http404
    return redirect("station", tag=job.tag, key=stage.key)


@require_GET
def station_page(request: HttpRequest, tag: str, key: str, seat: int | None = None) -> HttpResponse:
    work = find_work(request, tag, key, seat)
    if key == BOOK_IN:
        return redirect("card", tag=tag)
    if work.station.by_seat and not work.seat and not (work.station.whole and seat == WHOLE):
        if _all_at_once(work):
            return redirect("seat", tag=work.job.tag, key=key, seat=WHOLE)
        first = _seat_in_hand(work)
        return redirect("seat", tag=work.job.tag, key=key, seat=first.pk) if first else redirect("card", tag=tag)
    return show(request, work, request.GET.get("ask"))


def _all_at_once(work: Work) -> bool:
    """Whether a station that goes seat by seat is best taken up whole: it is begun so, or two seats of one half wait untouched."""
    if not work.station.whole:
        return False
    begun: dict[int | None, Any] = dict(work.stage.entries.order_by("opened_at").values_list("seat_id", "signed_at"))
    if None in begun:
        return begun[None] is None
    if any(signed is None for signed in begun.values()):
        return False
    waiting = [seat.half for seat in work.job.card.seats.all() if seat.on == Seat.On.CASE and seat.pk not in begun]
    return len(waiting) > len(set(waiting))


def _seat_in_hand(work: Work) -> Seat | None:
    """The seat being worked on, else the first without a signed entry."""
    seats = list(work.job.card.seats.all())
    entries = {entry.seat_id: entry for entry in work.stage.entries.order_by("opened_at")}
    for seat in seats:
        if seat.pk in entries and not entries[seat.pk].is_signed:
            return seat
    return next((seat for seat in seats if seat.pk not in entries), seats[0] if seats else None)


@require_POST
@on_work
def keep(request: HttpRequest, work: Work) -> HttpResponse:
    """One line from the strip: a reading, or a word that is a command."""
    text, ask_key = request.POST.get("text", ""), request.POST.get("ask", "")
    client_key = request.POST.get("client_key", "")[:40] or uuid.uuid4().hex
    known = Reading.objects.filter(client_key=client_key).first()
    if known:
        return show(request, work)
    ask = next((each for each in work.wanted if each.key == ask_key), None)
    if ask is None and ask_key == WORD and (waiting := work.ask_for(None)) and waiting.key == WORD:
        return _command(request, work, waiting, text.strip().lower())
    if ask is None:
        error = BadInput(ask_key, "The page has moved on to another reading. What you typed is kept; see what is asked now.")
        return show(request, work, error=error, typed=text)
    command = text.strip().lower()
    if command and _is_command(work, ask, command):
        return _command(request, work, ask, command)
    if not command:
        return _skip(request, work, ask)
    work = opened(work)
    try:
        take(work, ask, text, client_key, data=request.POST.dict(), extra={"heard": True} if request.POST.get("heard") else {})
    except BadInput as error:
        return show(request, work, ask.key, error, text)
    return _settled(request, work)


def _is_command(work: Work, ask: Ask, typed: str) -> bool:
    """A word where a number is asked; where words are asked only a whole command alone."""
    if not ask.is_words:
        return typed[0].isalpha() or typed[0] == "?"
    return not ask.options and (typed in COMMANDS or typed in {action.word for action in work.actions()})


def _settled(request: HttpRequest, work: Work, ask: str | None = None, event: str = "") -> HttpResponse:
    """The screen after a write: read afresh once, where it stands written down."""
    fresh = again(work)
    fresh.settle()
    return show(request, fresh, ask, event=event)


def _skip(request: HttpRequest, work: Work, ask: Ask) -> HttpResponse:
    if ask.repeats and not ask.optional:
        return show(request, work)
    if not ask.optional:
        return show(request, work, ask.key, BadInput(ask.key, f"{ask.words}: this one is needed."))
    work = opened(work)
    if work.entry:
        log.choose(work.entry, skipped=[*(key for key in work.skipped() if key != ask.key), ask.key])
    return _settled(request, work)


def _command(request: HttpRequest, work: Work, ask: Ask, command: str) -> HttpResponse:
    """A word in the strip; its first letters suffice."""
    if not command:
        return show(request, work)
    action = next((each for each in work.actions() if each.word.startswith(command)), None)
    word = next((each for each in COMMANDS if each.startswith(command)), None)
    if action:
        return _act(request, work, action.key)
    if word == "skip" and ask.key != WORD:
        return _skip(request, work, ask)
    if word == "back":
        keys = [*(each.key for each in work.wanted), WORD]
        return show(request, work, keys[max(0, keys.index(ask.key) - 1)])
    if word == "undo":
        return _undo(request, work)
    if word == "log":
        response = HttpResponse(status=204)
        response["HX-Redirect"] = f"/jobs/{work.job.tag}/log/"
        return response if request.headers.get("HX-Request") else HttpResponseRedirect(response["HX-Redirect"])
    if word in ("sheet", "timer", "?"):
        return show(request, work, ask.key, event={"?": "keys"}.get(word, word))
    known = ", ".join([*(each.word for each in work.actions()), *COMMANDS])
    return show(
        request,
        work,
        ask.key,
        BadInput("command", f"{command!r} is no word known here. Known: {known}. A reading starts with a digit."),
        command,
    )


def _act(request: HttpRequest, work: Work, key: str) -> HttpResponse:
    work = opened(work)
    try:
        work.act(key)
    except BadInput as error:
        return show(request, again(work), error=error)
    return _settled(request, work)


def _undo(request: HttpRequest, work: Work) -> HttpResponse:
    standing = [reading for reading in work.readings if not reading.withdrawn_at]
    if not standing:
        return show(request, work, error=BadInput("undo", "There is no reading to strike out."))
    log.withdraw(standing[-1])
    return _settled(request, work, standing[-1].ask)


@require_POST
@on_work
def act(request: HttpRequest, work: Work) -> HttpResponse:
    return _act(request, work, request.POST.get("action", ""))


@require_POST
@on_work
def undo(request: HttpRequest, work: Work) -> HttpResponse:
    """Strike out one reading by its number, or the last."""
    number = request.POST.get("reading", "")
    chosen = next((reading for reading in work.readings if str(reading.pk) == number and not reading.withdrawn_at), None)
    if not chosen:
        return _undo(request, work)
    log.withdraw(chosen)
    return _settled(request, work, chosen.ask)


@require_POST
@on_work
def choose(request: HttpRequest, work: Work) -> HttpResponse:
    """One method, one option."""
    chosen = {}
    tabs = work.tabs()
    for method in (*work.methods(), *([tabs] if tabs else [])):
        value = request.POST.get(method.key)
        if value is not None:
            if value not in [option.key for option in method.options]:
                return show(request, work, error=BadInput(method.key, f"{method.words}: that is not on the shelf any more."))
            chosen[method.key] = value
    work = opened(work)
    if work.entry and chosen:
        log.choose(work.entry, **chosen)
    return _settled(request, work)


@require_POST
@on_work
def tick(request: HttpRequest, work: Work) -> HttpResponse:
    keys = [caution.key for caution in work.checks()]
    key = request.POST.get("key", "")
    work = opened(work)
    if work.entry and key in keys:
        log.tick(work.entry, work.person, key, request.POST.get("on") == "1")
    return _settled(request, work)


@require_POST
@on_work
def supersede(request: HttpRequest, work: Work) -> HttpResponse:
    """A new entry in place of a signed one, with the reason."""
    reason = " ".join(request.POST.get("reason", "").split())[:200]
    if not work.entry or not work.entry.is_signed:
        return show(request, work)
    if not reason:
        return show(request, work, error=BadInput("reason", "Say in a few words why the signed entry no longer holds."))
    try:
        work.supersede(reason)
    except BadInput as error:
        return show(request, work, error=error)
    return _settled(request, work)


@require_GET
def pulse(request: HttpRequest, tag: str, key: str, seat: int | None = None) -> HttpResponse:
    """Has anything changed? 204 when not; the drawing and the call while something cools; the whole when another device wrote."""
    job = get_object_or_404(Job.objects.only("revision"), number=int(tag)) if tag.isdigit() else None
    same = job is not None and request.GET.get("rev") == str(job.revision)
    if same and request.GET.get("live") != "1":
        return HttpResponse(status=204)
    work = find_work(request, tag, key, seat)
    if not same:
        return show(request, work, request.GET.get("ask"))
    work.settle()
    response = render(request, "stations/live.html", page_data(work))
    response["HX-Reswap"] = "none"
    return response


@require_GET
def readings(request: HttpRequest, tag: str, key: str, seat: int | None = None) -> HttpResponse:
    """All readings, for the panel that has just been opened."""
    work = find_work(request, tag, key, seat)
    return render(request, "stations/parts/sheet_rows.html", {"work": work, **_log_of(work, work.ask_for(None))})


@require_GET
def picture(request: HttpRequest, tag: str, key: str, seat: int | None = None) -> HttpResponse:
    """The drawing at one instant."""
    work = find_work(request, tag, key, seat)
    try:
        at_s = float(request.GET.get("t", "0"))
    except ValueError:
        at_s = 0.0
    longest = (work.slider() or (0.0, 0.0))[0]
    return HttpResponse(work.drawing(min(max(at_s, 0.0), longest)))
