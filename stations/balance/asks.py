"""What is asked of a wheel: touch it at all? its stops, the trial mass, where it may be drilled, each hole as it was made."""

from __future__ import annotations

import re
from typing import TYPE_CHECKING, Any

from shopmath.checks import BadInput
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.balance.station import Balance

SHOOK = (Option("yes", "yes, it shook"), Option("no", "no, it ran smooth"), Option("unknown", "nobody knows"))
SOUND = (
    Option("sound", "sound all over"),
    Option("cracked", "a crack, or it rang dull"),
    Option("repaired", "welded, mended, a magnet glued"),
)
ARC = re.compile(r"^\s*(-?\d+(?:[.]\d+)?)\s*(?:-|to|…)\s*(-?\d+(?:[.]\d+)?)\s*$")


def arcs(text: str) -> tuple[tuple[float, float], ...]:
    """Arcs to keep out of, as typed: 350-20, 90 to 110."""
    found = []
    for part in filter(str.strip, text.split(",")):
        match = ARC.match(part)
        if not match:
            raise BadInput("keepout", f"{part.strip()!r} is no arc. Type from-to in degrees, commas between: 350-20, 90-110.")
        found.append((float(match[1]) % 360, float(match[2]) % 360))
    return tuple(found)


def drills(text: str) -> list[float]:
    """Drills at hand, as typed: 4 6 8."""
    try:
        found = sorted({float(part) for part in text.replace(",", " ").split()})
    except ValueError:
        found = []
    if not found or not 1 <= found[0] <= found[-1] <= 25:
        raise BadInput("drills", f"{text.strip()!r}: type the drills in mm, spaces between, such as 4 6 8; from 1 to 25.")
    return found


def asks(work: Balance) -> list[Ask]:
    """All asks of the moment; those of steps gone by stay, but are not asked in turn."""
    first = work.attempt == 1
    found = [
        Ask("shook", "Did it shake the engine?", "before, in its own mounts", "words", "", options=SHOOK, quiet=not first),
        Ask("sound", "Looked over and rung, the wheel is", "hub, rivets, magnets, rim", "words", "", options=SOUND, quiet=not first),
    ]
    if not work.to_touch:
        return found
    found += _wheel(work, first)
    rolling = work.phase == "roll"
    turn = f"roll {len(work.marks) + 1}: the mark at the bottom when it stops"
    found.append(
        Ask(
            "stop",
            "It stops at",
            turn,
            "angle",
            "deg",
            repeats=True,
            quiet=not rolling,
            resolution=1.0,
            example="190",
            gauges=("stand",),
        )
    )
    if work.marks_tell:
        found += _trial(work)
    if work.amount:
        found += _drilling(work, first)
        found += [_hole(work, index) for index in range(len(work.plan.holes))] if work.plan else []
    if work.signed or work.phase == "done":
        found.append(Ask("note", "Anything to remember?", "for the next one", "words", "", True, "nothing noted"))
    return found


def _wheel(work: Balance, first: bool) -> list[Ask]:
    card = work.job.card
    found = []
    if not card.wheel_kg:
        found.append(
            Ask("mass", "The wheel weighs", "with what turns on it", "mass", "kg", quiet=not first, resolution=0.01, example="1.9")
        )
    if not card.wheel_rpm:
        found.append(Ask("rpm", "Its highest working speed", "", "speed", "rpm", quiet=not first, resolution=10, example="8500"))
    found.append(Ask("rim", "Across the rim", "calliper", quiet=not first, resolution=0.1, example="170", gauges=("calliper",)))
    return found


def _trial(work: Balance) -> list[Ask]:
    opposite = f"at {(work.heavy_deg + 180) % 360:.0f}°, opposite the heavy spot"
    return [
        Ask("arm", "Trial mass sits at a radius of", opposite, resolution=0.5, example="80", quiet=work.attempt > 1),
        Ask("stays", "Mass at which it stays anywhere", "putty, weighed: the least that does", "mass", "g", resolution=0.1, example="1.2"),
        Ask("turns", "Mass at which it turns the other way", "the least that does", "mass", "g", resolution=0.1, example="1.6"),
    ]


def _drilling(work: Balance, first: bool) -> list[Ask]:
    later: dict[str, Any] = {"quiet": not first}
    arcs_words = "magnets, rivets, vanes, marks: from-to in °"
    return [
        Ask("radius", "It may be drilled at a radius of", "the thick of the rim", resolution=0.5, example="80", **later),
        Ask("finish", "And for the last small hole, at", "nearer the centre", optional=True, skip_means="the same", example="45", **later),
        Ask("thick", "Metal there is", "rim's depth where the drill goes", resolution=0.1, example="16", **later),
        Ask("keepout", "Keep out of", arcs_words, "words", "", True, "nothing", example="350-20", **later),
        Ask("drills", "Drills at hand", "mm, spaces between", "words", "", True, "4 6 8", example="4 6 8", **later),
    ]


def _hole(work: Balance, index: int) -> Ask:
    assert work.plan is not None
    hole = work.plan.holes[index]
    words = f"Hole {index + 1}: {hole.diameter_mm:g} mm at {hole.angle_deg:.0f}°"
    where = f"{hole.radius_mm:g} mm out, {hole.depth_mm:.1f} deep to the shoulder of the point; depth as made"
    return Ask(f"d{index + 1}", words, where, resolution=0.1, example=f"{hole.depth_mm:.1f}", gauges=("calliper",))


BOUNDS = {
    "mass": (0.05, 200),
    "rpm": (100, 30000),
    "rim": (30, 1000),
    "arm": (5, 500),
    "stays": (0, 5),
    "turns": (0, 5),
    "radius": (5, 500),
    "finish": (5, 500),
    "thick": (2, 200),
}


def check(work: Balance, ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    low, high = BOUNDS.get(ask.key, (-360, 720) if ask.key == "stop" else (0, 200))
    if not low <= value <= high:
        raise BadInput(ask.key, f"{ask.words}: {value:g} is not believable. Check the unit and measure again.")
    stays = work.value("stays")
    if ask.key == "turns" and stays is not None and value < stays:
        raise BadInput(ask.key, f"It turns the other way with more than keeps it still ({1000 * stays:g} g).")
    rim = work.every("rim")
    if ask.key in ("radius", "finish", "arm") and rim and value > rim / 2:
        raise BadInput(ask.key, f"{value:g} mm lies outside the rim, which is {rim:g} mm across.")
    if ask.key.startswith("d") and ask.key[1:].isdecimal() and work.wall_at(int(ask.key[1:]) - 1, value) < 0:
        raise BadInput(ask.key, f"{value:g} mm deep comes through: the metal is {work.every('thick'):g} mm. Measure again.")
