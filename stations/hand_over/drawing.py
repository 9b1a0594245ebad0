"""The job's tag as it goes out: every station with the call it was signed by, what was left out and why."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from ui.svg import Sheet, on_papers, wrapped

if TYPE_CHECKING:
    from stations.hand_over.station import HandOver

MARKS = {"in": "ink solid", "too_close": "window", "out": "outline", "stop": "barred"}


def draw(work: HandOver) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: HandOver, name: str, width: float) -> SafeString:
    said = "; ".join(f"{work.name_of(line.key)}: {line.words or line.because or line.state}" for line in work.lines)
    sheet = Sheet(width, 580, "Every station as it was signed", f"{said}.", name)
    sheet.shape([(12, 60), (52, 12), (width - 12, 12), (width - 12, 568), (12, 568)], "tray-edge")
    sheet.circle((44, 58), 9, "bore")
    sheet.text((78, 46), f"{work.job.tag} {work.job.card.name}", "big")
    row = min(30.0, 490.0 / max(len(work.lines), 1))
    letters = int((width - 264) / 7.2)
    for index, line in enumerate(work.lines):
        y = 86 + row * index
        _mark(sheet, line.call_state if line.state == "done" else line.state, (40.0, y - 5))
        with sheet.link(f"/jobs/{work.job.tag}/{line.key}/", f"Station: {work.name_of(line.key)}", target=""):
            sheet.text((62, y), work.name_of(line.key), "strong" if line.words else "quiet")
        words = line.words or (f"left out: {line.because}" if line.because else "open" if line.state != "done" else "done")
        lines = wrapped(words, letters) or [""]
        sheet.text((210, y), lines[0] + (" …" if len(lines) > 1 else ""), "" if line.words else "quiet")
    return sheet.render()


def _mark(sheet: Sheet, state: str, at: tuple[float, float]) -> None:
    x, y = at
    if state in MARKS:
        sheet.rect(x - 7, y - 7, 14, 14, MARKS[state])
        if state in ("in", "stop"):
            return
        sheet.rect(x - 7, y - 7, 14, 14, "outline part")
    else:
        sheet.line((x - 7, y), (x + 7, y), "axis")
