"""Both case halves, bearings and crank in section; the link that is asked lights up, the float and its shims show on the right."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from ui.graph import Rule
from ui.svg import Sheet, on_papers

if TYPE_CHECKING:
    from stations.end_float.station import EndFloat


def draw(work: EndFloat) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: EndFloat, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 560, "The stack across the crankcase", f"{plate.words}. {plate.line} {plate.move}", name)
    unit = width / 760
    face, left, right = 400.0 * unit, 90.0 * unit, 670.0 * unit  # joint face, and where the rings stand
    _section(sheet, work, unit, face, left, right)
    links = [("left", left, face - 4 * unit, 372.0), ("right", face + 4 * unit, right, 372.0), ("crank", left, right - 26 * unit, 420.0)]
    for key, a, b, y in links:
        _link(sheet, work, key, a, b, y, {"left": "left case", "right": "right case", "crank": "crank"}[key], width > 500)
    _small(sheet, work, "gasket", face, 344.0, "gasket", width > 500)
    _small(sheet, work, "fitted", right - 13 * unit, 330.0, "shims in", width > 500)
    _float(sheet, work, width)
    return sheet.render()


def _section(sheet: Sheet, work: EndFloat, unit: float, face: float, left: float, right: float) -> None:
    top, low, axis = 70.0, 316.0, 196.0
    for near, far, sign in ((face - 4 * unit, left - 56 * unit, -1), (face + 4 * unit, right + 56 * unit, 1)):
        ring = left if sign < 0 else right
        for up in (True, False):
            edge, inner = (top, axis - 78) if up else (low + 14, axis + 78)
            wall = [(near, edge), (far, edge), (far, axis + (-26 if up else 26)), (ring + sign * 34 * unit, axis + (-26 if up else 26))]
            sheet.hatched([*wall, (ring + sign * 34 * unit, inner), (near, inner)], "plain", 10, rising=up)
            y = axis - 72 if up else axis + 26
            box = [(ring, y), (ring + sign * 32 * unit, y), (ring + sign * 32 * unit, y + 46), (ring, y + 46)]
            sheet.shape(box, "cut paper")
            sheet.circle((ring + sign * 16 * unit, y + 23), 11, "ball")
    webs = (left + 96 * unit, right - 122 * unit)
    end = right - 26 * unit
    sheet.shape([(left, axis - 24), (end, axis - 24), (end, axis + 24), (left, axis + 24)], "cut paper")
    for x in webs:
        sheet.hatched([(x, axis - 62), (x + 26 * unit, axis - 62), (x + 26 * unit, axis + 66), (x, axis + 66)], "cold", 8)
    sheet.line((left - 70 * unit, axis), (right + 70 * unit, axis), "chain")
    gasket = work.mean("gasket")
    if gasket is not None:
        sheet.rect(face - 4 * unit, top, 8 * unit, 250, "barred")
    if work.pieces or work.mean("fitted"):
        sheet.rect(end, axis - 26, 26 * unit * 0.62, 52, "ink solid")


def _link(sheet: Sheet, work: EndFloat, key: str, a: float, b: float, y: float, words: str, wide: bool) -> None:
    value, asked = work.mean(key), bool(work.next_ask and work.next_ask.key == key)
    said = f"{words if wide else ''} {value:.{work.digits(key)}f}".strip() if value is not None else words
    cls = "ink bold" if asked or value is not None else "dim"
    for x in (a, b):
        sheet.line((x, 330), (x, y + 8), "thin")
    with sheet.link(f"{work.address}?ask={key}", f"Reading: {words}"):
        half = 5.0 * len(said) + 8
        middle = (a + b) / 2
        sheet.arrow((a, y), (middle - half, y), cls)
        sheet.arrow((b, y), (middle + half, y), cls)
        if asked:
            sheet.rect(middle - half - 4, y - 18, 2 * half + 8, 34, "place")
        sheet.text((middle, y + 5), said, f"reading-label{' ink' if value is not None else ''}", "middle")


def _small(sheet: Sheet, work: EndFloat, key: str, x: float, y: float, words: str, wide: bool) -> None:
    value, asked = work.mean(key), bool(work.next_ask and work.next_ask.key == key)
    if value is None and not asked:
        return
    said = f"{words} {value:.2f}" if value is not None else words
    with sheet.link(f"{work.address}?ask={key}", f"Reading: {words}"):
        half = 4.8 * len(said) + 8
        if asked:
            sheet.rect(x - half, y - 19, 2 * half, 28, "place")
        sheet.text((x, y), said, "halo reading-label ink", "middle")


def _float(sheet: Sheet, work: EndFloat, width: float) -> None:
    """The float on a rule between its limits, with its doubt."""
    free, limits = work.free, work.limits
    shown = work.predicted or ((work.choice[0].float_mm, work.doubt_mm) if work.choice[0] else None)
    if limits is None or (shown is None and free is None):
        sheet.text((width / 2, 508.0), "the float stands here between its limits", "quiet", "middle")
        return
    value, doubt = shown or ((free.value_mm, work.doubt_mm) if free else (0.0, 0.0))
    low, high = min(limits[0], value - doubt, 0.0), max(limits[1], value + doubt)
    pad = 0.08 * (high - low)
    rule = Rule(508.0, width * 0.14, width * 0.86, low - pad, high + pad)
    rule.draw(sheet, limits, value, doubt, (f"{limits[0]:g}", f"{limits[1]:g}"))
