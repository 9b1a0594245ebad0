"""Housing and ring in section with the gap exaggerated, and the clearance against time under it.

No judgement here.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from shopmath.amounts import DOWN, Amount, celsius, duration, estimate, kelvin, mm
from shopmath.thermal.seat import Moment, Setup, curve, moment_after, sure_until_s
from shopmath.verdict import IN
from stator.engines.models import Seat
from stator.engines.properties import Property
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.install_with_heat import shared_messages
from stator.stations.install_with_heat.single_seat import messages
from stator.stations.install_with_heat.single_seat.analysis import Phase, SingleSeatAnalysis
from stator.stations.install_with_heat.single_seat.questions import names, stop_name
from stator.ui.graph import Axes
from stator.ui.number_format import bare, format_for, rounded_s, show, trade
from stator.ui.svg import Sheet
from stator.ui.units import core_per, question_unit

SEAT_TOP, SEAT_DEEP = 166.0, 116.0
WIDEST_GAP_PX = 15.0
POINTS = 41  # of the curve
FACTORS = (5, 10, 20, 50, 100, 200, 500, 1000)


@dataclass(frozen=True)
class Frame:
    """The paper: its width, and the width of the fit on it, which sets the scale."""

    width: float
    height: float
    half_bore: float
    wall: float
    narrow: bool = False

    @property
    def middle(self) -> float:
        return self.width / 2


WIDE = Frame(760.0, 604.0, 158.0, 126.0)
NARROW = Frame(430.0, 590.0, 108.0, 70.0, narrow=True)


@dataclass(frozen=True)
class Scene:
    """The time that is drawn: the setup with its uncertainties, and the temperatures of both parts."""

    setup: Setup
    moment: Moment
    outer_c: float
    inner_c: float
    sure_s: float
    title: str


def span_s(found: SingleSeatAnalysis) -> float:
    """Return the length of the time axis: past the window, in whole minutes."""
    window = found.plan.window.likely
    return 1800.0 if math.isinf(window) else 60.0 * math.ceil(min(max(1.2 * window, 240.0), 3600.0) / 60)


def scene(found: SingleSeatAnalysis, at_s: float | None) -> Scene:
    plan = found.plan
    run = None if found.phase == Phase.PLAN else found.run
    if run and run.opened_at:
        outer_c, inner_c = run.outer(run.opened_at).c, run.inner(run.opened_at).c
        setup = run.live_setup
        here = run.here if at_s is None else moment_after(setup, at_s, outer_c, inner_c)
        return Scene(setup, here, outer_c, inner_c, sure_until_s(setup, outer_c, inner_c), format_message(messages.DRAWN["since"], {}))
    setup, outer_c, inner_c = plan.setup, plan.target_c, plan.chill_c
    if run and found.phase == Phase.HEATING and run.call.state == IN:
        setup, outer_c, inner_c = run.live_setup, run.outer().c, run.inner().c
        title = format_message(messages.DRAWN["now"], {})
    else:
        title = format_message(messages.DRAWN["after"], {"target": celsius(plan.target_c)})
    here = moment_after(setup, at_s or 0.0, outer_c, inner_c)
    if run and found.phase == Phase.HEATING and at_s is None:
        here = run.here
    return Scene(setup, here, outer_c, inner_c, sure_until_s(setup, outer_c, inner_c), title)


def slider(found: SingleSeatAnalysis) -> tuple[float, float] | None:
    """Return the longest time and the present one, s; the drawing moves through time until an outcome is recorded."""
    if found.trouble or found.phase == Phase.AFTER:
        return None
    now = found.run.here.time_s if found.phase == Phase.WINDOW else 0.0
    return span_s(found), min(now, span_s(found))


def draw(found: SingleSeatAnalysis, canvas: Canvas) -> None:
    """The section with the fit enlarged, and under it the clearance against time."""
    frame = WIDE if canvas.is_wide else NARROW
    if found.trouble:
        canvas.sheet.text((frame.middle, 300), str(messages.DRAWN["nothing"]), "quiet", "middle")
        return
    now = scene(found, canvas.at_s)
    shape = curve(now.setup, now.outer_c, now.inner_c, span_s(found), POINTS)
    inner_c = _warmth(found, now.moment.inner_c, now.setup.inner_u_k)
    outer_c = _warmth(found, now.moment.outer_c, now.setup.outer_u_k)
    values = {**names(found), "inner_c": inner_c, "outer_c": outer_c}
    values |= {"time": duration(now.moment.time_s, 0.0), "side": _side(now.moment)}
    canvas.sheet.description = f"{format_message(messages.DRAWN['described'], values)} {canvas.sheet.description}"
    _section(found, canvas, now, frame)
    _graph(canvas.sheet, found, now, shape, frame)


def _side(now: Moment) -> Amount:
    """Return half of a clearance as it is shown."""
    return estimate(mm(now.clearance_mm / 2), now.spread_mm)


def _warmth(found: SingleSeatAnalysis, temperature_c: float, u_k: float) -> Amount:
    """Return a temperature rounded to its uncertainty; a planned one is unchanged."""
    planned = temperature_c in (found.plan.target_c, found.plan.chill_c)
    return celsius(temperature_c) if planned else estimate(celsius(temperature_c), 2 * u_k)


def exaggeration(largest_mm: float, px_per_mm: float) -> int:
    """A round factor that draws the largest gap of this heat some 15 px wide a side."""
    true_px = max(abs(largest_mm), 0.004) / 2 * px_per_mm
    fitting = [factor for factor in FACTORS if factor * true_px <= WIDEST_GAP_PX]
    return fitting[-1] if fitting else FACTORS[0]


def _ink(c: float, room_c: float) -> str:
    return "hot" if c > room_c + 8 else "cold" if c < room_c - 8 else "plain"


def _section(found: SingleSeatAnalysis, canvas: Canvas, now: Scene, frame: Frame) -> None:
    sheet = canvas.sheet
    setup, fit = now.setup, found.planned.fit
    scale = 2 * frame.half_bore / setup.nominal_mm
    largest = max(abs(now.moment.clearance_mm), abs(found.plan.leaving.clearance_mm))
    factor = exaggeration(largest, scale)
    side_mm = now.moment.clearance_mm / 2
    gap = side_mm * scale * factor
    home = found.went_in
    outer_ink, inner_ink = _ink(now.moment.outer_c, setup.room_c), _ink(now.moment.inner_c, setup.room_c)
    tall = min(fit.bearing.width_mm * scale, SEAT_DEEP - 10)
    if fit.onto_shaft:
        top = _shaft(sheet, found, tall, gap, home, outer_ink, inner_ink, frame)
    else:
        top = _case(sheet, found, tall, gap, home, outer_ink, inner_ink, frame)
    sheet.line((frame.middle, 14), (frame.middle, SEAT_TOP + SEAT_DEEP + 50), "chain")
    if not home:
        sheet.arrow((frame.middle, top - 6), (frame.middle, top - 42), "ink bold", 12)
    _labels(found, canvas, now, (top, tall), (outer_ink, inner_ink), frame)
    if not home:
        left = frame.middle - frame.half_bore
        ring = left + (-gap if fit.onto_shaft else gap)
        y = SEAT_TOP - 22
        for x in (left, ring):
            sheet.line((x, y - 8), (x, SEAT_TOP - 2), "ink thin")
        sheet.arrow((min(left, ring), y), (min(left, ring) - 38, y), "ink")
        sheet.arrow((max(left, ring), y), (max(left, ring) + 30, y), "ink")
        drawn = {"factor": factor}
        aside = frame.narrow or fit.onto_shaft  # where a bearing's own section is in the way
        anchor, x = ("start", 8.0) if aside else ("end", min(left, ring) - 44)
        below = SEAT_TOP + 40 if fit.onto_shaft else 48.0 if frame.narrow else y + 2
        sheet.text((x, below), bare(_side(now.moment)), "reading-label ink big", anchor)
        which = "overlap" if side_mm < 0 else "apart"
        split = frame.narrow and fit.onto_shaft
        lines = (
            (messages.DRAWN[which], format_message(messages.DRAWN["scale"], drawn))
            if split
            else (format_message(messages.DRAWN[f"{which}_scale"], drawn),)
        )
        for index, line in enumerate(lines):
            sheet.text((x, below + 18 + 17 * index), str(line), "quiet", anchor)
    code = found.seat.code or str(messages.DRAWN["measured"])
    measured = found.seat_known.measured_here
    size = f"⌀ {bare(mm(measured[0]))}" if measured else f"⌀ {trade(setup.nominal_mm)} {code}"
    bottom = SEAT_TOP + SEAT_DEEP + 44 + 36 + (14 if frame.narrow else 0)
    for x in (frame.middle - frame.half_bore, frame.middle + frame.half_bore):
        sheet.line((x, bottom - 32), (x, bottom + 6), "dim")
    sheet.dimension((frame.middle - frame.half_bore, bottom), (frame.middle + frame.half_bore, bottom), size)


def _ring(sheet: Sheet, left: float, right: float, top: float, tall: float, ink: str) -> None:
    """One side of a ball bearing in section between two radii."""
    wide = right - left
    land = wide * 0.36
    middle = (left + right) / 2
    for a, b in ((left, left + land), (right - land, right)):
        sheet.hatched([(a, top), (b, top), (b, top + tall), (a, top + tall)], ink, 6, rising=False)
    sheet.circle((middle, top + tall / 2), min(wide * 0.27, tall * 0.36), "ball")


def _rings(sheet: Sheet, middle: float, half_in: float, half_out: float, top: float, tall: float, ink: str) -> None:
    _ring(sheet, middle - half_out, middle - half_in, top, tall, ink)
    _ring(sheet, middle + half_in, middle + half_out, top, tall, ink)
    for y in (top, top + tall):
        sheet.line((middle - half_in, y), (middle + half_in, y), "thin")


def _case(
    sheet: Sheet, found: SingleSeatAnalysis, tall: float, gap: float, home: bool, outer_ink: str, inner_ink: str, frame: Frame
) -> float:
    """The boss in section with the bearing over it or in it; returns the bearing's top."""
    bottom = SEAT_TOP + SEAT_DEEP
    step = 0.0 if found.seat.stop == Seat.Stop.THROUGH else 26.0
    for sign in (-1, 1):

        def x(offset: float, sign: int = sign) -> float:
            return frame.middle + sign * offset

        out, bore = frame.half_bore + frame.wall, frame.half_bore
        outline = [(x(out), SEAT_TOP), (x(bore), SEAT_TOP), (x(bore), bottom), (x(bore - step), bottom), (x(bore - step), bottom + 36)]
        sheet.hatched([*outline, (x(out), bottom + 36)], outer_ink, 10)
        if found.seat.stop == Seat.Stop.CIRCLIP:
            sheet.rect(min(x(bore), x(bore + 9)), SEAT_TOP + 10, 9, 8, "groove")
        if found.seat.stop == Seat.Stop.PLATE and home:
            sheet.rect(min(x(bore - 18), x(bore + 40)), SEAT_TOP - 9, 58, 9, "cut plain")
    for y in (SEAT_TOP, bottom + 36):
        sheet.line(
            (frame.middle - frame.half_bore + (step if y > bottom else 0), y),
            (frame.middle + frame.half_bore - (step if y > bottom else 0), y),
            "thin",
        )
    half_out = frame.half_bore - gap if not home else frame.half_bore - 1
    bearing = found.planned.fit.bearing
    half_in = frame.half_bore * bearing.bore_mm / bearing.outside_mm
    top = bottom - tall if home else SEAT_TOP - 22 - tall
    _rings(sheet, frame.middle, half_in, half_out, top, tall, inner_ink)
    if home and found.seat.stop == Seat.Stop.CIRCLIP:
        for sign in (-1, 1):
            sheet.rect(
                min(frame.middle + sign * (frame.half_bore - 16), frame.middle + sign * (frame.half_bore + 7)),
                SEAT_TOP + 10,
                23,
                8,
                "cut plain solid",
            )
    return top


