"""The verdict of Disassemble halves: a tilted crank, parts on their way to the tray, the empty half."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from stator.stations.disassemble_halves import messages
from stator.stations.disassemble_halves.analysis import CAME_EVENLY, Code, DisassemblyAnalysis
from stator.stations.framework import Alternative, Question, Source, State, Verdict
from stator.stations.framework.messages import format_message
from stator.stations.framework.question_factory import source

MOST_NAMED = 4


def verdict(found: DisassemblyAnalysis, questions: list[Question]) -> Verdict:
    move = "ask" if questions else "sign"
    if found.came == "crooked" and not found.is_bare:
        return Verdict(State.STOP, Code.STOP_PUSHING, next="begin_again", ways=(Alternative(CAME_EVENLY, code="straight"),))
    values: dict[str, Any] = {"places": len(found.places), "worn": len(found.worn)}
    if not found.is_bare:
        return Verdict(State.WAIT, Code.INTO_THE_TRAY, values, "so_far" if found.places else "nothing", move)
    if not found.worn:
        return Verdict(State.IN, Code.BARE, values, "filled", move)
    named = [format_message(messages.WORN_PART, {"number": p.number, "name": p.name, "wear": p.wear}) for p in found.worn[:MOST_NAMED]]
    return Verdict(State.TOO_CLOSE, Code.BARE_WITH_WEAR, {**values, "parts": "; ".join(named)}, "worn", move, "worn")


def sources(found: DisassemblyAnalysis) -> Iterator[Source]:
    if found.places:
        pieces = format_message(messages.PIECES, {"count": sum(place.count for place in found.places)})
        yield source(messages, "tray", pieces, {"places": len(found.places)})
