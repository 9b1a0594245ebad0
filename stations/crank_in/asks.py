"""What is asked at Crank in: the end's thread, how far, then turns and torque in turn, then both gaps."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shopmath.checks import BadInput
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.crank_in.station import CrankIn

SCHOOL = (
    Option("pull", "pulled in", "screw tool, through the inner ring"),
    Option("drop", "dropped in", "bearing hot"),
    Option("webs", "pressed through the webs"),
    Option("hammer", "tapped in"),
    Option("impact", "with an impact wrench"),
)
PULL = "Pull it in by the inner ring, or drop it into a hot bearing."
REFUSED = {
    "webs": ("A force through the webs pinches them: the crank is out of true and the rod may bind.", PULL),
    "hammer": ("A blow on the end twists the webs about the pin and dents the balls it goes through.", PULL),
    "impact": (
        "An impact wrench hides the torque that says stop, and strips the end's thread.",
        "By hand, with a wrench you can feel.",
    ),
}
BOUNDS = {
    "thread_d": (4, 60),
    "thread_pitch": (0.35, 4),
    "travel": (1, 200),
    "hand": (0, 60),
    "turns": (0, 200),
    "torque": (0, 400),
    "gap": (0, 10),
}


def asks(work: CrankIn) -> list[Ask]:
    if work.school in REFUSED:
        return []
    found = _pull(work) if work.school == "pull" else []
    if work.school == "drop" or work.home:
        for side in ("left", "right"):
            words = f"Gap on the {work.job.card.side(side)}"
            found.append(
                Ask(f"gap-{side}", words, "web to bearing, blades that just go", example="0.30", resolution=0.01, gauges=("feeler",))
            )
    return found


def _pull(work: CrankIn) -> list[Ask]:
    past = work.begun or work.signed
    found = [
        Ask("thread_d", "Thread on the crank's end", "over the crests", quiet=past, example="12", resolution=0.01, gauges=("calliper",)),
        Ask("thread_pitch", "Its pitch", "leaf gauge", "thread_pitch", "mm", quiet=past, example="1.25", resolution=0.01),
        Ask("hand", "Adapter in by hand", "whole turns, no wrench", "count", "", quiet=past, example="8", resolution=1.0),
        Ask("travel", "How far it has to go", "shoulder to ring", quiet=past, example="18", resolution=0.1, gauges=("calliper",)),
    ]
    if not past or work.home:
        return found
    turned, felt = len(work.values("turns")), len(work.values("torque"))
    to_go = f"{work.wanted_turns:.1f} in all" if work.wanted_turns else "from the first resistance"
    even = turned <= felt  # turns first, then what the wrench felt after them
    turns = Ask("turns", "Turns done in all", to_go, "count", "", quiet=not even, times=turned + 1, example="2", resolution=1.0)
    now = "as it is now"
    torque = Ask("torque", "Torque on the screw", now, "torque", "Nm", quiet=even, times=felt + 1, example="6", resolution=1.0)
    return [*found, turns, torque]


def check(ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    low, high = BOUNDS.get(ask.key.partition("-")[0], (float("-inf"), float("inf")))
    if not low <= value <= high:
        raise BadInput(ask.key, f"{ask.words}: {value:g} is not believable. Check the unit and measure again.")
