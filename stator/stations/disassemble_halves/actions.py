"""Actions of Disassemble halves, and what they record."""

from __future__ import annotations

from stator.engines.parts import Kind
from stator.engines.properties import Property
from stator.jobs import tray
from stator.jobs.models import Reading
from stator.stations.disassemble_halves import messages
from stator.stations.disassemble_halves.analysis import MOST_PARTS, DisassemblyAnalysis
from stator.stations.framework import Action, BoundStation
from stator.stations.framework.question_factory import answer


def actions(bound: BoundStation) -> tuple[Action, ...]:
    return (bound.sign_action(),) if bound.analysis.is_bare else ()


def kept(bound: BoundStation, reading: Reading) -> None:
    """Put a part that is completely described on its tray position, each part of a list on its own; a corrected answer corrects it."""
    if reading.subject is None or reading.subject.kind != Kind.TRAY:
        return
    found: DisassemblyAnalysis = bound.analysis
    each = next((part for number in range(1, MOST_PARTS + 1) if (part := found.part_number(number)).part == reading.subject.part), None)
    if each is None or not each.is_described:
        return
    for index, (count, name) in enumerate(each.items):
        tray.add_to_tray(
            bound.job,
            bound.person,
            f"{reading.entry_id}-{each.part.uid}{f'-{index}' if index else ''}",
            name=name,
            count=count,
            station=bound.stage,
            where_from=each.from_where[:80],
            way_round=answer(messages, Property.PART_WAY, each.way),
            wear=str(messages.WEAR.get(each.wear, "")),
        )
