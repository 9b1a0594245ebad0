"""Drawing of the mating surface of a card with all its marks; the selected one has a ring."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from django.urls import reverse
from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from stator.engines.fits import bearing_of
from stator.engines.models import Joint, Mark, Seat
from stator.stations.common.face import Face, draw_dowel, draw_fastener, draw_gap_place, draw_outline, draw_reach, draw_seats, seen_from
from stator.ui.graph import step_for
from stator.ui.labels import Labels
from stator.ui.number_format import size
from stator.ui.svg import Sheet
from stator.ui.units import core_per_shown


@dataclass(frozen=True)
class Paper:
    """The size of the drawing of a mating surface, and the area that the surface may fill."""

    width: float
    height: float
    area: tuple[float, float, float, float]


DESK = Paper(640.0, 540.0, (40.0, 26.0, 560.0, 470.0))
PHONE = Paper(370.0, 440.0, (16.0, 20.0, 338.0, 370.0))


def face_of(joint: Joint, paper: Paper = DESK) -> Face:
    return Face.inside(joint, *paper.area)


def draw_card_face(
    joint: Joint, marks: Sequence[Mark], seats: Sequence[Seat], chosen: Mark | None, underlay: str = "", paper: Paper = DESK
) -> SafeString:
    """Draw the mating surface with its marks and seats; a tap adds a mark."""
    face, (across, up) = face_of(joint, paper), joint.face_mm
    fasteners = sum(mark.is_fastener for mark in marks)
    text = _("Fasteners: {fasteners}; dowels: {dowels}; places for the gap: {gaps}").format(
        fasteners=fasteners, dowels=sum(m.what == "dowel" for m in marks), gaps=sum(m.what == "gap" for m in marks)
    )
    sheet = Sheet(paper.width, paper.height, _("The joint face"), f"{text}, {seen_from(joint)}", "face")
    labels = Labels(sheet)
    left, top = face.at(-across / 2, up / 2)
    wide, high = face.scale * across, face.scale * up
    if underlay:
        sheet.add("image", href=underlay, x=left, y=top, width=wide, height=high, preserveAspectRatio="none", class_="underlay")
    _grid(sheet, face, joint)
    if not underlay:
        draw_outline(sheet, face, joint, marks)
    draw_seats(sheet, face, seats)
    below: dict[tuple[float, float], int] = {}
    for seat in seats:
        if seat.x_mm is None or seat.y_mm is None:
            continue
        place = (seat.x_mm, seat.y_mm)
        below[place] = below.get(place, 0) + 1  # the mains of both halves share a place
        x, y = face.at(*place)
        far = face.scale * bearing_of(seat).outside_mm / 2
        row = 18 * below[place]
        beneath = [((x + aside, y + far + 4 + row), anchor) for aside, anchor in ((0, "middle"), (-30, "start"), (30, "end"))]
        above = [((x + aside, y - far - row), anchor) for aside, anchor in ((0, "middle"), (-30, "start"), (30, "end"))]
        places = [*beneath, *above, ((x, y + far + 22 + row), "middle"), ((x + far + 6, y + 5), "start"), ((x - far - 6, y + 5), "end")]
        name = seat.name if len(seat.name) < 26 else f"{seat.name[:24]} …"
        labels.at(places, name, "halo quiet")
    for mark in marks:
        x, y = face.at(mark.x_mm, mark.y_mm)
        labels.keep_clear((x, y), 10)
        with sheet.link(f"{reverse('card-face', args=[joint.card_id])}?mark={mark.pk}", f"{mark.get_what_display()} {mark.name}", "#face"):
            draw_reach(sheet, face, mark.x_mm, mark.y_mm)
            if mark == chosen:
                sheet.circle(face.at(mark.x_mm, mark.y_mm), 19, "place")
            if mark.is_fastener:
                draw_fastener(sheet, face, mark, "bolt taken" if mark.assumed else "bolt")
            else:
                (draw_dowel if mark.what == Mark.What.DOWEL else draw_gap_place)(sheet, face, mark)
        labels.around((x, y), 12, mark.name, "halo quiet", rank=2, left=mark.x_mm >= 0)  # first toward the middle
    sheet.text(
        (paper.area[0], paper.height - 10), _("{seen}; squares of {size}").format(seen=seen_from(joint), size=size(_square(joint))), "quiet"
    )
    labels.put()
    return sheet.render()


def _square(joint: Joint) -> float:
    per = core_per_shown("length")
    return step_for(joint.face_mm[0] / per, 14) * per


def _grid(sheet: Sheet, face: Face, joint: Joint) -> None:
    """Squared paper, so that a place can be judged by eye."""
    step, (half_w, half_h) = _square(joint), (side / 2 for side in joint.face_mm)
    for axis, half, other in (("x", half_w, half_h), ("y", half_h, half_w)):
        count = int(half // step)
        for index in range(-count, count + 1):
            a, b = ((index * step, -other), (index * step, other)) if axis == "x" else ((-other, index * step), (other, index * step))
            sheet.line(face.at(*a), face.at(*b), "chain" if index == 0 else "rule")
