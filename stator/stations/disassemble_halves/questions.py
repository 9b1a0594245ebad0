"""Questions of Disassemble halves: the crank, then part by part until the half is empty."""

from __future__ import annotations

from functools import partial

from stator.engines.properties import Property
from stator.stations.disassemble_halves import messages
from stator.stations.disassemble_halves.analysis import CAME_EVENLY, CRANK_OUT, MOST_PARTS, NOTE, DisassemblyAnalysis
from stator.stations.framework import Question
from stator.stations.framework.question_factory import question

ask = partial(question, messages)


def questions(found: DisassemblyAnalysis) -> list[Question]:
    asked = [ask(CRANK_OUT)]
    if found.crank == "pushed":
        asked.append(ask(CAME_EVENLY))
    for number in range(1, min(len(found.parts) + 2, MOST_PARTS + 1)):
        each = found.part_number(number)
        text = None if number > 1 else messages.FIRST_PART
        asked.append(ask(each.slot(Property.TRAY_PART), text=text, optional=True, example="gear cluster, output"))
        if not each.what:
            break
        asked.append(ask(each.slot(Property.PART_FROM), optional=True, example="output, 2nd"))
        asked.append(ask(each.slot(Property.PART_WAY)))
        asked.append(ask(each.slot(Property.PART_WEAR)))
    return [*asked, ask(NOTE, optional=True)] if found.is_bare else asked
