"""Questions of Split crankcase in order: every fastener, their number, the splitter, the gaps, and loose parts."""

from __future__ import annotations

from functools import partial

from shopmath.amounts import mm
from stator.engines.case import case_choices
from stator.engines.fact_keys import FactKey
from stator.engines.parts import JOINT
from stator.engines.properties import Property
from stator.stations.framework import Method, Option, Question
from stator.stations.framework.messages import OptionRow, capital, format_message
from stator.stations.framework.question_factory import method, question
from stator.stations.split_crankcase import messages
from stator.stations.split_crankcase.analysis import MOST_LOOSE, TAB, UNCERTAIN_MM, Loose, SplitAnalysis, fault_of, length_of
from stator.ui.number_format import plain, size

ask = partial(question, messages)


def _halves(found: SplitAnalysis) -> list[tuple[str, str]]:
    """Return the two parts that meet at the present joint."""
    return [(uid, found.card.part_name(uid)) for uid in (found.joint.one, found.joint.other)]


def questions(found: SplitAnalysis) -> list[Question]:
    """Return the questions joint by joint: fasteners, the splitter, gaps round by round, then loose parts."""
    past = found.is_loaded or found.is_apart or found.stays_closed
    asked: list[Question] = []
    if not found.joint.lifting:
        text = messages.WHICH_PART if found.card.has_center_section or found.is_outside else None
        asked.append(ask(found.of(Property.LIFTING_HALF), choices=_halves(found), quiet=past, text=text))
    asked += _fasteners(found, past)
    if not found.is_outside:
        asked += _screws(found, past)
    if found.is_loaded:
        asked += _gaps(found)
    if found.is_apart:
        asked += _loose(found)
    if all(each.is_apart or each.stays_closed for each in found.every):
        asked.append(ask(FactKey(JOINT, Property.NOTE), optional=True))
    return asked


def _fasteners(found: SplitAnalysis, past: bool) -> list[Question]:
    asked = []
    for mark in found.fasteners:
        values = {"kind": mark.get_what_display().capitalize()}
        on_card = messages.ON_CARD if mark.length_mm else messages.NOT_ON_CARD
        where = format_message(on_card, {"thread": mark.thread, "length": mm(mark.length_mm or 0, 0.5)})
        example = plain(mark.length_mm) if mark.length_mm else "35"
        quiet = past or found.own.has(fault_of(mark))
        asked.append(ask(length_of(mark), values, where=where, optional=True, quiet=quiet, resolution=0.5, example=example))
        asked.append(ask(fault_of(mark), values, where=where, quiet=True, hide_until_answered=True))
    if found.held_elsewhere:
        return []
    if not found.fasteners:
        asked.append(ask(found.of(Property.FASTENERS_EXPECTED), optional=True, quiet=past, example="14"))
    return [*asked, ask(found.of(Property.FASTENERS_COUNTED), quiet=past, example="14")]


def _screws(found: SplitAnalysis, past: bool) -> list[Question]:
    """Return the questions on the splitter's screws in the case; those of the shop's splitter are known except their turns."""
    asked = []
    if found.splitter is None:
        asked = [
            ask(found.of(Property.SPLITTER_SCREW_DIAMETER), optional=True, quiet=past, example="6", resolution=0.1),
            ask(found.of(Property.SPLITTER_SCREW_PITCH), optional=True, quiet=past, example="1.0", resolution=0.01),
        ]
    return [*asked, ask(found.of(Property.SPLITTER_SCREW_TURNS), unit="turns", optional=True, quiet=past, example="8", resolution=0.25)]


def _gaps(found: SplitAnalysis) -> list[Question]:
    """Return the questions on gaps.

    Three places determine a plane. A place may be skipped if three remain, and always from the fourth reading on.
    """
    left = len(found.places) - sum(found.own.was_skipped(place.slot) for place in found.places)
    spare = found.taken_now >= 3 or left > 3
    how, step = messages.HOW[found.how][1], UNCERTAIN_MM[found.how] / 3
    return [ask(place.slot, where=how, optional=spare, quiet=found.is_apart, resolution=step, example="1.2") for place in found.places]


def _loose(found: SplitAnalysis) -> list[Question]:
    """Return the questions on loose parts one by one: what it is, its shaft, and the half that it was on."""
    halves = [*_parts(found), *messages.OPTIONS[Property.LOOSE_HALF]]
    asked: list[Question] = []
    for number in range(1, MOST_LOOSE + 1):
        each: Loose = found.loose_number(number)
        text = messages.ANOTHER_LOOSE if number > 1 else None
        asked.append(ask(each.slot(Property.LOOSE_PART), text=text, optional=True, example="washer 1.0"))
        if not each.what:
            break
        asked.append(ask(each.slot(Property.LOOSE_FROM), example="output, 1st"))
        asked.append(ask(each.slot(Property.LOOSE_HALF), choices=halves))
    return asked


def _parts(found: SplitAnalysis) -> list[tuple[str, str]]:
    """Return every part of the case, those of the present joint first."""
    first = _halves(found)
    return [*first, *(each for each in case_choices(found.card) if each not in first)]


def tabs(found: SplitAnalysis) -> Method | None:
    """The joints, where a case has more than one."""
    if len(found.every) == 1:
        return None
    options = tuple(Option(each.joint.uid, capital(each.joint.called)) for each in found.every)
    return Method(TAB, str(messages.IN_HAND), options, found.joint.uid)


def methods(found: SplitAnalysis) -> tuple[Method, ...]:
    """Return which splitter, and what the gaps are measured with."""
    if found.is_apart or found.is_outside or found.stays_closed:
        return ()
    shelf: list[OptionRow] = [*messages.METHOD["splitter"][1], *((str(each.pk), each.name) for each in found.splitters)]
    hows: list[OptionRow] = [(key, how[0], f"± {size(UNCERTAIN_MM[key])}") for key, how in messages.HOW.items()]
    return (
        method(messages, "splitter", str(found.splitter.pk) if found.splitter else "", shelf),
        method(messages, "how", found.how, hows),
    )
