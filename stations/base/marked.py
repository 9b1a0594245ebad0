"""The mark of a reading that looked mistyped, beside it in the table of readings; and that of one sent later."""

from __future__ import annotations

from jobs.models import Reading
from stations.base import words as shared

CONFIRMED, UNCONFIRMED = "confirmed", "doubtful"  # typed twice; sent by a gauge, and nobody looked
SENT_LATER = "sent_later"  # typed while the machine could not be reached


def beside(reading: Reading, note: str) -> str:
    """What stands beside a reading: the station's note, and its marks."""
    marks = [str(shared.MARKED[each]) for each in (CONFIRMED, UNCONFIRMED, SENT_LATER) if reading.extra.get(each)]
    return "; ".join(filter(None, (note, *marks)))
