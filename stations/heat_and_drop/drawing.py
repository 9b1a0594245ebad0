"""Housing and ring in section with the gap exaggerated, and the clearance against time under it. No judgement here."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from engines.models import Seat
from shopmath.thermal.seat import Moment, Setup, curve, moment_after, sure_until_s
from stations.heat_and_drop.words import minutes
from ui.graph import Axes
from ui.svg import Sheet, papers

if TYPE_CHECKING:
    from stations.heat_and_drop.station import HeatAndDrop

SEAT_TOP, SEAT_DEEP = 166.0, 116.0
WIDEST_GAP_PX = 15.0
POINTS = 41  # of the curve
FACTORS = (5, 10, 20, 50, 100, 200, 500, 1000)


@dataclass(frozen=True)
class Frame:
    """The paper: how wide, and how wide the fit is drawn on it. The scale follows from that."""

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


FRAMES = {"wide": WIDE, "narrow": NARROW}


@dataclass(frozen=True)
class Scene:
    """The instant drawn: setup with its doubts, the moment, and the temperatures both parts leave or left with."""

    setup: Setup
    moment: Moment
    outer_c: float
    inner_c: float
    sure_s: float
    title: str


def span_s(work: HeatAndDrop) -> float:
    """Length of the time axis: past the window, in whole minutes."""
    window = work.plan.window.likely
    return 1800.0 if math.isinf(window) else 60.0 * math.ceil(min(max(1.2 * window, 240.0), 3600.0) / 60)


def scene(work: HeatAndDrop, at_s: float | None) -> Scene:
    plan, run = work.plan, work.run
    if run.opened_at:
        outer_c, inner_c = run.outer(run.opened_at).c, run.inner(run.opened_at).c
        setup = run.live_setup()
        here = run.here() if at_s is None else moment_after(setup, at_s, outer_c, inner_c)
        return Scene(setup, here, outer_c, inner_c, sure_until_s(setup, outer_c, inner_c), "Clearance since it came out, mm")
    setup, outer_c, inner_c = plan.setup, plan.target_c, plan.chill_c
    if work.phase == "heating" and run.call().state == "in":
        setup, outer_c, inner_c = run.live_setup(), run.outer().c, run.inner().c
        title = "Clearance if it comes out now, mm"
    else:
        title = f"Clearance after it comes out at {plan.target_c:.0f} °C, mm"
    here = moment_after(setup, at_s or 0.0, outer_c, inner_c)
    if work.phase == "heating" and at_s is None:
        here = run.here()
    return Scene(setup, here, outer_c, inner_c, sure_until_s(setup, outer_c, inner_c), title)


def draw(work: HeatAndDrop, at_s: float | None) -> SafeString:
    """The same scene for the bench and for a phone."""
    now = None if work.trouble else scene(work, at_s)
    shape = curve(now.setup, now.outer_c, now.inner_c, span_s(work), POINTS) if now else []
    return papers({name: _sheet(work, now, shape, FRAMES[name]) for name in work.papers})


def _sheet(work: HeatAndDrop, now: Scene | None, shape: list[Moment], frame: Frame) -> SafeString:
    name = "narrow" if frame.narrow else "wide"
    if now is None or work.trouble:
        reason = work.trouble.message if work.trouble else ""
        sheet = Sheet(frame.width, frame.height, f"{work.seat.name}: nothing to draw yet", reason, name)
        sheet.text((frame.middle, 300), "Nothing to draw until the sizes are settled.", "quiet", "middle")
        return sheet.render()
    outer, partner = work.names()
    side = now.moment.clearance_mm / 2
    words = (
        f"{partner} at {now.moment.inner_c:.0f} °C, {outer} at {now.moment.outer_c:.0f} °C, {minutes(now.moment.time_s)} after coming out: "
        f"{side:.3f} mm a side. {work.call.words}. {work.call.line}"
    )
    sheet = Sheet(frame.width, frame.height, f"{work.seat.name} in section, clearance against time", words, name)
    _section(sheet, work, now, frame)
    _graph(sheet, work, now, shape, frame)
    return sheet.render()


def exaggeration(largest_mm: float, px_per_mm: float) -> int:
    """A round factor that draws the largest gap of this heat some 15 px wide a side."""
    true_px = max(abs(largest_mm), 0.004) / 2 * px_per_mm
    fitting = [factor for factor in FACTORS if factor * true_px <= WIDEST_GAP_PX]
    return fitting[-1] if fitting else FACTORS[0]


def _ink(c: float, room_c: float) -> str:
    return "hot" if c > room_c + 8 else "cold" if c < room_c - 8 else "plain"


def _section(sheet: Sheet, work: HeatAndDrop, now: Scene, frame: Frame) -> None:
    setup, fit = now.setup, work.planned.fit
    scale = 2 * frame.half_bore / setup.nominal_mm
    largest = max(abs(now.moment.clearance_mm), abs(work.plan.leaving.clearance_mm))
    factor = exaggeration(largest, scale)
    side_mm = now.moment.clearance_mm / 2
    gap = side_mm * scale * factor
    home = work.outcome in ("dropped", "tapped")
    outer_ink, inner_ink = _ink(now.moment.outer_c, setup.room_c), _ink(now.moment.inner_c, setup.room_c)
    tall = min(fit.bearing.width_mm * scale, SEAT_DEEP - 10)
    if fit.onto_shaft:
        top = _shaft(sheet, work, tall, gap, home, outer_ink, inner_ink, frame)
    else:
        top = _case(sheet, work, tall, gap, home, outer_ink, inner_ink, frame)
    sheet.line((frame.middle, 14), (frame.middle, SEAT_TOP + SEAT_DEEP + 50), "chain")
    if not home:
        sheet.arrow((frame.middle, top - 6), (frame.middle, top - 42), "ink bold", 12)
    _labels(sheet, work, now, top, tall, (outer_ink, inner_ink), frame)
    if not home:
        left = frame.middle - frame.half_bore
        ring = left + (-gap if fit.onto_shaft else gap)
        y = SEAT_TOP - 22
        for x in (left, ring):
            sheet.line((x, y - 8), (x, SEAT_TOP - 2), "ink thin")
        sheet.arrow((min(left, ring), y), (min(left, ring) - 38, y), "ink")
        sheet.arrow((max(left, ring), y), (max(left, ring) + 30, y), "ink")
        overlap = "overlap a side" if side_mm < 0 else "a side"
        aside = frame.narrow or fit.onto_shaft  # where a bearing's own section is in the way
        anchor, x = ("start", 8.0) if aside else ("end", min(left, ring) - 44)
        below = SEAT_TOP + 40 if fit.onto_shaft else 48.0 if frame.narrow else y + 2
        sheet.text((x, below), f"{side_mm:+.3f}".replace("-", "−").lstrip("+"), "reading-label ink big", anchor)
        lines = (overlap, f"drawn ×{factor}") if frame.narrow and fit.onto_shaft else (f"{overlap}, drawn ×{factor}",)
        for index, line in enumerate(lines):
            sheet.text((x, below + 18 + 17 * index), line, "quiet", anchor)
    code = work.seat.code or "measured"
    size = f"⌀ {setup.nominal_mm:g} {code}" if not work.last("seat") else f"⌀ {work.value('seat'):.3f}"
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


def _case(sheet: Sheet, work: HeatAndDrop, tall: float, gap: float, home: bool, outer_ink: str, inner_ink: str, frame: Frame) -> float:
    """The boss in section with the bearing over it or in it; returns the bearing's top."""
    bottom = SEAT_TOP + SEAT_DEEP
    step = 0.0 if work.seat.stop == Seat.Stop.THROUGH else 26.0
    for sign in (-1, 1):

        def x(offset: float, sign: int = sign) -> float:
            return frame.middle + sign * offset

        out, bore = frame.half_bore + frame.wall, frame.half_bore
        outline = [(x(out), SEAT_TOP), (x(bore), SEAT_TOP), (x(bore), bottom), (x(bore - step), bottom), (x(bore - step), bottom + 36)]
        sheet.hatched([*outline, (x(out), bottom + 36)], outer_ink, 10)
        if work.seat.stop == Seat.Stop.CIRCLIP:
            sheet.rect(min(x(bore), x(bore + 9)), SEAT_TOP + 10, 9, 8, "groove")
        if work.seat.stop == Seat.Stop.PLATE and home:
            sheet.rect(min(x(bore - 18), x(bore + 40)), SEAT_TOP - 9, 58, 9, "cut plain")
    for y in (SEAT_TOP, bottom + 36):
        sheet.line(
            (frame.middle - frame.half_bore + (step if y > bottom else 0), y),
            (frame.middle + frame.half_bore - (step if y > bottom else 0), y),
            "thin",
        )
    half_out = frame.half_bore - gap if not home else frame.half_bore - 1
    bearing = work.planned.fit.bearing
    half_in = frame.half_bore * bearing.bore_mm / bearing.outside_mm
    top = bottom - tall if home else SEAT_TOP - 22 - tall
    _rings(sheet, frame.middle, half_in, half_out, top, tall, inner_ink)
    if home and work.seat.stop == Seat.Stop.CIRCLIP:
        for sign in (-1, 1):
            sheet.rect(
                min(frame.middle + sign * (frame.half_bore - 16), frame.middle + sign * (frame.half_bore + 7)),
                SEAT_TOP + 10,
                23,
                8,
                "cut plain solid",
            )
    return top


