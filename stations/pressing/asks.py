"""What is asked of a press joint: its sizes, measured or usual; how warm; the peak."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shopmath.checks import BadInput
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.pressing.work import PressWork

COMPOUND = (
    Option("", "none"),
    Option("medium", "medium strength"),
    Option("high", "high strength"),
    Option("high temperature", "high, for heat"),
)
CONDITION = (Option("dry", "dry and clean"), Option("oiled", "oiled"))
JOINT = (Option("plain", "plain pin"), Option("taper", "taper", "lets go all at once"))
HEAT = (Option("cold", "cold"), Option("warm", "web warmed", "pin stays cooler"))
SCRAP = (Option("keep", "to be used again"), Option("scrap", "scrap already"))
YES = (Option("yes", "yes"), Option("no", "no"))
BOUNDS = {
    "d": (6, 90),
    "pin": (6, 90),
    "hole": (6, 90),
    "length": (4, 120),
    "wall": (2, 80),
    "web": (12, 300),
    "bore": (0, 60),
    "ratio": (4, 40),
    "web_c": (-60, 500),
    "pin_c": (-60, 500),
    "peak": (0, 2_000_000),
    "width": (5, 400),
    "side": (0, 5),
}


def sizes(work: PressWork, measured: bool, quiet: bool) -> list[Ask]:
    """Pin and hole as measured, or the pin alone where nothing can be got at."""
    found = []
    if measured:
        found += [
            Ask("pin", "Pin, across", "where it sits in the web", example="22.063", resolution=0.001, quiet=quiet, gauges=("micrometer",)),
            Ask("hole", "Hole in the web", "two depths, the smaller", example="22.000", resolution=0.001, quiet=quiet, gauges=("bore",)),
        ]
    else:
        where = "where it shows between the webs"
        found.append(Ask("d", "Pin, across", where, example="22", resolution=0.01, quiet=quiet, gauges=("calliper",)))
    end = {"quiet": quiet, "gauges": ("calliper",), "resolution": 0.1}
    found += [
        Ask("length", "Length of the pin in the web", "thickness of the web there", example="16", **end),  # type: ignore[arg-type]
        Ask("wall", "Thinnest wall round the hole", "to the nearest edge of the web", example="10", **end),  # type: ignore[arg-type]
        Ask("web", "Width of the web there", "right across, through the hole", example="80", **end),  # type: ignore[arg-type]
        Ask("bore", "Hole through the pin", "oil way", optional=True, skip_means="taken as solid", example="8", **end),  # type: ignore[arg-type]
    ]
    if work.chosen("joint") == "taper":
        found.append(Ask("ratio", "Taper, 1 in", "drawing, or two diameters", "count", "", quiet=quiet, example="10"))
    if work.chosen("warmth") == "warm":
        found += [
            Ask("web_c", "Web will reach", "at the joint itself", "temperature", "C", quiet=quiet, example="150", resolution=1.0),
            Ask("pin_c", "Pin will reach", "it warms too, unless cooled", "temperature", "C", quiet=quiet, example="60", resolution=1.0),
        ]
    return found


def check(ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    low, high = BOUNDS.get(ask.key.partition("-")[0], (float("-inf"), float("inf")))
    if not low <= value <= high:
        raise BadInput(ask.key, f"{ask.words}: {value:g} is not believable. Check the unit and measure again.")
