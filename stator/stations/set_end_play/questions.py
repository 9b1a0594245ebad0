"""Questions of Set end play: dimensions of the stack or the manual's table, limits, and the measured shims."""

from __future__ import annotations

from functools import partial
from typing import Any

from shopmath.amounts import mm
from stator.engines.fact_keys import FactKey
from stator.engines.parts import JOINT
from stator.engines.properties import Property
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import OptionRow, format_message
from stator.stations.framework.question_factory import method, question
from stator.stations.set_end_play import messages
from stator.stations.set_end_play.analysis import STACK, EndPlayAnalysis, crank, links_of, read_table, row_key, shim
from stator.ui.number_format import size

ask = partial(question, messages)
NEAR_MM = 0.06  # further from what its bag says a shim is another one
GAUGES = {Property.FACE_TO_BEARING: ("calliper",)}  # the others by micrometer
EXAMPLES = {
    "face-to-bearing.left": "38.42",
    "face-to-bearing.right": "31.10",
    "gasket-crushed": "0.45",
    "section-width": "62.00",
    "crank-shoulders": "69.10",
    "shims-fitted": "0.30",
}
ROWS_EXAMPLE = "1.0-1.1 0.9; 1.1-1.2 1.0"


def questions(found: EndPlayAnalysis) -> list[Question]:
    if found.card.two_cranks:
        return []
    asked = [ask(FactKey(JOINT, Property.CASE_TEMPERATURE), optional=True, resolution=1.0, example="20")]
    asked += _links(found) if found.how == STACK else _table(found)
    if found.limit is None:
        asked.append(ask(crank(Property.END_FLOAT_LEAST), example="0.10", resolution=0.01))
        asked.append(ask(crank(Property.END_FLOAT_MOST), example="0.20", resolution=0.01))
    asked += [_shim(number, piece) for number, piece in enumerate(found.pieces, 1)]
    if found.predicted:
        asked.append(ask(crank(Property.SHIM_SIDE)))
    return asked


def _links(found: EndPlayAnalysis) -> list[Question]:
    return [
        ask(
            link.slot,
            {"side": messages.SIDE.get(link.slot.part.uid, "")},
            text=messages.GASKET_AT if link.slot.what == Property.GASKET_CRUSHED and link.slot.part.name else None,
            optional=link.optional,
            gauges=GAUGES.get(link.slot.what, ("micrometer",)),
            example=EXAMPLES.get(link.slot.key) or EXAMPLES[link.slot.what],
            times=found.own.times(link.slot),
        )
        for link in links_of(found.card)
    ]


def _table(found: EndPlayAnalysis) -> list[Question]:
    asked = [
        ask(FactKey(JOINT, Property.TABLE_DISTANCE), gauges=("calliper",), example="1.15"),
        ask(FactKey(JOINT, Property.TABLE), example=ROWS_EXAMPLE, reads=read_table),
    ]
    read = found.table
    if read and read.between:
        rows: list[OptionRow] = [
            (row_key(row), size(row.shim_mm), format_message(messages.ROW_LEAVES, {"left": mm(left, 0.01)}))
            for row, left in zip(read.rows, read.floats_mm, strict=True)
        ]
        asked.append(ask(crank(Property.TABLE_ROW), choices=rows))
    return asked


def _shim(number: int, piece: float) -> Question:
    values: dict[str, Any] = {"piece": mm(piece, 0.001)}
    near = (piece - NEAR_MM, piece + NEAR_MM)
    refusal = format_message(messages.NOT_THAT_SHIM, values)
    return ask(shim(number), values, gauges=("micrometer",), example=f"{piece:.3f}", limits=near, refusal=refusal)


def methods(found: EndPlayAnalysis) -> tuple[Method, ...]:
    how = method(messages, "how", found.how)
    return (how, method(messages, "sum", found.adds_up)) if found.how == STACK else (how,)
