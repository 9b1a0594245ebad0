"""What is asked at True: how the crank is held, one turn of readings at each end, then again after each move."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shopmath.checks import BadInput
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.true.station import CrankTruing

TURN = tuple(range(0, 360, 45))
TURNING = "counter-clockwise seen from the right end"
SIDES = (("left", "l"), ("right", "r"))
HELD = {
    "centres": Option("centres", "between centres", "clean, whole centre holes"),
    "seats": Option("seats", "on the main bearing seats", "vees or rollers"),
}
HOW = {
    "turn": Option("turn", "eight angles", "tells oval from bent"),
    "swing": Option("swing", "swing and high spot", "quicker, tells less"),
}
BOUNDS = {"support": (15, 600), "gauge": (5, 600), "stroke": (10, 250), "reading": (-5, 5), "swing": (0, 5), "high": (-360, 720)}
JOINT = (
    Option("plain", "plain press fit"),
    Option("compound", "retaining compound", "its cure before any run"),
    Option("weld", "welded", "not to be parted again"),
)


def asks(work: CrankTruing) -> list[Ask]:
    past = work.heat > 1 or work.signed
    found: list[Ask] = []
    for side, _ in SIDES:
        name = work.job.card.side(side)
        where = "from the middle of the pin, along the crank"
        found.append(Ask(f"support-{side}", f"Support on the {name}", where, quiet=past, example="92", resolution=1.0))
        found.append(Ask(f"gauge-{side}", f"Gauge on the {name}", f"{where}; not on the support", quiet=past, example="34", resolution=1.0))
    if work.job.card.stroke_mm is None:
        found.append(Ask("stroke", "Stroke", "twice the throw; manual or measured", quiet=past, example="58", resolution=0.1))
    if work.geometry is not None:
        for side, key in SIDES:
            found += _readings(work, side, key)
    if work.mis is not None or work.signed:
        found.append(Ask("joint", "How is the joint locked?", "", "words", "", quiet=not work.done, options=JOINT))
        found.append(Ask("note", "Anything to remember?", "", "words", "", True, "nothing noted", quiet=not work.done))
    return found


def _readings(work: CrankTruing, side: str, key: str) -> list[Ask]:
    """One end: eight readings, or the swing with where it is high."""
    name = work.job.card.side(side)
    if work.how == "swing":
        return [
            Ask(f"{key}-swing", f"Swing on the {name}", "needle's whole travel in one turn", example="0.06", resolution=work.resolution),
            Ask(
                f"{key}-high",
                f"High spot on the {name}",
                "pin is 0°, counter-clockwise seen from the right end",
                "angle",
                "deg",
                example="75",
                resolution=1.0,
            ),
        ]
    return [
        Ask(
            f"{key}-{angle}",
            f"{name[:1].upper()}{name[1:]} at {angle}°",
            "pin under the gauge" if angle == 0 else f"turned on to {angle}°, {TURNING}",
            example="0.02",
            resolution=work.resolution,
        )
        for angle in TURN
    ]


def check(ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    kind = ask.key.partition("-")[0]
    kind = {"l": "reading", "r": "reading"}.get(kind, kind)
    if ask.key.endswith(("-swing", "-high")):
        kind = ask.key.rpartition("-")[2]
    low, high = BOUNDS.get(kind, (float("-inf"), float("inf")))
    if not low <= value <= high:
        raise BadInput(ask.key, f"{ask.words}: {value:g} is not believable. Check the unit and measure again.")
