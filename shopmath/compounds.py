"""Strength of a press joint besides its interference: friction by condition, retaining compound by class and temperature."""

from __future__ import annotations

from itertools import pairwise

from shopmath.estimate import Estimate, exactly
from shopmath.tables import rows
from shopmath.validation import one_of, temperature

STRENGTHS = ("medium", "high", "high temperature")
HELD_BY_HEAT_C = (100.0, 150.0, 200.0, 250.0)


def joint_friction(moving: str, condition: str) -> Estimate:
    """Friction of a steel pin in a steel hub, *estimate*.

    Parameters
    ----------
    moving : str
        `parting` (breaking out) or `assembling` (sliding in).
    condition : str
        `dry` or `oiled`.

    Returns
    -------
    Estimate

    Raises
    ------
    BadInput
        Other words.

    Source
    ------
    Friction table, after the adhesion coefficients of DIN 7190.

    Examples
    --------
    >>> band = joint_friction("parting", "dry")
    >>> band.low, band.likely, band.high
    (0.08, 0.11, 0.16)
    """
    one_of("moving", moving, ("parting", "assembling"))
    one_of("condition", condition, ("dry", "oiled"))
    quantity = "start of pulling out" if moving == "parting" else "sliding while pressing"
    row = next(
        row
        for row in rows("friction_and_compounds")
        if row["item"] == "steel pin in steel hub" and row["condition"].startswith(condition) and quantity in row["quantity"]
    )
    return Estimate(float(row["low"]), float(row["typical"]), float(row["high"]), f"steel in steel, {row['condition']}, {quantity}")


_SEATS = (  # beginning of a metal's key -> the pairing of the friction table, and its conditions by ours
    (("al-", "adc", "az91"), "steel ring in cast aluminium", {"dry": "dry, clean", "oiled": "oiled"}),
    (("gj",), "steel ring in grey iron", {"dry": "dry, clean", "oiled": "oiled"}),
    (("bronze", "brass"), "steel pin in bronze", {"dry": "dry, clean", "oiled": "dry, clean"}),
)


def seat_friction(metal: str, condition: str) -> Estimate:
    """Return the friction of a ring or a bushing that is pushed into a seat cold (*estimate*).

    Parameters
    ----------
    metal : str
        Of the seat, as `materials.get` takes it.
    condition : str
        `dry` or `oiled`.

    Returns
    -------
    Estimate
        Sliding where the table has it, else breaking out; steel in steel for a seat of steel.

    Raises
    ------
    BadInput
        Another condition.

    Source
    ------
    Friction table, after the adhesion coefficients of DIN 7190.

    Examples
    --------
    >>> seat_friction("al-si7-mg", "oiled").high, seat_friction("gjl-250", "oiled").likely, seat_friction("c45", "dry").likely
    (0.12, 0.05, 0.09)
    """
    one_of("condition", condition, ("dry", "oiled"))
    found = next(((item, said) for starts, item, said in _SEATS if metal.startswith(starts)), None)
    if found is None:
        return joint_friction("assembling", condition)
    item, said = found
    table = [row for row in rows("friction_and_compounds") if row["item"] == item and row["condition"] == said[condition]]
    row = next((row for row in table if "sliding" in row["quantity"]), table[0])
    return Estimate(float(row["low"]), float(row["typical"]), float(row["high"]), f"{item}, {row['condition']}")


def _compound_rows(strength: str) -> list[dict[str, str]]:
    one_of("strength", strength, STRENGTHS)
    return [row for row in rows("friction_and_compounds") if row["group"] == "retaining_compound" and row["item"].startswith(f"{strength}")]


def _band(row: dict[str, str]) -> Estimate:
    return Estimate(float(row["low"]), float(row["typical"]), float(row["high"]), row["condition"])


def compound_shear_mpa(strength: str, joint_c: float = 20.0) -> Estimate:
    """Shear strength of a cured retaining compound at a temperature, *estimate*.

    Parameters
    ----------
    strength : str
        `medium`, `high` or `high temperature`.
    joint_c : float
        °C; between the table's temperatures the fraction is read off a straight line, past the last one it stays.

    Returns
    -------
    Estimate
        MPa.

    Raises
    ------
    BadInput
        Another class, a temperature below absolute zero.

    Source
    ------
    Compound table; class ranges of tests after ISO 10123.

    Examples
    --------
    >>> compound_shear_mpa("high").likely, round(compound_shear_mpa("high", 150).likely, 1)
    (24.0, 9.6)
    >>> round(compound_shear_mpa("high", 60).likely, 1)
    19.8
    """
    table = _compound_rows(strength)
    cold = _band(next(row for row in table if row["quantity"].startswith("shear strength")))
    steps = [(20.0, exactly(1.0, ""))]
    steps += [(c, _band(next(row for row in table if row["condition"] == f"tested hot at {c:.0f} C"))) for c in HELD_BY_HEAT_C]
    at = min(max(temperature("joint_c", joint_c), steps[0][0]), steps[-1][0])
    (from_c, before), (to_c, after) = next(pair for pair in pairwise(steps) if at <= pair[1][0])
    part = (at - from_c) / (to_c - from_c)

    def left(end: str) -> float:
        return float(getattr(cold, end) * ((1 - part) * getattr(before, end) + part * getattr(after, end)))

    return Estimate(left("low"), left("likely"), left("high"), f"{strength} strength compound at {joint_c:.0f} °C")


def release_temperature_c(strength: str) -> Estimate:
    """Return the temperature at which a retaining compound releases (*estimate*), °C.

    Examples
    --------
    >>> release_temperature_c("high").low
    220.0
    """
    return _band(next(row for row in _compound_rows(strength) if row["quantity"].startswith("temperature at which")))
