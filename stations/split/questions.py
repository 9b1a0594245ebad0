"""What is asked at Split, in order: every fastener, the count, the splitter's hold, the gaps round the joint, what hangs loose."""

from __future__ import annotations

from typing import Any

from engines.parts import JOINT
from engines.properties import Property
from engines.slots import Slot
from shopmath.amounts import mm
from stations.base import Ask, Method, Option
from stations.base.words import fill
from stations.split import words
from stations.split.facts import MOST_LOOSE, UNCERTAIN_MM, Loose, SplitFacts, length_of, of_joint


def _ask(slot: Slot, question: Any = None, where: Any = None, **more: Any) -> Ask:
    what = slot.what
    more.setdefault("skip_means", str(words.SKIP.get(what, "")))
    kind = slot.about.kind
    units = {"words": "", "count": "", "length": "mm", "thread_pitch": "mm", "angle": "turns"}
    return Ask(
        slot.key,
        str(question or words.QUESTION[what]),
        str(where if where is not None else words.WHERE.get(what, "")),
        kind,
        units[kind],
        slot=slot,
        **more,
    )


def _halves(found: SplitFacts) -> tuple[Option, Option]:
    card = found.card
    left, right = (fill(words.HALF, {"side": side}) for side in (card.left_name, card.right_name))
    return Option("left", left), Option("right", right)


def questions(found: SplitFacts) -> list[Ask]:
    """Fasteners first, then the splitter, then gaps round after round, then loose parts."""
    past = found.is_loaded
    asked: list[Ask] = []
    if not found.card.lifts:
        asked.append(_ask(of_joint(Property.LIFTING_HALF), options=_halves(found), quiet=past))
    asked += _fasteners(found, past)
    asked += _screws(found, past)
    if found.is_loaded:
        asked += _gaps(found)
    if found.is_apart:
        asked += _loose(found)
        asked.append(_ask(of_joint(Property.NOTE), optional=True))
    return asked


def _fasteners(found: SplitFacts, past: bool) -> list[Ask]:
    asked = []
    for mark in found.fasteners:
        question = fill(words.QUESTION[Property.BOLT_LENGTH], {"kind": mark.get_what_display().capitalize(), "name": mark.name})
        on_card = words.ON_CARD if mark.length_mm else words.NOT_ON_CARD
        where = fill(on_card, {"thread": mark.thread, "length": mm(mark.length_mm or 0, 0.5)})
        example = f"{mark.length_mm:g}" if mark.length_mm else "35"
        asked.append(_ask(length_of(mark), question, where, optional=True, quiet=past, resolution=0.5, example=example))
    if not found.fasteners:
        asked.append(_ask(of_joint(Property.FASTENERS_EXPECTED), optional=True, quiet=past, example="14"))
    return [*asked, _ask(of_joint(Property.FASTENERS_COUNTED), quiet=past, example="14")]


def _screws(found: SplitFacts, past: bool) -> list[Ask]:
    """The splitter's screws in the case; those of the shelf are known but for their turns."""
    asked = []
    if found.splitter is None:
        asked = [
            _ask(of_joint(Property.SPLITTER_SCREW_DIAMETER), optional=True, quiet=past, example="6", resolution=0.1),
            _ask(of_joint(Property.SPLITTER_SCREW_PITCH), optional=True, quiet=past, example="1.0", resolution=0.01),
        ]
    return [*asked, _ask(of_joint(Property.SPLITTER_SCREW_TURNS), optional=True, quiet=past, example="8", resolution=0.25)]


def _gaps(found: SplitFacts) -> list[Ask]:
    """Three places make a plane; a place may be left out as long as three remain, and always from the fourth reading on."""
    left = len(found.places) - sum(found.own.was_skipped(place.slot) for place in found.places)
    spare = found.taken_now >= 3 or left > 3
    how, step = words.HOW[found.how][1], UNCERTAIN_MM[found.how] / 3
    return [
        _ask(
            place.slot,
            fill(words.QUESTION[Property.GAP], {"name": place.part.name}),
            how,
            optional=spare,
            quiet=found.is_apart,
            resolution=step,
            example="1.2",
        )
        for place in found.places
    ]


def _loose(found: SplitFacts) -> list[Ask]:
    """What it is, which shaft it was on, which half it was found on; one part after the other until none is left."""
    halves = (*_halves(found), Option("fell", str(words.FELL), str(words.FELL_HINT)))
    asked: list[Ask] = []
    for number in range(1, MOST_LOOSE + 1):
        each: Loose = found.loose_number(number)
        question = words.ANOTHER_LOOSE if number > 1 else None
        asked.append(_ask(each.slot(Property.LOOSE_PART), question, optional=True, example="washer 1.0"))
        if not each.what:
            break
        asked.append(_ask(each.slot(Property.LOOSE_FROM), example="output, 1st"))
        asked.append(_ask(each.slot(Property.LOOSE_HALF), options=halves))
    return asked


def methods(found: SplitFacts) -> tuple[Method, ...]:
    """Which splitter, and what the gaps are measured with."""
    if found.is_apart:
        return ()
    shelf = (Option("", str(words.MEASURED_SPLITTER)), *(Option(str(each.pk), each.name) for each in found.splitters))
    hows = tuple(Option(key, str(name), f"±{UNCERTAIN_MM[key]:g} mm") for key, (name, _) in words.HOW.items())
    return (
        Method("splitter", str(words.SPLITTER), shelf, str(found.splitter.pk) if found.splitter else ""),
        Method("how", str(words.GAP_WITH), hows, found.how),
    )


NOTE = Slot(JOINT, Property.NOTE)
