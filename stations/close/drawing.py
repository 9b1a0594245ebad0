"""The joint face with its bolts numbered in the order they are tightened, each with the rounds it has had."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.utils.safestring import SafeString

from stations.face import Face, draw_dowel, draw_fastener, draw_outline, draw_reach, draw_seats, label, seen_from
from ui.svg import Sheet, on_papers

if TYPE_CHECKING:
    from stations.close.station import Close


def draw(work: Close) -> SafeString:
    return on_papers(work.papers, lambda name, width: _sheet(work, name, width))


def _sheet(work: Close, name: str, width: float) -> SafeString:
    plate = work.call
    sheet = Sheet(width, 560, "The joint face and the order of its bolts", f"{plate.words}. {plate.line} {plate.move}", name)
    edge = 66.0 if width > 500 else 40.0
    face = Face.inside(work.job.card, edge, 20, width - 2 * edge, 430)
    draw_outline(sheet, face, work.job.card, work.marks)
    draw_seats(sheet, face, list(work.job.card.seats.all()))
    for mark in work.marks:
        if mark.what == "dowel":
            draw_dowel(sheet, face, mark)
    at = {mark.pk: face.at(mark.x_mm, mark.y_mm) for mark in work.ordered}
    asked = work.next_ask.key.partition("-")[2] if work.next_ask and work.next_ask.key[:1] == "s" else ""
    _way(sheet, work, at, asked)
    for number, mark in enumerate(work.ordered, 1):
        done = sum(work.is_done(stage, mark) for stage in range(len(work.stages)))
        stage = min(done, len(work.stages) - 1)
        with sheet.link(f"{work.address}?ask=s{stage}-{mark.pk}", f"Reading: bolt {mark.name}"):
            draw_reach(sheet, face, mark.x_mm, mark.y_mm)
            if asked == str(mark.pk):
                sheet.circle(at[mark.pk], 20, "place")
            draw_fastener(sheet, face, mark, "bolt" if done == len(work.stages) else "bolt taken")
            for each in range(done):
                sheet.circle(at[mark.pk], 12.0 + 3.5 * each, "ring")
            label(sheet, face, mark, f"{number}.", 22.0, "strong")
    if not work.ordered:
        sheet.text((width / 2, 260), "no bolts on the card yet: tap them onto its face", "quiet", "middle")
    rounds = "one ring a round" if work.ordered else ""
    sheet.text((width / 2, 478), f"numbers: the order; {rounds}", "quiet", "middle")
    sheet.text((width / 2, 498), seen_from(work.job.card), "quiet", "middle")
    if work.sealed and work.to_do:
        left, right = width * 0.2, width * 0.8
        sheet.line((left, 530), (right, 530), "axis thin")
        sheet.rect(left, 522, (right - left) * work.done / work.to_do, 16, "ink solid")
    return sheet.render()


def _way(sheet: Sheet, work: Close, at: dict[int, tuple[float, float]], asked: str) -> None:
    """From the bolt just done to the one that is asked."""
    order = [mark.pk for mark in work.ordered]
    here = next((index for index, pk in enumerate(order) if str(pk) == asked), None)
    if here:
        sheet.arrow(at[order[here]], at[order[here - 1]], "ink thin", 10)