def _shaft(sheet: Sheet, work: HeatAndDrop, tall: float, gap: float, home: bool, outer_ink: str, inner_ink: str, frame: Frame) -> float:
    """A shaft standing up with its shoulder, the heated bearing over it or on it; returns the bearing's top."""
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
    bearing = work.planned.fit.bearing
    half_out = min(half_in + frame.half_bore * (bearing.outside_mm / bearing.bore_mm - 1), half_in + (94 if frame.narrow else 118))
    top = bottom - tall if home else SEAT_TOP - 22 - tall
    _rings(sheet, frame.middle, half_in, half_out, top, tall, outer_ink)
    return top


def _labels(sheet: Sheet, work: HeatAndDrop, now: Scene, top: float, tall: float, inks: tuple[str, str], frame: Frame) -> None:
    outer_ink, inner_ink = inks
    onto_shaft = work.planned.fit.onto_shaft
    asked = work.next_ask
    bearing_c, seat_c = (now.moment.outer_c, now.moment.inner_c) if onto_shaft else (now.moment.inner_c, now.moment.outer_c)
    bearing_ink, seat_ink = (outer_ink, inner_ink) if onto_shaft else (inner_ink, outer_ink)
    bearing_u, seat_u = (now.setup.outer_u_k, now.setup.inner_u_k) if onto_shaft else (now.setup.inner_u_k, now.setup.outer_u_k)
    right = frame.middle + frame.half_bore + (8 if frame.narrow else 30 + (108 if onto_shaft else 0))
    base = f"{work.address}?ask="
    bearing_ask, seat_ask = ("case", "partner") if onto_shaft else ("partner", "case")
    if work.phase == "plan":
        bearing_ask, seat_ask = "ring", "seat"
    jump = work.phase in ("plan", "heating", "window")
    with sheet.link(base + (bearing_ask if jump else ""), f"Reading: {bearing_ask}"):
        up = top + 16 - (SEAT_TOP + 12) if frame.narrow and onto_shaft else 0  # beside the shaft, where the ring leaves no room
        name = work.planned.fit.bearing.designation[:14]
        if work.outcome in ("dropped", "tapped"):
            sheet.text((right, SEAT_TOP - 30), name, "strong")
            sheet.text((right, SEAT_TOP - 12), "in its seat", "quiet")
        else:
            sheet.text((right, top + 16 - up), name, f"strong {bearing_ink}")
            sheet.text((right, top + 35 - up), f"{bearing_c:.0f} °C ± {2 * bearing_u:.0f}".replace("-", "−"), f"quiet {bearing_ink}")
    seat_x, seat_y = (
        (frame.middle - frame.half_bore - frame.wall - 12, SEAT_TOP + 58)
        if not onto_shaft
        else (frame.middle - frame.half_bore - 60, SEAT_TOP + 104)
    )
    with sheet.link(base + (seat_ask if jump else ""), f"Reading: {seat_ask}"):
        lines = ("Shaft" if onto_shaft else "Case", f"{seat_c:.0f} °C".replace("-", "−"), f"± {2 * seat_u:.0f}")
        if frame.narrow:
            sheet.text((8, SEAT_TOP + SEAT_DEEP + 58), " ".join(lines), f"strong {seat_ink}")
        else:
            for index, line in enumerate(lines):
                sheet.text((seat_x, seat_y + 19 * index), line, f"{'strong' if index < 2 else 'quiet'} {seat_ink}", "end")
    if asked is None:
        return
    _place(sheet, work, asked.key, top + tall / 2, frame)


