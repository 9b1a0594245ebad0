"""Materials of the parts: expansion, heat capacity, stiffness, strength, and the temperature limits in a workshop."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from shopmath.tables import number, rows
from shopmath.validation import BadInput, gettext_noop


@dataclass(frozen=True)
class Material:
    """Typical values, not guaranteed ones.

    Expansion in 1/K over 20 to 100 °C, densities kg/m³, moduli and strengths MPa.
    """

    key: str
    name: str
    designations: str
    density_kg_m3: float
    e_mpa: float
    nu: float
    alpha: float
    conductivity_w_mk: float
    specific_heat: float
    yield_mpa: tuple[float, float] | None
    uts_mpa: tuple[float, float] | None
    max_heating_c: float | None
    max_heating_reason: str
    source: str

    @property
    def flammable(self) -> bool:
        """Magnesium: no flame, no red-hot tool."""
        return self.key == "az91d"


def _pair(row: dict[str, str], stem: str) -> tuple[float, float] | None:
    low, high = number(row[f"{stem}_low_MPa"]), number(row[f"{stem}_high_MPa"])
    return None if low is None or high is None else (low, high)


@cache
def _table() -> dict[str, Material]:
    return {
        row["key"]: Material(
            key=row["key"],
            name=row["name"],
            designations=row["designations"],
            density_kg_m3=float(row["density_kg_m3"]),
            e_mpa=1000 * float(row["E_GPa"]),
            nu=float(row["poisson"]),
            alpha=1e-6 * float(row["expansion_20_100C_1e-6_per_K"]),
            conductivity_w_mk=float(row["conductivity_W_mK"]),
            specific_heat=float(row["specific_heat_J_kgK"]),
            yield_mpa=_pair(row, "yield"),
            uts_mpa=_pair(row, "UTS"),
            max_heating_c=number(row["max_workshop_heating_C"]),
            max_heating_reason=row["why_that_limit"],
            source=row["source"],
        )
        for row in rows("materials")
    }


def get(key: str) -> Material:
    """Return the material of a key.

    Parameters
    ----------
    key : str
        As listed by `known()`.

    Returns
    -------
    Material

    Raises
    ------
    BadInput
        Unknown key; the message lists what is known.

    Source
    ------
    EN 1706, EN 573, EN 1561, EN 1563, EN ISO 683 and handbook typicals; see the table's own source column.

    Examples
    --------
    >>> get("adc12").alpha
    2.1e-05
    """
    if key not in _table():
        raise BadInput("material", gettext_noop("{key!r} is not in the materials table. Known: {join}."), key=key, join=", ".join(known()))
    return _table()[key]


def known() -> tuple[str, ...]:
    """Keys of all materials, in the table's order.

    Examples
    --------
    >>> "az91d" in known()
    True
    """
    return tuple(_table())
