"""Install without heat: ring by ring into its seat; pins, bushings and plugs together in one entry."""

from __future__ import annotations

from dataclasses import replace

from stator.stations.install_without_heat import messages
from stator.stations.install_without_heat.one_seat import ONE_SEAT
from stator.stations.install_without_heat.press_in_parts.station import PARTS

STATION = replace(ONE_SEAT, whole=PARTS, whole_name=messages.PINS)
