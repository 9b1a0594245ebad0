"""Choosing an exercise, the dial and the hands beside its station, and the debrief."""

from __future__ import annotations

from typing import Any

from django import forms
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.translation import gettext as _
from django.utils.translation import gettext_lazy
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from jobs.acts import one_act
from practice import acts, crank, words
from practice.drawing import curve, dial
from practice.models import Attempt
from shopmath.amounts import Amount, mm
from simulators.crank import ENDS
from ui.addresses import job_number, station_address
from ui.numbers import show
from ui.partial import is_partial

SHOWN = 30  # goes in the history


class StartForm(forms.Form):
    """The level, and a seed where a colleague gave one."""

    level = forms.ChoiceField(
        choices=[(key, name) for key, (name, _said) in words.LEVEL.items()], label=gettext_lazy("Level"), initial="easy"
    )
    seed = forms.IntegerField(
        min_value=1,
        max_value=acts.LARGEST_SEED,
        required=False,
        label=gettext_lazy("Number"),
        help_text=gettext_lazy("of a crank that a colleague had; empty for another one"),
    )


@require_http_methods(["GET", "POST"])
@one_act
def practice(request: HttpRequest) -> HttpResponse:
    """What may be practised, and how it went before."""
    form = StartForm(request.POST or request.GET or None) if request.POST or "seed" in request.GET else StartForm()
    if request.method == "POST" and form.is_valid():
        attempt = acts.begin(request.user, form.cleaned_data["level"], form.cleaned_data["seed"])  # type: ignore[arg-type]
        assert attempt.job is not None
        return redirect(station_address(attempt.job.tag, crank.STATION))
    mine = Attempt.objects.filter(person=request.user.pk).select_related("job")
    data = {"form": form, "levels": words.LEVEL.values(), "open": mine.filter(ended_at=None), "done": mine.exclude(ended_at=None)[:SHOWN]}
    return render(request, "practice/practice.html", data)


def _mine(request: HttpRequest, tag: str) -> Attempt:
    return get_object_or_404(Attempt.objects.select_related("job"), job__number=job_number(tag), person=request.user.pk, ended_at=None)


@require_http_methods(["GET", "POST"])
@one_act
def hands(request: HttpRequest, tag: str) -> HttpResponse:
    """The dial, and what hands do at it: turn, strike, squeeze."""
    attempt = _mine(request, tag)
    if request.method == "POST":
        lever, share = request.POST.get("lever", ""), request.POST.get("share", "")
        if lever not in (*crank.TURNS, *crank.BLOWS) or (lever in crank.BLOWS and share not in crank.SHARES):
            raise Http404
        acts.do(attempt, lever, crank.SHARES.get(share, 1.0))
        if not is_partial(request):
            return redirect(station_address(tag, crank.STATION))
    response = render(request, "practice/hands.html", _hands(attempt, tag))
    if request.method == "POST":
        response["X-Kept"] = "yes"
    return response


def _hands(attempt: Attempt, tag: str) -> dict[str, Any]:
    stands = crank.standing(attempt.seed, attempt.state)
    job = attempt.job
    assert job is not None
    where = _("{side}, crank at {angle}°").format(side=job.card.side(ENDS[stands.end]), angle=stands.angle)
    shows = stands.shows_mm()
    blows = [(lever, said) for lever, said in words.LEVER.items()]
    return {
        "attempt": attempt,
        "tag": tag,
        "where": where,
        "shows": shows,
        "dial": dial(shows, where),
        "blows": blows,
        "shares": words.SHARE.items(),
    }


@require_POST
@one_act
def finish(request: HttpRequest, tag: str) -> HttpResponse:
    """The truth is opened; the job is gone."""
    attempt = _mine(request, tag)
    acts.finish(attempt)
    return redirect("practice-debrief", pk=attempt.pk)


@require_GET
def debrief(request: HttpRequest, pk: int) -> HttpResponse:
    attempt = get_object_or_404(Attempt.objects.exclude(ended_at=None), pk=pk, person=request.user.pk)
    result = attempt.result
    halves = [(said, *(_halves_said(name, result[when][name]) for when in ("began", "ended"))) for name, said in words.HALVES.items()]
    moves = [
        {
            "before": _swing(move["before_mm"]),
            "after": _swing(move["after_mm"]),
            "said": words.LEVER[move["lever"]],
            "wanted": words.LEVER.get(move["best"], words.NO_BLOW),
            "right": move["lever"] == move["best"],
        }
        for move in result["moves"]
    ]
    data = {
        "attempt": attempt,
        "result": result,
        "began": _swing(result["began"]["swing_mm"]),
        "ended": _swing(result["ended"]["swing_mm"]),
        "best": _swing(result["best_mm"]),
        "limit": _swing(result["limit_mm"]),
        "halves": halves,
        "moves": moves,
        "curve": curve(result),
        "fault": words.FAULT[result["fault"]],
        "advice": words.ADVICE[result["advice"]],
        "level": words.LEVEL[attempt.level][0],
    }
    return render(request, "practice/debrief.html", data)


def _swing(value_mm: float) -> str:
    return show(mm(value_mm, 0.001))


def _halves_said(name: str, value: float) -> str:
    return _swing(value) if name.endswith("_mm") else show(Amount(value, "angle", 0.001))
