"""The list of open jobs: every engine with its station, its next step, and the timer that ends next."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from functools import lru_cache

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils import timezone
from django.utils.safestring import SafeString
from django.utils.translation import gettext as _
from django.views.decorators.http import require_GET

from shopmath.amounts import duration
from stator.jobs.models import Entry, Job, RunStation, Timer
from stator.shop.models import Shop
from stator.stations.framework.log_labels import words_of
from stator.stations.framework.messages import capital
from stator.stations.framework.page_components import COMMANDS
from stator.ui.glossary import GLOSSARY
from stator.ui.number_format import show as spelled
from stator.ui.svg import Sheet
from stator.workbench.registry import STATION_BY_KEY, STATIONS, next_of

TRACK, LEFT = 974.0, 12.0
STEP = 918.0 / (len(STATIONS) - 1)  # the last one keeps room for its name
NEAR_PX = 7.4  # a letter of the next move, in the widest language
DEMO_JOB, DEMO_ENGINE = 412, "Corrie 272"  # of the demo, to practise on where it is loaded
LETTERS = 104  # of the next move, at most
HOURS = 3
BY = "by-"  # before a person's number
FEW = 5  # engines that have room for tall lines
MANY_PX = 70.0


@dataclass(frozen=True)
class Line:
    """An engine in the list of open jobs."""

    job: Job
    station: str
    move: str
    state: str
    track: SafeString
    due: Timer | None
    waits: bool = False
    people: Mapping[int, str] = field(default_factory=dict, hash=False)  # who has work open on it, by number

    def shows(self, show: str) -> bool:
        """Return True if a choice of the bench leaves it in view."""
        found = {"": True, "waits": self.waits, "due": self.due is not None, "stop": self.state == "stop"}
        return found.get(show, show in [f"{BY}{who}" for who in self.people])


@dataclass(frozen=True)
class Show:
    """A choice of which engines are in view, with how many they are."""

    key: str
    words: str
    count: int


def _shows(lines: list[Line]) -> list[Show]:
    """Return the filters: all, waiting, due, stopped, and each person with open work; none if the list is short."""
    if len(lines) <= FEW:
        return []
    people = {who: name for line in lines for who, name in line.people.items()}
    keys = [
        ("", _("All")),
        ("due", _("Timer running")),
        ("waits", _("Waiting")),
        ("stop", _("Stopped")),
        *((f"{BY}{who}", name) for who, name in sorted(people.items(), key=lambda pair: pair[1])),
    ]
    found = [Show(key, str(words), sum(line.shows(key) for line in lines)) for key, words in keys]
    return [each for each in found if each.count]


def _x(key: str) -> float:
    return LEFT + STEP * [station.key for station in STATIONS].index(key)


def _standing(run: list[RunStation]) -> RunStation | None:
    for states in (("now", "waits"), ("ahead",)):
        found = next((stage for stage in run if stage.state in states), None)
        if found:
            return found
    return run[-1] if run else None


def _tone(stage: RunStation, due: Timer | None) -> str:
    if stage.state == "waits":
        return "waits"
    if due and due.tone in (Timer.Tone.HEAT, Timer.Tone.WINDOW):
        return "hot"
    return {"stop": "stop", "out": "stop", "too_close": "waits"}.get(stage.call_state, "ink")


@dataclass(frozen=True)
class Track:
    """A drawing of the position of an engine in its work plan, cached by what it depends on."""

    pk: int
    stations: tuple[tuple[str, bool], ...]  # by key, and whether it is done with
    here: str
    move: str
    tone: str
    many: bool
    title: str

    @lru_cache(256)  # noqa: B019  small, and of values alone
    def drawn(self) -> SafeString:
        high, y = (MANY_PX, 28.0) if self.many else (84.0, 40.0)
        sheet = Sheet(TRACK, high, self.title, self.move, f"track{self.pk}")
        if not self.here:
            return sheet.render()
        first, stand, last = _x(self.stations[0][0]), _x(self.here), _x(self.stations[-1][0])
        sheet.line((first, y), (stand, y), "track done")
        sheet.line((stand, y), (last, y), "track ahead")
        for key, done in self.stations:
            if key != self.here:
                sheet.circle((_x(key), y), 4.5 if done else 5.5, "stop-done" if done else "stop-ahead")
        sheet.shape([(stand, y - 13), (stand + 11, y), (stand, y + 13), (stand - 11, y)], f"here {self.tone}")
        half = NEAR_PX * len(self.move) / 2
        x, anchor = stand, "middle"
        if stand - half < 0:
            x, anchor = max(0.0, min(stand - 11, TRACK - 2 * half)), "start"
        elif stand + half > TRACK:
            x, anchor = min(TRACK, stand + 11), "end"
        sheet.text((x, y + 36), self.move, f"move {self.tone}", anchor)
        return sheet.render()


def _track(run: list[RunStation], here: RunStation | None, move: str, tone: str, many: bool) -> SafeString:
    stations = tuple((stage.key, stage.state in ("done", "skipped")) for stage in run)
    at, pk = (here.key, run[0].pk) if here and run else ("", 0)
    return Track(pk, stations, at, move, tone, many, _("Where the engine stands")).drawn()


def _soon(due_at: datetime, now: datetime) -> str:
    """Return the time until a timer is due, no finer than the estimate that it was set by."""
    return spelled(duration(max(0.0, (due_at - now).total_seconds()), 300.0))


def _clock(timers: list[Timer], now: datetime) -> SafeString | None:
    due = [timer for timer in timers if timer.due_at and now - timedelta(minutes=2) <= timer.due_at <= now + timedelta(hours=HOURS)]
    if not due:
        return None
    text = "; ".join(f"{timer.job.tag} {words_of(timer)} in {_soon(timer.due_at, now)}" for timer in due if timer.due_at)
    sheet = Sheet(TRACK, 96, _("What comes due in the next {hours} hours").format(hours=HOURS), text, "clock")
    wide = TRACK - LEFT - 20
    sheet.line((LEFT, 66), (LEFT + wide, 66), "axis")
    for quarter in range(4 * HOURS + 1):
        x = LEFT + wide * quarter / (4 * HOURS)
        sheet.line((x, 66), (x, 66 + (12 if quarter % 4 == 0 else 5)), "axis thin")
        if quarter and quarter % 4 == 0:
            sheet.text((x, 92), f"+{quarter // 4} h", "tick", "middle")
    ends = [-1e9, -1e9]
    for timer in sorted(due, key=lambda each: each.due_at or now):
        x = LEFT + wide * max(0.0, ((timer.due_at or now) - now).total_seconds()) / (3600 * HOURS)
        words = f"{timer.job.tag} {words_of(timer)}"
        row = 0 if x >= ends[0] else 1
        tone = {"heat": "hot", "cold": "cold", "window": "hot"}.get(timer.tone, "waits")
        sheet.line((x, 34 - 20 * row), (x, 66), f"due {tone}")
        sheet.text((x + 8, 48 - 22 * row), words, f"move {tone}")
        ends[row] = x + 8 + NEAR_PX * len(words) + 10
    return sheet.render()


HERE = {"job__gone_at": None, "job__practice": False}
TOLD = ("job__number", "entry__station__key", "label", "said", "tone", "started_at", "due_at")  # of a clock that runs


def _open_by() -> dict[int, dict[int, str]]:
    """Return who began what is open on each job: number and name."""
    found: dict[int, dict[int, str]] = {}
    for entry in Entry.objects.filter(signed_at=None, **HERE).select_related("opened_by").only("job_id", "opened_by"):
        found.setdefault(entry.job_id, {})[entry.opened_by_id] = entry.opened_by.called
    return found


@require_GET
def bench(request: HttpRequest) -> HttpResponse:
    """All engines that are here."""
    now = timezone.now()
    timers = list(Timer.objects.filter(ended_at=None, **HERE).select_related("job", "entry__station").only(*TOLD))
    first: dict[int, Timer] = {}
    for timer in sorted((each for each in timers if each.due_at), key=lambda each: each.due_at or now):
        if timer.due_at and timer.due_at < now:
            continue
        first.setdefault(timer.job_id, timer)
    jobs = list(Job.objects.filter(gone_at=None).select_related("card").only("number", "card__name", "card__summary"))
    runs: dict[int, list[RunStation]] = {job.pk: [] for job in jobs}
    for stage in RunStation.objects.filter(**HERE).order_by("order"):
        if stage.key in STATION_BY_KEY:
            runs[stage.job_id].append(stage)
    lines: list[Line] = []
    many, open_by = len(jobs) > FEW, _open_by()
    for job in jobs:
        run = runs[job.pk]
        here = _standing(run)
        name = str(STATION_BY_KEY[here.key].name) if here else ""
        move = (
            _("Waits for {waits_for}.").format(waits_for=here.waits_for)
            if here and here.state == "waits"
            else (next_of(here) if here else "") or _("{name} is next.").format(name=name)
        )
        due = first.get(job.pk)
        if due and due.due_at and here and here.state == "now":
            time = _soon(due.due_at, now)
            move = _("{what} in {time}. {move}").format(what=capital(words_of(due)), time=time, move=move)
        move = move if len(move) <= LETTERS else move[: LETTERS - 2].rsplit(" ", 1)[0] + " …"
        tone = _tone(here, due) if here else "ink"
        waits = bool(here and here.state == "waits")
        lines.append(Line(job, name, move, tone, _track(run, here, move, tone, many), due, waits, open_by.get(job.pk, {})))
    welcome = not getattr(request.user, "welcomed", True)
    soonest = min((timer for timer in first.values()), key=lambda timer: timer.due_at or now, default=None)
    shows, show = _shows(lines), request.GET.get("show", "")
    show = show if show in [each.key for each in shows] else ""
    data = {
        "lines": [line for line in lines if line.shows(show)],
        "engines": len(lines),
        "shows": shows,
        "show": show,
        "heads": tuple((str(station.name), _x(station.key)) for station in STATIONS),
        "clock": _clock(timers, now),
        "soonest": soonest,
        "now": now,
        "shop": Shop.current(),
        "track_width": TRACK,
        "welcome": welcome,
        "demo": next((job for job in jobs if (job.number, job.card.name) == (DEMO_JOB, DEMO_ENGINE)), None) if welcome else None,
    }
    return render(request, "workbench/open_jobs.html", data)


@require_GET
def keys(request: HttpRequest) -> HttpResponse:
    """Keys, states and terms on a page that prints."""
    return render(request, "workbench/shortcuts_and_terms.html", {"commands": COMMANDS, "glossary": GLOSSARY})
