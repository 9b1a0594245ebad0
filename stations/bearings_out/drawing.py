"""The seat in section: case, bearing, what retains it, the seal in front with its lip, which way it comes out, where a driver lands."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from shopmath.seals import CLOCKS
from ui.svg import Sheet, on_papers

if TYPE_CHECKING:
    from stations.bearings_out.station import BearingsOut

OUTER_PX = 150.0  # half the outside of the bearing, as drawn


def draw(work: BearingsOut) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: BearingsOut, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 560, f"{work.seat.name}, its bearing and what holds it", f"{plate.words}. {plate.line} {plate.move}", name)
    middle, unit = width / 2, 1.0 if width > 500 else 0.66
    if work.seat.on == "shaft":
        _on_shaft(sheet, work, middle, unit)
    else:
        _in_case(sheet, work, middle, unit)
    _driver(sheet, work, width)
    return sheet.render()


def _section(sheet: Sheet, work: BearingsOut, middle: float, unit: float, top: float, high: float) -> None:
    """Both rings and a ball, to the bearing's own proportions."""
    scale = OUTER_PX * unit / (work.bearing.outside_mm / 2)
    bore, outside = scale * work.bearing.bore_mm / 2, scale * work.bearing.outside_mm / 2
    section = outside - bore
    for sign in (-1, 1):

        def x(offset: float, sign: int = sign) -> float:
            return middle + sign * offset

        for a, b in ((bore, bore + 0.31 * section), (outside - 0.31 * section, outside)):
            sheet.hatched([(x(a), top), (x(b), top), (x(b), top + high), (x(a), top + high)], "cold", 7, rising=False)
        sheet.circle((x(bore + section / 2), top + high / 2), min(0.28 * section, high * 0.36), "ball")
        if work.shields != "open":
            sheet.line((x(bore + 0.31 * section), top + 5), (x(outside - 0.31 * section), top + 5), "axis")
        if work.shields == "both":
            sheet.line((x(bore + 0.31 * section), top + high - 5), (x(outside - 0.31 * section), top + high - 5), "axis")


def _in_case(sheet: Sheet, work: BearingsOut, middle: float, unit: float) -> None:
    """Drawn with the side it goes in from at the top: that is where it comes out."""
    outside = OUTER_PX * unit
    seal, gone = work.seal is not None and not work.seal_is_out, bool(work.said("outcome")) and work.said("outcome") != "stuck"
    top, high = 190.0, 96.0
    floor = top + high
    lip = 26 * unit if work.seat.stop != "through" else 0
    wall = 12.0 if work.seat.thin_wall else 34.0
    sides: list[list[tuple[float, float]]] = []
    for sign in (-1, 1):

        def x(offset: float, sign: int = sign) -> float:
            return middle + sign * offset

        side = [
            (x(outside + 92 * unit), 96),
            (x(outside), 96),
            (x(outside), floor),
            (x(outside - lip), floor),
            (x(outside - lip), floor + wall),
        ]
        sides.append([*side, (x(outside + 92 * unit), floor + wall)])
        if work.retained == "circlip":
            sheet.rect(min(x(outside - 12 * unit), x(outside + 8 * unit)), top - 12, 20 * unit, 10, "cut solid")
        elif work.retained:
            sheet.rect(min(x(outside - 26 * unit), x(outside + 46 * unit)), top - 16, 72 * unit, 14, "cut paper")
    if work.blind:
        under = floor + wall + 22
        below = [(middle + (outside + 92 * unit), under), (middle - (outside + 92 * unit), under)]
        sheet.hatched([*sides[0][:-1], *reversed(sides[1][:-1]), *below], "plain", 10)
    else:
        for half in sides:
            sheet.hatched(half, "plain", 10)
    if not gone:
        _section(sheet, work, middle, unit, top, high)
    sheet.line((middle, 30), (middle, floor + 80), "chain")
    sheet.arrow((middle, 44), (middle, 120), "ink bold", 12)
    toward = "outside" if work.seat.loads_from == "outside" else "inside"
    sheet.text((middle + 14, 56), f"out toward the {toward}", "strong ink")
    if seal:
        _seal(sheet, work, middle, unit)
    label_x = 8.0 if unit < 1 else middle - outside - 92
    sheet.text((label_x, 40), work.bearing.designation, "reading-label ink big")
    held = {"circlip": "held by a circlip", "plate": "held by a plate"}.get(work.retained, "held by its fit alone")
    with sheet.link(f"{work.address}?ask=retained", "Reading: what holds it"):
        sheet.text((label_x, 62), held, "strong hot" if work.retained else "quiet")
    behind = {True: "blind behind", False: "open behind", None: "behind it: unknown"}[work.blind]
    with sheet.link(f"{work.address}?ask=bottom", "Reading: what is behind it"):
        sheet.text(
            (middle + outside * 0.1, floor + 92),
            behind + (", thin wall" if work.seat.thin_wall else ""),
            "strong" if work.blind is not None else "quiet",
        )
    freed = work.freeing
    if freed and freed.together and not gone:
        at = 8.0 if unit < 1 else middle - outside - 92
        sheet.text((at, floor + 92), f"case {freed.together.likely:.0f} to {freed.together.high:.0f} °C", "strong hot")


