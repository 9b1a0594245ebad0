"""Questions of Install crank: the thread of the end, the distance, then turns and torque, then both gaps."""

from __future__ import annotations

from dataclasses import replace
from functools import partial
from typing import Any

from shopmath.amounts import count, thread_size
from stator.engines.fact_keys import FactKey
from stator.engines.properties import Property
from stator.engines.property_specs import ABOUT
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import OptionRow, format_message
from stator.stations.framework.question_factory import method, question
from stator.stations.install_crank import messages
from stator.stations.install_crank.analysis import DROP, GAPS, PULL, CrankInstallationAnalysis

ask = partial(question, messages)


def questions(found: CrankInstallationAnalysis) -> list[Question]:
    if found.is_refused:
        return []
    asked = []
    for each in found.ends if found.way == PULL else ():
        pulled = _pull(each)
        asked += pulled if each.end == found.end else [replace(ask, quiet=True) for ask in pulled]
    if found.has_two and (found.way == DROP or found.all_home):
        return [*asked, *(_gap_of_two(found, slot) for slot in found.gap_slots)]
    if found.way == DROP or found.all_home:
        gap: dict[str, Any] = {"example": "0.30", "resolution": 0.01, "gauges": ("feeler",)}
        first = sorted(GAPS, key=lambda slot: slot.at.end == found.open_side)  # of the half it lies in first
        for slot in first:
            more = {"optional": True, "where": messages.NOT_ON_YET} if slot.at.end == found.open_side else {}
            asked.append(ask(slot, {"side": found.card.side(slot.at.end)}, **gap, **more))
    return asked


def _gap_of_two(found: CrankInstallationAnalysis, slot: FactKey) -> Question:
    """A gap of one crank of two: outside, or toward the centre section."""
    more: dict[str, Any] = {"example": "0.30", "resolution": 0.01, "gauges": ("feeler",)}
    return ask(slot, {"side": found.card.side(slot.at.end)}, text=messages.GAP_OF[slot.at.depth], **more)


def _pull(found: CrankInstallationAnalysis) -> list[Question]:
    past = found.has_begun
    side = {"side": found.card.side(found.end)}

    def ask(slot: FactKey, **more: Any) -> Question:
        """By the end it is at, where there are two."""
        return question(messages, slot, side, text=messages.QUESTION_AT[slot.what] if found.end else None, **more)

    asked = [
        ask(found.at(Property.END_THREAD_DIAMETER), quiet=past, example="12", resolution=0.01, gauges=("calliper",)),
        ask(found.at(Property.END_THREAD_PITCH), quiet=past, example="1.25", resolution=0.01),
        ask(found.at(Property.ADAPTER_TURNS), quiet=past, example="8", resolution=1.0),
        ask(found.at(Property.TRAVEL), quiet=past, example="18", resolution=0.1, gauges=("calliper",)),
    ]
    if not past:
        return asked
    turned, felt = len(found.every(Property.SCREW_TURNS_DONE)), len(found.every(Property.SCREW_TORQUE))
    even = turned <= felt  # turns first, then what the wrench felt after them
    if found.called_home:
        said = ((Property.SCREW_TURNS_DONE, turned), (Property.SCREW_TORQUE, felt))
        return [*asked, *(ask(found.at(what), quiet=True, times=times, resolution=1.0) for what, times in said if times)]
    needed = found.wanted_turns
    turns: dict[str, Any] = {
        "where": format_message(messages.IN_ALL, {"turns": count(needed, 0.1)}) if needed else messages.FROM_FIRST,
        "limits": (found.done_turns, ABOUT[Property.SCREW_TURNS_DONE].high),
        "refusal": format_message(messages.FEWER, {"done": count(found.done_turns)}),
    }
    asked.append(ask(found.at(Property.SCREW_TURNS_DONE), quiet=not even, times=turned + 1, example="2", resolution=1.0, **turns))
    asked.append(ask(found.at(Property.SCREW_TORQUE), quiet=even, times=felt + 1, example="6", resolution=1.0))
    return asked


def methods(found: CrankInstallationAnalysis) -> tuple[Method, ...]:
    if found.has_begun:
        return ()
    way = method(messages, "school", found.way)
    if not found.tool or found.way != PULL:
        return (way,)
    tools: list[OptionRow] = [
        (str(each.pk), each.name, format_message(messages.A_TURN, {"pitch": thread_size(each.pitch_mm)})) for each in found.tools
    ]
    return (way, method(messages, "tool", str(found.tool.pk), tools))
