"""End play from case, gasket, crank and bearings with its uncertainty, and the shims that correct it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations_with_replacement, pairwise

from shopmath.validation import BadInput, finite, gettext_noop, not_negative, ordered, positive

MOST_SHIMS = 4
MOST_SETS = 200_000  # combinations that are tried
NEARER_MM = 0.005  # a combination that comes nearer the middle by less is no alternative


@dataclass(frozen=True)
class Dimension:
    """A dimension of the stack: its size, its expanded uncertainty, mm, and its sign: +1 adds end play, -1 removes it."""

    name: str
    value_mm: float
    uncertainty_mm: float
    sign: int


@dataclass(frozen=True)
class EndPlay:
    """End play, mm, and its uncertainty: the sum of all errors, and the root sum of squares."""

    value_mm: float
    worst_mm: float
    rss_mm: float


def stack(dimensions: Sequence[Dimension]) -> EndPlay:
    """Return the end play from its dimensions.

    Parameters
    ----------
    dimensions : sequence of Dimension

    Returns
    -------
    Float
        mm; negative is a clamped crank.

    Raises
    ------
    BadInput
        No links, a sign other than +1 or -1, a negative size or uncertainty.

    Source
    ------
    Linear tolerance chain, worst case and root sum of squares; JCGM 100 (GUM), 5.1.

    Examples
    --------
    >>> links = [Dimension("left case", 38.42, 0.02, 1), Dimension("right case", 31.10, 0.02, 1), Dimension("crank", 69.10, 0.01, -1)]
    >>> found = stack(links)
    >>> round(found.value_mm, 3), round(found.worst_mm, 3), round(found.rss_mm, 3)
    (0.42, 0.05, 0.03)
    """
    if not dimensions:
        raise BadInput("dimensions", gettext_noop("A stack wants at least one dimension."))
    for each in dimensions:
        if each.sign not in (1, -1):
            raise BadInput(
                "sign", gettext_noop("{name} makes room (+1) or takes it (-1); {sign!r} was given."), name=each.name, sign=each.sign
            )
        not_negative("value_mm", each.value_mm)
        not_negative("uncertainty_mm", each.uncertainty_mm)
    uncertainties = [each.uncertainty_mm for each in dimensions]
    return EndPlay(sum(each.sign * each.value_mm for each in dimensions), sum(uncertainties), math.hypot(*uncertainties))


@dataclass(frozen=True)
class ShimChoice:
    """Shims, thickest first, mm, and the float they leave."""

    shims_mm: tuple[float, ...]
    float_mm: float
    nearer_mm: tuple[float, ...] = ()  # more pieces that would leave it nearer the middle; empty where none would
    nearer_float_mm: float | None = None


def choose_shims(
    float_without_mm: float, low_mm: float, high_mm: float, kit_mm: Sequence[float], most: int = 2, uncertainty_mm: float = 0.0
) -> ShimChoice:
    """Return the shims of a kit that correct the end play.

    Parameters
    ----------
    float_without_mm : float
        Without any shim, mm.
    low_mm, high_mm : float
        Wanted, mm.
    kit_mm : sequence of float
        Thicknesses at hand, mm; each may be used again.
    most : int
        Pieces, at most, 1 to 4.
    uncertainty_mm : float
        Of the float, mm.

    Returns
    -------
    ShimChoice
        The fewest pieces that stay inside by the uncertainty, then nearest to the middle, then the thickest piece. When none does, nearest
        to the middle inside the plain limits. No piece at all is a choice.

    Raises
    ------
    BadInput
        An empty kit or a thickness not above 0, limits crossed, no combination inside, more than 200,000 combinations (40 thicknesses, 4
        at a time, are fewer).

    Examples
    --------
    >>> kit = [.05, .1, .15, .2, .3]
    >>> choose_shims(0.42, 0.10, 0.20, kit).shims_mm, round(choose_shims(0.42, 0.10, 0.20, kit).float_mm, 3)
    ((0.3,), 0.12)
    >>> choose_shims(0.42, 0.10, 0.20, kit, uncertainty_mm=0.025).shims_mm
    (0.2, 0.05)
    >>> choose_shims(0.60, 0.10, 0.20, [.15, .3, .5]).shims_mm, choose_shims(0.60, 0.10, 0.20, [.15, .3, .5]).nearer_mm
    ((0.5,), (0.3, 0.15))
    """
    free = finite("float_without_mm", float_without_mm)
    ordered("low_mm", finite("low_mm", low_mm), finite("high_mm", high_mm))
    uncertainty = not_negative("uncertainty_mm", uncertainty_mm)
    if not kit_mm:
        raise BadInput("kit_mm", gettext_noop("The kit is empty: put the shims on the shelf first."), "kit_empty")
    if not 1 <= most <= MOST_SHIMS:
        raise BadInput(
            "most", gettext_noop("Between 1 and {most_shims} shims are looked at, not {most}."), most_shims=MOST_SHIMS, most=most
        )
    kit = sorted({positive("kit_mm", each) for each in kit_mm}, reverse=True)
    if math.comb(len(kit) + most, most) > MOST_SETS:
        words = gettext_noop("{given} thicknesses, {most} at a time, are too many to try: leave some out, or fewer at a time.")
        raise BadInput("kit_mm", words, "kit_too_large", most=most, given=len(kit))
    middle, slack = (low_mm + high_mm) / 2, 1e-9
    sets = [tuple(pieces) for count in range(most + 1) for pieces in combinations_with_replacement(kit, count)]
    left = {pieces: free - sum(pieces) for pieces in sets}

    def rank(pieces: tuple[float, ...], by_count: bool) -> tuple[float, ...]:
        off = round(abs(left[pieces] - middle), 9)
        return (len(pieces) if by_count else 0, off, len(pieces), -(pieces[0] if pieces else 0.0))

    sure = [pieces for pieces in sets if low_mm + uncertainty - slack <= left[pieces] <= high_mm - uncertainty + slack]
    plain = [pieces for pieces in sets if low_mm - slack <= left[pieces] <= high_mm + slack]
    if sure:
        best = min(sure, key=lambda pieces: rank(pieces, True))
    elif plain:
        best = min(plain, key=lambda pieces: rank(pieces, False))
    else:
        near = min(sets, key=lambda pieces: abs(left[pieces] - middle))
        words = gettext_noop("No {most} shims of this kit bring {free:.3f} into {low:g} to {high:g}: the nearest leaves {leaves:.3f}.")
        values = {"most": most, "free": free, "low": low_mm, "high": high_mm, "leaves": left[near]}
        raise BadInput("kit_mm", words, "none_fits", **values)
    nearest = min(sure or plain, key=lambda pieces: rank(pieces, False))
    if abs(left[nearest] - middle) < abs(left[best] - middle) - NEARER_MM:
        return ShimChoice(best, left[best], nearest, left[nearest])
    return ShimChoice(best, left[best])


@dataclass(frozen=True)
class Row:
    """One row of a manual's table: distances from and up to (incl.), mm, and the shim it gives."""

    from_mm: float
    to_mm: float
    shim_mm: float


