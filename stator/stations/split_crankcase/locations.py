"""Places of the gaps of a joint: those of the card, or around the mating surface."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from shopmath.gap_plane import Point, check_gaps, further_place
from shopmath.splitting import Place
from shopmath.validation import BadInput
from stator.engines.fact_keys import FactKey
from stator.engines.models import Joint, Mark
from stator.engines.parts import Kind, Part
from stator.engines.properties import Property

REACH = 0.46  # of the face, from its middle: where an assumed place lies
MOST_SIGMA_MM = 0.05  # standard uncertainty of a gap in all, where a rule is not used


@dataclass(frozen=True)
class GapPlace:
    """A place to measure the gap: on the card, or one of four assumed around the mating surface."""

    part: Part
    place: Place

    @property
    def slot(self) -> FactKey:
        return FactKey(self.part, Property.GAP)


def _assumed(joint: Joint, place: Place) -> GapPlace:
    """A place that the card does not have, each joint with its own."""
    uid = place.name if joint.is_first else f"{joint.uid}-{place.name}"
    return GapPlace(Part(Kind.GAP, uid, place.name), place)


def gap_places(joint: Joint, marks: Sequence[Mark]) -> tuple[GapPlace, ...]:
    """Return the places of the card, or four assumed ones.

    One more is added if an error at one of them could not be detected.
    """
    found = [GapPlace(mark.part, Place(mark.name, mark.x_mm, mark.y_mm)) for mark in marks if mark.what == Mark.What.GAP]
    if found:
        return (*found, *_further(joint, found))
    w, h = (REACH * side for side in joint.face_mm)
    usual = (("right", w, 0.0), ("top", 0.0, h), ("left", -w, 0.0), ("bottom", 0.0, -h))
    return tuple(_assumed(joint, Place(name, x, y)) for name, x, y in usual)


def _further(joint: Joint, places: Sequence[GapPlace]) -> tuple[GapPlace, ...]:
    """A place well apart from the card's, where these would not show that one of them is misread."""
    points = [Point(each.place.name, each.place.x_mm, each.place.y_mm, 0.0) for each in places]
    w, h = (REACH * side for side in joint.face_mm)
    names = ("right", "top right", "top", "top left", "left", "bottom left", "bottom", "bottom right")
    round_it = [(math.cos(math.radians(angle)), math.sin(math.radians(angle))) for angle in range(0, 360, 45)]
    offered = [Point(name, w * x, h * y, 0.0) for name, (x, y) in zip(names, round_it, strict=True)]
    taken = {each.place.name for each in places}
    try:
        blind = len(points) < 4 or check_gaps(points, MOST_SIGMA_MM).blind
        best = further_place(points, [each for each in offered if each.name not in taken]) if blind else None
    except BadInput:
        return ()
    return (_assumed(joint, Place(best.name, best.x_mm, best.y_mm)),) if best else ()
