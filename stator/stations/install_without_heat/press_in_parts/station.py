"""Install without heat: pins, bushings and plugs of a case, one after the other in one entry."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from stator.engines.properties import Property
from stator.jobs.facts import Finding
from stator.stations.framework import Action, BoundStation, Method, Option, Question
from stator.stations.framework.page_components import SafetyWarning, Source
from stator.stations.framework.remeasure import request_remeasurement
from stator.stations.install_without_heat import drawing, messages, questions
from stator.stations.install_without_heat import verdict as of_ring
from stator.stations.install_without_heat.analysis import FAILED
from stator.stations.install_without_heat.one_seat import EACH_TIME, ONE_SEAT
from stator.stations.install_without_heat.press_in_parts.analysis import TAB, PressInAnalysis, part_facts
from stator.stations.install_without_heat.press_in_parts.verdict import overall, result, verdict


def asks(found: PressInAnalysis) -> list[Question]:
    """Return the questions of the present part in sequence, and those of other parts quiet with the name of the part."""
    asked: list[Question] = []
    for each in found.things:
        of_part = [question for question in questions.questions(each) if question.slot is None or question.slot.what != Property.NOTE]
        here = each.thing.uid == found.thing.uid
        asked += of_part if here else [replace(question, quiet=True) for question in of_part]
    return asked


def tabs(found: PressInAnalysis) -> Method | None:
    options = tuple(Option(each.thing.uid, each.thing.name) for each in found.things)
    return Method(TAB, str(messages.PART_IN_HAND), options, found.thing.uid) if options else None


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: PressInAnalysis = bound.analysis
    if not found.things:
        return ()
    again = Action("again", str(messages.ACTION["again"]), "again", True, do=start_again)
    signs = (bound.sign_action(),) if found.all_done else ()
    crooked = found.starts is not None and found.starts.state == "out" and not found.outcome
    failed = found.outcome in FAILED or (found.is_done and not found.is_home)
    return (*((again,) if crooked or failed else ()), *signs)


def start_again(bound: BoundStation) -> None:
    """Start the present part again: readings of its installation are withdrawn and measured again."""
    found: PressInAnalysis = bound.analysis
    request_remeasurement(
        bound, [question.slot for question in questions.questions(found) if question.slot and question.slot.what in EACH_TIME]
    )


def may_sign(bound: BoundStation) -> str:
    return "" if bound.analysis.all_done else str(messages.EVERY_PART)


def _nothing(found: PressInAnalysis) -> tuple[Finding, ...]:
    return ()


def checks(found: PressInAnalysis) -> tuple[SafetyWarning, ...]:
    return of_ring.checks(found) if found.things else ()


def warnings(found: PressInAnalysis) -> tuple[SafetyWarning, ...]:
    return of_ring.warnings(found) if found.things else ()


def sources(found: PressInAnalysis) -> Iterator[Source]:
    return of_ring.sources(found) if found.things else iter(())


PARTS = replace(
    ONE_SEAT,
    by_seat=False,
    gives=(Property.FIT_OUTCOME,),
    each_round=frozenset(),
    facts=part_facts,
    questions=asks,
    tabs=tabs,
    methods=lambda found: questions.methods(found) if found.things else (),
    verdict=verdict,
    overall=overall,
    checks=checks,
    checks_past=lambda found: found.all_done,
    warnings=warnings,
    sources=sources,
    derived=_nothing,
    draw=drawing.draw,
    actions=actions,
    may_sign=may_sign,
    result=result,
)
