"""Pages of practice: exercises, controls next to the station, the learner's verdict, the debriefing, and the shop's view."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable
from functools import wraps
from typing import Any

from django import forms
from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.translation import gettext as _
from django.utils.translation import gettext_lazy
from django.views.decorators.http import require_GET, require_http_methods, require_POST
from django_htmx.http import HttpResponseClientRedirect

from shopmath.validation import BadInput
from stator.jobs import clock
from stator.jobs.idempotency import idempotent
from stator.jobs.models import Job
from stator.practice import attempts as acts
from stator.practice import drawing, exercise_files, results
from stator.practice import messages as words
from stator.practice.control_form import TypedForm
from stator.practice.exercises.base import SHARES
from stator.practice.exercises.dial_indicator_base import TURN_BY
from stator.practice.exercises.registry import EXERCISES
from stator.practice.hidden_verdict import judged_key
from stator.practice.models import Attempt, Given, Learner
from stator.shop.models import Person
from stator.shop.views import owner_only
from stator.ui.partial_request import is_partial
from stator.ui.url_values import job_number, station_address

SHOWN = 30  # goes in the history
MOST_STEPS = 72  # that it is turned by hand at a time
STEPS_S = (60, 300)  # by which a wait may be shortened at once


class NumberForm(forms.Form):
    """An exercise by the number that a colleague had."""

    exercise = forms.ChoiceField(choices=[(key, said.name) for key, said in words.SAID.items()], label=gettext_lazy("Exercise"))
    level = forms.ChoiceField(choices=list(words.LEVEL.items()), label=gettext_lazy("Level"))
    seed = forms.IntegerField(
        min_value=1,
        max_value=acts.LARGEST_SEED,
        label=gettext_lazy("Number"),
        help_text=gettext_lazy("of a colleague's: both have the same one"),
    )


@require_http_methods(["GET", "POST"])
@idempotent
def practice(request: HttpRequest) -> HttpResponse:
    """Return what may be practised, and how it went before."""
    asked = request.POST or request.GET
    form = NumberForm(asked) if "seed" in asked else NumberForm()
    if request.method == "POST":
        begun = _begun(request, form)
        if begun:
            assert begun.job is not None
            return redirect(_station(begun))
    mine = list(Attempt.objects.filter(person=request.user.pk).select_related("job", "given"))
    done = [each for each in mine if each.ended_at]
    data = {
        "form": form,
        "exercises": [_offered(key, done) for key in EXERCISES],
        "given": Given.objects.filter(retired=False),
        "open": [(each, _station(each), words.SAID[each.exercise].name) for each in mine if each.job],
        "done": [_row(each) for each in done[:SHOWN]],
        "shown": Learner.objects.filter(person=request.user.pk, shown=True).exists(),
    }
    return render(request, "practice/practice.html", data)


def _begun(request: HttpRequest, form: NumberForm) -> Attempt | None:
    """A new go by what was pressed; None where the number form was wrong."""
    person: Any = request.user
    judges = request.POST.get("judges") == "1"
    if given := request.POST.get("given"):
        found = get_object_or_404(Given.objects.filter(retired=False), pk=given if given.isdecimal() and len(given) < 9 else 0)
        return acts.begin(person, found.exercise, found.level, found.seed, judges=judges, given=found)
    if "seed" in request.POST:
        return acts.begin(person, **form.cleaned_data, judges=judges) if form.is_valid() else None
    exercise, _colon, level = request.POST.get("start", "").partition(":")
    if exercise not in EXERCISES or level not in words.LEVEL:
        raise Http404
    return acts.begin(person, exercise, level, judges=judges)


def _offered(key: str, done: list[Attempt]) -> dict[str, Any]:
    """An exercise with its levels: how often each was reached, and which is next."""
    said, levels = words.SAID[key], list(words.LEVEL)
    reached = {level: sum(each.exercise == key and each.level == level and each.result["reached"] for each in done) for level in levels}
    following = next((level for level in levels if reached[level] < 2), levels[-1])
    rows = [
        {"key": level, "name": words.LEVEL[level], "said": said.levels[level], "reached": reached[level], "next": level == following}
        for level in levels
    ]
    return {"key": key, "said": said, "levels": rows}


def _row(attempt: Attempt) -> dict[str, Any]:
    result = attempt.result
    return {
        "attempt": attempt,
        "name": words.SAID[attempt.exercise].name,
        "level": words.LEVEL[attempt.level],
        "reached": result["reached"],
        "moves": len(result["moves"]),
        "over": round(results.score(attempt)) if result["moves"] else "–",
    }


def _station(attempt: Attempt) -> str:
    """The page where it is done."""
    kind = EXERCISES[attempt.exercise]
    return station_address(attempt.job.tag, kind.station, kind.seat) if attempt.job else ""


class AttemptFinished(Exception):
    """The attempt was finished meanwhile, and its engine was deleted."""


def while_it_lasts(view: Callable[..., HttpResponse]) -> Callable[..., HttpResponse]:
    """Redirect to the list with a message if the attempt was finished meanwhile, perhaps on another device."""

    @wraps(view)
    def wrapped(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        try:
            return view(request, *args, **kwargs)
        except AttemptFinished:
            messages.info(request, _("That exercise was finished, perhaps on another device. How it went stands below."))
            return _to(request, reverse("practice"))

    return wrapped


def _mine(request: HttpRequest, tag: str) -> Attempt:
    number = job_number(tag)
    if not Job.every.filter(number=number).exists():
        raise AttemptFinished
    attempts = Attempt.objects.select_related("job__card", "given", "person")
    return get_object_or_404(attempts, job__number=number, person=request.user.pk, ended_at=None)


@while_it_lasts
@require_http_methods(["GET", "POST"])
@idempotent
def controls(request: HttpRequest, tag: str) -> HttpResponse:
    """Return what hands have of it, and what they do: turn, measure, strike."""
    attempt = _mine(request, tag)
    kind = acts.exercise_of(attempt)
    if request.method == "POST":
        control, share = request.POST.get("lever", ""), request.POST.get("share", "whole")
        by_hand = control == TURN_BY and kind.samples(acts.standing(attempt)) is not None
        if (control not in kind.levers and not by_hand) or share not in SHARES:
            raise Http404
        form = TypedForm(kind, request.POST)
        if wrong := form.wrong():
            return _in_hands(request, attempt, tag, wrong)
        acts.do(attempt, control, SHARES[share] if kind.hard else 1.0, _steps(request) if by_hand else form.values())
        if control in kind.takes_s:
            return _to(request, _station(attempt))
        if not is_partial(request):
            return redirect(_station(attempt))
    return _in_hands(request, attempt, tag)


def _steps(request: HttpRequest) -> dict[str, float]:
    """Return how far it was turned by wheel, finger or key."""
    text = request.POST.get("steps", "")
    if not text.lstrip("-").isdecimal() or not -MOST_STEPS <= int(text) <= MOST_STEPS:
        raise Http404
    return {"steps": int(text)}


def _in_hands(request: HttpRequest, attempt: Attempt, tag: str, wrong: str = "") -> HttpResponse:
    kind = acts.exercise_of(attempt)
    share = request.POST.get("share", "whole")
    data = {
        "attempt": attempt,
        "tag": tag,
        "timed": kind.timed,
        "fast": bool(attempt.job and attempt.job.fast_since),
        "pace": clock.PACE,
        "steps": [(seconds, seconds // 60) for seconds in STEPS_S],
        "share": share if share in SHARES else "whole",
        "typed": TypedForm(kind, request.POST if request.method == "POST" else None),
        "wrong": wrong,
        "moves": sum(each["lever"] in kind.working for each in attempt.pulls),
        **_seen(attempt, kind),
    }
    response = render(request, "practice/controls.html", data)
    if request.method == "POST":
        response["X-Kept"] = "no" if wrong else "yes"
    return response


def _seen(attempt: Attempt, kind: Any) -> dict[str, Any]:
    part = acts.standing(attempt)
    return results.in_hands(kind, kind.shows(part), kind.samples(acts.standing(attempt)))


def _to(request: HttpRequest, address: str) -> HttpResponse:
    """To another page, or to the whole station again for what changes it."""
    there: HttpResponse = HttpResponseClientRedirect(address) if is_partial(request) else redirect(address)
    return there


@while_it_lasts
@require_POST
@idempotent
def pace(request: HttpRequest, tag: str) -> HttpResponse:
    """Change the speed of the job's clock: fast, normal, or skip a wait."""
    attempt = _mine(request, tag)
    assert attempt.job is not None
    on = request.POST.get("on", "")
    if on in {str(seconds) for seconds in STEPS_S}:
        acts.go_on(attempt, float(on))
    elif "fast" in request.POST:
        clock.set_pace(attempt.job, fast=request.POST["fast"] == "1")
    else:
        raise Http404
    return redirect(_station(attempt))


