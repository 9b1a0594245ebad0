"""Drawing of the seat in section with the ring, its position at four places, and the force compared with what is available."""

from __future__ import annotations

from shopmath.amounts import DOWN, celsius, mm, newtons, rough
from stator.engines.fact_keys import Location
from stator.engines.properties import Property
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.install_without_heat import messages
from stator.stations.install_without_heat.analysis import CLOCKS, STARTING, ColdFitAnalysis
from stator.ui.number_format import bare, rough_band
from stator.ui.svg import Point

OUTER_PX = 128.0  # half the outside of the ring, as drawn
FLOOR, HIGH = 330.0, 92.0  # where its shoulder lies, how high the ring is drawn
OUT_PX = 120.0  # how far it stands out before it is pushed in


def draw(found: ColdFitAnalysis, canvas: Canvas) -> None:
    unit = 1.0 if canvas.is_wide else 0.66
    middle = canvas.width / 2 - (70 if canvas.is_wide else 54)
    canvas.labels.at([((18, 40), "start")], found.bearing.designation, "reading-label ink big", rank=1)
    top = _top(found)
    if found.onto_shaft:
        _shaft(found, canvas, middle, unit)
    else:
        _boss(found, canvas, middle, unit)
    _ring(found, canvas, middle, unit, top)
    canvas.sheet.line((middle, 50), (middle, FLOOR + 60), "chain")
    if not found.went_in:
        _driver(canvas, middle, unit, top)
        _pushed(found, canvas, middle, top)
    _clocks(found, canvas, (canvas.width - 104, 150.0) if canvas.is_wide else (canvas.width - 77, 196.0))
    _force(found, canvas)


def _top(found: ColdFitAnalysis) -> float:
    """Return where the ring's upper face is drawn: out of the seat, started, or seated."""
    if found.went_in:
        return FLOOR - HIGH
    return FLOOR - HIGH - (OUT_PX if found.starts is None else OUT_PX * 0.7)


def _boss(found: ColdFitAnalysis, canvas: Canvas, middle: float, unit: float) -> None:
    outside = OUTER_PX * unit
    wall = min(max(2 * outside * found.wall_mm / found.nominal_mm, 22.0), 96.0 * unit)
    lip = 0.0 if found.is_through else 24.0 * unit
    for side in (-1, 1):
        inner, outer, stop = middle + side * outside, middle + side * (outside + wall), middle + side * (outside - lip)
        outline = [(outer, FLOOR - HIGH), (inner, FLOOR - HIGH), (inner, FLOOR), (stop, FLOOR), (stop, FLOOR + 34), (outer, FLOOR + 34)]
        canvas.sheet.hatched(outline, "plain", 10)
    y = FLOOR + 54
    canvas.sheet.dimension((middle + outside, y), (middle + outside + wall, y), "")
    code = "wall" if found.known_wall else "wall_typical"
    link = canvas.link(found.slot(Property.WALL_THICKNESS))
    text = format_message(messages.ON_DRAWING[code], {"wall": mm(found.wall_mm, 0.1)})
    canvas.labels.at([((middle + outside - 20, y + 22), "middle")], text, "strong" if found.known_wall else "quiet", rank=2, link=link)


def _shaft(found: ColdFitAnalysis, canvas: Canvas, middle: float, unit: float) -> None:
    bore = OUTER_PX * unit * found.bearing.bore_mm / found.bearing.outside_mm
    canvas.sheet.hatched(
        [(middle - bore, 120), (middle + bore, 120), (middle + bore, FLOOR + 60), (middle - bore, FLOOR + 60)], "plain", 10
    )
    collar = bore + 22 * unit
    canvas.sheet.hatched(
        [(middle - collar, FLOOR), (middle + collar, FLOOR), (middle + collar, FLOOR + 46), (middle - collar, FLOOR + 46)], "plain", 10
    )


def _ring(found: ColdFitAnalysis, canvas: Canvas, middle: float, unit: float, top: float) -> None:
    """Draw both rings and a ball, a cup with its needles, or a plain pin or bushing, in the part's own proportions."""
    outside = OUTER_PX * unit
    bore = outside * found.bearing.bore_mm / found.bearing.outside_mm
    section = outside - bore
    for side in (-1, 1):

        def box(near: float, far: float, y: float, high: float, cls: str, side: int = side) -> None:
            a, b = sorted((middle + side * near, middle + side * far))
            if cls == "cold":
                canvas.sheet.hatched([(a, y), (b, y), (b, y + high), (a, y + high)], cls, 7, rising=False)
            else:
                canvas.sheet.rect(a, y, b - a, high, cls)

        if found.is_plain:
            box(bore, outside, top, HIGH, "cold")
            continue
        if found.bearing.is_drawn_cup:
            box(outside - 0.3 * section, outside, top, HIGH, "cold")
            box(bore, outside - 0.34 * section, top + 12, HIGH - 24, "ball")
            continue
        box(outside - 0.31 * section, outside, top, HIGH, "cold")
        box(bore, bore + 0.31 * section, top, HIGH, "cold")
        canvas.sheet.circle((middle + side * (bore + section / 2), top + HIGH / 2), min(0.28 * section, HIGH * 0.36), "ball")


