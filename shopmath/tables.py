"""Tables of the core: CSV files, each row with its source, read once on first use."""

from __future__ import annotations

import csv
from functools import cache
from pathlib import Path

from shopmath.validation import BadInput, gettext_noop

FOLDER = Path(__file__).parent / "data"


@cache
def rows(name: str) -> tuple[dict[str, str], ...]:
    """All rows of the table `name` as text.

    Examples
    --------
    >>> rows("iso286_it")[0]["IT7_um"]
    '10'
    """
    with (FOLDER / f"{name}.csv").open(encoding="utf-8", newline="") as file:
        return tuple(csv.DictReader(file))


def number(text: str) -> float | None:
    """A cell as a number; None when the cell is empty."""
    try:
        return float(text) if text else None
    except ValueError as error:
        raise BadInput("table", gettext_noop("{text!r:.40} is no number."), "no_number", text=text) from error
