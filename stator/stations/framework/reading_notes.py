"""The marks of a reading in the readings table: probably mistyped, or sent later."""

from __future__ import annotations

from stator.jobs.models import Reading
from stator.stations.framework import messages as shared
from stator.stations.framework.messages import format_message

CONFIRMED, UNCONFIRMED = "confirmed", "doubtful"  # typed twice; sent by a gauge, and nobody looked
AS_WRITTEN = "as_written"  # a thread by its name, with it
OF_ALL, AS_AT = "of_all", "as_at"  # told once for every place; told as of the part before, with its name
SENT_LATER = "sent_later"  # typed while the machine could not be reached


def beside(reading: Reading, note: str) -> str:
    """Return the text next to a reading: the station's note and its marks."""
    marks = [str(shared.MARKED[each]) for each in (CONFIRMED, UNCONFIRMED, SENT_LATER, OF_ALL) if reading.extra.get(each)]
    alike = format_message(shared.AS_AT, {"part": reading.extra[AS_AT]}) if reading.extra.get(AS_AT) else ""
    written = format_message(shared.AS_WRITTEN, {"thread": reading.extra[AS_WRITTEN]}) if reading.extra.get(AS_WRITTEN) else ""
    return "; ".join(filter(None, (note, *marks, alike, written)))
