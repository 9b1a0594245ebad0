"""Heat and drop: seat by seat, or a whole half in one heat."""

from __future__ import annotations

from dataclasses import replace

from stations.fit.one_seat.station import ONE_SEAT
from stations.fit.whole_half import words
from stations.fit.whole_half.station import WHOLE

STATION = replace(
    ONE_SEAT,
    whole=WHOLE,
    whole_name=words.WHOLE_NAME,
    at_once=True,
    equipment={**ONE_SEAT.equipment, **WHOLE.equipment},
    passing=WHOLE.passing,
)
