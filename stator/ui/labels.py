"""Placement of labels on a drawing, without overlaps and within the edges.

A drawing requests its labels and marks what must remain free. Labels are placed at the end, the important ones first, each at the first of
its places that is free.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from contextlib import nullcontext
from dataclasses import dataclass, field
from typing import Any

from stator.ui.svg import Point, Sheet, size_of, width_of

LINE = 18.0  # from one line of a label to the next, px
GAP = 3.0  # kept free between two labels, px
WIDER = 1.1  # than at its usual size a label may be: a narrow desk draws its letters larger


@dataclass(frozen=True)
class Box:
    """A rectangle of the drawing, px."""

    left: float
    top: float
    right: float
    bottom: float

    def overlap(self, other: Box) -> float:
        """Area shared with another, px²."""
        wide = min(self.right, other.right) - max(self.left, other.left)
        high = min(self.bottom, other.bottom) - max(self.top, other.top)
        return wide * high if wide > 0 and high > 0 else 0.0


def box_of(at: Point, words: str, cls: str, anchor: str) -> Box:
    """Return the rectangle of a label whose text begins, ends or has its middle at a point of its baseline."""
    size, wide = size_of(cls), WIDER * width_of(words, cls)
    left = {"start": at[0], "middle": at[0] - wide / 2, "end": at[0] - wide}[anchor]
    return Box(left - GAP, at[1] - 0.8 * size - GAP, left + wide + GAP, at[1] + 0.25 * size + GAP)


@dataclass(frozen=True)
class LabelRequest:
    """A requested label: its text, style, possible places in order of preference, and the link of a tap."""

    words: str
    cls: str
    places: tuple[tuple[Point, str], ...]
    rank: int
    link: tuple[str, str] | None
    beneath: tuple[tuple[str, str], ...] = ()  # lines under it that go where it goes, each with its looks

    def box(self, place: tuple[Point, str]) -> Box:
        """Return what it covers at one of its places, its lines beneath with it."""
        (x, y), anchor = place
        boxes = [box_of((x, y), self.words, self.cls, anchor)]
        boxes += [box_of((x, y + LINE * index), words, cls, anchor) for index, (words, cls) in enumerate(self.beneath, 1)]
        ends = [(each.left, each.top, each.right, each.bottom) for each in boxes]
        left, top, right, bottom = zip(*ends, strict=True)
        return Box(min(left), min(top), max(right), max(bottom))


@dataclass
class Labels:
    """The labels of one drawing."""

    sheet: Sheet
    taken: list[Box] = field(default_factory=list)
    wanted: list[LabelRequest] = field(default_factory=list)

    def keep_clear(self, at: Point, radius: float) -> None:
        """A mark that no label may cover."""
        self.taken.append(Box(at[0] - radius, at[1] - radius, at[0] + radius, at[1] + radius))

    def keep_clear_box(self, left: float, top: float, right: float, bottom: float) -> None:
        self.taken.append(Box(left, top, right, bottom))

    def around(
        self, at: Point, distance: float, words: str, cls: str = "", rank: int = 5, link: tuple[str, str] | None = None, left: bool = False
    ) -> None:
        """Request a label around a mark: to the right (or the left first), above, below or diagonal."""
        x, y = at
        far = distance + 2
        beside: list[tuple[Point, str]] = [((x + far, y + 5), "start"), ((x - far, y + 5), "end")]
        places: list[tuple[Point, str]] = [
            *(reversed(beside) if left else beside),
            ((x, y - far), "middle"),
            ((x, y + far + 11), "middle"),
            ((x + 0.8 * far, y - 0.8 * far), "start"),
            ((x - 0.8 * far, y - 0.8 * far), "end"),
            ((x + 0.8 * far, y + 0.8 * far + 10), "start"),
            ((x - 0.8 * far, y + 0.8 * far + 10), "end"),
            ((x, y - far - 18), "middle"),
            ((x, y + far + 29), "middle"),
        ]
        self.wanted.append(LabelRequest(words, cls, tuple(places), rank, link))

    def at(
        self,
        places: Sequence[tuple[Point, str]],
        words: str,
        cls: str = "",
        rank: int = 3,
        link: tuple[str, str] | None = None,
        beneath: Sequence[tuple[str, str]] = (),
    ) -> None:
        """Request a label at the first free one of several places, each with its anchor; `beneath` are further lines with styles."""
        self.wanted.append(LabelRequest(words, cls, tuple(places), rank, link, tuple(beneath)))

    def put(self) -> None:
        """Write every label that was asked for."""
        for label in sorted(self.wanted, key=lambda each: each.rank):
            at, anchor = place = self._best(label)
            self.taken.append(self._box(label, place))
            frame: Any = self.sheet.link(*label.link) if label.link else nullcontext()
            with frame:
                self.sheet.text(at, label.words, label.cls, anchor, wrap=self._too_long(label))
                for index, (words, cls) in enumerate(label.beneath, 1):
                    self.sheet.text((at[0], at[1] + LINE * index), words, cls, anchor, wrap=False)
        self.wanted.clear()

    def _too_long(self, label: LabelRequest) -> bool:
        """It fits in one line nowhere, and is written in two."""
        return not label.beneath and width_of(label.words, label.cls) > self.sheet.width

    def _box(self, label: LabelRequest, place: tuple[Point, str]) -> Box:
        box = label.box(place)
        return Box(0.0, box.top, self.sheet.width, box.bottom + LINE) if self._too_long(label) else box

    def _best(self, label: LabelRequest) -> tuple[Point, str]:
        """Return the first free place of a label, otherwise a place nearby.

        A place nearby is moved onto the paper, then up or down by one or two lines.
        """
        best, cost = self._cheapest(label, label.places)
        if cost <= 0:
            return best
        onto = [self._onto_paper(label, place) for place in label.places]
        near = [((x, y + rows * LINE), anchor) for rows in (0, -1, 1, -2, 2, -3, 3) for (x, y), anchor in onto]
        return self._cheapest(label, [best, *near])[0]

    def _cheapest(self, label: LabelRequest, places: Iterable[tuple[Point, str]]) -> tuple[tuple[Point, str], int]:
        """The place that covers least, and how much, px²; the first that covers nothing ends the search."""
        found: list[tuple[tuple[Point, str], int]] = []
        for place in places:
            found.append((place, round(self._cost(self._box(label, place)))))
            if found[-1][1] <= 0:
                break
        return min(found, key=lambda each: each[1])

    def _onto_paper(self, label: LabelRequest, place: tuple[Point, str]) -> tuple[Point, str]:
        box, ((x, y), anchor) = self._box(label, place), place
        right, down = max(-box.left, 0.0), max(-box.top, 0.0)
        right = right or min(self.sheet.width - box.right, 0.0)
        down = down or min(self.sheet.height - box.bottom, 0.0)
        return (x + right, y + down), anchor

    def _cost(self, box: Box) -> float:
        """Return the area of a label that would overlap something or lie off the drawing, px²."""
        paper = Box(0, 0, self.sheet.width, self.sheet.height)
        size = (box.right - box.left) * (box.bottom - box.top)
        off = size - box.overlap(paper)
        left, top, right, bottom = box.left, box.top, box.right, box.bottom
        met = (each for each in self.taken if each.left < right and left < each.right and each.top < bottom and top < each.bottom)
        return sum(box.overlap(other) for other in met) + 4 * off
