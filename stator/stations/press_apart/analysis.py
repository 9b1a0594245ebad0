"""Analysis of Press apart, beyond the joint itself."""

from __future__ import annotations

from enum import StrEnum

from stator.stations.common.press_joint.analysis import PressJointAnalysis, joint_facts
from stator.stations.framework import StationInput


class Code(StrEnum):
    """Codes of the verdicts of Press apart."""

    MARK_FIRST = "mark first"
    LOOSE = "loose"
    HARDER = "harder than planned"
    PARTED = "parted"


def apart_facts(given: StationInput) -> PressJointAnalysis:
    """Return what Apart knows, built once for a page or an act."""
    return joint_facts(given, "parting")
