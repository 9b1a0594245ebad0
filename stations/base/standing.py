"""The next move of a station in the run: kept by its code and values, said anew for whoever looks."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from shopmath.amounts import Amount
from stations.base.station import Station
from stations.base.words import SIGNED_BY, sentence

SIGNED = "signed"
AMOUNT = {"value", "kind", "resolution", "uncertainty"}


def kept(code: str, values: Mapping[str, Any], *, whole: bool) -> dict[str, Any]:
    """As it is written down; `whole` is of the work on all seats at once, whose sentences are its own."""
    return {"code": code, "values": {name: _plain(value) for name, value in values.items() if _is_plain(value)}, "whole": whole}


def _is_plain(value: Any) -> bool:
    """Whether a value can be kept; a sentence that was made for one reader cannot."""
    if isinstance(value, (tuple, list)):
        return all(_is_plain(each) for each in value)
    return value is None or isinstance(value, (Amount, str, int, float, bool))


def _plain(value: Any) -> Any:
    if isinstance(value, Amount):
        return {name: _plain(each) for name, each in asdict(value).items()}
    if isinstance(value, (tuple, list)):
        return [_plain(each) for each in value]
    return str(value) if isinstance(value, float) and not math.isfinite(value) else value


def said(station: Station, move: Mapping[str, Any]) -> str:
    """The sentence of what was kept; empty where nothing was, or where a value that it needs was not kept."""
    code, values = str(move.get("code", "")), {name: _amount(each) for name, each in move.get("values", {}).items()}
    definition = station.whole if move.get("whole") and station.whole else station
    table = {SIGNED: SIGNED_BY, **getattr(definition.words, "NEXT", {})}
    try:
        return sentence(table, code, values)
    except KeyError:
        return ""


def _amount(value: Any) -> Any:
    """A number of a sentence again; what is beyond all measure is kept in words."""
    if not isinstance(value, dict) or value.keys() != AMOUNT:
        return value
    uncertainty = value["uncertainty"]
    return Amount(float(value["value"]), value["kind"], value["resolution"], None if uncertainty is None else float(uncertainty))