def _shaft(
    sheet: Sheet, found: SingleSeatAnalysis, tall: float, gap: float, home: bool, outer_ink: str, inner_ink: str, frame: Frame
) -> float:
    """Draw an upright shaft with its shoulder and the heated bearing above or on it; return the top of the bearing."""
    bottom = SEAT_TOP + SEAT_DEEP
    shoulder = frame.half_bore + 44
    outline = [
        (-frame.half_bore, SEAT_TOP),
        (frame.half_bore, SEAT_TOP),
        (frame.half_bore, bottom),
        (shoulder, bottom),
        (shoulder, bottom + 36),
    ]
    outline += [(-shoulder, bottom + 36), (-shoulder, bottom), (-frame.half_bore, bottom)]
    sheet.hatched([(frame.middle + dx, y) for dx, y in outline], inner_ink, 10)
    half_in = frame.half_bore + (gap if not home else 1)
    bearing = found.planned.fit.bearing
    half_out = min(half_in + frame.half_bore * (bearing.outside_mm / bearing.bore_mm - 1), half_in + (94 if frame.narrow else 118))
    top = bottom - tall if home else SEAT_TOP - 22 - tall
    _rings(sheet, frame.middle, half_in, half_out, top, tall, outer_ink)
    return top


def _labels(found: SingleSeatAnalysis, canvas: Canvas, now: Scene, ring: tuple[float, float], inks: tuple[str, str], frame: Frame) -> None:
    """Names and temperatures of both parts, each leading to its question; where to measure next.

    `ring` is its top and its height.
    """
    (top, tall), (outer_ink, inner_ink) = ring, inks
    onto_shaft, asked = found.onto_shaft, canvas.asked
    outer = (now.moment.outer_c, now.setup.outer_u_k, outer_ink, found.slot(Property.HOT_TEMPERATURE))
    inner = (now.moment.inner_c, now.setup.inner_u_k, inner_ink, found.slot(Property.COLD_TEMPERATURE))
    (bearing_c, bearing_u, bearing_ink, bearing_slot), (seat_c, seat_u, seat_ink, seat_slot) = (
        (outer, inner) if onto_shaft else (inner, outer)
    )
    if found.phase == Phase.PLAN:
        bearing_slot, seat_slot = found.slot(Property.RING_SIZE), found.slot(Property.SEAT_SIZE)
    jump = found.phase != Phase.AFTER
    edge, left = frame.middle + frame.half_bore, frame.middle - frame.half_bore
    canvas.labels.keep_clear_box(left - 4, top, edge + 4, top + tall)
    right = edge + (8 if frame.narrow else 30 + (108 if onto_shaft else 0))
    up = top + 16 - (SEAT_TOP + 12) if frame.narrow and onto_shaft else 0  # beside the shaft, where the ring leaves no room
    name = found.planned.fit.bearing.designation[:14]
    link = canvas.link(bearing_slot) if jump else None
    if found.went_in:
        places = [((right, SEAT_TOP - 30), "start"), ((right, SEAT_TOP - 50), "start")]
        canvas.labels.at(places, name, "strong", 2, link, [(str(messages.DRAWN["in"]), "quiet")])
    else:
        warmth = f"{show(_warmth(found, bearing_c, bearing_u))} ± {bare(kelvin(2 * bearing_u))}"
        places = [((right, top + 16 - up + down), "start") for down in (0, -20, 20, -40)]
        canvas.labels.at(places, name, f"strong {bearing_ink}", 2, link, [(warmth, f"quiet {bearing_ink}")])
    x, y = (left - 60, SEAT_TOP + 104) if onto_shaft else (left - frame.wall - 12, SEAT_TOP + 58)
    link = canvas.link(seat_slot) if jump else None
    lines = (
        str(messages.DRAWN["shaft" if onto_shaft else "case"]),
        show(_warmth(found, seat_c, seat_u)),
        f"± {bare(kelvin(2 * seat_u))}",
    )
    if frame.narrow:
        places = [((8, SEAT_TOP + SEAT_DEEP + 58 + down), "start") for down in (0, 18)]
        canvas.labels.at(places, " ".join(lines), f"strong {seat_ink}", 2, link)
    else:
        beneath = [(lines[1], f"strong {seat_ink}"), (lines[2], f"quiet {seat_ink}")]
        canvas.labels.at([((x, y + down), "end") for down in (0, 20, -20)], lines[0], f"strong {seat_ink}", 2, link, beneath)
    if asked:
        _place(found, canvas, asked.what, top + tall / 2, frame)


