"""The mark of a reading that looked mistyped, beside it in the table of readings."""

from __future__ import annotations

from jobs.models import Reading
from stations.base import words as shared

CONFIRMED, UNCONFIRMED = "confirmed", "doubtful"  # typed twice; sent by a gauge, and nobody looked


def beside(reading: Reading, note: str) -> str:
    """What stands beside a reading: the station's note, and its mark."""
    mark = next((str(shared.MARKED[each]) for each in (CONFIRMED, UNCONFIRMED) if reading.extra.get(each)), "")
    return "; ".join(filter(None, (note, mark)))
