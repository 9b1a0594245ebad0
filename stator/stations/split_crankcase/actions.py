"""Actions of Split crankcase, and what they record."""

from __future__ import annotations

from stator.engines.models.case import case_part
from stator.engines.parts import Kind
from stator.engines.properties import Property
from stator.jobs import tray
from stator.jobs.models import Reading
from stator.stations.framework import Action, BoundStation, State
from stator.stations.framework.messages import capital, format_message
from stator.stations.framework.remeasure import request_remeasurement
from stator.stations.split_crankcase import messages
from stator.stations.split_crankcase.analysis import MOST_LOOSE, Done, SplitAnalysis, length_of
from stator.stations.split_crankcase.verdict import half


def actions(bound: BoundStation) -> tuple[Action, ...]:
    """Load on, round after round of gaps, apart, sign."""
    found: SplitAnalysis = bound.analysis
    if found.all_through:
        return (bound.sign_action(),)
    if found.is_apart or found.stays_closed:
        return (bound.sign_action(),) if len(found.every) == 1 else ()
    stopped = found.census.call.state == State.STOP
    missing = format_message(messages.REASON[found.census.call.code], found.census_values) if stopped else ""
    if not found.is_loaded:
        refused = bound.blocking_check() or missing or _not_counted(found) or ("" if found.is_outside else _too_weak(found))
        begins = Action("begin", str(messages.ACTION["begin"]), "begin", not refused, refused, load)
        left = len(found.fasteners) - len(found.out)
        rest = Action("rest", format_message(messages.ACTION["rest"], {"left": left}), "rest", do=rest_out)
        leave = Action("leave", str(messages.ACTION["leave"]), "leave", do=leave_closed)
        if found.is_outside:
            named = format_message(messages.ACTION["off"], {"Part": capital(str(half(found)))})
            begins = Action("apart", named, "off", not refused, refused, halves_apart)
        return (*((rest,) if left > 1 else ()), begins, *((leave,) if len(found.every) > 1 else ()))
    more = "" if found.plane else str(messages.THREE_GAPS_FIRST)
    if found.suspect:
        name = messages.ACTION["these"] if len(found.again) == 1 else messages.ACTION["all_these"]
        again = Action("again", format_message(name, {"place": found.again[0].part.name}), "again", True, do=measure_again)
        return (again, Action("apart", str(messages.ACTION["apart"]), "apart", False, missing, halves_apart))
    gaps_open = any(question.slot and question.slot.what == Property.GAP for question in bound.open_questions())
    return (
        Action("next", str(messages.ACTION["next"]), "next", bool(found.plane and not gaps_open), more, next_round),
        Action("apart", str(messages.ACTION["apart"]), "apart", False, missing, halves_apart),
    )


def rest_out(bound: BoundStation) -> None:
    """Every fastener left came out and was not measured; the count on the tray still has to agree."""
    found: SplitAnalysis = bound.analysis
    left = [length_of(mark).key for mark in found.fasteners if not found.is_out(mark)]
    bound.choose(skipped=[*bound.answers.skipped, *left])


def _not_counted(found: SplitAnalysis) -> str:
    return str(messages.NEXT["count"]) if not found.counted and not found.held_elsewhere else ""


def _too_weak(found: SplitAnalysis) -> str:
    screws = found.screws
    return format_message(messages.REASON[screws.call.code], screws.call.values) if screws and screws.call.state == State.STOP else ""


def load(bound: BoundStation) -> None:
    """Load is on the splitter: the first round of gaps begins."""
    _move(bound, Done.LOADED)


def measure_again(bound: BoundStation) -> None:
    """Withdraw the suspect gaps so that they are measured again."""
    request_remeasurement(bound, [place.slot for place in bound.analysis.again])


def next_round(bound: BoundStation) -> None:
    """Close this round of gaps and begin the next."""
    bound.next_attempt()


def halves_apart(bound: BoundStation) -> None:
    _move(bound, Done.PARTED)


def leave_closed(bound: BoundStation) -> None:
    """This joint is not opened."""
    _move(bound, Done.LEFT)


def _move(bound: BoundStation, kind: Done) -> None:
    found: SplitAnalysis = bound.analysis
    bound.record_action(kind, None if found.joint.is_first else found.of(Property.HALVES_APART))


def kept(bound: BoundStation, reading: Reading) -> None:
    """A loose part whose half is known goes into the tray."""
    if reading.subject is None or reading.subject.kind != Kind.TRAY:
        return
    found: SplitAnalysis = bound.analysis
    numbered = (at.loose_number(number) for at in found.every for number in range(1, MOST_LOOSE + 1))
    part = next((each for each in numbered if each.part == reading.subject.part), None)
    if part and part.what and part.from_where and part.half:
        tray.add_to_tray(
            bound.job,
            bound.person,
            f"{reading.entry_id}-{part.part.uid}",
            name=part.what,
            station=bound.stage,
            where_from=part.from_where[:80],
            half=part.half if case_part(bound.job.card, part.half) else "",
        )