def _place(found: SingleSeatAnalysis, canvas: Canvas, what: Property, ring_y: float, frame: Frame) -> None:
    """Draw a ring with text at the next place to measure."""
    sheet = canvas.sheet
    bottom, edge = SEAT_TOP + SEAT_DEEP, frame.middle + frame.half_bore
    at_stop = (edge - 13, SEAT_TOP + 8 if found.is_through else bottom)
    spots = {
        Property.SEAT_SIZE: (edge, SEAT_TOP + 50),
        Property.RING_SIZE: (edge, ring_y),
        Property.HOT_TEMPERATURE: (edge + frame.wall * 0.55, SEAT_TOP + 4),
        Property.WATER_DROP: (edge + frame.wall * 0.55, SEAT_TOP + 4),
        **dict.fromkeys((Property.SEATING_GAP, Property.SEATING_GAP_COLD, Property.SEATING_DEPTH), at_stop),
    }
    if what not in spots:
        return
    x, y = spots[what]
    first, second = (format_message(each, {"stop": stop_name(found)}) for each in messages.SPOT[what])
    sheet.circle((x, y), 8, "place")
    canvas.labels.keep_clear((x, y), 8)
    halo, anchor = "", "start"
    if found.onto_shaft:
        away, down = (8.0, 44.0) if frame.narrow else (64.0, 20.0)
        sheet.line((x + 5, y + 7), (x + away - 6 + (10 if frame.narrow else 0), y + down - 12), "ink")
        at = (x + away, y + down)
    elif what in (Property.SEATING_GAP, Property.SEATING_GAP_COLD):
        sheet.line((x - 7, y + 4), (x - 24, y + 12), "ink")
        at, anchor = (x - 28, y + 16), "end"
    elif what in (Property.HOT_TEMPERATURE, Property.WATER_DROP) and frame.narrow:
        sheet.line((x - 7, y + 4), (edge - 6, SEAT_TOP + 18), "ink")
        at, anchor, halo = (edge - 10, SEAT_TOP + 24), "end", "halo "
    elif what in (Property.HOT_TEMPERATURE, Property.WATER_DROP):
        sheet.line((x + 6, y - 6), (x + 22, y - 22), "ink")
        at = (min(x + 26, frame.width - 124), y - 38)
    else:
        sheet.line((x - 8, y - 3), (x - 40, y - 8), "ink")
        at = (frame.middle + 10, y - 18)
    places = [((at[0], at[1] + down), anchor) for down in (0, 14, -14)]
    canvas.labels.at(places, first, f"{halo}strong ink", 1, beneath=[(second, f"{halo}quiet")])


