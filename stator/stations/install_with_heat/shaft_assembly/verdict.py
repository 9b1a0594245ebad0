"""The verdict on a shaft with its parts, or a rubber bushing."""

from __future__ import annotations

from typing import Any

from shopmath.amounts import degrees, mm
from shopmath.verdict import IN, OUT, TOO_CLOSE, severity
from stator.stations.framework import Question, Scale, State, Verdict, from_conformity
from stator.stations.framework.limits import limit_values
from stator.stations.install_with_heat.shaft_assembly import messages
from stator.stations.install_with_heat.shaft_assembly.analysis import PROTRACTOR_U_DEG, Assembly, Code

STOPS = (Code.OILED,)


def verdict(found: Assembly, questions: list[Question]) -> Verdict:
    """Faults first, then what was measured; `asked` is what is still to be answered of this part."""
    part = found.fitted
    values: dict[str, Any] = {"part": part.name, "question": questions[0].text if questions else "", **_limits(found)}
    if found.faults:
        code = found.faults[0]
        return Verdict(State.STOP if code in STOPS else State.OUT, code, values)
    limits = _limits_code(found)
    calls = [each for each in (found.angle, found.depth) if each]
    if not calls:
        reason = "order" if part.pieces else "rubber" if found.is_rubber else "source" if part.source else "card"
        return Verdict(State.WAIT, Code.MEASURE, values, reason, "ask" if questions else "measure", limits)
    worst = min(calls, key=lambda each: severity(each.state))
    kind, step = ("angle", 0.1) if worst is found.angle else ("length", 0.01)
    values |= limit_values(worst, kind, step)
    headline = {IN: Code.AS_DRAWN, TOO_CLOSE: Code.UNSURE, OUT: Code.NOT_AS_DRAWN}[worst.state]
    return from_conformity(worst, headline, values=values, next=_next(found, worst.state, questions), detail=limits, scale=_scale(found))


def _next(found: Assembly, state: str, questions: list[Question]) -> str:
    if state == IN:
        return "ask" if questions else "on"
    if state == TOO_CLOSE:
        return Code.UNSURE
    if found.is_rubber:
        return "short_side"
    return "turn" if found.angle and found.angle.state == OUT else "to_depth"


def _limits_code(found: Assembly) -> str:
    return "rubber" if found.is_rubber else "depth" if found.fitted.angle_deg is None else "turned"


def _limits(found: Assembly) -> dict[str, Any]:
    part = found.fitted
    values: dict[str, Any] = {"within": mm(part.depth_within_mm, 0.1), "depth": mm(part.depth_mm, 0.1)}
    values |= {"source": part.source or messages.NO_SOURCE, "order": part.order, "turned": part.turned}
    if part.angle_deg is not None:
        values |= {"angle": degrees(part.angle_deg), "angle_within": degrees(part.angle_within_deg)}
    return values


def _scale(found: Assembly) -> Scale:
    """The direction while it is not in, else the depth."""
    part = found.fitted
    if found.angle and part.angle_deg is not None and (found.angle.state != IN or found.depth is None):
        low, high = part.angle_deg - part.angle_within_deg, part.angle_deg + part.angle_within_deg
        return Scale(found.angle_deg or 0.0, PROTRACTOR_U_DEG, low, high, "°", 1)
    return Scale(found.depth_mm or 0.0, found.depth_u_mm, *found.depth_limits_mm, "mm", 2)
