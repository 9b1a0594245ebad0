"""Fit cold: ring by ring into its seat; pins, bushes and plugs together in one entry."""

from __future__ import annotations

from dataclasses import replace

from stations.cold import words
from stations.cold.one_seat import ONE_SEAT
from stations.cold.parts.station import PARTS

STATION = replace(ONE_SEAT, whole=PARTS, whole_name=words.PINS)