def _graph(sheet: Sheet, found: SingleSeatAnalysis, now: Scene, shape: Sequence[Moment], frame: Frame) -> None:
    until = span_s(found)
    top = max(max(each.high_mm for each in shape), now.setup.wanted_mm * 1.6)
    low = min(-0.2 * top, max(min(each.low_mm for each in shape), -0.05))
    left = 52 if frame.narrow else 84
    axes = Axes(left, 436, frame.width - left - (8 if frame.narrow else 46), 128, until, low, top)
    unit = question_unit("length", 0.0)  # as small as a clearance is
    sheet.text(
        (left, 412 if frame.narrow else 422), format_message(messages.DRAWN["plot"], {"title": now.title, "unit": unit.name}), "strong"
    )
    promise = duration(now.sure_s, shared_messages.half(found.plan.window), DOWN)
    sure = min(rounded_s(promise), until)
    if sure > 0:
        x, _ = axes.at(sure, 0)
        sheet.rect(axes.left, axes.top, x - axes.left, axes.height, "sure")
    band = [axes.at(each.time_s, min(each.high_mm, top)) for each in shape]
    band += [axes.at(each.time_s, max(each.low_mm, low)) for each in reversed(shape)]
    sheet.shape(band, "band")
    axes.draw(sheet, 60.0, "min", core_per("length", unit))
    zero, needed = axes.at(0, 0)[1], axes.at(0, now.setup.wanted_mm)[1]
    sheet.line((axes.left, needed), (axes.left + axes.width, needed), "wanted")
    sheet.text(
        (axes.left + axes.width, needed - 6),
        format_message(messages.DRAWN["wanted"], {"wanted": format_for(now.setup.wanted_mm, "length", unit, 0.001)}),
        "quiet",
        "end",
    )
    sheet.line((axes.left, zero), (axes.left + axes.width, zero), "axis")
    sheet.text((axes.left + axes.width, zero + 15), str(messages.DRAWN["touches"]), "quiet", "end")
    sheet.trace([axes.at(each.time_s, each.clearance_mm) for each in shape if each.clearance_mm >= low], "curve")
    if now.sure_s > 0:
        x, _ = axes.at(sure, 0)
        sheet.line((x, axes.top - 4), (x, axes.top + axes.height), "hot bold")
        far = x > axes.left + axes.width * 0.7
        text = format_message(
            messages.DRAWN["sure" if now.sure_s <= until else "always"],
            {"sure": promise},
        )
        sheet.text((x - 8 if far else x + 8, axes.top + 8), text, "strong hot", "end" if far else "start")
    time = now.moment.time_s
    if (time > 0 or found.phase == Phase.WINDOW) and time <= until:
        x, y = axes.at(time, max(min(now.moment.clearance_mm, top), low))
        sheet.line((x, axes.top), (x, axes.top + axes.height), "ink thin")
        sheet.circle((x, y), 5, "ink solid")
