"""Codes, phases, fact keys, arcs and drill sizes of Balance flywheel."""

from __future__ import annotations

import re
from enum import StrEnum

from shopmath.validation import BadInput, gettext_noop
from stator.engines.fact_keys import FactKey, Location
from stator.engines.parts import FLYWHEEL
from stator.engines.properties import Property

GRADES = ("6.3", "2.5", "16")
METALS = ("c45", "gjl-250", "gjs-500-7", "al-si9-cu3")
FEWEST_STOPS, ENOUGH_STOPS = 4, 8
WALL_MM = 3.0  # left under a drill's tip, shop rule
MOST_REMOVED = 0.02  # of the wheel's mass, shop rule
USUAL_DRILLS = "4 6 8"
ARC = re.compile(r"^\s*(-?\d+(?:[.]\d+)?)\s*(?:-|to|…)\s*(-?\d+(?:[.]\d+)?)\s*$")
REFUSED = ("cracked", "repaired")  # wheels that are never balanced here
DRILLED, ADDED, ROLLED = "drilled", "added", "rolled"  # what hands did in a go that is over: holes, masses, and what was heavy
MOST_STOPS = 10  # that a go is planned for: what tells is corrected for looking after each
STEP_KG = 0.0001  # in which the turning mass is added, where nobody says


class Code(StrEnum):
    """Codes of the verdicts of Balance flywheel."""

    CRACKED = "cracked"
    REPAIRED = "repaired"
    TOO_FAST = "too fast"
    LEAVE = "leave"
    TOUCH_IT = "touch it"
    FIGURES = "figures"
    ROLL = "roll"
    HEAVY_THERE = "heavy there"
    SCATTERED = "scattered"
    HOW_MUCH = "how much"
    NOWHERE = "nowhere"
    TOO_HEAVY = "too heavy"
    ENOUGH_OFF = "enough off"
    THIN = "thin"
    PAST = "past"
    DRILL = "drill"
    ADD = "add"
    CHECK = "check"
    PROVE = "prove"
    BY_ITSELF = "by itself"
    UNPROVED = "unproved"
    BALANCED = "balanced"


class Phase(StrEnum):
    """Phases of balancing a flywheel."""

    ASK = "ask"
    ROLL = "roll"
    WEIGH = "weigh"
    DRILL = "drill"
    ADD = "add"
    PROVE = "prove"
    UNPROVED = "unproved"
    DONE = "done"


def at(what: Property, angle: float | None = None) -> FactKey:
    return FactKey(FLYWHEEL, what, Location(angle_deg=angle))


def hole(number: int) -> FactKey:
    """Return the key of the depth of a hole, counted from 1."""
    return FactKey(FLYWHEEL, Property.HOLE_DEPTH, Location(stage=number))


def turning(mark_deg: float) -> FactKey:
    """Return the key of the lowest mass that turns it with a mark level."""
    return at(Property.TURNING_MASS, mark_deg)


def arcs(text: str) -> tuple[tuple[float, float], ...]:
    """Arcs to keep out of, as typed: 350-20, 90 to 110."""
    found = []
    for part in filter(str.strip, text.split(",")):
        match = ARC.match(part)
        if not match:
            sentence = gettext_noop("{arc!r} is no arc. Type from-to in degrees, commas between: 350-20, 90-110.")
            raise BadInput("keep-out", sentence, "no_arc", arc=part.strip())
        found.append((float(match[1]) % 360, float(match[2]) % 360))
    return tuple(found)


def drills(text: str) -> list[float]:
    """Drills available, as typed: 4 6 8."""
    try:
        found = sorted({float(part) for part in text.replace(",", " ").split()})
    except ValueError:
        found = []
    if not found or not 1 <= found[0] <= found[-1] <= 25:
        sentence = gettext_noop("{drills!r}: type the drills in mm, spaces between, such as 4 6 8; from 1 to 25.")
        raise BadInput("drills", sentence, "no_drills", drills=text.strip())
    return found
