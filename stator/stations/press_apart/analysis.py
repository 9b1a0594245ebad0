"""What Apart says beyond the joint itself."""

from __future__ import annotations

from enum import StrEnum

from stator.stations.common.press_joint.analysis import PressJointAnalysis, joint_facts
from stator.stations.framework import StationInput


class Code(StrEnum):
    """What a call at Apart can say of the parting."""

    MARK_FIRST = "mark first"
    LOOSE = "loose"
    HARDER = "harder than planned"
    PARTED = "parted"


def apart_facts(given: StationInput) -> PressJointAnalysis:
    """Return what Apart knows, built once for a page or an act."""
    return joint_facts(given, "parting")
