"""Questions of a press joint: its sizes, measured or usual, temperatures, and the peak force."""

from __future__ import annotations

from types import ModuleType
from typing import Any

from shopmath.amounts import mm
from stator.engines.fact_keys import FactKey
from stator.engines.parts import CRANK, HALVES
from stator.engines.properties import Property
from stator.shop.models import Gauge
from stator.stations.common.press_joint import messages
from stator.stations.common.press_joint.analysis import USUAL_UNIT, PressJointAnalysis, at
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import OptionRow, format_message
from stator.stations.framework.question_factory import method, question

LOAD = (Gauge.Kind.LOAD.value,)
SLACK_MM = 0.5  # by which sizes taken with a calliper may disagree
WIDEST_MM = 300.0
THROW_ANGLE = FactKey(CRANK, Property.THROW_ANGLE)


def sizes(station: ModuleType, found: PressJointAnalysis, quiet: bool) -> list[Question]:
    """Pin and hole as measured, or the pin alone where nothing can be got at."""

    def ask(what: Property, **more: Any) -> Question:
        return question(station, at(what), quiet=quiet, **more)

    questions = []
    if found.is_measured:
        questions.append(ask(Property.PIN_DIAMETER, example="22.063", gauges=("micrometer",), **_over_bore(found)))
        questions.append(ask(Property.PIN_HOLE, example="22.000", gauges=("bore",)))
    else:
        questions.append(ask(Property.PIN_SHOWN, example="22", resolution=0.01, gauges=("calliper",), **_over_bore(found)))
    end: dict[str, Any] = {"gauges": ("calliper",), "resolution": 0.1}
    questions += [
        ask(Property.PIN_LENGTH, example="16", **end),
        ask(Property.WEB_WALL, example="10", **end, **_wall(found)),
        ask(Property.WEB_WIDTH, example="80", **end, **_web(found)),
        ask(Property.PIN_BORE, optional=True, example="8", **end, **_bore(found)),
    ]
    if found.is_tapered:
        questions.append(ask(Property.PIN_TAPER, example="10"))
    if found.is_warm:
        questions.append(ask(Property.WEB_TEMPERATURE, example="150", resolution=1.0))
        questions.append(ask(Property.PIN_TEMPERATURE, example="60", resolution=1.0))
    return questions


def _over_bore(found: PressJointAnalysis) -> dict[str, Any]:
    """A pin is larger than the hole through it."""
    bore = found.value(Property.PIN_BORE)
    return (
        {"limits": (max(6.0, bore + 0.01), 90.0), "refusal": format_message(messages.PIN_TOO_SMALL, {"bore": mm(bore, 0.1)})}
        if bore
        else {}
    )


def _bore(found: PressJointAnalysis) -> dict[str, Any]:
    d = found.diameter
    return {"limits": (0.0, d - 0.01), "refusal": format_message(messages.BORE_TOO_LARGE, {"d": mm(d, 0.1)})} if d else {}


def _web(found: PressJointAnalysis) -> dict[str, Any]:
    """A web is at least as wide as its hole and both walls."""
    d, wall = found.diameter, found.value(Property.WEB_WALL)
    if not d or not wall:
        return {}
    needs = d + 2 * wall
    text = format_message(messages.WEB_TOO_NARROW, {"d": mm(d, 0.1), "wall": mm(wall, 0.1), "needs": mm(needs, 0.1)})
    return {"limits": (needs - SLACK_MM, WIDEST_MM), "refusal": text}


def _wall(found: PressJointAnalysis) -> dict[str, Any]:
    d, web = found.diameter, found.value(Property.WEB_WIDTH)
    if not d or not web:
        return {}
    highest = (web - d + SLACK_MM) / 2
    text = format_message(messages.WALL_TOO_THICK, {"web": mm(web, 0.1), "d": mm(d, 0.1), "most": mm(highest, 0.1)})
    return {"limits": (2.0, max(2.0, highest)), "refusal": text}


def peak(station: ModuleType, found: PressJointAnalysis, quiet: bool = False) -> Question:
    """Return the question for the peak force, in the unit of the press's gauge or of a connected load cell."""
    unit, per = USUAL_UNIT if found.is_heard else found.press_unit
    example = f"{found.plan.force_n.likely / per:.3g}" if found.plan else "31"
    return question(station, at(Property.PRESS_PEAK), quiet=quiet, unit=unit, example=example, resolution=0.1, gauges=LOAD, peak=True)


def throw_angle(station: ModuleType, where: str, **more: Any) -> Question:
    return question(station, THROW_ANGLE, where=where, example="180", resolution=0.5, **more)


def methods(station: ModuleType, found: PressJointAnalysis) -> list[Method]:
    """The press, and what the joint is like."""
    rows: list[OptionRow] = [(str(each.pk), each.name, each.capacity_text) for each in found.presses]
    press = [method(station, "press", str(found.press.pk), rows)] if found.press else []
    return [*press, *(method(station, key, found.chosen(key)) for key in ("joint", "condition", "warmth"))]


def sides(found: PressJointAnalysis) -> dict[str, str]:
    """Return what the engine calls its sides, for an answer that names one."""
    return {side: found.card.side(side) for side in HALVES}
