"""One heat on paper: a line for each part with its turn, and beside it the time counted back from the door. Hot, one part, huge."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from shop.shelves import shelves
from stations.heat_and_drop.whole_half import HOME
from stations.heat_and_drop.words import cap, degrees, minutes
from ui.graph import step_for
from ui.svg import Sheet, bar, on_papers, wrapped

if TYPE_CHECKING:
    from stations.heat_and_drop.parts import HotPart
    from stations.heat_and_drop.sheet import HeatSheet

HIGH = 604.0
LETTER_PX = 6.7
SOON_S = 60.0  # under which a time is drawn hot


def draw(work: HeatSheet) -> SafeString:
    hot = work.phase == "hot"
    return on_papers(work.papers, lambda name, width: _hot(work, name, width) if hot else _sheet(work, name, width))


@dataclass(frozen=True)
class Line:
    """Time on paper, s from the door to px: the long warming up to the door and the short minutes behind it each have their own scale."""

    left: float
    door: float
    right: float
    first_s: float
    last_s: float

    def at(self, time_s: float) -> float:
        if time_s < 0:
            return self.door - (self.door - self.left) * min(time_s / self.first_s, 1.0)
        return self.door + (self.right - self.door) * min(time_s / self.last_s, 1.0)


def _title(sheet: Sheet, work: HeatSheet, width: float) -> None:
    half = f"{cap(work.job.card.side(work.half))} half"
    sheet.text((12, 26), half if work.attempt == 1 else f"{half}, heat {work.attempt}", "big")


def _sheet(work: HeatSheet, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, HIGH, "One heat, part by part", _said(work, f"{plate.words}. {plate.line} {plate.move}"), name)
    _title(sheet, work, width)
    if work.trouble:
        sheet.text((width / 2, HIGH / 2), work.trouble.message or "nothing of this half is on the card", "quiet", "middle")
        return sheet.render()
    core = work.core_sheet
    parts = [work.part(key) for key in (*core.order, *core.left_out)]
    wide = width > 500
    row = min(66.0, (HIGH - 150) / (len(parts) + 1))
    last = max([step.to_s for step in core.steps] + [60.0])
    left, right = (width * 0.45 if wide else width * 0.56), width - 14
    line = Line(left, left + 0.5 * (right - left), right, min(core.begins_s, -60.0), last * 2.0)
    top = 62.0
    _time(sheet, work, line, top, top + row * (len(parts) + 1))
    _case_row(sheet, work, line, top, row)
    for index, part in enumerate(parts, 1):
        y = top + row * index
        place = list(core.order).index(part.key) + 1 if part.key in core.order else None
        _part_row(sheet, work, part, place, y, row, line, wide)
    return sheet.render()


def _said(work: HeatSheet, call: str) -> str:
    """The drawing as words: the order, how each goes in, with what."""
    if work.trouble:
        return call
    rows = []
    for index, key in enumerate(work.core_sheet.order, 1):
        part = work.part(key)
        rows.append(f"{index}. {part.name}, {part.marking}, {_how(work, part)}, with {part.driver(shelves(work.shop).drivers)}")
    return f"{call} {'; '.join(rows)}."


def _how(work: HeatSheet, part: HotPart) -> str:
    way, _ = work.way(part)
    if part.is_circlip:
        return way
    return f"{part.from_words}, {way}" if way else f"{part.from_words}, way round unknown" if part.seat else part.from_words


def _time(sheet: Sheet, work: HeatSheet, line: Line, top: float, bottom: float) -> None:
    """The door as an upright line, ticks in minutes on both its sides, and now."""
    sheet.line((line.left, bottom), (line.right, bottom), "axis thin")
    for end in (line.first_s, line.last_s):
        step = 60 * max(1.0, step_for(abs(end) / 60, 3))
        for count in range(1, int(abs(end) / step) + 1):
            time = math.copysign(count * step, end)
            sheet.line((line.at(time), bottom), (line.at(time), bottom + 5), "axis thin")
            sheet.text((line.at(time), bottom + 20), f"{time / 60:+.0f}", "tick", "middle")
    sheet.line((line.door, top - 14), (line.door, bottom), "axis")
    sheet.text((line.door, bottom + 20), "door", "tick", "middle")
    sheet.text((line.right, bottom + 38), "minutes", "tick", "end")
    if work.phase == "warming":
        x = line.at((work.now - work.door_at).total_seconds())
        sheet.line((x, top - 20), (x, bottom + 6), "ink bold")
        sheet.text((x, top - 24), "now", "strong ink", "middle")


def _case_row(sheet: Sheet, work: HeatSheet, line: Line, top: float, row: float) -> None:
    plan = work.plan
    middle = top + row / 2
    sheet.text((44, middle - 2), "The half", "strong hot")
    begun = work.timer("heat")
    now = f", now {degrees(work.run.outer().c)}" if begun and work.phase == "warming" else ""
    sheet.text((44, middle + 17), f"{work.heater} {degrees(plan.heat_c)}{now}", "quiet hot")
    soak = plan.soak.likely if plan.soak else 0.0
    start = (begun.started_at - work.door_at).total_seconds() if begun else -soak
    sheet.hatched(bar(line.at(start), line.at(0), middle - 9, middle + 9), "hot", 7)
    sheet.text((line.at(0) - 6, middle - 15), f"to {degrees(plan.target_c)}", "halo quiet hot", "end")
    sheet.line((12, top + row), (line.right, top + row), "rule")


def _part_row(sheet: Sheet, work: HeatSheet, part: HotPart, place: int | None, y: float, row: float, line: Line, wide: bool) -> None:
    middle = y + row / 2
    fate = work.fate(part)
    if place is None:
        sheet.text((16, middle + 5), "–", "big quiet")
    else:
        sheet.circle((26, middle), 14, "ring")
        sheet.text((26, middle + 5), str(place), "strong ink", "middle")
    letters = int((line.left - 56) / LETTER_PX)
    first = part.name if not wide or part.is_circlip else f"{part.name}, {part.marking}"
    how = _how(work, part) if wide else _how(work, part).replace("its ", "").replace(" to the ", " ")
    lines = [*wrapped(first, letters)[:1], *wrapped(how, letters)[:1]]
    if row >= 56:
        tool = part.driver(shelves(work.shop).drivers)
        lines.append(wrapped(f"{tool}; {part.support}" if part.support and wide else tool, letters)[0])
    start = middle - 8.5 * (len(lines) - 1) + 5
    for index, words in enumerate(lines):
        sheet.text((48, start + 17 * index), words, "strong" if index == 0 else "quiet")
    sheet.line((12, y + row), (line.right, y + row), "rule")
    if fate:
        word = {"dropped": "in", "tapped": "in, tapped", "later": "laid by"}.get(fate, fate)
        sheet.text((line.at(0) + 8, middle + 5), word, f"halo strong {'ink' if fate in HOME else 'hot'}")
        return
    if place is None:
        sheet.text((line.right, middle + 5), "waits for a reheat", "strong hot", "end")
        return
    _bars(sheet, work, part, middle, line)


def _bars(sheet: Sheet, work: HeatSheet, part: HotPart, middle: float, line: Line) -> None:
    """In the cold until its turn, its turn at the case, and how long its window stays open."""
    for step in work.core_sheet.steps:
        if step.part != part.key:
            continue
        if step.where == "in":
            closes = work.closes_s(part, work.plan.target_c)
            sheet.rect(line.at(step.to_s), middle - 4, line.at(min(closes, line.last_s)) - line.at(step.to_s), 8, "window")
            sheet.rect(line.at(step.from_s), middle - 10, max(line.at(step.to_s) - line.at(step.from_s), 4.0), 20, "ink solid")
            if part.planned and closes <= line.last_s:
                sheet.line((line.at(closes), middle - 10), (line.at(closes), middle + 10), "axis")
        else:
            since = work.cold_since.get(part.key)
            begin = (since - work.door_at).total_seconds() if since else step.from_s
            sheet.hatched(bar(line.at(begin), line.at(step.to_s), middle - 8, middle + 8), "cold", 7, rising=False)


# hot


def _hot(work: HeatSheet, name: str, width: float) -> SafeString:
    """One part, huge: its name, from where, which way round, with what; below, how long each still has."""
    live = work.live_heat
    part = live.here
    assert part is not None
    left = live.left_s(part)
    said = ", ".join(f"{each.name} {minutes(max(0.0, live.left_s(each)))}" for each in live.order if each.planned)
    sheet = Sheet(width, HIGH, f"In hand: {part.name}", f"{work.call.line} {work.call.move} Time left: {said}.", name)
    wide = width > 500
    total = len(work.plan.parts)
    sheet.text((14, 30), f"{len(live.order)} of {total} to go", "quiet")
    sheet.text((width - 14, 30), f"case {degrees(work.run.outer().c)}", "quiet hot", "end")
    big = "huge" if wide else "huge narrow"
    names = wrapped(part.name, 18 if wide else 14)[:2]
    y = 88.0
    for words in names:
        sheet.text((14, y), words, big)
        y += 60 if wide else 46
    if not part.is_circlip:
        sheet.text((14, y - 10), part.marking, "note mono")
        y += 26
    for words, cls in _hands(work, part):
        for each in wrapped(words, 46 if wide else 34)[:2]:
            sheet.text((14, y), each, cls)
            y += 28
    if part.planned:
        sheet.text((width - 14, 108 if wide else 74), minutes(max(0.0, left)), f"{big} {'hot' if left < SOON_S else 'ink'}", "end")
        sheet.text((width - 14, 134 if wide else 94), "to be home", "quiet", "end")
    low = max(y + 16, 330.0)
    if wide and not part.is_circlip:
        _going_in(sheet, part, work.toward(part), (width - 118, 226.0))
    _left(sheet, work, width, low)
    return sheet.render()


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
        sheet.text((x - half - 8, edge + 5), "marking" if part.seat else "", "quiet", "end")
    sheet.text((x, y + 72), part.from_words, "quiet", "middle")


def _hands(work: HeatSheet, part: HotPart) -> list[tuple[str, str]]:
    """What the hands must know: from where, which way round, with what, on what."""
    if part.is_circlip:
        return [("pliers; turn it in its groove", "note")]
    toward = {"you": ", toward you", "case": ", away from you"}.get(work.toward(part), "")
    way, _ = work.way(part)
    way_words = f" {cap(way)}{toward}." if way else " Way round: nobody has said." if part.seat else ""
    tool = f"{part.driver(shelves(work.shop).drivers)}; {part.support}"
    return [(f"{cap(part.from_words)}.{way_words}", "note strong"), (tool, "note")]


def _left(sheet: Sheet, work: HeatSheet, width: float, top: float) -> None:
    """A bar for each part still to go, shrinking toward its closing."""
    live = work.live_heat
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
        sheet.text((width - 14, y + 5), minutes(seconds), "reading-label", "end")
