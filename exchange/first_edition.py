"""What files of earlier versions leave to be guessed: what turns in a seat, what a figure limits. Only their reader needs this."""

from __future__ import annotations

import re

from engines.models import Seat
from engines.properties import LIMITS, Property

_ROLES = (  # the first that fits
    (r"main\s*-?shaft|lay\s*shaft|gear|input|output|selector|clutch|sprocket|counter\s*shaft|primary", Seat.Role.GEARBOX),
    (r"\bcam", Seat.Role.CAM),
    (r"\bmains?\b|crank", Seat.Role.MAIN),
)
_LIMITS: tuple[tuple[str, Property | None], ...] = (
    (r"big[ -]?end.*(side|axial|float|end play)", Property.BIG_END_SIDE_PLAY),
    (r"big[ -]?end.*(radial|play|clearance)|radial play", Property.BIG_END_RADIAL_PLAY),
    (r"side play", Property.BIG_END_SIDE_PLAY),
    (r"(rod|small|piston|cam|gear|shaft).*float", None),
    (r"end float|end play|axial play of the crank", Property.END_FLOAT),
    (r"small[ -]?end", Property.SMALL_END_BORE),
    (r"width over|crank width", Property.WIDTH_OVER_WEBS),
    (r"(pin).*interference|interference.*(pin)", Property.PIN_INTERFERENCE),
    (r"(rim|flywheel|rotor).*run[ -]?out|run[ -]?out.*(rim|flywheel|rotor)", Property.RIM_RUNOUT),
    (r"run[ -]?out", Property.CRANK_RUNOUT),
    (r"centring|centred|off centre", Property.CENTRING),
    (r"leak", Property.LEAK),
    (r"air gap", Property.AIR_GAP),
)


def role_of(name: str) -> str:
    """What turns in a seat of this name, as far as it tells."""
    return next((role for pattern, role in _ROLES if re.search(pattern, name.lower())), Seat.Role.OTHER)


def limits_of(name: str, taken: set[str]) -> str:
    """What a figure of this name limits; empty when the name does not tell, or another limits that already."""
    found = next((limited for pattern, limited in _LIMITS if re.search(pattern, name.lower())), None)
    return found.value if found and found in LIMITS and found.value not in taken else ""
