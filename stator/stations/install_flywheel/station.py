"""Install flywheel: contact of the taper, lapping, the key and the timing, the nut, rim and air gap."""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from stator.engines.properties import Property
from stator.stations.framework import StationDefinition, question_factory
from stator.stations.framework.prerequisites import CLOSED
from stator.stations.install_flywheel import actions, drawing, messages, questions, verdict
from stator.stations.install_flywheel.analysis import FlywheelInstallationAnalysis, flywheel_on_facts


def result(found: FlywheelInstallationAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `flywheel-on/1`."""
    carries = found.holds.torque_nm if found.holds else None
    return {
        "schema": "flywheel-on/1",
        "core_version": core_version,
        "contact_share": found.share if found.is_on_taper else None,
        "lapped": found.lapped,
        "key": found.key,
        "key_shift_deg": found.shift_deg,
        "nut_torque_nm": found.value(Property.NUT_TORQUE),
        "carries_nm": [carries.low, carries.likely, carries.high] if carries else None,
        "asked_nm": found.value(Property.TORQUE_TO_CARRY),
        "rim_runout_mm": found.value(Property.RIM_RUNOUT),
        "air_gap_mm": found.value(Property.AIR_GAP),
    }


STATION = StationDefinition(
    key="flywheel-on",
    name=messages.NAME,
    words=messages,
    done=messages.DONE,
    rebuilds=True,
    drawn=True,
    needs=(CLOSED,),
    gives=(Property.KEY_CONDITION, Property.NUT_TORQUE, Property.RIM_RUNOUT, Property.AIR_GAP, Property.REPLACED),
    sheet=(Property.NUT_TORQUE, Property.RIM_RUNOUT, Property.AIR_GAP),
    facts=flywheel_on_facts,
    questions=questions.questions,
    methods=questions.methods,
    verdict=verdict.verdict,
    checks=lambda _found: question_factory.checks(messages),
    warnings=lambda _found: question_factory.warnings(messages),
    sources=verdict.sources,
    derived=verdict.derived,
    draw=drawing.draw,
    actions=actions.actions,
    may_sign=actions.may_sign,
    result=result,
)
