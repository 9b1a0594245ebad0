"""Questions of each seal: which one it is, what it retains or keeps out, its direction and its depth."""

from __future__ import annotations

from functools import partial
from typing import Any

from shopmath.amounts import mm
from shopmath.seals import CLOCKS
from stator.engines.properties import Property
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import format_message
from stator.stations.framework.page_components import Option
from stator.stations.framework.question_factory import method, question
from stator.stations.install_seals import messages
from stator.stations.install_seals.analysis import TAB, SealAnalysis, SealFound, depth_of

BY_CALLIPER = ("calliper",)
WIDEST_MM = 250.0


def questions(found: SealAnalysis) -> list[Question]:
    """Return the questions of every seal; those of other seals are quiet."""
    return [ask for each in found.seals for ask in of_seal(found, each)]


def of_seal(found: SealAnalysis, of: SealFound) -> list[Question]:
    seal = of.seal
    ask = partial(question, messages, quiet=of.seal != found.in_hand.seal)
    asked = [
        ask(of.at(Property.SEAL_SHAFT), example=f"{seal.shaft_mm:g}", gauges=BY_CALLIPER, **_under_bore(of)),
        ask(of.at(Property.SEAL_BORE), example=f"{seal.bore_mm:g}", gauges=BY_CALLIPER, **_over_shaft(of)),
    ]
    if not of.is_the_one:
        return asked
    asked += [ask(of.at(Property.SEAL_KEEPS)), ask(of.at(Property.SEAL_LIP), measure_again=True)]
    if of.against_rule:
        asked.append(ask(of.at(Property.PAGE), example="manual page 42"))
    if not of.way_settled:
        return asked
    for clock in CLOCKS:
        deep: dict[str, Any] = {"example": f"{seal.depth_mm:g}", "resolution": 0.02, "gauges": BY_CALLIPER}
        asked.append(ask(depth_of(seal, clock), {"clock": clock}, measure_again=True, **deep))
    return [*asked, ask(of.at(Property.BEARING_FACE_DEPTH), optional=True, example="8.5", measure_again=True)]


def _under_bore(of: SealFound) -> dict[str, Any]:
    """A shaft is smaller than the bore, once that is measured."""
    bore = of.own.value(of.at(Property.SEAL_BORE))
    return {"limits": (3.0, bore - 0.01), "refusal": format_message(messages.SHAFT_LARGER, {"bore": mm(bore, 0.1)})} if bore else {}


def _over_shaft(of: SealFound) -> dict[str, Any]:
    shaft = of.own.value(of.at(Property.SEAL_SHAFT))
    return (
        {"limits": (shaft + 0.01, WIDEST_MM), "refusal": format_message(messages.BORE_SMALLER, {"shaft": mm(shaft, 0.1)})} if shaft else {}
    )


def is_open(found: SealAnalysis, of: SealFound) -> bool:
    """Return True if something is still to be asked of a seal."""
    return any(ask.slot and not found.own.has(ask.slot) and ask.key not in found.own.skipped for ask in of_seal(found, of))


def next_seal(found: SealAnalysis) -> SealFound | None:
    """Return the next seal with an open question."""
    at = found.seals.index(found.in_hand)
    others = [*found.seals[at + 1 :], *found.seals[:at]]
    return next((each for each in others if is_open(found, each)), None)


def tabs(found: SealAnalysis) -> Method:
    options = tuple(Option(each.seal.uid, each.seal.name) for each in found.seals)
    return Method(TAB, str(messages.IN_HAND), options, found.in_hand.seal.uid)


def methods(found: SealAnalysis) -> tuple[Method, ...]:
    return (method(messages, "when", found.own.choice("when", "after")), method(messages, "case", found.case))