def _seal(sheet: Sheet, work: BearingsOut, middle: float, unit: float) -> None:
    """The seal in front, lip toward where it was found or the card says, with its depth at the clock."""
    outside, y = OUTER_PX * unit, 122.0
    lip = work.said("lip") or (work.seal.lip if work.seal else "")
    down = 1 if lip == "inside" else -1
    for sign in (-1, 1):

        def x(offset: float, sign: int = sign) -> float:
            return middle + sign * offset

        sheet.rect(min(x(outside - 34 * unit), x(outside)), y, 34 * unit, 30, "cut paper")
        mouth = y + (30 if down > 0 else 0)
        sheet.shape(
            [(x(outside - 34 * unit), mouth - down * 16), (x(outside - 62 * unit), mouth - down * 2), (x(outside - 34 * unit), mouth)],
            "lip",
        )
        if lip:
            sheet.circle((x(outside - 44 * unit), mouth - down * 3), 3.5, "cut solid")
    words = {"inside": "lip to the inside", "outside": "lip to the outside"}.get(lip, "lip: unknown")
    with sheet.link(f"{work.address}?ask=lip", "Reading: lip of the seal"):
        sheet.text(
            (middle - outside + 40 * unit, 176) if unit == 1 else (middle - outside + 30, 180),
            f"{words}{' (card)' if lip and not work.said('lip') else ''}",
            "quiet",
        )
    for clock, (dx, dy) in zip(CLOCKS, ((0, -1), (1, 0), (0, 1), (-1, 0)), strict=True):
        centre, radius = (
            (middle + (outside + 92) * (1 if unit == 1 else 0.0) + (58 if unit == 1 else 150), 400.0 if unit < 1 else 150.0),
            40.0,
        )
        if clock == "12":
            sheet.circle(centre, radius, "bore")
            sheet.text((centre[0], centre[1] + 5), "depth", "quiet", "middle")
        value = work.value(f"depth{clock}")
        at = (centre[0] + dx * (radius + 14), centre[1] + dy * (radius + 14) + 5)
        anchor = {1: "start", -1: "end"}.get(dx, "middle")
        with sheet.link(f"{work.address}?ask=depth{clock}", f"Reading: depth at {clock}"):
            sheet.text(at, f"{value:.2f}" if value is not None else clock, "reading-label ink" if value is not None else "quiet", anchor)


def _on_shaft(sheet: Sheet, work: BearingsOut, middle: float, unit: float) -> None:
    """A ring on a shaft, the shaft upright; it comes off toward the top."""
    scale = OUTER_PX * unit / (work.bearing.outside_mm / 2)
    bore, top, high = scale * work.bearing.bore_mm / 2, 190.0, 96.0
    sheet.hatched([(middle - bore, 90), (middle + bore, 90), (middle + bore, 420), (middle - bore, 420)], "plain", 10)
    sheet.hatched(
        [
            (middle - bore - 40 * unit, top + high),
            (middle + bore + 40 * unit, top + high),
            (middle + bore + 40 * unit, 400),
            (middle - bore - 40 * unit, 400),
        ],
        "plain",
        10,
    )
    if not work.said("outcome") or work.said("outcome") == "stuck":
        _section(sheet, work, middle, unit, top, high)
    sheet.line((middle, 30), (middle, 430), "chain")
    sheet.arrow((middle, 40), (middle, 84), "ink bold", 12)
    sheet.text((middle + 14, 52), "off the shaft", "strong ink")
    sheet.text((8.0 if unit < 1 else middle - 240, 40), work.bearing.designation, "reading-label ink big")


def _driver(sheet: Sheet, work: BearingsOut, width: float) -> None:
    """The diameters a driver may have, as a rule, with the shop's own marked."""
    window = work.window
    left, right, y = 40.0, width - 40.0, 500.0
    low, high = work.bearing.bore_mm * 0.9, work.bearing.outside_mm * 1.05

    def x(mm: float) -> float:
        return left + (right - left) * (mm - low) / (high - low)

    sheet.text((left, y - 40), f"Driver on the {window.presses_on}, mm", "strong")
    sheet.rect(x(window.outside_low_mm), y - 18, x(window.outside_high_mm) - x(window.outside_low_mm), 18, "window")
    sheet.line((left, y), (right, y), "axis")
    for mm, words in ((work.bearing.bore_mm, "bore"), (work.bearing.outside_mm, "outside")):
        sheet.line((x(mm), y - 6), (x(mm), y + 8), "axis thin")
        sheet.text(
            (x(mm), y + 24),
            f"{words} {mm:g}",
            "tick",
            "middle" if words == "bore" and width > 500 else "start" if words == "bore" else "end",
        )
    middle = (x(window.outside_low_mm) + x(window.outside_high_mm)) / 2
    sheet.text((middle, y - 24), f"{window.outside_low_mm:.1f} to {window.outside_high_mm:.1f}", "reading-label ink", "middle")
    for each in work.fitting[:3]:
        at = x(each.outside_mm)
        sheet.shape([(at, y), (at - 7, y - 14), (at + 7, y - 14)], "ink solid")
    names = ", ".join(each.name for each in work.fitting[:2]) or "none on the shelf fits"
    sheet.text(((left + right) / 2, y + 46), names, "strong" if work.fitting else "quiet", "middle")
