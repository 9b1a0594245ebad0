"""True temperature from a reading: infrared thermometers on bare metal, and a drop of water."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from shopmath.estimate import Estimate
from shopmath.tables import rows
from shopmath.validation import ABSOLUTE_ZERO_C, BadInput, finite, gettext_noop, one_of, temperature

TRUSTED_EMISSIVITY = 0.5  # below this a reading never passes a call
WATER_DROP = {
    "sits": Estimate(20.0, 70.0, 100.0, "a drop sits and dries slowly"),
    "sizzles": Estimate(100.0, 120.0, 150.0, "a drop sizzles and is gone in a second or two"),
    "dances": Estimate(150.0, 190.0, 230.0, "a drop rolls about as a ball and lasts (Leidenfrost)"),
}


@dataclass(frozen=True)
class Surface:
    """A surface for an infrared thermometer, with the range of its emissivity, 8 to 14 µm."""

    name: str
    emissivity: Estimate

    @property
    def trusted(self) -> bool:
        return self.emissivity.low >= TRUSTED_EMISSIVITY


def _emissivity(field: str, value: float) -> float:
    if not 0 < finite(field, value) <= 1:
        raise BadInput(field, gettext_noop("An emissivity lies above 0 up to 1; {value:g} was given."), value=value)
    return value


def infrared_true_c(shown_c: float, gun_emissivity: float, surface_emissivity: float, surroundings_c: float) -> float:
    """Return the true temperature from an infrared reading.

    Parameters
    ----------
    shown_c : float
        On the gun's display, °C.
    gun_emissivity, surface_emissivity : float
        What the gun is set to, and what the surface has, above 0 up to 1.
    surroundings_c : float
        What the surface mirrors: the room, or the oven's walls when read inside, °C.

    Returns
    -------
    float
        °C.

    Raises
    ------
    BadInput
        Emissivity outside its range; a reading too cold for these surroundings to be true.

    Notes
    -----
    Gray surface: εs·T⁴ = εg·Tshown⁴ + (εs − εg)·Tsurr⁴ in kelvin.

    Source
    ------
    Stefan-Boltzmann with reflected surroundings; VDI/VDE 3511 part 4.

    Examples
    --------
    >>> round(infrared_true_c(55, 0.95, 0.25, 22), 1)
    115.5
    """
    gun = _emissivity("gun_emissivity", gun_emissivity)
    real = _emissivity("surface_emissivity", surface_emissivity)
    shown = temperature("shown_c", shown_c) - ABSOLUTE_ZERO_C
    around = temperature("surroundings_c", surroundings_c) - ABSOLUTE_ZERO_C
    fourth = (gun * shown**4 + (real - gun) * around**4) / real
    if fourth <= 0:
        raise BadInput(
            "shown_c",
            gettext_noop("{shown_c:g} °C cannot be shown with surroundings of {surroundings_c:g} °C. Check the gun's emissivity."),
            shown_c=shown_c,
            surroundings_c=surroundings_c,
        )
    return float(fourth**0.25 + ABSOLUTE_ZERO_C)


def infrared_band_c(shown_c: float, gun_emissivity: float, seen: Surface, surroundings_c: float) -> Estimate:
    """The same over the whole band of a surface's emissivity.

    Parameters
    ----------
    shown_c, gun_emissivity, surroundings_c
        As `infrared_true_c`.
    seen : Surface

    Returns
    -------
    Estimate
        °C, low/likely/high.

    Examples
    --------
    >>> bare = infrared_band_c(55, 0.95, surface("cast aluminium, bare, as cast"), 22)
    >>> round(bare.high), round(bare.low)
    (189, 104)
    """
    return seen.emissivity.map(lambda value: infrared_true_c(shown_c, gun_emissivity, value, surroundings_c), seen.name)


@cache
def _surfaces() -> dict[str, Surface]:
    return {
        row["item"]: Surface(row["item"], Estimate(float(row["low"]), float(row["typical"]), float(row["high"]), row["source"]))
        for row in rows("thermal")
        if row["group"] == "emissivity"
    }


def surfaces() -> tuple[Surface, ...]:
    """All surfaces of the thermal table.

    Examples
    --------
    >>> len(surfaces())
    10
    """
    return tuple(_surfaces().values())


def surface(name: str) -> Surface:
    """One surface by its name in the thermal table.

    Examples
    --------
    >>> surface("matt paint (any colour)").trusted
    True
    """
    return _surfaces()[one_of("surface", name, tuple(_surfaces()))]


def water_drop_c(behaviour: str) -> Estimate:
    """The coarse thermometer: what a drop of water does on the metal.

    Parameters
    ----------
    behaviour : str
        `sits`, `sizzles` or `dances`.

    Returns
    -------
    Estimate
        °C, a wide band.

    Raises
    ------
    BadInput
        Another word.

    Examples
    --------
    >>> water_drop_c("sizzles").low
    100.0
    """
    return WATER_DROP[one_of("behaviour", behaviour, tuple(WATER_DROP))]
