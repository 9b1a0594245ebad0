"""Drawing of the mating surface with its bolts, numbered in tightening order, each with its rounds."""

from __future__ import annotations

from stator.engines.properties import Property
from stator.stations.close_crankcase import messages
from stator.stations.close_crankcase.analysis import CANNOT_HOLD, ClosingAnalysis, torque_of
from stator.stations.common.face import Face, draw_dowel, draw_fastener, draw_outline, draw_reach, draw_seats, seats_at, seen_from
from stator.stations.framework import Canvas
from stator.stations.framework.messages import capital, format_message
from stator.ui.svg import Point


def draw(found: ClosingAnalysis, canvas: Canvas) -> None:
    sheet, width = canvas.sheet, canvas.width
    edge = 66.0 if canvas.is_wide else 40.0
    face = Face.inside(found.joint, edge, 20, width - 2 * edge, 430)
    marks = [mark for mark in found.marks if mark.joint == found.joint.uid]
    ordered = [mark for mark in found.ordered if mark.joint == found.joint.uid]
    draw_outline(sheet, face, found.joint, marks)
    draw_seats(sheet, face, seats_at(found.joint))
    for mark in marks:
        if mark.what == "dowel":
            draw_dowel(sheet, face, mark)
    at = {mark.part.uid: face.at(mark.x_mm, mark.y_mm) for mark in ordered}
    _way(found, canvas, at)
    for number, mark in enumerate(ordered, 1):
        done = found.rounds_done(mark)
        fact_key = torque_of(mark, min(done + 1, len(found.rounds)))
        with canvas.question(fact_key):
            draw_reach(sheet, face, mark.x_mm, mark.y_mm)
            if canvas.asked and canvas.asked.part == mark.part:
                sheet.circle(at[mark.part.uid], 20, "place")
            failed = found.fault(mark) in CANNOT_HOLD
            look = "bolt likely" if failed else "bolt" if done == len(found.rounds) else "bolt taken"
            draw_fastener(sheet, face, mark, look)
            for each in range(done):
                sheet.circle(at[mark.part.uid], 12.0 + 3.5 * each, "ring")
            label = format_message(messages.ON_DRAWING["failed"], {"bolt": mark.name}) if failed else f"{number}."
            canvas.labels.around(at[mark.part.uid], 22.0, label, "halo hot strong" if failed else "halo strong", 3, left=mark.x_mm > 0)
    if not found.ordered:
        sheet.text((width / 2, 260), str(messages.ON_DRAWING["no_bolts"]), "quiet", "middle")
    seen = seen_from(found.joint)
    if len(found.joints) > 1:
        seen = format_message(messages.ON_DRAWING["joint"], {"Joint": capital(found.joint.called), "seen": seen})
    sheet.text((width / 2, 478), str(messages.ON_DRAWING["order_rings" if found.ordered else "order"]), "quiet", "middle")
    sheet.text((width / 2, 498), seen, "quiet", "middle")
    if found.is_closing and found.to_do:
        left, right = width * 0.2, width * 0.8
        sheet.line((left, 530), (right, 530), "axis thin")
        sheet.rect(left, 522, (right - left) * found.done / found.to_do, 16, "ink solid")


def _way(found: ClosingAnalysis, canvas: Canvas, at: dict[str, Point]) -> None:
    """From the bolt just done to the one that is asked."""
    asked = canvas.asked
    if asked is None or asked.what != Property.BOLT_TORQUE:
        return
    order = list(at)
    here = order.index(asked.part.uid) if asked.part.uid in order else 0
    if here:
        canvas.sheet.arrow(at[order[here]], at[order[here - 1]], "ink thin", 10)
