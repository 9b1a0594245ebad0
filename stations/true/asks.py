"""What is asked at True: how the crank is held, one turn of readings at each end, then again after each move."""

from __future__ import annotations

from typing import TYPE_CHECKING

from engines.models import EngineCard
from shopmath.checks import BadInput
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.true.outer import OuterTruing
    from stations.true.rounds import Rounds
    from stations.true.station import CrankTruing

DIAL = ("dial",)
TURN = tuple(range(0, 360, 45))
TURNING = "counter-clockwise seen from the right end"
SIDES = (("left", "l"), ("right", "r"))
HELD = {
    "centres": Option("centres", "between centres", "clean, whole centre holes"),
    "seats": Option("seats", "on the main bearing seats", "vees or rollers"),
}
HELD_OF_SEVERAL = {
    "centre": Option("centre", "on its centre bearings", "vees or rollers"),
    "outer": Option("outer", "on the outer journals"),
    "centres": Option("centres", "between centres"),
}
SETUP_WORDS = {  # how a manual says where its limit is measured
    "centres": ("between centres", "centre hole", "lathe"),
    "seats": ("on the mains", "main bearing", "on its seats", "vee", "roller"),
    "centre": ("centre bearing", "centre main", "inner main"),
}
HOW = {
    "turn": Option("turn", "eight angles", "tells oval from bent"),
    "swing": Option("swing", "swing and high spot", "quicker, tells less"),
}
BOUNDS = {
    "support": (15, 600),
    "gauge": (5, 600),
    "stroke": (10, 250),
    "reading": (-5, 5),
    "rim": (15, 300),
    "phase": (-720, 720),
    "swing": (0, 5),
    "high": (-360, 720),
}
JOINT = (
    Option("plain", "plain press fit"),
    Option("compound", "retaining compound", "its cure before any run"),
    Option("weld", "welded", "not to be parted again"),
)


def asks(work: CrankTruing) -> list[Ask]:
    past = work.attempt > 1 or work.signed
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
        found += _ends(work)
    return found


def held_by(card: EngineCard) -> dict[str, Option]:
    return HELD if card.layout == EngineCard.Layout.SINGLE else HELD_OF_SEVERAL


def outer_asks(work: OuterTruing) -> list[Ask]:
    """Throw, rim and phase, then one turn at each outer shaft."""
    past = work.attempt > 1 or work.signed
    found: list[Ask] = []
    if work.refusal:
        return found
    if work.job.card.stroke_mm is None:
        found.append(Ask("stroke", "Stroke", "twice the throw; manual or measured", quiet=past, example="62", resolution=0.1))
    found.append(Ask("rim", "Rim of the outer webs", "its radius, from the shaft", quiet=past, example="60", resolution=0.5))
    if work.phase_deg is None or work.last("phase"):
        where = "from the left outer pin to the right one, counter-clockwise seen from the right end"
        found.append(Ask("phase", "Angle between the outer pins", where, "angle", "deg", quiet=past, example="180", resolution=0.5))
    if work.throw_mm and work.value("rim") and work.phase_deg is not None:
        for side, key in SIDES:
            found += _readings(work, side, key, "the left outer pin")
    return [*found, *_ends(work)] if work.shafts or work.signed else found


def _ends(work: CrankTruing | OuterTruing) -> list[Ask]:
    joint = Ask("joint", "How is the joint locked?", "", "words", "", quiet=not work.done, options=JOINT)
    return [joint, Ask("note", "Anything to remember?", "", "words", "", True, "nothing noted", quiet=not work.done)]


def _readings(work: Rounds, side: str, key: str, pin: str = "pin") -> list[Ask]:
    """One end: eight readings and back to the first, or the swing with where it is high."""
    name, times = work.job.card.side(side), work.turns
    if work.how == "swing":
        swing, high = "needle's whole travel in one turn", f"{pin} is 0°, counter-clockwise seen from the right end"
        return [
            Ask(f"{key}-swing", f"Swing on the {name}", swing, example="0.06", resolution=work.resolution, gauges=DIAL, times=times),
            Ask(f"{key}-high", f"High spot on the {name}", high, "angle", "deg", example="75", resolution=1.0),
        ]
    found = []
    for angle in TURN:
        where = f"{pin} under the gauge" if angle == 0 else f"turned on to {angle}°, {TURNING}"
        words = f"{name[:1].upper()}{name[1:]} at {angle}°"
        found.append(Ask(f"{key}-{angle}", words, where, example="0.02", resolution=work.resolution, gauges=DIAL, times=times))
    words, left = f"{name[:1].upper()}{name[1:]} back at 0°", "a slipped gauge goes unseen"
    where = "once round: it should read as it began"
    return [*found, Ask(f"{key}-360", words, where, optional=True, skip_means=left, resolution=work.resolution, gauges=DIAL)]


def check(ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    kind = ask.key.partition("-")[0]
    kind = {"l": "reading", "r": "reading"}.get(kind, kind)
    if ask.key.endswith(("-swing", "-high")):
        kind = ask.key.rpartition("-")[2]
    low, high = BOUNDS.get(kind, (float("-inf"), float("inf")))
    if not low <= value <= high:
        raise BadInput(ask.key, f"{ask.words}: {value:g} is not believable. Check the unit and measure again.")
