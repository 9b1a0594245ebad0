"""Questions for a shaft with its parts, or a rubber bushing."""

from __future__ import annotations

from functools import partial
from typing import Any

from shopmath.amounts import degrees, mm
from stator.engines.properties import Property
from stator.stations.framework import Question
from stator.stations.framework.messages import format_message
from stator.stations.framework.question_factory import question
from stator.stations.install_with_heat.shaft_assembly import messages
from stator.stations.install_with_heat.shaft_assembly.analysis import INSIDE, OUTSIDE, Assembly

ask = partial(question, messages)
SIZED: dict[str, Any] = {"gauges": ("calliper",), "resolution": 0.02}


def questions(found: Assembly) -> list[Question]:
    if found.is_rubber:
        ends = [
            ask(found.slot(Property.STANDS_OUT, at), {"end": messages.ENDS[at.end]}, example="2.0", **SIZED) for at in (INSIDE, OUTSIDE)
        ]
        return [ask(found.slot(Property.BUSH_LUBRICANT)), *ends]
    part, asked = found.fitted, []
    if part.pieces:
        asked.append(ask(found.slot(Property.PIECES_ORDER), {"pieces": ", ".join(part.pieces)}))
    if part.angle_deg is not None:
        values = {"turned": part.turned, "angle": degrees(part.angle_deg, 0.5 if part.angle_deg % 1 else 1.0)}
        where = format_message(messages.WHERE[Property.DIRECTION], values)
        example = f"{part.angle_deg:g}"
        asked.append(ask(found.slot(Property.DIRECTION), values, where=where, optional=True, resolution=0.5, example=example))
    where = format_message(messages.WHERE[Property.END_DEPTH], {"depth": mm(part.depth_mm, 0.1)})
    asked.append(ask(found.slot(Property.END_DEPTH), where=where, optional=True, example="0", **SIZED))
    if part.pieces:
        asked.append(ask(found.slot(Property.SPINDLE_PLAY)))
    return asked
