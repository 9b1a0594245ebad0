"""The face with its fasteners and gap places, and the joint from the side, tilted as measured."""

from __future__ import annotations

from shopmath.amounts import mm
from shopmath.splitting import SEEN_MM
from stator.engines.models import Mark
from stator.stations.common.face import Face, draw_dowel, draw_fastener, draw_outline, draw_reach, draw_seats, seats_at, seen_from
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.split_crankcase import messages
from stator.stations.split_crankcase.analysis import SplitAnalysis, fault_of, length_of
from stator.stations.split_crankcase.locations import GapPlace
from stator.stations.split_crankcase.verdict import MOST_LIKELY, half
from stator.ui.number_format import bare, plain, show

OPEN_PX = 62.0  # the widest gap as drawn
BROKEN = ("snapped", "stripped")  # what wants work before the halves close again
BASE_PX = 520.0  # of the joint from the side


def draw(found: SplitAnalysis, canvas: Canvas) -> None:
    edge = 66.0 if canvas.is_wide else 40.0
    face = Face.inside(found.joint, edge, 14, canvas.width - 2 * edge, 366)
    _plan(found, canvas, face)
    _side(found, canvas)


def _plan(found: SplitAnalysis, canvas: Canvas, face: Face) -> None:
    sheet, labels = canvas.sheet, canvas.labels
    draw_outline(sheet, face, found.joint, found.marks)
    draw_seats(sheet, face, seats_at(found.joint))
    for mark in found.fasteners:
        _fastener(found, canvas, face, mark)
    for mark in found.marks:
        if mark.what == Mark.What.DOWEL:
            draw_dowel(sheet, face, mark)
            labels.keep_clear(face.at(mark.x_mm, mark.y_mm), 8)
    if found.is_loaded and not found.is_apart:
        for place in found.places:
            _gap_place(found, canvas, face, place)
    if not found.fasteners and not found.held_elsewhere:
        labels.at([((canvas.width / 2, face.middle[1] + 5), "middle")], str(messages.ON_DRAWING["no_bolts"]), "quiet")
    seen, lifting = seen_from(found.joint), half(found)
    known = lifting != str(messages.UNKNOWN_HALF)
    text = format_message(messages.ON_DRAWING["lifts"], {"seen": seen, "half": lifting}) if known else seen
    labels.at([((canvas.width / 2, 396), "middle")], text, "quiet", rank=2)


def _fastener(found: SplitAnalysis, canvas: Canvas, face: Face, mark: Mark) -> None:
    fact_key, at = length_of(mark), face.at(mark.x_mm, mark.y_mm)
    likely = found.census.likely[:MOST_LIKELY] if found.counted is not None else ()
    fault = found.own.said(fault_of(mark))
    state = "likely" if mark.name in likely or fault in BROKEN else "out" if found.is_out(mark) else ""
    with canvas.question(fact_key):
        draw_reach(canvas.sheet, face, mark.x_mm, mark.y_mm)
        if canvas.asked == fact_key:
            canvas.sheet.circle(at, 18, "place")
        draw_fastener(canvas.sheet, face, mark, f"bolt {state}".strip())
    canvas.labels.keep_clear(at, 9)
    text = format_message(messages.ON_DRAWING[fault], {"bolt": mark.name}) if fault else mark.name
    canvas.labels.around(at, 11, text, "halo hot strong" if fault in BROKEN else "halo quiet", rank=6, left=mark.x_mm > 0)


def _gap_place(found: SplitAnalysis, canvas: Canvas, face: Face, place: GapPlace) -> None:
    x, y = face.at(place.place.x_mm, place.place.y_mm)
    gap, plane, name = found.gap(place), found.plane, place.part.name
    with canvas.question(place.slot):
        draw_reach(canvas.sheet, face, place.place.x_mm, place.place.y_mm)
        if canvas.asked == place.slot:
            canvas.sheet.circle((x, y), 19, "place")
        canvas.sheet.shape([(x, y - 10), (x + 10, y + 8), (x - 10, y + 8)], "ink solid")
    canvas.labels.keep_clear((x, y), 11)
    inward = place.place.x_mm > 0.1 * found.joint.face_mm[0]
    said, cls = (name, "halo quiet") if gap is None else (bare(mm(gap, 0.01)), "halo reading-label ink")
    canvas.labels.around((x, y), 14, said, cls, rank=3, link=canvas.link(place.slot), left=inward)
    if plane and plane.lead_mm >= SEEN_MM and place.place.name in (plane.leading_name, plane.lagging_name):
        code = "ahead" if place.place.name == plane.leading_name else "behind"
        canvas.labels.around((x, y), 14, format_message(messages.ON_DRAWING[code], {"name": name}), "halo strong", rank=4, left=inward)


def _side(found: SplitAnalysis, canvas: Canvas) -> None:
    """The joint along the line from laggard to leader."""
    sheet, labels = canvas.sheet, canvas.labels
    edge = 60.0 if canvas.is_wide else 20.0
    left, right, plane = edge, canvas.width - edge, found.plane
    lag, lead = (max(0.0, gap) for gap in found.ends_mm) if not found.is_apart else (0.0, 0.0)
    factor = OPEN_PX / max(lead, lag, 1e-9) if plane and not found.is_apart else 0.0
    lift = 34.0 if found.is_apart else 0.0
    up = [(left, BASE_PX - lag * factor - lift), (right, BASE_PX - lead * factor - lift)]
    sheet.hatched([(left, BASE_PX), (right, BASE_PX), (right, BASE_PX + 30), (left, BASE_PX + 30)], "plain", 9)
    ink = "ink" if plane and not found.is_apart else "plain"
    sheet.hatched([up[0], up[1], (right, up[1][1] - 30), (left, up[0][1] - 30)], ink, 9, rising=False)
    if found.is_apart:
        labels.at([((canvas.width / 2, 442), "middle")], str(messages.ON_DRAWING["apart"]), "reading-label ink big", rank=1)
        return
    if not plane:
        labels.at([((left, BASE_PX - 44), "start")], str(messages.ON_DRAWING["closed"]), "quiet", rank=1)
        return
    for name, gap, (x, y), anchor in ((plane.lagging_name, lag, up[0], "start"), (plane.leading_name, lead, up[1], "end")):
        inset = 6 if anchor == "start" else -6
        text = format_message(messages.ON_DRAWING["gap_of"], {"name": name, "gap": show(mm(gap, 0.01))})
        labels.at([((x + inset, y - 38), anchor), ((x + inset, y - 58), anchor)], text, "reading-label ink", rank=1)
    times = factor * found.span_mm / (right - left)
    labels.at(
        [((canvas.width / 2, BASE_PX - 8), "middle")], format_message(messages.ON_DRAWING["scale"], {"times": plain(times, 2)}), "quiet"
    )
