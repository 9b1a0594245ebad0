"""The meaning of a limit in a CSV file without a column for it: the limited property, and the support of the crank."""

from __future__ import annotations

import re

from stator.engines.models import Spec
from stator.engines.properties import LIMITS, Property

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


_SETUPS = (  # words that a manual uses for the setup of a runout measurement; the first match counts
    (Spec.Held.CENTRE.value, ("centre bearing", "centre main", "inner main")),
    (Spec.Held.CENTRES.value, ("between centres", "centre hole", "lathe")),
    (Spec.Held.SEATS.value, ("on the mains", "main bearing", "on its seats", "vee", "roller")),
)


def held_for(setup: str) -> str:
    """Return how the crank is supported for a measurement as described.

    It is empty if the description does not state it.
    """
    words_of_setup = setup.lower()
    return next((held for held, words in _SETUPS if any(word in words_of_setup for word in words)), "")


def limits_of(name: str, taken: set[str]) -> str:
    """Return the property that a limit of this name applies to; empty if unknown or limited already."""
    found = next((limited for pattern, limited in _LIMITS if re.search(pattern, name.lower())), None)
    return found.value if found and found in LIMITS and found.value not in taken else ""
