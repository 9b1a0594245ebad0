"""Drawing of the crank between its bearings with enlarged gaps and the move; below it the pressure tests as two lines."""

from __future__ import annotations

from shopmath.amounts import count, mm
from stator.stations.center_crank import messages
from stator.stations.center_crank.analysis import END, GAPS, START, TESTS, CenteringAnalysis
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.ui.number_format import bare, plain, unit_of
from stator.ui.svg import bar

GAP_PX = 46.0  # the larger gap as drawn
USUAL_MM = 0.15  # drawn until both are measured
AXIS = 200.0
USUAL_S = 300.0


def draw(found: CenteringAnalysis, canvas: Canvas) -> None:
    sheet, middle, unit = canvas.sheet, canvas.width / 2, canvas.width / 760
    gaps = found.gaps or (USUAL_MM, USUAL_MM)
    factor = GAP_PX / max(max(gaps), 0.05)
    for sign, number, gap in ((-1, 0, gaps[0]), (1, 1, gaps[1])):
        web = middle + sign * 118 * unit
        face = web + sign * 26 * unit
        ring = face + sign * factor * gap * unit
        sheet.hatched(bar(web, face, AXIS - 92, AXIS + 110), "plain", 9)
        sheet.shape(bar(face, face + sign * 180 * unit, AXIS - 20, AXIS + 20), "cut paper")
        for y in (AXIS - 66, AXIS + 22):
            sheet.shape(bar(ring, ring + sign * 44 * unit, y, y + 44), "cut paper")
            sheet.circle((ring + sign * 22 * unit, y + 22), 12, "ball")
        _gap(found, canvas, number, (face + ring) / 2)
    sheet.hatched(bar(middle - 118 * unit, middle + 118 * unit, AXIS - 72, AXIS - 40), "cold", 8)
    sheet.line((20 * unit, AXIS), (canvas.width - 20 * unit, AXIS), "chain")
    if found.middle and found.middle.call.state == "out":
        move = found.middle.move
        sign = -1 if move.toward == "left" else 1
        sheet.arrow((middle + sign * 80 * unit, AXIS + 50), (middle - sign * 60 * unit, AXIS + 50), "hot bold", 14)
        text = format_message(messages.ON_DRAWING["move"], {"move": mm(move.move_mm, 0.01), "turns": count(move.turns, 0.01)})
        sheet.text((middle, AXIS + 132), text, "strong hot", "middle")  # under the webs: a phone has no room between them
    sheet.text((middle, 352), str(messages.ON_DRAWING["large" if found.gaps else "later"]), "quiet", "middle")
    if found.proof == "pressure":
        _test(found, canvas)


def _gap(found: CenteringAnalysis, canvas: Canvas, number: int, x: float) -> None:
    fact_key = GAPS[number]
    read = found.own.all(fact_key, found.own.attempt)
    with canvas.question(fact_key):
        if canvas.asked == fact_key:
            canvas.sheet.circle((x, AXIS - 118), 30, "place")
        text = bare(mm(read[-1].value or 0.0, 0.01)) if read else str(messages.ON_DRAWING["unknown"])
        canvas.sheet.text((x, AXIS - 112), text, "halo reading-label ink" if read else "", "middle")
        canvas.sheet.line((x, AXIS - 100), (x, AXIS - 24), "ink")


def _test(found: CenteringAnalysis, canvas: Canvas) -> None:
    """Pressure over the minutes, falling or not."""
    sheet, top, bottom = canvas.sheet, 392.0, 510.0
    left, right = canvas.width * 0.14, canvas.width * 0.86
    sheet.line((left, top), (left, bottom), "axis")
    sheet.line((left, bottom), (right, bottom), "axis thin")
    minutes = format_message(messages.ON_DRAWING["minutes"], {"minutes": plain((found.held_s or USUAL_S) / 60)})
    sheet.text((right, bottom + 20), minutes, "tick", "end")
    sheet.text((left + 8, top + 4), format_message(messages.ON_DRAWING["held"], {"unit": unit_of("pressure")}), "quiet")
    for test, cls in zip(TESTS, ("curve", "ring"), strict=True):
        first, second = found.kpa(test, START), found.kpa(test, END)
        if first is None:
            continue
        ends = [bottom - (bottom - top - 12) * min(abs(kpa), 60) / 60 for kpa in (first, first if second is None else second)]
        sheet.trace([(left, ends[0]), (right - 40, ends[1])], cls)
        canvas.labels.at([((right - 34, ends[1] + shift), "start") for shift in (5, 21, -11)], str(messages.ON_DRAWING[test]), "quiet")
