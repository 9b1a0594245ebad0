"""The face with its fasteners and gap places, and the joint from the side, tilted as measured."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from stations.face import Face, draw_dowel, draw_fastener, draw_outline, draw_reach, draw_seats, seen_from
from ui.svg import Sheet, on_papers

if TYPE_CHECKING:
    from stations.split.station import Split

OPEN_PX = 62.0  # the widest gap as drawn


def draw(work: Split) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: Split, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 560, "The joint face and how the halves part", f"{plate.words}. {plate.line} {plate.move}", name)
    edge = 66.0 if width > 500 else 40.0
    face = Face.inside(work.job.card, edge, 14, width - 2 * edge, 366)
    _plan(sheet, work, face, width)
    _side(sheet, work, width)
    return sheet.render()


def _plan(sheet: Sheet, work: Split, face: Face, width: float) -> None:
    draw_outline(sheet, face, work.job.card, work.marks)
    draw_seats(sheet, face, list(work.job.card.seats.all()))
    out, likely = set(work.out), set(work.census.likely[:3]) if work.call.state == "stop" else set()
    ask = work.next_ask
    for mark in work.fasteners:
        with sheet.link(f"{work.address}?ask=b-{mark.pk}", f"Reading: {mark.what} {mark.name}"):
            draw_reach(sheet, face, mark.x_mm, mark.y_mm)
            if ask and ask.key == f"b-{mark.pk}":
                sheet.circle(face.at(mark.x_mm, mark.y_mm), 18, "place")
            state = "likely" if mark.name in likely else "out" if mark.name in out else ""
            draw_fastener(sheet, face, mark, f"bolt {state}".strip(), mark.name)
    for mark in work.marks:
        if mark.what == "dowel":
            draw_dowel(sheet, face, mark)
    if work.begun and not work.apart:
        _gap_places(sheet, work, face)
    if not work.fasteners:
        sheet.text((width / 2, face.middle[1] + 5), "no bolts on the card yet: tap them onto its face", "quiet", "middle")
    sheet.text((width / 2, 396), f"{seen_from(work.job.card)}; the {work.lifting_half} lifts", "quiet", "middle")


def _gap_places(sheet: Sheet, work: Split, face: Face) -> None:
    plane, ask = work.plane, work.next_ask
    for key, place in work.places:
        x, y = face.at(place.x_mm, place.y_mm)
        value = work.value(key)
        with sheet.link(f"{work.address}?ask={key}", f"Reading: gap at {place.name}"):
            draw_reach(sheet, face, place.x_mm, place.y_mm)
            if ask and ask.key == key:
                sheet.circle((x, y), 19, "place")
            sheet.shape([(x, y - 10), (x + 10, y + 8), (x - 10, y + 8)], "ink solid")
            aside = abs(place.x_mm) < 0.1 * work.job.card.face_w_mm or place.x_mm < 0
            at, anchor = (x + 16, "start") if aside else (x - 16, "end")
            words, cls = (place.name, "halo quiet") if value is None else (f"{value:.2f}", "halo reading-label ink")
            sheet.text((at, y + 6), words, cls, anchor)
            if plane and place.name in (plane.leading_name, plane.lagging_name):
                sheet.text((at, y + 23), f"{place.name} {'leads' if place.name == plane.leading_name else 'lags'}", "halo strong", anchor)


def _side(sheet: Sheet, work: Split, width: float) -> None:
    """The joint along the line from laggard to leader."""
    left, right, base = 60.0 if width > 500 else 20.0, width - (60.0 if width > 500 else 20.0), 520.0
    plane = work.plane
    if work.apart:
        sheet.text((width / 2, 470), "apart", "reading-label ink big", "middle")
    lag, lead = (max(0.0, gap) for gap in work.ends_mm) if not work.apart else (0.0, 0.0)
    factor = OPEN_PX / max(lead, lag, 1e-9) if plane and not work.apart else 0.0
    lift = 34.0 if work.apart else 0.0
    up = [(left, base - lag * factor - lift), (right, base - lead * factor - lift)]
    sheet.hatched([(left, base), (right, base), (right, base + 30), (left, base + 30)], "plain", 9)
    sheet.hatched([up[0], up[1], (right, up[1][1] - 30), (left, up[0][1] - 30)], "ink" if plane else "plain", 9, rising=False)
    if not plane or work.apart:
        sheet.text((left, base - 44 - lift), "the joint from the side, closed" if not work.apart else "", "quiet")
        return
    sheet.text((left + 6, up[0][1] - 38), f"{plane.lagging_name}  {lag:.2f}", "reading-label ink")
    sheet.text((right - 6, up[1][1] - 38), f"{plane.leading_name}  {lead:.2f}", "reading-label ink", "end")
    times = factor * work.span_mm / (right - left)
    sheet.text((width / 2, base - 8), f"gap drawn ×{float(f'{times:.2g}'):g}", "quiet", "middle")
