"""Built-up cranks with several throws: possible supports, the angle between throws, and what turning an outer web can correct."""

from __future__ import annotations

import cmath
import math
from dataclasses import dataclass

from shopmath.truing import OuterTurn, RunoutVector, outer_turn
from shopmath.validation import BadInput, finite, gettext_noop, not_negative, one_of

HOLDS = ("centre", "outer", "centres")
WORTH_MM = 0.004  # a web is not struck for less swing than this


def refuse_hold(held: str) -> None:
    """Refuse to hold a built-up crank of several throws on what is being measured.

    Parameters
    ----------
    held : str
        `centre` (on the centre bearings), `outer` (on the outer journals) or `centres` (between centres, in the ends of the outer shafts).

    Raises
    ------
    BadInput
        Anything but the centre bearings, with the reason.

    Examples
    --------
    >>> refuse_hold("centre")
    """
    if one_of("held", held, HOLDS) == "centre":
        return
    where = "the outer journals" if held == "outer" else "the centre holes of the outer shafts"
    raise BadInput(
        "held",
        gettext_noop("Held on {where} a bent crank looks straight: they are what is measured. Hold it on its centre bearings."),
        where=where,
    )


def phase_error_deg(measured_deg: float, wanted_deg: float) -> float:
    """Return the angle by which one throw leads its specified angle from another, -180 to 180.

    Parameters
    ----------
    measured_deg, wanted_deg : float
        From the first pin to this one, counter-clockwise seen from the right end.

    Returns
    -------
    float
        Degrees; positive: too far on.

    Raises
    ------
    BadInput
        NaN or infinity.

    Examples
    --------
    >>> phase_error_deg(181.5, 180), phase_error_deg(359, 0)
    (1.5, -1.0)
    """
    return (finite("measured_deg", measured_deg) - finite("wanted_deg", wanted_deg) + 180) % 360 - 180


@dataclass(frozen=True)
class OuterShaft:
    """An outer shaft of a crank on its center bearings.

    Swings in mm: what is read, what turning the web would leave.
    """

    swing: RunoutVector
    turn: OuterTurn
    turn_u_deg: float
    best_mm: float
    worth_it: bool


def outer_shaft(swing: RunoutVector, throw_mm: float, pin_deg: float, rim_radius_mm: float, vector_u_mm: float = 0.0) -> OuterShaft:
    """Return what the runout of an outer shaft shows about its web.

    Parameters
    ----------
    swing : Swing
        Of the outer shaft, angles from the first pin.
    throw_mm, pin_deg, rim_radius_mm : float
        Of the outer pin and the web on it.
    vector_u_mm : float
        Standard uncertainty of each component of the swing's vector, mm.

    Returns
    -------
    OuterShaft
        `worth_it` only when the turn is larger than twice its own uncertainty and takes off more than a gauge sees.

    Raises
    ------
    BadInput
        As `outer_turn`.

    Examples
    --------
    >>> shaft = outer_shaft(RunoutVector(0.050, 60), 34, 0, 60, 0.001)
    >>> round(shaft.turn.turn_deg, 4), round(shaft.best_mm, 4), shaft.worth_it
    (0.0365, 0.025, True)
    """
    turn = outer_turn(swing, throw_mm, pin_deg, rim_radius_mm)
    uncertainty = math.degrees(not_negative("vector_u_mm", vector_u_mm) / throw_mm)
    along = abs((swing.vector * cmath.exp(-1j * math.radians(pin_deg))).real) * 2
    worth = turn.turn_deg > 2 * uncertainty and swing.tir_mm - along > WORTH_MM
    return OuterShaft(swing, turn, uncertainty, along, worth)
