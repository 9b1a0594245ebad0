"""How well predictions held: heats against what happened, press forces against their band, blows against what they moved."""

from __future__ import annotations

import statistics
from dataclasses import dataclass
from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from jobs.models import Entry

BINS = ((0.0, 0.5, "less than even"), (0.5, 0.9, "likely"), (0.9, 0.99, "9 in 10 or better"), (0.99, 1.01, "99 in 100 or better"))
IN = ("dropped", "tapped")


@dataclass(frozen=True)
class Line:
    """One kind of prediction: what was said, how often, and what came of it."""

    said: str
    count: int
    came: str


def heats(results: list[dict[str, Any]]) -> list[Line]:
    """Of the heats promised so surely, how many went in by hand or with a tap."""
    sure = [
        (each["confidence"], each.get("outcome"))
        for each in results
        if isinstance(each.get("confidence"), int | float) and each.get("outcome")
    ]
    found = []
    for low, high, words in BINS:
        here = [outcome for confidence, outcome in sure if low <= confidence < high]
        home = sum(outcome in IN for outcome in here)
        if here:
            found.append(Line(words, len(here), f"{home} of {len(here)} went in, {here.count('dropped')} of them dropped"))
    return found


def forces(results: list[dict[str, Any]]) -> list[Line]:
    """Of the joints pressed, how many peaks lay inside the band that was foretold, and how they lay to its middle."""
    found = [(each["force_n"], each["peak_n"]) for each in results if each.get("force_n") and each.get("peak_n")]
    if not found:
        return []
    inside = sum(band[0] <= peak <= band[2] for band, peak in found)
    middle = statistics.median(peak / band[1] for band, peak in found)
    return [Line("low to high estimate", len(found), f"{inside} of {len(found)} inside; the middle one {middle:.2f} of the likely")]


def blows(results: list[dict[str, Any]]) -> list[Line]:
    """Of the truing moves, what share of the twist foretold each took."""
    shares = []
    for each in results:
        moves = each.get("moves") or []
        twists = [*(move.get("twist_deg") for move in moves), each.get("twist_deg")]
        for move, before, after in zip(moves, twists, twists[1:], strict=False):
            if move.get("kind", "strike") == "strike" and isinstance(before, float) and isinstance(after, float) and abs(before) > 1e-6:
                shares.append((before - after) / before)
    if not shares:
        return []
    return [Line("the whole of it", len(shares), f"the middle blow took {statistics.median(shares):.0%} of the twist it was meant for")]


@require_GET
def held(request: HttpRequest) -> HttpResponse:
    """Predicted against happened, over every signed entry that stands."""
    by_schema: dict[str, list[dict[str, Any]]] = {}
    for result in Entry.objects.filter(signed_at__isnull=False, superseded_by=None).values_list("result", flat=True).iterator():
        by_schema.setdefault(str(result.get("schema", "")).partition("/")[0], []).append(result)
    pressed = by_schema.get("together", []) + by_schema.get("apart", [])
    kinds = [
        ("Heats", "said to go in", heats(by_schema.get("heat-and-drop", []))),
        ("Press forces", "foretold", forces(pressed)),
        ("Truing blows", "foretold", blows(by_schema.get("true", []))),
    ]
    return render(request, "exchange/held.html", {"kinds": kinds})
