"""SVG drawings on the server: a sheet with lines, hatching and dimensions.

Styles come from classes only.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from functools import lru_cache
from html import escape

from django.utils.safestring import SafeString, mark_safe

Point = tuple[float, float]

SIZES = {"big": 25.0, "huge": 56.0, "reading-label": 16.0, "quiet": 14.0, "tick": 14.0, "note": 20.0}  # of letters, px
EM, MONO_EM = 0.53, 0.61  # mean width of a letter, of its size
OVER = 1.04  # of its estimated width a line must have: a narrow desk draws its letters larger


@lru_cache(256)
def size_of(cls: str) -> float:
    """Return how large the letters of a label are."""
    return next((SIZES[name] for name in cls.split() if name in SIZES), 15.0)


def width_of(words: str, cls: str) -> float:
    """About how wide a label is."""
    return len(words) * size_of(cls) * (MONO_EM if "reading-label" in cls else EM)


def _n(value: float) -> str:
    return f"{value:.1f}"


_escaped = lru_cache(1024)(escape)  # looks, mostly: the same few all over a drawing


@lru_cache(64)
def _attribute(name: str) -> str:
    """The name of an attribute as it is written in a call: `text_anchor`, `class_`."""
    return name.rstrip("_").replace("_", "-")


def _points(points: Iterable[Point]) -> str:
    return " ".join(f"{_n(x)},{_n(y)}" for x, y in points)


class Sheet:
    """A drawing in the making. Coordinates in px of its own view box, y down."""

    def __init__(self, width: float, height: float, title: str, description: str, name: str = "drawing") -> None:
        self.width, self.height, self.name = width, height, name
        self.title, self.description = title, description
        self._parts: list[str] = []
        self._links = False
        self._defs: dict[str, str] = {}

    def add(self, tag: str, text: str | None = None, **attributes: object) -> None:
        named = "".join(
            [
                f' {_attribute(name)}="{_n(value) if isinstance(value, float) else _escaped(str(value))}"'
                for name, value in attributes.items()
                if value is not None and value != ""
            ]
        )
        self._parts.append(f"<{tag}{named}/>" if text is None else f"<{tag}{named}>{escape(text)}</{tag}>")

    def line(self, a: Point, b: Point, cls: str) -> None:
        looks = f' class="{_escaped(cls)}"' if cls else ""
        self._parts.append(f'<line x1="{_n(a[0])}" y1="{_n(a[1])}" x2="{_n(b[0])}" y2="{_n(b[1])}"{looks}/>')

    def shape(self, points: Iterable[Point], cls: str) -> None:
        self.add("polygon", points=_points(points), class_=cls)

    def trace(self, points: Iterable[Point], cls: str) -> None:
        self.add("polyline", points=_points(points), class_=cls)

    def rect(self, x: float, y: float, width: float, height: float, cls: str) -> None:
        self.add("rect", x=float(x), y=float(y), width=float(max(width, 0)), height=float(max(height, 0)), class_=cls)

    def circle(self, centre: Point, radius: float, cls: str) -> None:
        self.add("circle", cx=float(centre[0]), cy=float(centre[1]), r=float(radius), class_=cls)

    def text(self, at: Point, words: str, cls: str = "", anchor: str = "start", *, wrap: bool = True) -> float:
        """Draw text, in two or more lines if it would run off the drawing; return how much lower the last line is than the first."""
        words = words.replace("-", "−") if words[:1] == "-" else words
        (x, y), lines = at, self._lines(at[0], words, cls, anchor) if wrap else [words]
        lead = 1.2 * size_of(cls)
        top = min(y, max(self.height - 4 - lead * (len(lines) - 1), 0)) if len(lines) > 1 else y
        for number, line in enumerate(lines):
            self.add("text", line, x=float(x), y=float(top + number * lead), class_=f"label {cls}".strip(), text_anchor=anchor)
        return lead * (len(lines) - 1)

    def _lines(self, x: float, words: str, cls: str, anchor: str) -> list[str]:
        room = {"start": self.width - x, "middle": 2 * min(x, self.width - x), "end": x}[anchor]
        if "move" in cls.split() or room < 40 or OVER * width_of(words, cls) <= room:
            return [words]
        return wrapped(words, max(8, int(room / (width_of(words, cls) / len(words)))))

    def hatched(self, points: list[Point], cls: str, step: float = 9.0, rising: bool = True) -> None:
        """A cut face: outline filled with 45° lines. `cls` names the ink: `hot`, `cold`, `plain`."""
        name = f"{self.name}-{cls}-{step:.0f}-{'up' if rising else 'down'}"
        turn = 45 if rising else -45
        self._defs[name] = (
            f'<pattern id="{name}" width="{step:.0f}" height="{step:.0f}" patternUnits="userSpaceOnUse" patternTransform="rotate({turn})">'
            f'<line x1="0" y1="0" x2="0" y2="{step:.0f}" class="hatch {cls}"/></pattern>'
        )
        self.add("polygon", points=_points(points), class_=f"cut {cls}", fill=f"url(#{name})")

    def arrow(self, tip: Point, tail: Point, cls: str, head: float = 8.0) -> None:
        """A line with a filled head at its tip."""
        dx, dy = tip[0] - tail[0], tip[1] - tail[1]
        length = math.hypot(dx, dy) or 1.0
        ux, uy = dx / length, dy / length
        back = (tip[0] - ux * head, tip[1] - uy * head)
        self.line(tail, back, cls)
        wing = head * 0.4
        self.shape([tip, (back[0] - uy * wing, back[1] + ux * wing), (back[0] + uy * wing, back[1] - ux * wing)], f"{cls} solid")

    def dimension(self, a: Point, b: Point, words: str, cls: str = "dim") -> None:
        """A horizontal dimension between two points with its words in the gap."""
        middle, half = (a[0] + b[0]) / 2, 4.6 * len(words) + 8
        if b[0] - a[0] > 2 * half + 30:
            self.arrow(a, (middle - half, a[1]), cls)
            self.arrow(b, (middle + half, b[1]), cls)
            self.text((middle, a[1] + 5), words, "reading-label", "middle")
        else:
            self.arrow(a, (a[0] - 30, a[1]), cls)
            self.arrow(b, (b[0] + 30, b[1]), cls)
            self.text((b[0] + 36, a[1] + 5), words, "reading-label")

    @contextmanager
    def turned(self, name: str, degrees: float, about: Point) -> Iterator[None]:
        """Rotate what is drawn inside clockwise about a point; the page may rotate it further, by its name."""
        around = f"{_n(about[0])} {_n(about[1])}"
        self._parts.append(f'<g data-turns="{escape(name)}" transform="rotate({_n(degrees % 360)} {around})">')
        yield
        self._parts.append("</g>")

    @contextmanager
    def link(self, href: str, label: str, target: str = "#work") -> Iterator[None]:
        """Make what is drawn inside a link, which swaps the working screen or leads to another page."""
        more = f'hx-get="{escape(href)}" hx-target="{target}" hx-swap="morph:outerHTML"' if target else ""
        self._links = True
        self._parts.append(f'<a href="{escape(href)}" class="spot" aria-label="{escape(label)}" {more}>')
        yield
        self._parts.append("</a>")

    def render(self) -> SafeString:
        name = self.name
        role = "group" if self._links else "img"  # an image hides what is inside it, links too
        head = (
            f'<svg viewBox="0 0 {_n(self.width)} {_n(self.height)}" role="{role}" aria-labelledby="{name}-t {name}-d" class="sheet">'
            f'<title id="{name}-t">{escape(self.title)}</title><desc id="{name}-d">{escape(self.description)}</desc>'
        )
        defs = f"<defs>{''.join(self._defs.values())}</defs>" if self._defs else ""
        return mark_safe(head + defs + "".join(self._parts) + "</svg>")  # noqa: S308  every part was escaped on its way in


def bar(a: float, b: float, top: float, bottom: float) -> list[Point]:
    """An upright rectangle between two x, whichever is the left one."""
    return [(a, top), (b, top), (b, bottom), (a, bottom)]


def papers(sheets: dict[str, SafeString]) -> SafeString:
    """A drawing in the sizes a device may need; the theme shows the one that fits."""
    return mark_safe("".join(f'<div class="{name}">{sheet}</div>' for name, sheet in sheets.items()))  # noqa: S308  rendered sheets


PAPERS = {"wide": 760.0, "narrow": 430.0}  # width of the drawing on each


def on_papers(names: Iterable[str], sheet: Callable[[str, float], SafeString]) -> SafeString:
    """A drawing made for each paper a device may need, by its name and width."""
    return papers({name: sheet(name, PAPERS[name]) for name in names})


def wrapped(text: str, letters: int) -> list[str]:
    """Return words in lines of at most so many letters; a longer word has a line of its own."""
    lines, line = [], ""
    for word in text.split():
        if line and len(line) + 1 + len(word) > letters:
            lines.append(line)
            line = word
        else:
            line = f"{line} {word}".strip()
    return [*lines, line] if line else lines
