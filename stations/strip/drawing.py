"""The tray from above: a place for each part in the order it came, with count, side and a flag for wear."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from ui.svg import Sheet, on_papers, wrapped

if TYPE_CHECKING:
    from stations.strip.station import Strip

GAP = 10.0


def draw(work: Strip) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: Strip, name: str, width: float) -> SafeString:
    places = work.places
    across = 5 if width > 500 else 3
    rows = max(3, -(-(len(places) + 1) // across))
    height = 560.0
    high = (height - 70) / rows - GAP
    wide = (width - 40 - GAP * (across - 1)) / across
    said = "; ".join(f"{p.number}: {p.count} {p.name}, {p.where_from or 'from unknown'}" for p in places) or "empty"
    sheet = Sheet(width, height, "The parts tray", said, name)
    sheet.rect(10, 10, width - 20, height - 50, "tray-edge")
    letters = int(wide / 8)
    for index in range(rows * across):
        x, y = 20 + (wide + GAP) * (index % across), 20 + (high + GAP) * (index // across)
        if index >= len(places):
            sheet.rect(x, y, wide, high, "tray-free")
            if index == len(places):
                sheet.text((x + 8, y + 22), f"{index + 1}", "reading-label ink")
                sheet.text((x + 8, y + high / 2 + 6), "next" if places else "the first part", "quiet")
            continue
        place = places[index]
        sheet.rect(x, y, wide, high, "tray-full")
        if place.wear:
            sheet.shape([(x + wide - 26, y), (x + wide, y), (x + wide, y + 26)], "barred")
        sheet.text((x + 8, y + 22), f"{place.number}", "reading-label")
        if place.count > 1:
            sheet.text((x + 42, y + 22), f"× {place.count}", "reading-label ink")
        lines = [*wrapped(place.name, letters)[:2], *wrapped(place.where_from, letters + 3)[:1]]
        for row, line in enumerate(lines):
            if 42 + 18 * row < high - 4:
                sheet.text((x + 8, y + 42 + 18 * row), line, "strong" if row < len(lines) - 1 or not place.where_from else "quiet")
    sheet.text((20, height - 14), "in the order they came; a corner marks wear to look at", "quiet")
    return sheet.render()
