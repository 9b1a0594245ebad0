"""Drawing of a heat: a line for each part with its turn and the time relative to the opening of the oven, or one enlarged part."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from shopmath.amounts import celsius, estimate
from stator.stations.framework import Canvas
from stator.stations.framework.messages import capital, format_message
from stator.stations.install_with_heat.case_half import messages
from stator.stations.install_with_heat.case_half.analysis import CaseHalfAnalysis, Phase
from stator.stations.install_with_heat.case_half.parts import HotPart
from stator.stations.install_with_heat.case_half.verdict import how_words, short_words, support_words, tool_words, way_words
from stator.stations.install_with_heat.heat import HOME
from stator.stations.install_with_heat.shaft_assembly import drawing as assembly
from stator.ui.graph import step_for
from stator.ui.number_format import lasting, show, signed
from stator.ui.svg import Sheet, bar, wrapped

HIGH = 604.0
LETTER_PX = 6.7
SOON_S = 60.0  # under which a time is drawn hot


def draw(found: CaseHalfAnalysis, canvas: Canvas) -> None:
    """Draw the present part, the part that goes in now, or all parts in order."""
    if found.in_hand:
        assembly.draw(found.in_hand, canvas)
    elif not found.trouble and found.phase == Phase.HOT:
        _hot(found, canvas)
    else:
        _sheet(found, canvas)


@dataclass(frozen=True)
class Told:
    """A part as text: its direction, its orientation and the tool that pushes it."""

    how: str
    tool: str


@dataclass(frozen=True)
class Line:
    """The time axis, s from the opening of the oven to px, with separate scales for heating and for the short minutes after it."""

    left: float
    door: float
    right: float
    first_s: float
    last_s: float

    def at(self, time_s: float) -> float:
        if time_s < 0:
            return self.door - (self.door - self.left) * min(time_s / self.first_s, 1.0)
        return self.door + (self.right - self.door) * min(time_s / self.last_s, 1.0)


def _title(sheet: Sheet, found: CaseHalfAnalysis) -> None:
    code = "half" if found.attempt == 1 else "half_again"
    sheet.text((12, 26), format_message(messages.DRAWN[code], {"Half": capital(found.called), "heat": found.attempt}), "big")


def _sheet(found: CaseHalfAnalysis, canvas: Canvas) -> None:
    sheet, width = canvas.sheet, canvas.width
    _title(sheet, found)
    if found.trouble:
        sheet.text((width / 2, HIGH / 2), canvas.call.reason or str(messages.DRAWN["nothing"]), "quiet", "middle")
        return
    core = found.core_sheet
    parts = [found.part(key) for key in (*core.order, *core.left_out)]
    values = {part.key: Told(how_words(found, part), tool_words(part, found.drivers)) for part in parts}
    sheet.description = f"{sheet.description} {_said(found, values)}"
    wide = canvas.is_wide
    row = min(66.0, (HIGH - 150) / (len(parts) + 1))
    last = max([step.to_s for step in core.steps] + [60.0])
    left, right = (width * 0.45 if wide else width * 0.56), width - 14
    line = Line(left, left + 0.5 * (right - left), right, min(core.begins_s, -60.0), last * 2.0)
    top = 62.0
    _time(sheet, found, line, top, top + row * (len(parts) + 1))
    _case_row(sheet, found, line, top, row)
    for index, part in enumerate(parts, 1):
        y = top + row * index
        place = list(core.order).index(part.key) + 1 if part.key in core.order else None
        _part_row(sheet, found, part, values[part.key], place, y, row, line, wide)


def _said(found: CaseHalfAnalysis, told: Mapping[str, Told]) -> str:
    """The drawing as words: the order, how each goes in, with what."""
    rows = []
    for place, key in enumerate(found.core_sheet.order, 1):
        part = found.part(key)
        values = {"place": place, "part": part.name, "marking": part.marking, "how": told[key].how}
        rows.append(format_message(messages.DRAWN["row"], {**values, "tool": told[key].tool}))
    return f"{'; '.join(rows)}."


def _time(sheet: Sheet, found: CaseHalfAnalysis, line: Line, top: float, bottom: float) -> None:
    """The door as an upright line, ticks in minutes on both its sides, and now."""
    sheet.line((line.left, bottom), (line.right, bottom), "axis thin")
    for end in (line.first_s, line.last_s):
        step = 60 * max(1.0, step_for(abs(end) / 60, 3))
        for count in range(1, int(abs(end) / step) + 1):
            time = math.copysign(count * step, end)
            sheet.line((line.at(time), bottom), (line.at(time), bottom + 5), "axis thin")
            sheet.text((line.at(time), bottom + 20), signed(time / 60), "tick", "middle")
    sheet.line((line.door, top - 14), (line.door, bottom), "axis")
    sheet.text((line.door, bottom + 20), str(messages.DRAWN["door"]), "tick", "middle")
    sheet.text((line.right, bottom + 38), str(messages.DRAWN["minutes"]), "tick", "end")
    if found.phase == Phase.WARMING:
        x = line.at((found.now - found.door_at).total_seconds())
        sheet.line((x, top - 20), (x, bottom + 6), "ink bold")
        sheet.text((x, top - 24), str(messages.DRAWN["now"]), "strong ink", "middle")


def _case_row(sheet: Sheet, found: CaseHalfAnalysis, line: Line, top: float, row: float) -> None:
    plan = found.plan
    middle = top + row / 2
    sheet.text((44, middle - 2), str(messages.DRAWN["the_half"]), "strong hot")
    begun = found.timer("heat")
    code = "oven_now" if begun and found.phase == Phase.WARMING else "oven"
    now = found.run.outer()
    here = show(estimate(celsius(now.c), 2 * now.u_k))
    oven = {"heater": str(found.heater), "setting": show(celsius(plan.heat_c)), "here": here}
    sheet.text((44, middle + 17), format_message(messages.DRAWN[code], oven), "quiet hot")
    soak = plan.soak.likely if plan.soak else 0.0
    start = (begun.started_at - found.door_at).total_seconds() if begun else -soak
    sheet.hatched(bar(line.at(start), line.at(0), middle - 9, middle + 9), "hot", 7)
    sheet.text((line.at(0) + 8, middle + 5), format_message(messages.DRAWN["to"], {"target": celsius(plan.target_c)}), "halo quiet hot")
    sheet.line((12, top + row), (line.right, top + row), "rule")


def _part_row(
    sheet: Sheet, found: CaseHalfAnalysis, part: HotPart, told: Told, place: int | None, y: float, row: float, line: Line, wide: bool
) -> None:
    middle = y + row / 2
    fate = found.fate(part)
    if place is None:
        sheet.text((16, middle + 5), "–", "big quiet")
    else:
        sheet.circle((26, middle), 14, "ring")
        sheet.text((26, middle + 5), str(place), "strong ink", "middle")
    letters = int((line.left - 56) / LETTER_PX)
    marked = {"part": part.name, "marking": part.marking}
    first = part.name if not wide or part.is_circlip else format_message(messages.DRAWN["name"], marked)
    how = told.how if wide else short_words(found, part)
    lines = [*wrapped(first, letters)[:1], *wrapped(how, letters)[:1]]
    if row >= 56:
        lines.append(wrapped(_tool(part, told.tool) if wide else told.tool, letters)[0])
    start = middle - 8.5 * (len(lines) - 1) + 5
    for index, text in enumerate(lines):
        sheet.text((48, start + 17 * index), text, "strong" if index == 0 else "quiet")
    sheet.line((12, y + row), (line.right, y + row), "rule")
    if fate:
        done = "in" if fate == "dropped" else fate
        sheet.text((line.at(0) + 8, middle + 5), str(messages.DRAWN[done]), f"halo strong {'ink' if fate in HOME else 'hot'}")
        return
    if place is None:
        sheet.text((line.right, middle + 5), str(messages.DRAWN["waits"]), "strong hot", "end")
        return
    _bars(sheet, found, part, middle, line)


def _bars(sheet: Sheet, found: CaseHalfAnalysis, part: HotPart, middle: float, line: Line) -> None:
    """Draw the time in the chiller, the turn at the case, and the window of a part."""
    for step in found.core_sheet.steps:
        if step.part != part.key:
            continue
        if step.where == "in":
            closes = found.closes_s(part, found.plan.target_c)
            sheet.rect(line.at(step.to_s), middle - 4, line.at(min(closes, line.last_s)) - line.at(step.to_s), 8, "window")
            sheet.rect(line.at(step.from_s), middle - 10, max(line.at(step.to_s) - line.at(step.from_s), 4.0), 20, "ink solid")
            if part.planned and closes <= line.last_s:
                sheet.line((line.at(closes), middle - 10), (line.at(closes), middle + 10), "axis")
        else:
            since = found.cold_since.get(part.key)
            begin = (since - found.door_at).total_seconds() if since else step.from_s
            sheet.hatched(bar(line.at(begin), line.at(step.to_s), middle - 8, middle + 8), "cold", 7, rising=False)


# hot


def _hot(found: CaseHalfAnalysis, canvas: Canvas) -> None:
    """One part, huge: its name, from where, which way round, with what; below, how long each still has."""
    sheet, width, wide = canvas.sheet, canvas.width, canvas.is_wide
    live = found.live_heat
    part = live.here
    assert part is not None
    left = live.left_s(part)
    message = ", ".join(f"{each.name} {lasting(max(0.0, live.left_s(each)))}" for each in live.order if each.planned)
    sheet.title = format_message(messages.DRAWN["in_hand"], {"part": part.name})
    sheet.description = f"{sheet.description} {format_message(messages.DRAWN['time_left'], {'left': message})}"
    to_go = {"left": len(live.order), "all": len(found.plan.parts)}
    sheet.text((14, 30), format_message(messages.DRAWN["to_go"], to_go), "quiet")
    sheet.text((width - 14, 30), format_message(messages.DRAWN["case"], {"here": celsius(found.run.outer().c)}), "quiet hot", "end")
    big = "huge" if wide else "huge narrow"
    names = wrapped(part.name, 18 if wide else 14)[:2]
    y = 88.0
    for name in names:
        sheet.text((14, y), name, big)
        y += 60 if wide else 46
    if not part.is_circlip:
        sheet.text((14, y - 10), part.marking, "note mono")
        y += 26
    for text, cls in _hands(found, part):
        for each in wrapped(text, 46 if wide else 34)[:2]:
            sheet.text((14, y), each, cls)
            y += 28
    if part.planned:
        sheet.text((width - 14, 108 if wide else 74), lasting(max(0.0, left)), f"{big} {'hot' if left < SOON_S else 'ink'}", "end")
        sheet.text((width - 14, 134 if wide else 94), str(messages.DRAWN["to_be_home"]), "quiet", "end")
    low = max(y + 16, 330.0)
    if wide and not part.is_circlip:
        _going_in(sheet, part, found.toward(part), (width - 118, 226.0))
    _left(sheet, found, width, low)


def _going_in(sheet: Sheet, part: HotPart, toward: str, at: tuple[float, float]) -> None:
    """The boss in section with the part over it, and which of its faces looks at you."""
    x, y = at
    half = 46.0
    for sign in (-1, 1):
        sheet.hatched(bar(x + sign * half, x + sign * (half + 40), y, y + 52), "hot", 8)
        if part.seat:
            sheet.hatched(bar(x + sign * (half - 20), x + sign * (half - 2), y - 44, y - 10), "cold", 6, rising=False)
    if part.seat:
        sheet.line((x - half + 20, y - 44), (x + half - 20, y - 44), "thin")
        sheet.line((x - half + 20, y - 10), (x + half - 20, y - 10), "thin")
    else:
        sheet.hatched(bar(x - half + 2, x + half - 2, y - 44, y - 10), "cold", 7, rising=False)
    sheet.arrow((x, y + 36), (x, y - 26), "ink bold", 13)
    if toward:
        edge = y - 44 if toward == "you" else y - 10
        sheet.line((x - half - 2, edge), (x - half + 22, edge), "axis")
        sheet.text((x - half - 8, edge + 5), str(messages.DRAWN["marking"]) if part.seat else "", "quiet", "end")
    sheet.text((x, y + 72), part.from_words, "quiet", "middle")


def _tool(part: HotPart, tool: str) -> str:
    return tool if part.is_circlip else format_message(messages.TOOL, {"tool": tool, "support": support_words(part)})


def _hands(found: CaseHalfAnalysis, part: HotPart) -> list[tuple[str, str]]:
    """Return what the hands must know: from where, which way round, with what, on what."""
    if part.is_circlip:
        return [(str(messages.DRAWN["pliers"]), "note")]
    orientation = way_words(found, part)
    code = (found.toward(part) or "way") if orientation else "unsaid" if part.seat else "from"
    values = {"From": capital(part.from_words), "Way": capital(orientation)}
    return [
        (format_message(messages.DRAWN["away" if code == "case" else code], values), "note strong"),
        (_tool(part, tool_words(part, found.drivers)), "note"),
    ]


def _left(sheet: Sheet, found: CaseHalfAnalysis, width: float, top: float) -> None:
    """A bar for each part still to go, shrinking toward its closing."""
    live = found.live_heat
    rows = [part for part in live.order if part.planned]
    if not rows:
        return
    longest = max([min(live.left_s(part), 3600.0) for part in rows] + [60.0])
    left, right = width * 0.44, width - 76
    row = min(40.0, (HIGH - top - 20) / max(len(live.order), 1))
    sheet.line((14, top - 8), (width - 14, top - 8), "rule")
    for index, part in enumerate(live.order):
        y = top + row * index + row / 2
        first = index == 0
        sheet.text((14, y + 5), wrapped(part.name, int((left - 20) / LETTER_PX))[0], "strong ink" if first else "")
        if part.planned is None:
            continue
        seconds = max(0.0, live.left_s(part))
        long = (right - left) * min(seconds, longest) / longest
        sheet.rect(left, y - 8, right - left, 16, "sure")
        sheet.rect(left, y - 8, long, 16, "ink solid" if seconds >= SOON_S else "hot solid")
        sheet.text((width - 14, y + 5), lasting(seconds), "reading-label", "end")
