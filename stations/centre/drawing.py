"""The crank between its bearings with both gaps, drawn large, and the way to move it; below, the proof as two falling lines."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from ui.svg import Sheet, bar, on_papers

if TYPE_CHECKING:
    from stations.centre.station import Centre

GAP_PX = 46.0  # the larger gap as drawn


def draw(work: Centre) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: Centre, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 560, "The crank between its bearings", f"{plate.words}. {plate.line} {plate.move}", name)
    middle, axis, unit = width / 2, 200.0, width / 760
    gaps = work.gaps or (0.15, 0.15)
    factor = GAP_PX / max(max(gaps), 0.05)
    for sign, key, gap in ((-1, "left", gaps[0]), (1, "right", gaps[1])):
        web = middle + sign * 118 * unit
        face = web + sign * 26 * unit
        ring = face + sign * factor * gap * unit
        sheet.hatched(bar(web, face, axis - 92, axis + 110), "plain", 9)
        sheet.shape(bar(face, face + sign * 180 * unit, axis - 20, axis + 20), "cut paper")
        for y in (axis - 66, axis + 22):
            sheet.shape(bar(ring, ring + sign * 44 * unit, y, y + 44), "cut paper")
            sheet.circle((ring + sign * 22 * unit, y + 22), 12, "ball")
        _gap(sheet, work, key, (face + ring) / 2, axis)
    sheet.hatched(bar(middle - 118 * unit, middle + 118 * unit, axis - 72, axis - 40), "cold", 8)
    sheet.line((20 * unit, axis), (width - 20 * unit, axis), "chain")
    found = work.middle
    if found and found.call.state == "out":
        sign = -1 if found.move.toward == "left" else 1
        sheet.arrow((middle + sign * 80 * unit, axis + 50), (middle - sign * 60 * unit, axis + 50), "hot bold", 14)
        sheet.text((middle, axis + 82), f"{found.move.move_mm:.2f} mm, {found.move.turns:.2f} turns", "strong hot", "middle")
    words = "gaps drawn large" if work.gaps else "gaps stand here once felt"
    sheet.text((middle, 352), words, "quiet", "middle")
    _proof(sheet, work, width)
    return sheet.render()


def _gap(sheet: Sheet, work: Centre, key: str, x: float, axis: float) -> None:
    value, asked = work.mean(key), bool(work.next_ask and work.next_ask.key == key)
    with sheet.link(f"{work.address}?ask={key}", f"Reading: {key} gap"):
        if asked:
            sheet.circle((x, axis - 118), 30, "place")
        said, cls = (f"{value:.2f}", "halo reading-label ink") if value is not None else ("?", "")
        sheet.text((x, axis - 112), said, cls, "middle")
        sheet.line((x, axis - 100), (x, axis - 24), "ink")


def _proof(sheet: Sheet, work: Centre, width: float) -> None:
    """Pressure over the minutes, falling or not."""
    if work.proof != "pressure":
        return
    top, bottom, left, right = 392.0, 510.0, width * 0.14, width * 0.86
    sheet.line((left, top), (left, bottom), "axis")
    sheet.line((left, bottom), (right, bottom), "axis thin")
    minutes = (work.value("minutes") or 300.0) / 60
    sheet.text((right, bottom + 20), f"{minutes:g} min", "tick", "end")
    sheet.text((left + 8, top + 4), "held, kPa", "quiet")
    for key, cls in (("pressure", "curve"), ("vacuum", "ring")):
        first, second = work.value(f"{key}-1"), work.value(f"{key}-2")
        if first is None:
            continue

        def y(kpa: float) -> float:
            return bottom - (bottom - top - 12) * min(abs(kpa), 60) / 60

        end = second if second is not None else first
        sheet.trace([(left, y(first)), (right - 40, y(end))], cls)
        sheet.text((right - 34, y(end) + 5), key, "quiet")
