"""Feeler gauge blades that make up a thickness."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations

from shopmath.validation import BadInput, gettext_noop, positive


def stack(target_mm: float, blades_mm: Sequence[float], most: int = 3) -> tuple[float, ...]:
    """Return the blades that come nearest to a thickness, each once, the thickest first.

    Parameters
    ----------
    target_mm : float
        mm.
    blades_mm : sequence of float
        At hand, mm.
    most : int
        Blades together, at most.

    Returns
    -------
    tuple of float
        Nearest first, then the fewest blades.

    Raises
    ------
    BadInput
        No blades, sizes not above 0, fewer than one blade.

    Examples
    --------
    >>> stack(0.23, [0.03, 0.05, 0.08, 0.10, 0.15, 0.20])
    (0.2, 0.03)
    >>> stack(0.25, [0.05, 0.10, 0.20])
    (0.2, 0.05)
    """
    positive("target_mm", target_mm)
    if most < 1:
        raise BadInput("most", gettext_noop("At least one blade, not {most}."), most=most)
    blades = sorted({positive("blades_mm", each) for each in blades_mm}, reverse=True)
    if not blades:
        raise BadInput("blades_mm", gettext_noop("There are no blades on the shelf."))
    sets = [pieces for count in range(1, min(most, len(blades)) + 1) for pieces in combinations(blades, count)]
    return min(sets, key=lambda pieces: (round(abs(sum(pieces) - target_mm), 6), len(pieces)))
