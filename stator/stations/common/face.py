"""Drawing of a mating surface: from mm on the surface to px on a sheet.

Shared by the card and by every station that works on the mating surface.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from django.utils.translation import gettext as _

from stator.engines.case import is_outside
from stator.engines.fits import bearing_of
from stator.engines.models import Joint, Mark, Seat
from stator.ui.svg import Point, Sheet

EDGE_MM = 9.0  # of case round a bolt
REACH_PX = 26.0


@dataclass(frozen=True)
class Face:
    """The position of a mating surface on a sheet: its center in px, and px per mm."""

    middle: Point
    scale: float

    @classmethod
    def inside(cls, joint: Joint, left: float, top: float, width: float, height: float) -> Face:
        wide, high = joint.face_mm
        scale = min(width / wide, height / high)
        return cls((left + width / 2, top + height / 2), scale)

    def at(self, x_mm: float, y_mm: float) -> Point:
        return self.middle[0] + self.scale * x_mm, self.middle[1] - self.scale * y_mm


def _hull(points: Sequence[Point]) -> list[Point]:
    """Convex hull, counter-clockwise (monotone chain)."""
    ordered = sorted(set(points))

    def half(run: Sequence[Point]) -> list[Point]:
        found: list[Point] = []
        for p in run:
            while len(found) >= 2:
                (ax, ay), (bx, by) = found[-2], found[-1]
                if (bx - ax) * (p[1] - ay) - (by - ay) * (p[0] - ax) > 0:
                    break
                found.pop()
            found.append(p)
        return found[:-1]

    return half(ordered) + half(ordered[::-1])


@lru_cache(64)
def _round(bolts: tuple[Point, ...]) -> tuple[Point, ...]:
    """The edge of a case round its bolts."""
    ring = [(math.cos(math.radians(angle)), math.sin(math.radians(angle))) for angle in range(0, 360, 20)]
    return tuple(_hull([(x + EDGE_MM * dx, y + EDGE_MM * dy) for x, y in bolts for dx, dy in ring]))


def outline_mm(joint: Joint, marks: Sequence[Mark]) -> list[Point]:
    """Return the outline of the case: around its fasteners if there are at least three, otherwise the rectangle of the surface."""
    bolts = [mark for mark in marks if mark.is_fastener]
    if len(bolts) >= 3:
        return list(_round(tuple((bolt.x_mm, bolt.y_mm) for bolt in bolts)))
    w, h = (side / 2 for side in joint.face_mm)
    cut = min(w, h) * 0.24
    return [(-w + cut, -h), (w - cut, -h), (w, -h + cut), (w, h - cut), (w - cut, h), (-w + cut, h), (-w, h - cut), (-w, -h + cut)]


def draw_outline(sheet: Sheet, face: Face, joint: Joint, marks: Sequence[Mark], cls: str = "outline") -> None:
    sheet.shape([face.at(x, y) for x, y in outline_mm(joint, marks)], cls)


def seats_at(joint: Joint) -> list[Seat]:
    """Return the seats on the mating surface of a joint: those of both parts, or of the cover only."""
    parts = (joint.one,) if is_outside(joint) else (joint.one, joint.other)
    return [seat for seat in joint.card.seats.all() if seat.half in parts and seat.on != Seat.On.SHAFT]


def draw_seats(sheet: Sheet, face: Face, seats: Sequence[Seat]) -> None:
    """Bores to scale, with their axes."""
    for seat in seats:
        if seat.x_mm is None or seat.y_mm is None or seat.on == Seat.On.SHAFT:
            continue
        centre, radius = face.at(seat.x_mm, seat.y_mm), face.scale * bearing_of(seat).outside_mm / 2
        sheet.circle(centre, radius, "bore")
        for dx, dy in ((radius + 7, 0), (0, radius + 7)):
            sheet.line((centre[0] - dx, centre[1] - dy), (centre[0] + dx, centre[1] + dy), "chain")


def draw_fastener(sheet: Sheet, face: Face, mark: Mark, cls: str = "bolt") -> None:
    """A bolt to scale where it can be seen."""
    centre, radius = face.at(mark.x_mm, mark.y_mm), max(8.0, face.scale * mark.d_mm * 0.85)
    sheet.circle(centre, radius, cls)
    arm = radius * 0.55
    sheet.line((centre[0] - arm, centre[1]), (centre[0] + arm, centre[1]), f"cross {cls}")
    sheet.line((centre[0], centre[1] - arm), (centre[0], centre[1] + arm), f"cross {cls}")


def draw_reach(sheet: Sheet, face: Face, x_mm: float, y_mm: float) -> None:
    """Draw the invisible area that can be tapped for a mark, which is larger than the mark."""
    sheet.circle(face.at(x_mm, y_mm), REACH_PX, "reach")


def draw_dowel(sheet: Sheet, face: Face, mark: Mark) -> None:
    x, y = face.at(mark.x_mm, mark.y_mm)
    sheet.shape([(x, y - 8), (x + 8, y), (x, y + 8), (x - 8, y)], "dowel")


def draw_gap_place(sheet: Sheet, face: Face, mark: Mark, cls: str = "ink solid") -> None:
    x, y = face.at(mark.x_mm, mark.y_mm)
    sheet.shape([(x, y - 9), (x + 9, y + 7), (x - 9, y + 7)], cls)


def seen_from(joint: Joint) -> str:
    """From where the face is seen, printed on every drawing of it."""
    card = joint.card
    stays = joint.staying or (card.crank_stays if card.crank_stays in (joint.one, joint.other) else "")
    if not stays:
        return _("seen on the face of the part that stays") if card.has_center_section else _("seen on the face of the half that stays")
    return _("seen on the face of the {part}").format(part=card.part_name(stays))
