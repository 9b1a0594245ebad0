"""Drawing of the seat in section: case, bearing, retainer, seal with its lip, direction of removal, and contact of the driver."""

from __future__ import annotations

from dataclasses import dataclass

from shopmath.amounts import UP, mm
from shopmath.seals import CLOCKS
from stator.engines.properties import Property
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.remove_bearings import messages
from stator.stations.remove_bearings.analysis import BearingRemovalAnalysis, estimated_c
from stator.ui.number_format import band, bare, show
from stator.ui.svg import Point

OUTER_PX = 150.0  # half the outside of the bearing, as drawn
NARROW = 0.66  # how much smaller it is drawn on a phone
TOP, HIGH = 190.0, 96.0  # of the bearing, px
CLOCK_PX = 80.0  # that the drawing gives way for the depths of the seal


@dataclass(frozen=True)
class Place:
    """The middle of the drawing, and how large it is drawn."""

    middle: float
    unit: float

    @property
    def outside(self) -> float:
        return OUTER_PX * self.unit

    @property
    def margin(self) -> float:
        """Return where the labels at the left begin."""
        return 8.0 if self.unit < 1 else self.middle - self.outside - 92

    def x(self, side: int, offset: float) -> float:
        return self.middle + side * offset

    def box(self, side: int, near: float, far: float, y: float, high: float) -> tuple[float, float, float, float]:
        """A rectangle between two distances from the middle, on one side of it."""
        edges = sorted((self.x(side, near), self.x(side, far)))
        return edges[0], y, edges[1] - edges[0], high


def draw(found: BearingRemovalAnalysis, canvas: Canvas) -> None:
    beside = CLOCK_PX / 2 if canvas.is_wide and _shows_seal(found) else 0.0
    place = Place(canvas.width / 2 - beside, 1.0 if canvas.is_wide else NARROW)
    canvas.labels.at([((place.margin, 40), "start")], found.bearing.designation, "reading-label ink big", rank=1)
    if found.is_on_shaft:
        _on_shaft(found, canvas, place)
    else:
        _in_case(found, canvas, place)
    _driver(found, canvas)


def _section(found: BearingRemovalAnalysis, canvas: Canvas, place: Place) -> None:
    """Both rings and a ball, to the bearing's own proportions."""
    sheet = canvas.sheet
    scale = place.outside / (found.bearing.outside_mm / 2)
    bore, outside = scale * found.bearing.bore_mm / 2, place.outside
    section = outside - bore
    shields = {"open": (), "one": (TOP + 5,), "both": (TOP + 5, TOP + HIGH - 5)}[found.shields]
    for side in (-1, 1):
        for near, far in ((bore, bore + 0.31 * section), (outside - 0.31 * section, outside)):
            a, b = place.x(side, near), place.x(side, far)
            sheet.hatched([(a, TOP), (b, TOP), (b, TOP + HIGH), (a, TOP + HIGH)], "cold", 7, rising=False)
        sheet.circle((place.x(side, bore + section / 2), TOP + HIGH / 2), min(0.28 * section, HIGH * 0.36), "ball")
        for y in shields:
            sheet.line((place.x(side, bore + 0.31 * section), y), (place.x(side, outside - 0.31 * section), y), "axis")


def _in_case(found: BearingRemovalAnalysis, canvas: Canvas, place: Place) -> None:
    """Drawn with the side it goes in from at the top: that is where it comes out."""
    sheet, outside = canvas.sheet, place.outside
    _case(found, canvas, place)
    _held(found, canvas, place)
    if not found.is_out:
        _section(found, canvas, place)
    floor = TOP + HIGH
    sheet.line((place.middle, 30), (place.middle, floor + 80), "chain")
    sheet.arrow((place.middle, 44), (place.middle, 120), "ink bold", 12)
    toward = format_message(messages.ON_DRAWING["out_toward"], {"side": messages.SIDE[found.seat.loads_from]})
    canvas.labels.at([((place.middle + 14, 56), "start")], toward, "strong ink", rank=1)
    if _shows_seal(found):
        _seal(found, canvas, place)
    below = floor + (92 if canvas.is_wide else 76)
    behind = str(messages.ON_DRAWING[{True: "blind", False: "open", None: "unknown"}[found.is_blind]])
    if found.seat.thin_wall:
        behind = format_message(messages.ON_DRAWING["thin"], {"behind": behind})
    known = "strong" if found.is_blind is not None else "quiet"
    reach = found.at(Property.REACH)
    canvas.labels.at([((place.middle + outside * 0.1, below), "start")], behind, known, rank=2, link=canvas.link(reach))
    freed = found.freeing
    if freed and freed.together and not found.is_out:
        degrees = {"likely": bare(estimated_c(freed.together)), "high": show(estimated_c(freed.together, UP))}
        hot = format_message(messages.ON_DRAWING["case_c"], degrees)
        canvas.labels.at([((place.margin, below), "start")], hot, "strong hot", rank=2)


