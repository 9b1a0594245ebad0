"""Questions of Close crankcase: gears, the torque if the card has none, then every bolt in its order, round by round."""

from __future__ import annotations

from dataclasses import replace
from functools import partial
from typing import Any

from shopmath.amounts import Amount, mm, newton_metres
from stator.engines.models import Mark
from stator.engines.properties import Property
from stator.stations.close_crankcase import messages
from stator.stations.close_crankcase.analysis import SEALANT, ClosingAnalysis, fault_of, torque_of
from stator.stations.close_crankcase.sealants import PASSAGES
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import OptionRow, format_message
from stator.stations.framework.question_factory import method, question
from stator.ui.number_format import plain

ask = partial(question, messages)


def questions(found: ClosingAnalysis) -> list[Question]:
    past = found.is_closing
    asked = [] if found.is_outside else [ask(found.of(Property.GEARS), quiet=past)]
    if found.said(Property.GEARS) == "not":
        asked.append(ask(found.of(Property.GEAR_FAULT), quiet=past))
    if not found.by_card:
        asked.append(ask(found.of(Property.BOLT_TORQUE_WANTED), quiet=past, example="10", resolution=0.5))
    if found.more_than_manual:
        asked.append(ask(found.of(Property.BOLT_TORQUE_INSTEAD), quiet=past, example="12", resolution=0.5))
        asked.append(ask(found.of(Property.REASON), quiet=past))
    if found.bolts_can_be_asked and found.is_closing:
        rounds = [[_bolt(found, mark, number) for mark in found.ordered] for number in range(1, len(found.rounds) + 1)]
        wiped = [ask(found.of(Property.SQUEEZED_OUT), quiet=not found.faces_together)] if found.films else []
        asked += [*rounds[0], *wiped, *(each for bolts in rounds[1:] for each in bolts)]
    return [*asked, *(ask(fault_of(mark), quiet=True, hide_until_answered=True) for mark in found.ordered)]


def _bolt(found: ClosingAnalysis, mark: Mark, number: int) -> Question:
    torque = nm(found.rounds[number - 1] * found.torque(mark))
    size = format_message(messages.SIZE_LONG, {"thread": mark.thread, "length": mm(mark.length_mm, 1.0)}) if mark.length_mm else mark.thread
    values: dict[str, Any] = {"torque": torque, "round": number, "rounds": len(found.rounds), "size": size}
    return ask(
        torque_of(mark, number),
        values,
        optional=True,
        skip_means_done=True,
        expects=torque.value,
        example=plain(torque.value, 3),
        resolution=0.5,
    )


def nm(value: float) -> Amount:
    """A torque with no more digits than it needs."""
    return newton_metres(value, 1.0 if abs(value - round(value)) < 0.05 else 0.1)


def methods(found: ClosingAnalysis) -> tuple[Method, ...]:
    if found.is_closing:
        return ()
    _label, others = messages.METHOD["sealant"]
    shelf: list[OptionRow] = [(str(each.pk), each.name, each.get_kind_display()) for each in found.sealants]
    chosen = str(found.sealant.pk) if found.sealant else found.between
    offered = [replace(method(messages, "sealant", chosen, [*others, *shelf]), key=found.sealant_choice)]
    if found.sealant:
        offered.append(method(messages, "faces", found.faces))
        for place in PASSAGES if not found.is_outside else ():
            key = f"{SEALANT}-at-{place}"
            rows: list[OptionRow] = [*messages.METHOD[place][1], *(row for row in shelf if row[0] != str(found.sealant.pk))]
            offered.append(replace(method(messages, place, found.own.choice(key), rows), key=key))
    offered.append(method(messages, "threads", found.on_threads))
    return (*offered, method(messages, "school", "more" if found.more_than_manual else "manual"))