@while_it_lasts
@require_http_methods(["GET", "POST"])
@idempotent
def judge(request: HttpRequest, tag: str) -> HttpResponse:
    """Record the learner's verdict before Stator's is shown."""
    attempt = _mine(request, tag)
    if request.method == "POST":
        said = request.POST.get("said", "")
        if said not in words.CALL:
            raise Http404
        work = acts.bound_work(attempt)
        acts.judge(attempt, said, judged_key(work), work)
        return redirect(_station(attempt))
    return render(request, "practice/decide_first.html", {"tag": tag, "calls": words.CALL.items()})


@while_it_lasts
@require_POST
@idempotent
def finish(request: HttpRequest, tag: str) -> HttpResponse:
    """Show the true values and delete the job."""
    attempt = _mine(request, tag)
    acts.finish(attempt)
    return redirect("practice-debrief", pk=attempt.pk)


def _finished(request: HttpRequest, pk: int) -> Attempt:
    """Return a finished attempt: one's own, or one that its learner lets the shop see."""
    attempt = get_object_or_404(Attempt.objects.exclude(ended_at=None).select_related("person", "given"), pk=pk)
    lets = getattr(request.user, "is_owner", False) and Learner.objects.filter(person=attempt.person_id, shown=True).exists()
    if attempt.person_id != request.user.pk and not lets:
        raise Http404
    return attempt