def _shows_seal(found: BearingRemovalAnalysis) -> bool:
    return found.seal is not None and not found.seal_is_out and not found.is_on_shaft


def _case(found: BearingRemovalAnalysis, canvas: Canvas, place: Place) -> None:
    """The case round the seat, closed below where the seat is blind."""
    outside, unit, floor = place.outside, place.unit, TOP + HIGH
    lip = 26 * unit if found.seat.stop != "through" else 0
    wall = 12.0 if found.seat.thin_wall else 34.0
    edge = outside + 92 * unit
    offsets = [(edge, 96.0), (outside, 96.0), (outside, floor), (outside - lip, floor), (outside - lip, floor + wall)]
    left, right = ([(place.x(side, offset), y) for offset, y in offsets] for side in (-1, 1))
    if found.is_blind:
        under = floor + wall + 22
        below = [(place.x(1, edge), under), (place.x(-1, edge), under)]
        canvas.sheet.hatched([*left, *reversed(right), *below], "plain", 10)
        return
    for side, half in ((-1, left), (1, right)):
        canvas.sheet.hatched([*half, (place.x(side, edge), floor + wall)], "plain", 10)


def _held(found: BearingRemovalAnalysis, canvas: Canvas, place: Place) -> None:
    """Draw a snap ring in its groove or a plate over the ring, with its name."""
    outside, unit = place.outside, place.unit
    for side in (-1, 1):
        if found.retained == "circlip":
            canvas.sheet.rect(*place.box(side, outside - 12 * unit, outside + 8 * unit, TOP - 12, 10), "cut solid")
        elif found.retained:
            canvas.sheet.rect(*place.box(side, outside - 26 * unit, outside + 46 * unit, TOP - 16, 14), "cut paper")
    text = str(messages.ON_DRAWING[found.retained or "fit"])
    link = canvas.link(found.at(Property.RETAINED_BY))
    canvas.labels.at([((place.margin, 62), "start")], text, "strong hot" if found.retained else "quiet", rank=1, link=link)


def _seal(found: BearingRemovalAnalysis, canvas: Canvas, place: Place) -> None:
    """Draw the seal in front, with its lip as found or as on the card, and its depth around the clock."""
    sheet, outside, unit, y = canvas.sheet, place.outside, place.unit, 122.0
    lip = found.lip or (found.seal.lip if found.seal else "")
    down = 1 if lip == "inside" else -1
    mouth = y + (30 if down > 0 else 0)
    for side in (-1, 1):
        sheet.rect(*place.box(side, outside - 34 * unit, outside, y, 30), "cut paper")
        root, tip = place.x(side, outside - 34 * unit), place.x(side, outside - 62 * unit)
        sheet.shape([(root, mouth - down * 16), (tip, mouth - down * 2), (root, mouth)], "lip")
        if lip:
            sheet.circle((place.x(side, outside - 44 * unit), mouth - down * 3), 3.5, "cut solid")
    text = str(messages.ON_DRAWING[f"lip_{lip or 'unknown'}"])
    if lip and not found.lip:
        text = format_message(messages.ON_DRAWING["by_card"], {"lip": text})
    at = (place.middle - outside + 40 * unit, 176.0) if canvas.is_wide else (place.middle - outside + 30, 180.0)
    link = canvas.link(found.of_seal(Property.SEAL_LIP))
    canvas.labels.at([(at, "start")], text, "quiet", rank=2, link=link)
    _depths(found, canvas, (place.middle + outside + 182, 150.0) if canvas.is_wide else (place.middle + 66, 414.0))


