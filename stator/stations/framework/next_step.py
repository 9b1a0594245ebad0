"""The next step of a station in the work plan: stored as code and values, rendered for each reader."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from stator.stations.framework.definition import StationDefinition
from stator.stations.framework.messages import SIGNED_BY, render_message, sentence
from stator.stations.framework.verdict import again, plain_values

SIGNED = "signed"


def next_step_code(code: str, values: Mapping[str, Any], *, whole: bool) -> dict[str, Any]:
    """As it is written down; `whole` is of the work on all seats at once, whose sentences are its own."""
    return {"code": code, "values": plain_values(values), "whole": whole}


def render_next_step(station: StationDefinition, move: Mapping[str, Any], named: str = "NEXT", *, first_large: bool = True) -> str:
    """Return the stored next step as a sentence. It is empty if nothing was stored or a value is missing."""
    code, values = str(move.get("code", "")), {name: again(each) for name, each in move.get("values", {}).items()}
    definition = station.whole if move.get("whole") and station.whole else station
    table = {SIGNED: SIGNED_BY, **getattr(definition.words, named, {})}
    try:
        return sentence(table, code, values) if first_large else render_message(table, code, values)
    except KeyError:
        return ""