def _driver(canvas: Canvas, middle: float, unit: float, top: float) -> None:
    """A tube on the ring that is tight."""
    outside = OUTER_PX * unit
    for side in (-1, 1):
        a, b = sorted((middle + side * outside * 0.84, middle + side * outside * 0.98))
        canvas.sheet.hatched([(a, top - 46), (b, top - 46), (b, top), (a, top)], "brass", 8)


def _pushed(found: ColdFitAnalysis, canvas: Canvas, middle: float, top: float) -> None:
    canvas.sheet.arrow((middle, top - 14), (middle, top - 74), "ink bold", 12)
    code = "onto" if found.onto_shaft else "push"
    text = format_message(messages.ON_DRAWING[code], {"side": messages.SIDE[found.seat.loads_from]})
    canvas.labels.at([((middle + 14, top - 62), "start")], text, "strong ink", rank=1)
    stop = messages.ON_DRAWING["even" if found.is_through else "stop"]
    canvas.labels.at([((18, FLOOR + 76), "start")], format_message(stop, {"stop": found.seat.get_stop_display()}), "quiet", rank=2)


def _clocks(found: ColdFitAnalysis, canvas: Canvas, centre: Point) -> None:
    """Draw its position at four places, at the start or when it is in."""
    stage = None if found.went_in else STARTING
    what = Property.SEATING_GAP if found.went_in and not found.is_through else Property.SEATING_DEPTH
    radius = 30.0 if canvas.is_wide else 14.0
    canvas.sheet.circle(centre, radius, "bore")
    named = str(messages.ON_DRAWING["lies" if found.went_in else "starts"])
    canvas.labels.at([((centre[0], centre[1] - radius - 36), "middle")], named, "quiet", rank=2)
    offsets = ((0, -1, "middle"), (1, 0, "start"), (0, 1, "middle"), (-1, 0, "end"))
    for clock, (right, below, anchor) in zip(CLOCKS, offsets, strict=True):
        at = Location(clock=clock, stage=stage)
        fact = found.fact(what, at)
        known = fact is not None and fact.value is not None
        text = bare(mm(fact.value or 0.0, 0.01)) if fact and known else str(clock)
        place = (centre[0] + right * (radius + 6), centre[1] + below * (radius + 13) + 5)
        cls = "reading-label ink" if known else "quiet"
        canvas.labels.at([(place, anchor)], text, cls, rank=1, link=canvas.link(found.slot(what, at)))


def _force(found: ColdFitAnalysis, canvas: Canvas) -> None:
    """The force as a rule: the band it takes, and what there is to push with."""
    left, right, y = 40.0, canvas.width - 40.0, 500.0
    canvas.sheet.text((left, y - 46), str(messages.ON_DRAWING["force"]), "strong")
    canvas.sheet.line((left, y), (right, y), "axis")
    force = found.force
    if force is None:
        canvas.sheet.text(((left + right) / 2, y - 14), str(messages.ON_DRAWING["unknown"]), "quiet", "middle")
        return
    able = found.able_n
    highest = 1.15 * max(force.high, able if able and able < 4 * force.high else 0.0, 1.0)

    def x(newton: float) -> float:
        return left + (right - left) * min(newton, highest) / highest

    canvas.sheet.rect(x(force.low), y - 18, max(x(force.high) - x(force.low), 2.0), 18, "window")
    canvas.sheet.line((x(force.likely), y - 22), (x(force.likely), y + 4), "ink bold")
    said = rough_band(newtons(force.low), newtons(force.high))
    canvas.sheet.text(((x(force.low) + x(force.high)) / 2, y - 26), said, "reading-label ink", "middle")
    if able:
        at = x(able)
        if able <= highest:
            canvas.sheet.shape([(at, y), (at - 7, y + 14), (at + 7, y + 14)], "ink solid")
        else:
            canvas.sheet.arrow((right, y + 12), (right - 34, y + 12), "ink bold", 10)
        has = format_message(messages.ON_DRAWING["able"], {"way": messages.WAY[found.way], "able": rough(newtons(able), DOWN)})
        canvas.sheet.text(
            (at, y + 34), has, "strong", "end" if at > canvas.width * 0.6 else "start" if at < canvas.width * 0.3 else "middle"
        )
    if found.peak_n:
        canvas.sheet.circle((x(found.peak_n), y), 6, "ink solid")
    if found.instead and not found.onto_shaft and not found.bearing.is_drawn_cup:
        free = format_message(messages.ON_DRAWING["free"], {"case": celsius(found.instead.case_c)})
        canvas.sheet.text((left, y + 54), free, "quiet")
