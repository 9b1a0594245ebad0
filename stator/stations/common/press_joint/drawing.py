"""Drawing of the set-up in the press: support ring, web, pin, ram and guard, and the force on the press's own scale."""

from __future__ import annotations

from collections.abc import Callable

from shopmath.amounts import celsius, mm
from stator.engines.properties import Property
from stator.stations.common.press_joint import messages
from stator.stations.common.press_joint.analysis import PressJointAnalysis, at
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.ui.graph import step_for
from stator.ui.number_format import bare, plain, two_digits
from stator.ui.svg import Point, Sheet

TOP, BOTTOM = 56.0, 500.0  # of the scale
WEB_TOP, WEB_BOTTOM = 178.0, 252.0


def draw(found: PressJointAnalysis, canvas: Canvas) -> None:
    wide = canvas.is_wide
    middle, unit = (250.0, 1.0) if wide else (150.0, 0.62)
    _setup(found, canvas, middle, unit)
    _sizes(found, canvas, middle, 150 * unit)
    _scale(found, canvas, canvas.width - (170.0 if wide else 112.0))


def _place(found: PressJointAnalysis, canvas: Canvas, what: Property, code: str, place: tuple[Point, str]) -> None:
    """Draw a size at its place; tapping it opens its question."""
    fact_key, value, name = at(what), found.value(what), str(messages.ON_DRAWING[code])
    amount = None if value is None else celsius(value) if code.endswith("_c") else mm(value, 0.001)
    fact = found.own.fact(fact_key)
    text = f"{name} {bare(fact.amount if fact and code[-2:] != '_c' else amount)}" if amount else name
    half, ((x, y), anchor) = 5.0 * len(text) + 6, place
    left = {"start": x - 6, "middle": x - half, "end": x - 2 * half + 6}[anchor]
    with canvas.question(fact_key):
        canvas.sheet.rect(left, y - 17, 2 * half, 24, "backing")
        if canvas.asked == fact_key:
            canvas.sheet.rect(left - 4, y - 22, 2 * half + 8, 34, "place")
        canvas.sheet.text((x, y), text, "reading-label ink" if amount else "", anchor)


def _setup(found: PressJointAnalysis, canvas: Canvas, middle: float, unit: float) -> None:
    """Draw, from the top, the ram, the pin, the web on its support ring, the other web hanging free, and the guard."""
    sheet, parting = canvas.sheet, found.moving == "parting"
    pin, web = 34 * unit, 150 * unit

    def box(x: float, y: float, w: float, h: float) -> list[Point]:
        return [(middle + x, y), (middle + x + w, y), (middle + x + w, y + h), (middle + x, y + h)]

    start = WEB_TOP if parting else 132.0  # an unparted pin stands flush in its web
    end = 346.0 if parting else 318.0
    sheet.rect(middle - 26 * unit, 30, 52 * unit, start - 30 - 8, "cut")
    sheet.arrow((middle, start - 24), (middle, 52), "ink bold", 14)
    sheet.rect(middle - pin + 4, start - 8, 2 * pin - 8, 8, "cut")
    sheet.hatched(box(-pin, start, 2 * pin, end - start), "brass", 7)
    for sign in (-1, 1):
        left = -web if sign < 0 else pin
        sheet.hatched(box(left, WEB_TOP, web - pin, 74), "hot" if found.is_warm else "plain", 10, rising=sign > 0)
        support = -web * 1.06 if sign < 0 else pin + 8 * unit
        sheet.hatched(box(support, WEB_BOTTOM, web * 1.06 - pin - 8 * unit, 30), "cold", 8, rising=sign < 0)
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
    sheet.text((middle + 34 * unit, 54), str(messages.ON_DRAWING["ram"]), "strong")
    sheet.text((middle - web - 34 * unit, 96), str(messages.ON_DRAWING["guard"]), "quiet")
    sheet.text((middle, 452), str(messages.ON_DRAWING["carried"]), "quiet" if canvas.is_wide else "sr", "middle")


