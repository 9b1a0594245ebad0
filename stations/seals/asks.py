"""What is asked of each seal: which it is, what it keeps in or out, which way round it went, how deep."""

from __future__ import annotations

from typing import TYPE_CHECKING

from engines.models import Seal
from shopmath.checks import BadInput
from shopmath.seals import CLOCKS
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.seals.station import Seals

KEPT = (
    Option("oil", "oil in", "lip inward"),
    Option("pressure", "crankcase pressure in", "lip inward"),
    Option("dirt", "dirt or water out", "lip outward"),
)
WAY = (Option("inside", "lip and spring inward"), Option("outside", "lip and spring outward"))
WHEN = (Option("before", "before the crank", "sleeve over the shaft"), Option("after", "after the crank", "the shaft guides it"))
BOUNDS = {"shaft": (3, 200), "bore": (5, 250), "behind": (0, 80)}


def asks(work: Seals) -> list[Ask]:
    return [ask for seal in work.seals for ask in _of(work, seal)]


def _of(work: Seals, seal: Seal) -> list[Ask]:
    p, quiet, by = f"{seal.pk}-", work.part != f"s{seal.pk}", ("calliper",)
    off = "calliper, or off the seal"
    found = [
        Ask(f"{p}shaft", "Shaft the seal runs on", off, quiet=quiet, example=f"{seal.shaft_mm:g}", gauges=by),
        Ask(f"{p}bore", "Bore it sits in", off, quiet=quiet, example=f"{seal.bore_mm:g}", gauges=by),
    ]
    if not work.is_the_one(seal):
        return found
    found.append(Ask(f"{p}kept", "What does it keep in, or out?", "", "words", "", options=KEPT, quiet=quiet))
    found.append(Ask(f"{p}way", "In your hand it goes in", "", "words", "", options=WAY, quiet=quiet))
    if work.against_rule(seal):
        page = "an exception needs its page"
        found.append(Ask(f"{p}cite", "Which page says so?", page, "words", "", quiet=quiet, example="manual page 42"))
    if not work.way_settled(seal):
        return found
    wanted = f"{seal.depth_mm:g}"
    for clock in CLOCKS:
        where = f"face to seal at {clock} o'clock; minus when proud"
        found.append(Ask(f"{p}d{clock}", f"Depth at {clock}", where, quiet=quiet, example=wanted, resolution=0.02, gauges=by))
    behind, none = "same face to the bearing's ring", "no gap computed"
    found.append(Ask(f"{p}behind", "Depth of the bearing behind", behind, optional=True, skip_means=none, quiet=quiet, example="8.5"))
    return found


def check(ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    low, high = BOUNDS.get(ask.key.partition("-")[2], (-10, 80) if ask.kind == "length" else (float("-inf"), float("inf")))
    if not low <= value <= high:
        raise BadInput(ask.key, f"{ask.words}: {value:g} is not believable. Check the unit and measure again.")