def _depths(found: BearingRemovalAnalysis, canvas: Canvas, centre: Point) -> None:
    """The seal's depth at four places."""
    radius = 26.0 if canvas.is_wide else 18.0
    canvas.sheet.circle(centre, radius, "bore")
    above = ((centre[0], centre[1] - radius - 32), "middle") if canvas.is_wide else ((centre[0] - radius - 56, centre[1] + 5), "end")
    canvas.labels.at([above], str(messages.ON_DRAWING["depth"]), "quiet", rank=2)
    offsets = ((0, -1, "middle"), (1, 0, "start"), (0, 1, "middle"), (-1, 0, "end"))
    for clock, (right, below, anchor) in zip(CLOCKS, offsets, strict=True):
        value = found.depth(clock)
        at = (centre[0] + right * (radius + 6), centre[1] + below * (radius + 13) + 5)
        said, cls = (clock, "quiet") if value is None else (bare(mm(value, 0.01)), "reading-label ink")
        link = canvas.link(found.of_seal(Property.SEAL_DEPTH, clock))
        canvas.labels.at([(at, anchor)], said, cls, rank=1, link=link)


def _on_shaft(found: BearingRemovalAnalysis, canvas: Canvas, place: Place) -> None:
    """A ring on a shaft, the shaft upright; it comes off toward the top."""
    sheet, middle = canvas.sheet, place.middle
    bore = place.outside / (found.bearing.outside_mm / 2) * found.bearing.bore_mm / 2
    wide = bore + 40 * place.unit
    sheet.hatched([(middle - bore, 90), (middle + bore, 90), (middle + bore, 420), (middle - bore, 420)], "plain", 10)
    collar = [(middle - wide, TOP + HIGH), (middle + wide, TOP + HIGH), (middle + wide, 400.0), (middle - wide, 400.0)]
    sheet.hatched(collar, "plain", 10)
    if not found.is_out:
        _section(found, canvas, place)
    sheet.line((middle, 30), (middle, 430), "chain")
    sheet.arrow((middle, 40), (middle, 84), "ink bold", 12)
    canvas.labels.at([((middle + 14, 52), "start")], str(messages.ON_DRAWING["off_shaft"]), "strong ink", rank=1)


def _driver(found: BearingRemovalAnalysis, canvas: Canvas) -> None:
    """The diameters a driver may have, as a rule, with the shop's own marked."""
    sheet, window, bearing = canvas.sheet, found.window, found.bearing
    left, right, y = 40.0, canvas.width - 40.0, 500.0
    low, high = bearing.bore_mm * 0.9, bearing.outside_mm * 1.05

    def x(size: float) -> float:
        return left + (right - left) * (size - low) / (high - low)

    name = format_message(messages.ON_DRAWING["driver"], {"on": messages.RING[window.presses_on]})
    sheet.text((left, y - (40 if canvas.is_wide else 62)), name, "strong")
    sheet.rect(x(window.outside_low_mm), y - 18, x(window.outside_high_mm) - x(window.outside_low_mm), 18, "window")
    sheet.line((left, y), (right, y), "axis")
    anchors = {"bore": "middle" if canvas.is_wide else "start", "outside": "end"}
    for code, size in (("bore", bearing.bore_mm), ("outside", bearing.outside_mm)):
        sheet.line((x(size), y - 6), (x(size), y + 8), "axis thin")
        sheet.text((x(size), y + 24), format_message(messages.ON_DRAWING[code], {"size": bare(mm(size, 0.1))}), "tick", anchors[code])
    text = band(mm(window.outside_low_mm, 0.1), mm(window.outside_high_mm, 0.1))
    sheet.text(((x(window.outside_low_mm) + x(window.outside_high_mm)) / 2, y - 24), text, "reading-label ink", "middle")
    for each in found.fitting[:3]:
        at = x(each.outside_mm)
        sheet.shape([(at, y), (at - 7, y - 14), (at + 7, y - 14)], "ink solid")
    names = ", ".join(each.name for each in found.fitting[:2]) or str(messages.ON_DRAWING["none_fits"])
    sheet.text(((left + right) / 2, y + 46), names, "strong" if found.fitting else "quiet", "middle")