def _sizes(found: PressJointAnalysis, canvas: Canvas, middle: float, web: float) -> None:
    """The sizes at their places."""
    if found.is_measured or found.value(Property.PIN_DIAMETER) is not None:
        _place(found, canvas, Property.PIN_DIAMETER, "pin", ((middle, 306), "middle"))
        _place(found, canvas, Property.PIN_HOLE, "hole", ((middle, 200), "middle"))
    else:
        _place(found, canvas, Property.PIN_SHOWN, "pin", ((middle, 306), "middle"))
    level = 240.0 if canvas.is_wide else 222.0  # beside one another, or on a phone one above the other
    _place(found, canvas, Property.PIN_LENGTH, "length", ((middle - web + 8, level), "start"))
    _place(found, canvas, Property.WEB_WALL, "wall", ((middle + web - 6, 246 if level < 240 else level), "end"))
    _place(found, canvas, Property.WEB_WIDTH, "web", ((middle, 486), "middle"))
    if found.is_warm:
        _place(found, canvas, Property.WEB_TEMPERATURE, "web_c", ((middle - web + 8, 168), "start"))
        _place(found, canvas, Property.PIN_TEMPERATURE, "pin_c", ((middle + web - 6, 168), "end"))


def _scale(found: PressJointAnalysis, canvas: Canvas, x: float) -> None:
    """Force upward in the press's unit: the band, the likely, what the press has, the peak reached."""
    sheet, (unit, per), peak = canvas.sheet, found.press_unit, found.peak_n
    plan, press = found.plan, found.press
    known = [plan.force_n.high if plan else None, press.capacity_n if press else None, peak]
    highest = max([value for value in known if value], default=100e3) * 1.08 / per

    def y(value: float) -> float:
        return BOTTOM - (BOTTOM - TOP) * value / highest

    sheet.line((x, TOP - 10), (x, BOTTOM), "axis")
    step = step_for(highest, 8)
    for index in range(int(highest / step) + 1):
        sheet.line((x - 6, y(index * step)), (x, y(index * step)), "axis thin")
        if press and abs(y(index * step) - y(press.capacity_n / per)) < 12:
            continue  # the press's own mark stands there
        sheet.text((x - 10, y(index * step) + 5), plain(index * step), "tick", "end")
    sheet.text((x, TOP - 22), unit, "strong", "middle")
    _band(found, canvas, x, y)
    if press:
        height = y(press.capacity_n / per)
        sheet.line((x - 26, height), (x + 62, height), "hot bold")
        sheet.text((x + 42, height - 8), str(messages.ON_DRAWING["press"]) if canvas.is_wide else "", "hot strong")
        sheet.text((x - 32, height + 5), plain(press.capacity_n / per, 3), "hot strong", "end")
    if peak is not None:
        _peak(canvas, x, y(peak / per), plain(peak / per, 3))
    if canvas.asked == at(Property.PRESS_PEAK):
        _needle(sheet, x, (BOTTOM - TOP) / highest / per)


def _band(found: PressJointAnalysis, canvas: Canvas, x: float, y: Callable[[float], float]) -> None:
    """The band of the force with its likely value."""
    sheet, plan, (_unit, per) = canvas.sheet, found.plan, found.press_unit
    if plan is None:
        sheet.text((x + 12, (TOP + BOTTOM) / 2), str(messages.ON_DRAWING["later"]) if canvas.is_wide else "", "quiet")
        return
    band = plan.force_n
    sheet.rect(x + 1, y(band.high / per), 30, max(y(band.low / per) - y(band.high / per), 2), "band")
    sheet.line((x, y(band.likely / per)), (x + 38, y(band.likely / per)), "ink bold")
    for code, value in (("low", band.low), ("likely", band.likely), ("high", band.high)):
        force = two_digits(value / per)
        text = format_message(messages.ON_DRAWING[code], {"force": force}) if canvas.is_wide else force
        sheet.text((x + 42, y(value / per) + 5), text, "reading-label ink" if code == "likely" else "tick")


def _peak(canvas: Canvas, x: float, y: float, force: str) -> None:
    text = format_message(messages.ON_DRAWING["peak"], {"force": force}) if canvas.is_wide else force
    canvas.sheet.arrow((x + 2, y), (x - 52, y), "ink bold", 12)
    canvas.sheet.rect(x - 60 - 10 * len(text), y - 24, 10 * len(text) + 8, 22, "backing")
    canvas.sheet.text((x - 56, y - 8), text, "reading-label ink", "end")


def _needle(sheet: Sheet, x: float, px_each: float) -> None:
    """A needle that a load cell moves."""
    more = {"class_": "needle", "id": f"needle-{sheet.name}", "data_zero": f"{BOTTOM}", "data_each": f"{px_each:.6g}"}
    sheet.add("line", x1=x - 22, y1=BOTTOM, x2=x + 2, y2=BOTTOM, **more)
