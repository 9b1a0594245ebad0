"""Questions of Balance flywheel: whether to balance, stops, trial mass, drilling area, and each hole as drilled."""

from __future__ import annotations

from functools import partial
from typing import Any

from shopmath import materials
from shopmath.amounts import degrees, kilograms, mm
from shopmath.balance import MARKS
from stator.engines.properties import Property
from stator.stations.balance_flywheel import messages
from stator.stations.balance_flywheel.analysis import BalanceAnalysis
from stator.stations.balance_flywheel.locations import METALS, WALL_MM, Phase, arcs, at, drills, hole, turning
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import OptionRow, format_message
from stator.stations.framework.question_factory import method, question
from stator.ui.table_texts import from_table

ask = partial(question, messages)


def questions(found: BalanceAnalysis) -> list[Question]:
    """All questions of the moment; those of steps gone by stay, but are not asked in turn."""
    later = found.attempt > 1
    asked = [ask(at(Property.SHOOK), quiet=later), ask(at(Property.WHEEL_SOUND), quiet=later)]
    if not found.to_touch:
        return asked
    asked += _wheel(found, later)
    roll: dict[str, Any] = {"resolution": 1.0, "example": "190", "gauges": ("stand",)}
    quiet = found.phase != Phase.ROLL
    asked.append(ask(at(Property.STOP_ANGLE), {"roll": len(found.marks) + 1}, repeats=True, quiet=quiet, **roll))
    if found.marks_tell:
        asked += _trial(found, later, found.needs_proof or bool(found.proof))
    if found.needs_proof or found.proof:
        asked += _proof(found)
    if found.is_adding:
        asked += _adding(found)
    elif found.amount and found.phase in (Phase.WEIGH, Phase.DRILL):
        asked += _drilling(found, later)
        asked += [_hole(found, number) for number in range(1, len(found.plan.holes) + 1)] if found.plan else []
    if found.phase in (Phase.DONE, Phase.UNPROVED):
        asked.append(ask(at(Property.NOTE), optional=True))
    return asked


def _wheel(found: BalanceAnalysis, later: bool) -> list[Question]:
    asked = []
    if not found.card.wheel_kg:
        asked.append(ask(at(Property.WHEEL_MASS), unit="kg", quiet=later, resolution=0.01, example="1.9"))
    if not found.card.wheel_rpm:
        asked.append(ask(at(Property.WHEEL_SPEED), quiet=later, resolution=10, example="8500"))
    rim: dict[str, Any] = {"resolution": 0.1, "example": "170", "gauges": ("calliper",)}
    return [*asked, ask(at(Property.RIM_DIAMETER), quiet=later, **rim)]


def _within_rim(found: BalanceAnalysis) -> dict[str, Any]:
    rim = found.value(Property.RIM_DIAMETER)
    return {"limits": (5.0, rim / 2), "refusal": format_message(messages.OUTSIDE_RIM, {"rim": mm(rim, 0.1)})} if rim else {}


def _proof(found: BalanceAnalysis) -> list[Question]:
    """Return the questions for the lowest mass that turns it at four marks, the only proof of balance on a stand with friction."""
    arm = found.value(Property.TRIAL_RADIUS)
    past = arm is not None and found.now(turning(0)) is not None
    asked = [
        ask(at(Property.TRIAL_RADIUS), where=messages.PROOF_RADIUS, resolution=0.5, example="80", quiet=past, **_within_rim(found)),
        ask(at(Property.MASS_STEP), optional=True, quiet=True, resolution=0.00001, example="0.1"),
    ]
    if found.marks_tell:
        asked = asked[1:]  # the radius is asked with the trial mass
    for mark in MARKS:
        asked.append(ask(turning(mark), {"mark": degrees(mark)}, resolution=0.00001, example="0.3"))
    return asked


def _adding(found: BalanceAnalysis) -> list[Question]:
    """Return where a mass is fastened instead of drilling, and what it weighs."""
    light, needed = {"light": degrees(found.light_deg)}, found.to_add_g
    asked = [ask(at(Property.ADDED_RADIUS), light, resolution=0.5, example="60", **_within_rim(found))]
    if needed is not None:
        values = {**light, "wanted": kilograms(needed / 1000, 0.0001)}
        asked.append(ask(at(Property.ADDED_MASS), values, resolution=0.0001, example=f"{needed:.1f}"))
    return asked


def _trial(found: BalanceAnalysis, later: bool, past: bool) -> list[Question]:
    stays = found.now(at(Property.TRIAL_STAYS))
    more: dict[str, Any] = {}
    if stays is not None:
        more = {"limits": (stays, 5.0), "refusal": format_message(messages.TURNS_WITH_MORE, {"stays": kilograms(stays, 0.0001)})}
    light = {"light": degrees(found.light_deg)}
    return [
        ask(at(Property.TRIAL_RADIUS), light, resolution=0.5, example="80", quiet=later, **_within_rim(found)),
        ask(at(Property.TRIAL_STAYS), resolution=0.0001, example="1.2", quiet=past),
        ask(at(Property.TRIAL_TURNS), resolution=0.0001, example="1.6", quiet=past, **more),
    ]


def _drilling(found: BalanceAnalysis, later: bool) -> list[Question]:
    return [
        ask(at(Property.DRILL_RADIUS), resolution=0.5, example="80", quiet=later, **_within_rim(found)),
        ask(at(Property.FINISH_RADIUS), optional=True, example="45", quiet=later, **_within_rim(found)),
        ask(at(Property.RIM_DEPTH), resolution=0.1, example="16", quiet=later),
        ask(at(Property.KEEP_OUT), optional=True, example="350-20", quiet=later, reads=arcs),
        ask(at(Property.DRILLS), optional=True, example="4 6 8", quiet=later, reads=drills),
    ]


def _hole(found: BalanceAnalysis, number: int) -> Question:
    assert found.plan is not None
    each, thick = found.plan.holes[number - 1], found.value(Property.RIM_DEPTH) or WALL_MM
    values = {
        "number": number,
        "drill": mm(each.diameter_mm, 1.0 if each.diameter_mm == round(each.diameter_mm) else 0.1),
        "angle": degrees(each.angle_deg),
        "radius": mm(each.radius_mm, 0.1),
        "depth": mm(each.depth_mm, 0.1),
    }
    through = thick - found.wall_under(number, 0.0)  # of the point alone
    deepest = {"limits": (0.0, max(0.0, thick - through)), "refusal": format_message(messages.COMES_THROUGH, {"thick": mm(thick, 0.1)})}
    return ask(hole(number), values, resolution=0.1, example=f"{each.depth_mm:.1f}", gauges=("calliper",), **deepest)


def methods(found: BalanceAnalysis) -> tuple[Method, ...]:
    if not found.to_touch:
        return ()
    metals: list[OptionRow] = [(key, from_table(materials.get(key).name)) for key in METALS]
    return (method(messages, "grade", str(found.grade).removesuffix(".0")), method(messages, "metal", found.metal, metals))