def _place(sheet: Sheet, work: HeatAndDrop, key: str, ring_y: float, frame: Frame) -> None:
    """Where to measure next, ringed in ink with its words."""
    bottom = SEAT_TOP + SEAT_DEEP
    edge = frame.middle + frame.half_bore
    spots = {
        "seat": ((edge, SEAT_TOP + 50), "here, cold", "two ways across"),
        "ring": ((edge, ring_y), "outside, cold", ""),
        "case": ((edge + frame.wall * 0.55, SEAT_TOP + 4), "gun or probe here", "beside the bore"),
    }
    if key.startswith(("gap", "depth", "cold")):
        through = work.seat.stop == Seat.Stop.THROUGH
        spots[key] = (
            (edge - 13, SEAT_TOP + 8 if through else bottom),
            "look here, 4 places",
            "depth" if through else f"no gap to the {work.seat.get_stop_display()}",
        )
    if key not in spots:
        return
    (x, y), first, second = spots[key]
    sheet.circle((x, y), 8, "place")
    if work.planned.fit.onto_shaft:
        away, down = (8.0, 44.0) if frame.narrow else (64.0, 20.0)
        sheet.line((x + 5, y + 7), (x + away - 6 + (10 if frame.narrow else 0), y + down - 12), "ink")
        sheet.text((x + away, y + down), first, "strong ink")
        sheet.text((x + away, y + down + 18), second, "quiet")
        return
    if key.startswith(("gap", "cold")):
        sheet.line((x - 7, y + 4), (x - 24, y + 12), "ink")
        sheet.text((x - 28, y + 16), first, "strong ink", "end")
        sheet.text((x - 28, y + 33), second, "quiet", "end")
    elif key in ("seat", "ring") or key.startswith("depth"):
        away = frame.middle + 10
        sheet.line((x - 8, y - 3), (x - 40, y - 8), "ink")
        sheet.text((away, y - 18), first, "strong ink")
        sheet.text((away, y), "two ways across" if key == "seat" else second, "quiet")
    elif key == "case":
        sheet.line((x + 6, y - 6), (x + 22, y - 22), "ink")
        sheet.text((min(x + 26, frame.width - 124), y - 38), first, "strong ink")
        sheet.text((min(x + 26, frame.width - 124), y - 20), second, "quiet")


