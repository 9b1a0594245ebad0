"""Sealing of a case joint: resistance, gap, open time, and compatibility of kinds of sealant."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import combinations

from shopmath.estimate import Estimate
from shopmath.tables import rows
from shopmath.validation import one_of
from shopmath.verdict import IN, STOP, TOO_CLOSE, Conformity

ANAEROBIC, SOLVENT, SILICONE = "anaerobic", "solvent", "silicone"
KINDS = (ANAEROBIC, SOLVENT, SILICONE)
CRANK, WATER, GEARS = "crank", "water", "gears"
PLACES = (CRANK, WATER, GEARS)  # what a stretch of a joint keeps: mixture under pressure, coolant, gear oil
_IN_TABLE = {ANAEROBIC: "anaerobic gasket maker", SOLVENT: "solvent-based semi-drying", SILICONE: "RTV silicone"}
_OPEN = {ANAEROBIC: "open time (faces apart", SOLVENT: "open time after coating", SILICONE: "open time before skin"}
_SUITS = {  # every other pair is sound
    (SILICONE, CRANK): (STOP, "swells_in_petrol"),
    (SOLVENT, WATER): (TOO_CLOSE, "softens_in_coolant"),
}
BOTH_FACES = (SOLVENT,)


@dataclass(frozen=True)
class Sealing:
    """A kind of sealant: open time and drying time, minutes; the gap that it fills, mm; on one surface or both."""

    kind: str
    open_min: Estimate
    wait_min: Estimate | None
    gap_mm: Estimate
    both_faces: bool


def _band(kind: str, begins: str) -> Estimate | None:
    for row in rows("friction_and_compounds"):
        if row["item"] == _IN_TABLE[kind] and row["quantity"].startswith(begins) and row["low"]:
            low, high = float(row["low"]), float(row["high"] or row["typical"])
            return Estimate(low, float(row["typical"] or (low + high) / 2), high, f"{row['item']}, {row['quantity']}")
    return None


def sealing(kind: str) -> Sealing:
    """A kind of sealant, *estimate* throughout: the product's own sheet comes first.

    Parameters
    ----------
    kind : str
        `anaerobic`, `solvent` or `silicone`.

    Returns
    -------
    Sealing

    Raises
    ------
    BadInput
        Another word.

    Source
    ------
    Table of friction and compounds, after data sheets of the generic kinds.

    Examples
    --------
    >>> found = sealing("solvent")
    >>> found.wait_min.likely, found.both_faces, sealing("silicone").wait_min
    (5.0, True, None)
    """
    one_of("kind", kind, KINDS)
    opens, gap = _band(kind, _OPEN[kind]), _band(kind, "largest gap")
    assert opens is not None
    assert gap is not None
    return Sealing(kind, opens, _band(kind, "wait before closing"), gap, kind in BOTH_FACES)


def suits(kind: str, place: str) -> Conformity:
    """Return whether a kind of sealant resists what a stretch of the joint seals.

    Parameters
    ----------
    kind : str
        `anaerobic`, `solvent` or `silicone`.
    place : str
        `crank` (petrol and oil under pressure), `water`, `gears` (oil).

    Returns
    -------
    Call
        `stop` where it swells or lets go, `too_close` where some of its kind do.

    Examples
    --------
    >>> [suits("silicone", place).state for place in ("crank", "water", "gears")]
    ['stop', 'in', 'in']
    """
    one_of("kind", kind, KINDS)
    one_of("place", place, PLACES)
    state, code = _SUITS.get((kind, place), (IN, "suits"))
    words = {IN: "it stands that", TOO_CLOSE: "some of its kind soften there", STOP: "it swells there and lets go"}
    return Conformity(state, 0.0, words[state], code, {"kind": kind, "place": place})


def must_not_meet(kinds: Iterable[str]) -> list[tuple[str, str]]:
    """Return pairs of kinds of which one prevents the other from curing: silicone and anaerobic sealant.

    Examples
    --------
    >>> must_not_meet(["silicone", "solvent", "anaerobic"])
    [('anaerobic', 'silicone')]
    """
    found = sorted({one_of("kinds", kind, KINDS) for kind in kinds})
    return [pair for pair in combinations(found, 2) if pair == (ANAEROBIC, SILICONE)]