@require_GET
def exercise_results(request: HttpRequest, pk: int) -> HttpResponse:
    attempt = _finished(request, pk)
    data = results.debriefed(attempt) | {"mine": attempt.person_id == request.user.pk}
    return render(request, "practice/exercise_results.html", data)


# the shop


@require_POST
@idempotent
def set_sharing(request: HttpRequest) -> HttpResponse:
    """The learner lets the shop's owners see how it goes, or no more."""
    shown = request.POST.get("shown") == "1"
    person: Any = request.user
    Learner.objects.update_or_create(person=person, defaults={"shown": shown})
    return redirect("practice")


@require_GET
def shop(request: HttpRequest) -> HttpResponse:
    """Return how those who agreed get on."""
    owner_only(request)
    people = Person.objects.filter(learner__shown=True).order_by("first_name", "username")
    goes = defaultdict(list)
    for each in Attempt.objects.filter(person__in=people).exclude(ended_at=None):
        goes[each.person_id].append(each)
    rows = [{"person": person, "exercises": _by_exercise(goes[person.pk])} for person in people]
    return render(request, "practice/shop.html", {"learners": rows})


def _by_exercise(goes: list[Attempt]) -> list[dict[str, Any]]:
    """One learner's goes, newest first, exercise by exercise."""
    rows = []
    for key, said in words.SAID.items():
        of = [each for each in goes if each.exercise == key]
        if of:
            over = [results.score(each) for each in reversed(of[: results.LAST])]
            reached = sum(each.result["reached"] for each in of)
            rows.append(
                {
                    "name": said.name,
                    "goes": len(of),
                    "reached": reached,
                    "last": of[0],
                    "history": drawing.history(over),
                    "scored": results.scored(key),
                }
            )
    return rows


@require_POST
@idempotent
def bring(request: HttpRequest) -> HttpResponse:
    """An instructor's file, read in whole or refused whole."""
    owner_only(request)
    upload = request.FILES.get("file")
    if upload is None:
        messages.error(request, _("No file was chosen."))
        return redirect("practice")
    try:
        given = exercise_files.read_in(upload.read(exercise_files.LARGEST_BYTES + 1), request.user)  # type: ignore[arg-type]
    except BadInput as error:
        messages.error(request, _("{name} was refused, nothing of it is kept. {reason}").format(name=upload.name, reason=error.message))
    else:
        messages.info(request, _("{name} can be practised now.").format(name=given.name))
    return redirect("practice")


@require_POST
@idempotent
def retire(request: HttpRequest, pk: int) -> HttpResponse:
    """Retire an instructor's exercise; attempts at it remain."""
    owner_only(request)
    Given.objects.filter(pk=pk).update(retired=True)
    return redirect("practice")


@require_GET
def file_out(request: HttpRequest, pk: int) -> HttpResponse:
    """Return a finished attempt as a file that another shop can import."""
    attempt = _finished(request, pk)
    response = JsonResponse(exercise_files.of_attempt(attempt), json_dumps_params={"indent": 2, "ensure_ascii": False})
    response["Content-Disposition"] = f'attachment; filename="exercise-{attempt.exercise}-{attempt.seed}.json"'
    return response
