"""Drawing of the job's tag at handover: every station with its signed verdict, and skipped stations with the reason."""

from __future__ import annotations

from stator.jobs.models import RunStation
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.stations.framework.registry import station_name
from stator.stations.hand_over_engine import messages
from stator.stations.hand_over_engine.analysis import HandOverAnalysis, Line
from stator.ui.svg import Point, Sheet, wrapped
from stator.ui.url_values import station_address

MARKS = {"in": "ink solid", "too_close": "window", "out": "outline", "stop": "barred"}
FILLED = ("in", "stop")
BOTTOM = 548.0


def draw(found: HandOverAnalysis, canvas: Canvas) -> None:
    sheet, width = canvas.sheet, canvas.width
    sheet.shape([(12, 60), (52, 12), (width - 12, 12), (width - 12, BOTTOM), (12, BOTTOM)], "tray-edge")
    sheet.circle((44, 58), 9, "bore")
    lower = sheet.text((78, 46), f"{found.job.tag} {found.card.name}", "big")
    row = min(30.0, (470.0 - lower) / max(len(found.lines), 1))
    beside = 230.0 if canvas.is_wide else 206.0
    letters = int((width - beside - 54) / 7.2)
    for index, line in enumerate(found.lines):
        y, name = 86 + lower + row * index, station_name(line.key)
        done = line.state == RunStation.State.DONE
        _mark(sheet, line.call_state if done else "", (40.0, y - 5))
        if canvas.tappable:
            with sheet.link(
                station_address(found.job.tag, line.key), format_message(messages.ON_DRAWING["station"], {"station": name}), target=""
            ):
                sheet.text((62, y), name, "strong" if line.words else "quiet")
        else:
            sheet.text((62, y), name, "strong" if line.words else "quiet")
        lines = wrapped(_said(line, done), letters) or [""]
        text = format_message(messages.ON_DRAWING["cut"], {"line": lines[0]}) if len(lines) > 1 else lines[0]
        sheet.text((beside, y), text, "" if line.words else "quiet")


def _said(line: Line, done: bool) -> str:
    if line.words:
        return line.words
    if line.because:
        return format_message(messages.ON_DRAWING["left_out"], {"because": line.because})
    return str(messages.ON_DRAWING["done" if done else "open"])


def _mark(sheet: Sheet, state: str, at: Point) -> None:
    x, y = at
    if state not in MARKS:
        sheet.line((x - 7, y), (x + 7, y), "axis")
        return
    sheet.rect(x - 7, y - 7, 14, 14, MARKS[state])
    if state not in FILLED:
        sheet.rect(x - 7, y - 7, 14, 14, "outline part")
