"""The set-up under the press: support ring, web, pin, ram, guard; beside it the force on the press's own scale."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from ui.graph import step_for
from ui.svg import Sheet, on_papers

if TYPE_CHECKING:
    from stations.pressing.work import PressWork

TOP, BOTTOM = 56.0, 500.0  # of the scale


def draw(work: PressWork) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: PressWork, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 560, f"{work.station.name}: the joint under the press", f"{plate.words}. {plate.line} {plate.move}", name)
    wide = width > 500
    _setup(sheet, work, 250.0 if wide else 150.0, 1.0 if wide else 0.62, wide)
    _scale(sheet, work, width - (170.0 if wide else 112.0), wide)
    return sheet.render()


def _place(sheet: Sheet, work: PressWork, key: str, at: tuple[float, float], words: str, anchor: str = "start") -> None:
    """A size at its place; tapping it asks for it again."""
    ask = work.next_ask
    value = work.size(key) if not key.endswith("_c") else work.value(key)
    said = f"{words} {value:g}" if value is not None else words
    half = 5.0 * len(said) + 6
    left = {"start": at[0] - 6, "middle": at[0] - half, "end": at[0] - 2 * half + 6}[anchor]
    with sheet.link(f"{work.address}?ask={key}", f"Reading: {words}"):
        sheet.rect(left, at[1] - 17, 2 * half, 24, "backing")
        if ask and ask.key == key:
            sheet.rect(left - 4, at[1] - 22, 2 * half + 8, 34, "place")
        sheet.text(at, said, "reading-label ink" if value is not None else "", anchor)


def _setup(sheet: Sheet, work: PressWork, middle: float, unit: float, wide: bool) -> None:
    """From the top: ram, pin, web on its support ring; the other web hangs free below; the guard round it all."""
    parting = work.moving == "parting"
    pin, web = 34 * unit, 150 * unit

    def box(x: float, y: float, w: float, h: float) -> list[tuple[float, float]]:
        return [(middle + x, y), (middle + x + w, y), (middle + x + w, y + h), (middle + x, y + h)]

    start = 178.0 if parting else 132.0  # an unparted pin stands flush in its web
    end = 346.0 if parting else 318.0
    sheet.rect(middle - 26 * unit, 30, 52 * unit, start - 30 - 8, "cut")
    sheet.arrow((middle, start - 24), (middle, 52), "ink bold", 14)
    sheet.rect(middle - pin + 4, start - 8, 2 * pin - 8, 8, "cut")
    sheet.hatched(box(-pin, start, 2 * pin, end - start), "brass", 7)
    for sign in (-1, 1):
        left = -web if sign < 0 else pin
        sheet.hatched(box(left, 178, web - pin, 74), "hot" if work.chosen("warmth") == "warm" else "plain", 10, rising=sign > 0)
        plate = -web * 1.06 if sign < 0 else pin + 8 * unit
        sheet.hatched(box(plate, 252, web * 1.06 - pin - 8 * unit, 30), "cold", 8, rising=sign < 0)
        stand = -web * 1.06 if sign < 0 else web * 0.84
        sheet.hatched(box(stand, 282, web * 0.22, 120), "cold", 8, rising=sign < 0)
        sheet.line((middle + sign * (web + 34 * unit), 104), (middle + sign * (web + 34 * unit), 428), "outline")
        if parting:
            sheet.hatched(box(-web * 0.78 if sign < 0 else pin, 304, web * 0.78 - pin, 42), "plain", 10, rising=sign > 0)
    sheet.hatched(box(-web - 34 * unit, 402, 2 * web + 68 * unit, 26), "plain", 12)
    sheet.line((middle, 20), (middle, 448), "chain")
    sheet.line((middle + web - 14, 172), (middle + web - 14, 186), "hot bold")
    if parting:
        sheet.line((middle + web * 0.78 - 14, 339), (middle + web * 0.78 - 14, 353), "hot bold")
    head = middle - web - 34 * unit
    sheet.text((middle + 34 * unit, 54), "ram", "strong")
    sheet.text((head, 96), "guard", "quiet")
    sheet.text((middle, 452), "web carried on plates close round the pin, square on the bed", "quiet" if wide else "sr", "middle")
    measured = work.size("pin") is not None or work.can_measure
    if measured:
        _place(sheet, work, "pin", (middle, 306), "pin", "middle")
        _place(sheet, work, "hole", (middle, 200), "hole", "middle")
    else:
        _place(sheet, work, "d", (middle, 306), "pin", "middle")
    _place(sheet, work, "length", (middle - web + 8, 240), "length")
    _place(sheet, work, "wall", (middle + web - 6, 240), "wall", "end")
    _place(sheet, work, "web", (middle, 486), "width of the web", "middle")
    if work.chosen("warmth") == "warm":
        _place(sheet, work, "web_c", (middle - web + 8, 168), "web °C")
        _place(sheet, work, "pin_c", (middle + web - 6, 168), "pin °C", "end")


def _scale(sheet: Sheet, work: PressWork, x: float, wide: bool) -> None:
    """Force upward in the press's unit: the band, the likely, what the press has, the peak reached."""
    unit, per = work.press_unit
    plan, press, peak = work.plan, work.press, work.peak_n
    most = max(
        [value for value in (plan.force_n.high if plan else None, press.capacity_n if press else None, peak) if value], default=100e3
    )
    most *= 1.08 / per

    def y(value: float) -> float:
        return BOTTOM - (BOTTOM - TOP) * value / most

    sheet.line((x, TOP - 10), (x, BOTTOM), "axis")
    step = step_for(most, 8)
    for index in range(int(most / step) + 1):
        at = y(index * step)
        sheet.line((x - 6, at), (x, at), "axis thin")
        if press and abs(at - y(press.capacity_n / per)) < 12:
            continue  # the press's own mark stands there
        sheet.text((x - 10, at + 5), f"{index * step:g}", "tick", "end")
    sheet.text((x, TOP - 22), unit, "strong", "middle")
    if plan:
        band = plan.force_n
        sheet.rect(x + 1, y(band.high / per), 30, max(y(band.low / per) - y(band.high / per), 2), "band")
        sheet.line((x, y(band.likely / per)), (x + 38, y(band.likely / per)), "ink bold")
        for value, words in ((band.low, "low"), (band.likely, "likely"), (band.high, "high")):
            sheet.text(
                (x + 42, y(value / per) + 5),
                f"{value / per:.3g} {words}" if wide else f"{value / per:.3g}",
                "reading-label ink" if words == "likely" else "tick",
            )
    if press:
        at = y(press.capacity_n / per)
        sheet.line((x - 26, at), (x + 62, at), "hot bold")
        sheet.text((x + 42, at - 8), "press" if wide else "", "hot strong")
        sheet.text((x - 32, at + 5), f"{press.capacity_n / per:.3g}", "hot strong", "end")
    if peak is not None:
        at = y(peak / per)
        sheet.arrow((x + 2, at), (x - 52, at), "ink bold", 12)
        said = f"peak {peak / per:.3g}" if wide else f"{peak / per:.3g}"
        sheet.rect(x - 60 - 10 * len(said), at - 24, 10 * len(said) + 8, 22, "backing")
        sheet.text((x - 56, at - 8), said, "reading-label ink", "end")
    if work.next_ask and work.next_ask.key == "peak":
        most_px = (BOTTOM - TOP) / most / per
        sheet.add("line", x1=x - 22, y1=BOTTOM, x2=x + 2, y2=BOTTOM, class_="needle", id=f"needle-{sheet.name}", data_zero=f"{BOTTOM}",
                  data_each=f"{most_px:.6g}")  # fmt: skip
    if not plan:
        sheet.text((x + 12, (TOP + BOTTOM) / 2), "its force" if wide else "", "quiet")
