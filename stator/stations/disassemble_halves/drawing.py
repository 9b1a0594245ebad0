"""Drawing of the tray from above: a position for each part in order, with quantity, side and a flag for wear."""

from __future__ import annotations

from stator.jobs.models import TrayPlace
from stator.stations.disassemble_halves import messages
from stator.stations.disassemble_halves.analysis import DisassemblyAnalysis
from stator.stations.framework import Canvas
from stator.stations.framework.messages import format_message
from stator.ui.svg import Sheet, wrapped

GAP = 10.0


def draw(found: DisassemblyAnalysis, canvas: Canvas) -> None:
    """Draw the tray with each text inside its own position, so that none overlap."""
    sheet, places = canvas.sheet, found.places
    across = 5 if canvas.is_wide else 3
    rows = max(3, -(-(len(places) + 1) // across))
    high = (sheet.height - 70) / rows - GAP
    wide = (sheet.width - 40 - GAP * (across - 1)) / across
    sheet.rect(10, 10, sheet.width - 20, sheet.height - 50, "tray-edge")
    for index in range(rows * across):
        x, y = 20 + (wide + GAP) * (index % across), 20 + (high + GAP) * (index // across)
        if index < len(places):
            _place(sheet, places[index], x, y, wide, high)
            continue
        sheet.rect(x, y, wide, high, "tray-free")
        if index == len(places):
            sheet.text((x + 8, y + 22), f"{index + 1}", "reading-label ink")
            sheet.text((x + 8, y + high / 2 + 6), str(messages.ON_DRAWING["next" if places else "first"]), "quiet")
    sheet.text((20, sheet.height - 14), str(messages.ON_DRAWING["legend"]), "quiet")


def _place(sheet: Sheet, place: TrayPlace, x: float, y: float, wide: float, high: float) -> None:
    letters = int(wide / 8)
    sheet.rect(x, y, wide, high, "tray-full")
    if place.wear:
        sheet.shape([(x + wide - 26, y), (x + wide, y), (x + wide, y + 26)], "barred")
    sheet.text((x + 8, y + 22), f"{place.number}", "reading-label")
    if place.count > 1:
        sheet.text((x + 42, y + 22), format_message(messages.ON_DRAWING["times"], {"count": place.count}), "reading-label ink")
    named = len(wrapped(place.name, letters)[:2])
    lines = [*wrapped(place.name, letters)[:2], *wrapped(place.where_from, letters + 1)[:2]]
    for row, line in enumerate(lines):
        if 42 + 18 * row < high - 4:
            sheet.text((x + 8, y + 42 + 18 * row), line, "strong" if row < named else "quiet")