def _graph(sheet: Sheet, work: HeatAndDrop, now: Scene, shape: list[Moment], frame: Frame) -> None:
    until = span_s(work)
    top = max(max(each.high_mm for each in shape), now.setup.wanted_mm * 1.6)
    low = min(-0.2 * top, max(min(each.low_mm for each in shape), -0.05))
    left = 52 if frame.narrow else 84
    axes = Axes(left, 436, frame.width - left - (8 if frame.narrow else 46), 128, until, low, top)
    sheet.text((8 if frame.narrow else left, 422), now.title, "strong")
    sure = min(now.sure_s, until)
    if sure > 0:
        x, _ = axes.at(sure, 0)
        sheet.rect(axes.left, axes.top, x - axes.left, axes.height, "sure")
    band = [axes.at(each.time_s, min(each.high_mm, top)) for each in shape]
    band += [axes.at(each.time_s, max(each.low_mm, low)) for each in reversed(shape)]
    sheet.shape(band, "band")
    axes.draw(sheet, 60.0, "min", 3 if top < 0.1 else 2)
    zero, wanted = axes.at(0, 0)[1], axes.at(0, now.setup.wanted_mm)[1]
    sheet.line((axes.left, wanted), (axes.left + axes.width, wanted), "wanted")
    sheet.text((axes.left + axes.width, wanted - 6), f"wanted {now.setup.wanted_mm:.3f}", "quiet", "end")
    sheet.line((axes.left, zero), (axes.left + axes.width, zero), "axis")
    sheet.text((axes.left + axes.width, zero + 15), "metal touches", "quiet", "end")
    sheet.trace([axes.at(each.time_s, each.clearance_mm) for each in shape if each.clearance_mm >= low], "curve")
    if now.sure_s > 0:
        x, _ = axes.at(sure, 0)
        sheet.line((x, axes.top - 4), (x, axes.top + axes.height), "hot bold")
        far = x > axes.left + axes.width * 0.7
        text = f"sure until {minutes(now.sure_s)}" if now.sure_s <= until else "sure all the while"
        sheet.text((x - 8 if far else x + 8, axes.top + 8), text, "strong hot", "end" if far else "start")
    time = now.moment.time_s
    if (time > 0 or work.phase == "window") and time <= until:
        x, y = axes.at(time, max(min(now.moment.clearance_mm, top), low))
        sheet.line((x, axes.top), (x, axes.top + axes.height), "ink thin")
        sheet.circle((x, y), 5, "ink solid")