@dataclass(frozen=True)
class TableChoice:
    """The row or the two rows that a distance fits, and the float that each shim leaves, mm."""

    rows: tuple[Row, ...]
    floats_mm: tuple[float, ...]

    @property
    def between(self) -> bool:
        return len(self.rows) > 1


def _rows(rows: Sequence[Row | Sequence[float]]) -> list[Row]:
    """Rows as written in manuals: a distance with its shim, or a range with its shim."""
    found = []
    for row in rows:
        if isinstance(row, Row):
            found.append(Row(*(finite("rows", each) for each in (row.from_mm, row.to_mm, row.shim_mm))))
        elif len(row) == 2:
            found.append(Row(finite("rows", row[0]), row[0], finite("rows", row[1])))
        elif len(row) == 3:
            found.append(Row(finite("rows", row[0]), finite("rows", row[1]), finite("rows", row[2])))
        else:
            raise BadInput("rows", gettext_noop("A row is a distance and a shim, or from, up to and a shim; {row!r} was given."), row=row)
    for before, after in pairwise(found):
        if after.from_mm < before.to_mm - 1e-9:
            raise BadInput(
                "rows",
                gettext_noop("The table's rows must rise: {from_mm:g} comes after {to_mm:g}."),
                from_mm=after.from_mm,
                to_mm=before.to_mm,
            )
    return found


def from_table(distance_mm: float, rows: Sequence[Row | Sequence[float]]) -> TableChoice:
    """Return what a manual's table says of a distance.

    Parameters
    ----------
    distance_mm : float
        As measured, mm.
    rows : sequence of Row, or of (distance, shim), or of (from, up to, shim)
        In rising order, mm.

    Returns
    -------
    TableChoice
        The row that holds the distance, a border belonging to the row that it ends; between two rows both. The float is the distance less
        the shim.

    Raises
    ------
    BadInput
        An empty or falling table, a distance outside it.

    Examples
    --------
    >>> table = [(1.00, 1.10, 0.9), (1.10, 1.20, 1.0), (1.25, 1.30, 1.1)]
    >>> from_table(1.15, table).rows[0].shim_mm, from_table(1.15, table).between
    (1.0, False)
    >>> found = from_table(1.22, table)
    >>> [row.shim_mm for row in found.rows], [round(left, 2) for left in found.floats_mm]
    ([1.0, 1.1], [0.22, 0.12])
    >>> from_table(1.15, [(1.1, 0.9), (1.2, 1.0)]).between
    True
    """
    at, table = finite("distance_mm", distance_mm), _rows(rows)
    if not table:
        raise BadInput("rows", gettext_noop("The table is empty."))
    if not table[0].from_mm - 1e-9 <= at <= table[-1].to_mm + 1e-9:
        values = {"distance": at, "low": table[0].from_mm, "high": table[-1].to_mm}
        words = gettext_noop("{distance:.3f} mm lies outside the table, {low:g} to {high:g}.")
        raise BadInput("distance_mm", words, "outside_table", **values)
    found = [row for row in table if row.from_mm - 1e-9 <= at <= row.to_mm + 1e-9][:1]
    if not found:
        found = [[row for row in table if row.to_mm < at][-1], next(row for row in table if row.from_mm > at)]
    return TableChoice(tuple(found), tuple(at - row.shim_mm for row in found))
