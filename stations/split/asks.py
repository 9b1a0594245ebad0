"""What is asked at Split, in order: every fastener, the count, the splitter's hold, the gaps round the joint, what hangs loose."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shopmath.checks import BadInput
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.split.station import Split

MOST_LOOSE = 24
HOW = {"feeler": "feeler, thickest that goes in", "calliper": "calliper, across both edges, less the wall", "rule": "steel rule"}
UNCERTAIN_MM = {"feeler": 0.03, "calliper": 0.05, "rule": 0.5}
BOUNDS = {"screw_d": (3, 30), "screw_pitch": (0.4, 4), "turns": (0, 60 * 360), "g-": (-0.5, 120), "b-": (3, 500)}


def asks(work: Split) -> list[Ask]:
    card, past = work.job.card, work.begun or work.signed
    found: list[Ask] = []
    if not card.lifts:
        halves = (Option("left", f"{card.left_name} half"), Option("right", f"{card.right_name} half"))
        found.append(Ask("lifts", "Which half lifts off?", "manual; the crank stays in the other", "words", "", options=halves, quiet=past))
    for mark in work.fasteners:
        size = f"card: {mark.length_mm:g} mm" if mark.length_mm else "no length on the card"
        found.append(
            Ask(
                f"b-{mark.pk}",
                f"{mark.get_what_display().capitalize()} {mark.name} out: its length",
                f"{mark.thread}, {size}",
                optional=True,
                skip_means="out, not measured",
                quiet=past,
                resolution=0.5,
                example=f"{mark.length_mm:g}" if mark.length_mm else "35",
            )
        )
    if not work.fasteners:
        found.append(
            Ask("expected", "Fasteners by the parts list", "manual or parts list", "count", "", True, "unknown", quiet=past, example="14")
        )
    found.append(Ask("counted", "Pieces on the tray", "count them, do not trust the ticks", "count", "", quiet=past, example="14"))
    found += _hold(work, past)
    if work.begun or work.signed:
        found += _gaps(work)
    if work.apart or work.signed:
        found += _loose(work)
        found.append(Ask("note", "Anything to remember?", "for the next one", "words", "", True, "nothing noted"))
    return found


def _hold(work: Split, past: bool) -> list[Ask]:
    """The splitter's screws in the case."""
    found = []
    if work.splitter is None:
        found = [
            Ask(
                "screw_d",
                "Splitter's screws, over the crests",
                "calliper",
                optional=True,
                skip_means="not weighed",
                quiet=past,
                example="6",
                resolution=0.1,
            ),
            Ask(
                "screw_pitch",
                "Their pitch",
                "leaf gauge",
                "thread_pitch",
                "mm",
                True,
                "not weighed",
                quiet=past,
                example="1.0",
                resolution=0.01,
            ),
        ]
    turns = Ask(
        "turns",
        "Turns they go into the case",
        "by hand, the least of them",
        "angle",
        "turns",
        True,
        "not weighed",
        quiet=past,
        example="8",
        resolution=0.25,
    )
    return [*found, turns]


def _gaps(work: Split) -> list[Ask]:
    """Three places make a plane; from the fourth on a place may be left out."""
    taken = sum(bool(work.last(key)) for key, _ in work.places)
    return [
        Ask(
            key,
            f"Gap at {place.name}",
            HOW[work.how],
            optional=taken >= 3 or len(work.places) - len([each for each, _ in work.places if each in work.skipped()]) > 3,
            skip_means="cannot be reached",
            quiet=work.apart,
            resolution=UNCERTAIN_MM[work.how] / 3,
            example="1.2",
        )
        for key, place in work.places
    ]


def _loose(work: Split) -> list[Ask]:
    """Washers and shims that hang on either half: what, on which shaft, on which half; one after the other until none is left."""
    card = work.job.card
    fell = Option("fell", "fell out", "side unknown")
    halves = (Option("left", f"{card.left_name} half"), Option("right", f"{card.right_name} half"), fell)
    found: list[Ask] = []
    for number in range(1, MOST_LOOSE + 1):
        key = f"loose{number}"
        more = "Another that hangs loose?" if number > 1 else "A washer or shim that hangs loose?"
        found.append(Ask(key, more, "oil holds them to either half; look at both", "words", "", True, "none is left", example="washer 1.0"))
        if not work.last(key):
            break
        found.append(Ask(f"{key}-from", "On which shaft?", "and which place on it, from the case", "words", "", example="output, 1st"))
        found.append(Ask(f"{key}-half", "It hung on the", "", "words", "", options=halves))
    return found


def check(work: Split, ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    low, high = next((pair for start, pair in BOUNDS.items() if ask.key.startswith(start)), (float("-inf"), float("inf")))
    if not low <= value <= high:
        shown = value / 360 if ask.key == "turns" else value
        raise BadInput(ask.key, f"{ask.words}: {shown:g} is not believable. Check the unit and measure again.")
