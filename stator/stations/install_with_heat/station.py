"""Install with heat: seat by seat, or a case half in one heat."""

from __future__ import annotations

from dataclasses import replace

from stator.stations.install_with_heat.case_half import messages
from stator.stations.install_with_heat.case_half.station import WHOLE
from stator.stations.install_with_heat.single_seat.station import ONE_SEAT

STATION = replace(
    ONE_SEAT,
    whole=WHOLE,
    whole_name=messages.WHOLE_NAME,
    at_once=True,
    equipment={**ONE_SEAT.equipment, **WHOLE.equipment},
    passing=WHOLE.passing,
)
