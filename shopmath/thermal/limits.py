"""Temperature limits of each part, with reasons.

Workshop limits: a maker's own figure comes first.
"""

from __future__ import annotations

from dataclasses import dataclass

from shopmath.bearings import Bearing
from shopmath.materials import Material
from shopmath.validation import numbers, one_of


@dataclass(frozen=True)
class Limit:
    """A temperature limit, its origin, and the reason in a clause.

    `code` says what sets it, for whoever words it anew.
    """

    limit_c: float
    what: str
    reason: str
    source: str = "workshop limit"
    estimated: bool = True
    code: str = ""

    def __post_init__(self) -> None:
        numbers(self)


LEFT_IN = {
    "nitrile_seal": Limit(100, "nitrile seal left in", "nitrile rubber hardens above 100 °C", code="nitrile_seal"),
    "fluoro_seal": Limit(
        200, "fluoro-rubber seal left in", "overheated fluoro-rubber (FKM) gives off hydrofluoric acid", code="fluoro_seal"
    ),
    "rubber_mount": Limit(80, "rubber bush left in", "bonded rubber lets go above 80 °C", code="rubber_mount"),
    "plastic_part": Limit(80, "plastic part left in", "switches, guides and sensors warp above 80 °C", code="plastic_part"),
    "paint": Limit(140, "paint", "ordinary paint browns and lifts above 140 °C", code="paint"),
}
HEAT_METHODS = ("oven", "hot_plate", "torch", "heat_gun", "none")
CHILL_METHODS = ("freezer", "dry_ice", "spray", "none")
LOCAL_METHODS = ("torch", "heat_gun")


def case_limits(material: Material, left_in: tuple[str, ...] = ()) -> tuple[Limit, ...]:
    """Upper limits of a case with what is still in it, lowest first.

    Parameters
    ----------
    material : Material
    left_in : tuple of str
        Keys of `LEFT_IN`.

    Returns
    -------
    tuple of Limit
        °C.

    Raises
    ------
    BadInput
        An unknown key.

    Source
    ------
    Materials table (ageing and tempering temperatures); rubber and paint by common service limits.

    Examples
    --------
    >>> from shopmath.materials import get
    >>> case_limits(get("al-si7-mg"), ("nitrile_seal",))[0].limit_c
    100
    """
    found = [LEFT_IN[one_of("left_in", key, tuple(LEFT_IN))] for key in left_in]
    if material.max_heating_c is not None:
        found.append(Limit(material.max_heating_c, material.name, material.max_heating_reason, material.source, code="material"))
    return tuple(sorted(found, key=lambda limit: limit.limit_c))


def ring_hot_limits(bearing: Bearing) -> tuple[Limit, ...]:
    """Upper limits of a bearing to be heated, lowest first, °C.

    Examples
    --------
    >>> from shopmath.bearings import lookup
    >>> [limit.limit_c for limit in ring_hot_limits(lookup("6205-2RS"))]
    [80, 120.0]
    """
    found = [
        Limit(
            bearing.stable_to_c,
            "bearing steel",
            f"ordinary rings grow and soften above {bearing.stable_to_c:g} °C",
            "materials table",
            code="ring_hot",
        )
    ]
    if bearing.seal in ("sealed", "unknown"):  # one whose seal is not known is heated as a sealed one
        found.append(
            Limit(
                80,
                "sealed bearing" if bearing.seal == "sealed" else "bearing of unknown seal",
                "its grease runs and its seals harden above 80 °C",
                code="sealed_hot",
            )
        )
    if bearing.seal == "shielded":
        found.append(Limit(100, "shielded bearing", "its grease runs out above 100 °C", code="shielded_hot"))
    if bearing.cage == "polymer":
        found.append(Limit(110, "polymer cage", "polyamide ages fast above 110 °C", code="cage_hot"))
    return tuple(sorted(found, key=lambda limit: limit.limit_c))


def ring_cold_limits(bearing: Bearing) -> tuple[Limit, ...]:
    """Lower limits of a bearing to be chilled, the nearest first, °C.

    Examples
    --------
    >>> from shopmath.bearings import lookup
    >>> ring_cold_limits(lookup("6205"))[0].limit_c
    -50
    """
    grows = "retained austenite changes and the ring grows below about -50 °C, unless the maker allows less"
    found = [Limit(-50, "bearing steel", grows, code="ring_cold")]
    if bearing.seal != "open":
        found.append(
            Limit(
                -30,
                "bearing of unknown seal" if bearing.seal == "unknown" else f"{bearing.seal} bearing",
                "grease and seal lips go stiff and crack below -30 °C",
                code="closed_cold",
            )
        )
    if bearing.cage == "polymer":
        found.append(Limit(-40, "polymer cage", "polyamide turns brittle below -40 °C", code="cage_cold"))
    return tuple(sorted(found, key=lambda limit: -limit.limit_c))


def shaft_cold_limits() -> tuple[Limit, ...]:
    """Lower limit of a steel shaft to be chilled, °C.

    Examples
    --------
    >>> shaft_cold_limits()[0].limit_c
    -60
    """
    return (Limit(-60, "hardened shaft", "hardened journals may grow below -60 °C", code="shaft_cold"),)


def method_refusal(material: Material, method: str) -> str | None:
    """Return why a heat source must not be used on a material; None when it may.

    Examples
    --------
    >>> from shopmath.materials import get
    >>> method_refusal(get("az91d"), "torch")
    'Magnesium and a flame: chips and thin edges catch fire and cannot be put out with water.'
    """
    one_of("method", method, HEAT_METHODS)
    if material.flammable and method == "torch":
        return "Magnesium and a flame: chips and thin edges catch fire and cannot be put out with water."
    return None
