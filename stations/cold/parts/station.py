"""Fitting without heat: pins, bushes and plugs of a case, one after the other in one entry."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from engines.properties import Property
from jobs.facts import Finding
from stations.base import Action, Method, Option, Question
from stations.base.anew import ask_anew
from stations.cold import drawing, questions, words
from stations.cold import verdict as of_ring
from stations.cold.facts import FAILED
from stations.cold.one_seat import EACH_TIME, ONE_SEAT
from stations.cold.parts.facts import TAB, PartFacts, part_facts
from stations.cold.parts.verdict import overall, result, verdict
from stations.pieces import Caution, Trace


def asks(found: PartFacts) -> list[Question]:
    """Of the part in hand in turn, of the others aside; what they are known by is named in each."""
    asked: list[Question] = []
    for each in found.things:
        of_part = [ask for ask in questions.questions(each) if ask.slot is None or ask.slot.what != Property.NOTE]
        here = each.thing.uid == found.thing.uid
        asked += of_part if here else [replace(ask, quiet=True) for ask in of_part]
    return asked


def tabs(found: PartFacts) -> Method | None:
    options = tuple(Option(each.thing.uid, each.thing.name) for each in found.things)
    return Method(TAB, str(words.PART_IN_HAND), options, found.thing.uid) if options else None


def actions(bound: Any) -> tuple[Action, ...]:
    found: PartFacts = bound.found
    if not found.things:
        return ()
    again = Action("again", str(words.ACTION["again"]), "again", True, do=start_again)
    signs = (bound.sign_action(),) if found.all_done else ()
    crooked = found.starts is not None and found.starts.state == "out" and not found.outcome
    failed = found.outcome in FAILED or (found.is_done and not found.is_home)
    return (*((again,) if crooked or failed else ()), *signs)


def start_again(bound: Any) -> None:
    """The part in hand once more: what was read of it going in is withdrawn and asked anew."""
    found: PartFacts = bound.found
    ask_anew(bound, [ask.slot for ask in questions.questions(found) if ask.slot and ask.slot.what in EACH_TIME])


def may_sign(bound: Any) -> str:
    return "" if bound.found.all_done else str(words.EVERY_PART)


def _nothing(found: PartFacts) -> tuple[Finding, ...]:
    return ()


def checks(found: PartFacts) -> tuple[Caution, ...]:
    return of_ring.checks(found) if found.things else ()


def warnings(found: PartFacts) -> tuple[Caution, ...]:
    return of_ring.warnings(found) if found.things else ()


def sources(found: PartFacts) -> Iterator[Trace]:
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
