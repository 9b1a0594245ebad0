"""Drawings for files: styles written as presentation attributes, without links and scripts.

The theme's rules for drawings are resolved with the light palette, so that the drawing can be used in a file, in a PDF and in an <img>.
Drawings of other origin are checked against the same list of allowed content.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from xml.etree import ElementTree as Tree

from django.utils.safestring import SafeString, mark_safe
from django.utils.translation import gettext as _

from shopmath.validation import BadInput

THEME = Path(__file__).resolve().parent / "theme"
SVG = "http://www.w3.org/2000/svg"
LOOKS = {  # of the theme, what an SVG knows as attributes
    *("fill", "stroke", "stroke-width", "stroke-dasharray", "stroke-linejoin", "paint-order", "opacity"),
    *("font-family", "font-size", "font-weight", "font-stretch"),
}
SHAPES = {
    "svg": {"viewBox", "width", "height", "xmlns"},
    "g": set(),
    "defs": set(),
    "title": {"id"},
    "desc": {"id"},
    "pattern": {"id", "width", "height", "patternUnits", "patternTransform"},
    "line": {"x1", "y1", "x2", "y2"},
    "polyline": {"points"},
    "polygon": {"points"},
    "rect": {"x", "y", "width", "height"},
    "circle": {"cx", "cy", "r"},
    "path": {"d"},
    "text": {"x", "y", "text-anchor"},
    "image": {"x", "y", "width", "height", "preserveAspectRatio", "href"},
}
PLAIN = re.compile(r"^[^<>\\]{0,200000}$")
OWN_PATTERN = re.compile(r"^url\(#[\w-]{1,80}\)$")
PICTURE = re.compile(r"^data:image/jpeg;base64,[A-Za-z0-9+/=]+$")
LARGEST = 2_000_000
PAPER = "#f3efe4"
FAMILY = {"Archivo": "Archivo, sans-serif", "Sometype Mono": "Sometype Mono, monospace"}


@dataclass(frozen=True)
class Rule:
    """One rule of the theme: for which element, with which classes, and what it says."""

    tag: str
    classes: frozenset[str]
    looks: tuple[tuple[str, str], ...]

    def fits(self, tag: str, classes: set[str]) -> bool:
        return (not self.tag or self.tag == tag) and self.classes <= classes


@cache
def rules() -> list[Rule]:
    """The theme's rules for drawings, weakest first, with the light palette set in."""
    light = dict(re.findall(r"(--[\w-]+):\s*([^;]+);", (THEME / "tokens.css").read_text().split("@media")[0]))
    css = re.sub(r"/\*.*?\*/", "", (THEME / "drawing.css").read_text(), flags=re.DOTALL)
    css = re.sub(r"var\((--[\w-]+)\)", lambda found: light.get(found[1], "#000").split(",")[0].strip("\"' "), css)
    found = []
    for selectors, body in re.findall(r"([^{}]+)\{([^}]*)\}", css):
        looks = tuple(
            (name, value.strip().removesuffix("px")) for name, value in re.findall(r"([\w-]+):\s*([^;]+);?", body) if name in LOOKS
        )
        for selector in selectors.split(","):
            last = selector.split()[-1]
            if ":" in last or not selector.strip().startswith(".sheet") or not looks:
                continue
            tag, *classes = last.split(".")
            found.append(Rule(tag, frozenset(classes) - {"sheet"} if last != ".sheet" else frozenset({"sheet"}), looks))
    return sorted(found, key=lambda rule: (len(rule.classes), bool(rule.tag)))


def _name(element: Tree.Element) -> str:
    return str(element.tag).rpartition("}")[2]


def _inked(element: Tree.Element, theme: list[Rule]) -> Tree.Element | None:
    """An element with its looks as attributes; None for what a drawing does not hold."""
    name = _name(element)
    allowed = SHAPES.get(name)
    if allowed is None:
        return None
    classes = set(element.get("class", "").split())
    made = Tree.Element(f"{{{SVG}}}{name}")
    for key, value in element.attrib.items():
        key = "href" if key.endswith("}href") else key
        if key in allowed | LOOKS and PLAIN.match(value) and _harmless(key, value):
            made.set(key, value)
    for rule in theme:
        if rule.fits(name, classes):
            for key, value in rule.looks:
                if not (key == "fill" and made.get("fill", "").startswith("url(")):
                    made.set(key, FAMILY.get(value.split(",")[0].strip("\"'"), value))
    if name in ("text", "title", "desc"):
        made.text = element.text
    for child in element:
        for each in [child] if _name(child) != "a" else list(child):  # what could be tapped is only looked at here
            saved = _inked(each, theme)
            if saved is not None:
                made.append(saved)
    return made


def _harmless(key: str, value: str) -> bool:
    if key == "href":
        return bool(PICTURE.match(value))
    return "url(" not in value.lower() or bool(OWN_PATTERN.match(value))


def standalone_svg(svg: str) -> str:
    """Return a drawing of a page as a file.

    Raises
    ------
    BadInput
        If it is not a drawing.
    """
    found = re.search(r"<svg\b.*?</svg>", svg, re.DOTALL)
    if not found or len(svg) > LARGEST or "<!" in svg or "<?" in found[0]:
        raise BadInput("drawing", _("That is no drawing."), "no_drawing")
    try:
        root = Tree.fromstring(found[0])  # noqa: S314  neither a document type nor entities get this far
    except Tree.ParseError as error:
        raise BadInput("drawing", _("That is no drawing."), "no_drawing") from error
    on_a_page = "sheet" in root.get("class", "").split()  # one that is inked already keeps its looks
    made = _inked(root, rules() if on_a_page else [])
    assert made is not None
    wide, high = (made.get("viewBox", "0 0 760 560").split() + ["560"] * 4)[2:4]
    made.set("width", wide)
    made.set("height", high)
    if on_a_page:
        paper = Tree.Element(f"{{{SVG}}}rect", {"width": "100%", "height": "100%", "fill": PAPER})
        made.insert(sum(_name(child) in ("title", "desc", "defs") for child in made), paper)
    Tree.register_namespace("", SVG)
    return Tree.tostring(made, encoding="unicode")


def in_page(svg: str, name: str) -> SafeString:
    """Return a drawing of this shop as part of a page, with identities that differ from those of other drawings there."""
    named = re.sub(r'\bid="(?:wide|narrow)', f'id="{name}', svg)
    named = re.sub(r"url\(#(?:wide|narrow)", f"url(#{name}", named)
    return mark_safe(named.replace("<svg ", '<svg role="img" class="recorded" ', 1))  # noqa: S308  it has passed the list of what a drawing holds
