"""Install without heat: a ring tapped, pressed or drawn into its seat, planned, started square, judged by force and position."""

from __future__ import annotations

from stator.engines.properties import Property
from stator.stations.framework import StationDefinition
from stator.stations.install_without_heat import actions, drawing, messages, questions, verdict
from stator.stations.install_without_heat.analysis import cold_facts

EACH_TIME = frozenset(
    {
        Property.SEATING_DEPTH,
        Property.SEATING_GAP,
        Property.FIT_OUTCOME,
        Property.SCREW_TURNS_DONE,
        Property.SCREW_TORQUE,
        Property.PRESS_PEAK,
        Property.CIRCLIP,
    }
)
ONE_SEAT = StationDefinition(
    key="fit-cold",
    name=messages.NAME,
    by_seat=True,
    drawn=True,
    from_log=False,
    words=messages,
    done=messages.DONE,
    rebuilds=True,
    equipment={"press": "presses"},
    gives=(Property.FIT_OUTCOME, Property.CIRCLIP, Property.BEARING_HOME, Property.SEAT_SIZE, Property.RING_SIZE, Property.WALL_THICKNESS),
    each_round=EACH_TIME,
    facts=cold_facts,
    questions=questions.questions,
    methods=questions.methods,
    verdict=verdict.verdict,
    checks=verdict.checks,
    checks_past=lambda found: bool(found.outcome),
    warnings=verdict.warnings,
    sources=verdict.sources,
    derived=verdict.derived,
    draw=drawing.draw,
    actions=actions.actions,
    gates_signing=False,
    result=verdict.result,
)
