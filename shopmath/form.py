"""Form of a journal or a bore: taper and ovality from six diameters, and what they cannot detect.

Two depths, three angles (0°, 60°, 120°): three diameters at one depth give mean and ovality exactly. A shape with three or five lobes has
the same diameter all round: two points never see it, a V-block block does.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from shopmath.validation import BadInput, finite, gettext_noop, not_negative, one_of, positive

MOST_LOBES = 99
ANGLES_DEG = (0.0, 60.0, 120.0)
DEPTHS = ("mouth", "bottom")


@dataclass(frozen=True)
class Form:
    """Mean diameter; taper over the two depths (positive if the bottom is larger); the larger ovality with its direction; spread."""

    mean_mm: float
    taper_mm: float
    ovality_mm: float
    long_at_deg: float
    smallest_mm: float
    largest_mm: float


@dataclass(frozen=True)
class Oval:
    """One round of a surface: mean diameter, ovality (longest minus shortest), mm, and the angle of the longest."""

    mean_mm: float
    ovality_mm: float
    long_at_deg: float

    def across(self, angle_deg: float) -> float:
        """Diameter at an angle, mm."""
        return self.mean_mm + self.ovality_mm / 2 * math.cos(2 * math.radians(angle_deg - self.long_at_deg))


def oval(diameters_mm: Sequence[float]) -> Oval:
    """The oval through three diameters.

    Parameters
    ----------
    diameters_mm : sequence of float, shape (3,)
        At 0°, 60° and 120°.

    Returns
    -------
    Oval

    Raises
    ------
    BadInput
        Other than three, one not above 0.

    Examples
    --------
    >>> found = oval([52.000, 52.003, 52.006])
    >>> [round(found.across(angle), 3) for angle in (0, 60, 120)]
    [52.0, 52.003, 52.006]
    """
    if len(diameters_mm) != len(ANGLES_DEG):
        raise BadInput(
            "diameters_mm",
            gettext_noop("Three diameters at 0°, 60° and 120° are wanted; {diameters_mm} given."),
            diameters_mm=len(diameters_mm),
        )
    for value in diameters_mm:
        positive("diameters_mm", value)
    mean = sum(diameters_mm) / 3
    turns = [math.radians(angle) for angle in ANGLES_DEG]
    a = 2 / 3 * sum(value * math.cos(2 * turn) for value, turn in zip(diameters_mm, turns, strict=True))
    b = 2 / 3 * sum(value * math.sin(2 * turn) for value, turn in zip(diameters_mm, turns, strict=True))
    return Oval(mean, 2 * math.hypot(a, b), (math.degrees(math.atan2(b, a)) / 2) % 180)


def form(mouth_mm: Sequence[float], bottom_mm: Sequence[float]) -> Form:
    """Taper and ovality of a round surface.

    Parameters
    ----------
    mouth_mm, bottom_mm : sequence of float, shape (3,)
        Diameters at 0°, 60° and 120°, near the mouth and near the bottom.

    Returns
    -------
    Form
        mm and degrees.

    Raises
    ------
    BadInput
        Other than three diameters at a depth, a diameter not above 0.

    Notes
    -----
    d(θ) = m + (o/2)·cos 2(θ − θ₀): three diameters, three unknowns.

    Source
    ------
    Two-point measurement of form; ISO 4292.

    Examples
    --------
    >>> found = form([52.000, 52.003, 52.006], [52.004, 52.007, 52.010])
    >>> round(found.mean_mm, 4), round(found.taper_mm, 4), round(found.ovality_mm, 4), round(found.long_at_deg)
    (52.005, 0.004, 0.0069, 105)
    """
    mouth, bottom = oval(mouth_mm), oval(bottom_mm)
    worse = max(mouth, bottom, key=lambda each: each.ovality_mm)
    every = [*mouth_mm, *bottom_mm]
    taper = bottom.mean_mm - mouth.mean_mm
    return Form((mouth.mean_mm + bottom.mean_mm) / 2, taper, worse.ovality_mm, worse.long_at_deg, min(every), max(every))


def v_block_factor(lobes: int, vee_deg: float = 90.0) -> float:
    """Return the ratio of the reading over a V-block to the true out-of-roundness, for a number of lobes.

    Parameters
    ----------
    lobes : int
        2 or more.
    vee_deg : float
        Included angle of the V-block, 0 to 180.

    Returns
    -------
    float
        0 means the V-block cannot see them.

    Raises
    ------
    BadInput
        Fewer than two lobes, an impossible V-block.

    Notes
    -----
    |1 + cos(n(90° + α/2)) / sin(α/2)|, gauge straight over the V-block.

    Source
    ------
    Summit method of three-point measurement; ISO 4292.

    Examples
    --------
    >>> round(v_block_factor(2), 3), round(v_block_factor(3), 3), round(v_block_factor(3, 60), 3), round(v_block_factor(5), 3)
    (1.0, 2.0, 3.0, 2.0)
    """
    if not isinstance(lobes, int) or not 2 <= lobes <= MOST_LOBES:
        raise BadInput(
            "lobes", gettext_noop("A round part has 2 to {most_lobes} lobes, not {lobes!r:.20}."), most_lobes=MOST_LOBES, lobes=lobes
        )
    if not 0 < finite("vee_deg", vee_deg) < 180:
        raise BadInput("vee_deg", gettext_noop("A vee is between 0 and 180°, not {vee_deg:g}."), vee_deg=vee_deg)
    half = math.radians(vee_deg / 2)
    return abs(1 + math.cos(lobes * (math.pi / 2 + half)) / math.sin(half))


def lobing_mm(swing_mm: float, ovality_mm: float, vee_deg: float = 90.0, lobes: int = 3) -> float:
    """Return the lowest out-of-roundness from lobes that two points cannot detect: the reading over a V-block beyond ovality.

    Parameters
    ----------
    swing_mm, ovality_mm : float
        Swing of the gauge over the V-block in one turn, ovality by diameters, mm.
    vee_deg : float
        90 or 60 usually.
    lobes : int
        3 unless something says otherwise.

    Returns
    -------
    float
        mm; 0 when ovality alone explains the swing.

    Raises
    ------
    BadInput
        Negative sizes, a V-block that cannot see so many lobes.

    Examples
    --------
    >>> round(lobing_mm(0.012, 0.004), 4)
    0.004
    """
    factor = v_block_factor(lobes, vee_deg)
    if factor < 0.1:
        raise BadInput("vee_deg", gettext_noop("A {vee_deg:g}° vee does not see {lobes} lobes."), vee_deg=vee_deg, lobes=lobes)
    return max(0.0, not_negative("swing_mm", swing_mm) - not_negative("ovality_mm", ovality_mm) * v_block_factor(2, vee_deg)) / factor


@dataclass(frozen=True)
class Repair:
    """A repair of a seat that is not OK: whether it is possible, and why, as text and as code and values (mm)."""

    key: str
    words: str
    fits: bool
    reason: str
    code: str = ""
    values: Mapping[str, float] = field(default_factory=dict, hash=False)


SLEEVE_WALL_MM = 2.0  # thinner sleeves work loose in a light casting, shop rule
COMPOUND_SHAPE_MM = 0.02  # compound fills a gap, it does not round a seat: shop rule


def repair_options(
    loose_mm: float, form_mm: float, wall_mm: float | None, compound_gap_mm: float | None, on: str = "case", *, hot: bool = False
) -> tuple[Repair, ...]:
    """Return repairs of a seat that no longer retains its bearing, the gentlest first.

    Parameters
    ----------
    loose_mm : float
        Clearance on diameter where the fit should hold, mm, at its loosest.
    form_mm : float
        Ovality or taper, the larger, mm.
    wall_mm : float or None
        Metal round the seat, mm; None when unknown.
    compound_gap_mm : float or None
        Gap that the retaining compound on the shelf fills, mm; None when there is none.
    on : str
        `case` or `shaft`.
    hot : bool
        Whether the seat runs hotter than compounds stand for long.

    Returns
    -------
    tuple of Mend

    Raises
    ------
    BadInput
        A negative form, another place.

    Source
    ------
    Compound's gap limit off its data sheet; wall of a sleeve and form under a compound are shop rules.

    Examples
    --------
    >>> [way.key for way in repair_options(0.04, 0.008, 9.0, 0.10) if way.fits]
    ['compound', 'sleeve', 'oversize', 'replace']
    >>> [way.key for way in repair_options(0.25, 0.008, 3.0, 0.10) if way.fits]
    ['oversize', 'replace']
    """
    one_of("on", on, ("case", "shaft"))
    finite("loose_mm", loose_mm)
    not_negative("form_mm", form_mm)
    for name, size in (("wall_mm", wall_mm), ("compound_gap_mm", compound_gap_mm)):
        if size is not None:
            not_negative(name, size)
    gap = {"loose": loose_mm, "gap": compound_gap_mm or 0.0, "form": form_mm}
    if compound_gap_mm is None:
        compound = (False, "no retaining compound on the shelf says what gap it fills", "no_compound")
    elif hot:
        compound = (False, "it runs hotter than a compound holds", "too_hot")
    elif loose_mm > compound_gap_mm:
        compound = (False, f"{loose_mm:.3f} mm is more than the {compound_gap_mm:g} mm it fills", "too_loose")
    elif form_mm > COMPOUND_SHAPE_MM:
        compound = (False, f"{form_mm:.3f} mm out of shape: it fills a gap, it does not centre a ring", "out_of_shape")
    else:
        compound = (True, f"{loose_mm:.3f} mm is within the {compound_gap_mm:g} mm it fills, and the seat is round", "fills")
    metal = {"wall": wall_mm or 0.0, "sleeve": SLEEVE_WALL_MM}
    if wall_mm is None:
        sleeve = (False, "measure the metal round the seat first", "wall_unknown")
    elif wall_mm < 2 * SLEEVE_WALL_MM:
        sleeve = (False, f"{wall_mm:g} mm of metal leaves no wall behind a {SLEEVE_WALL_MM:g} mm sleeve", "wall_thin")
    else:
        sleeve = (True, f"{wall_mm:g} mm of metal takes a {SLEEVE_WALL_MM:g} mm sleeve; bored and pressed by a machine shop", "wall_takes")
    part = "half" if on == "case" else "shaft"
    return (
        Repair("compound", "Retaining compound", *compound, gap),
        Repair("sleeve", "Bore and sleeve" if on == "case" else "Build up and grind", *sleeve, metal),
        Repair("oversize", "A ring made to fit", True, "a plated or oversize ring, where one is to be had", "made_to_fit"),
        Repair("replace", f"Another {part}", True, "always right, rarely cheap", "another"),
    )
