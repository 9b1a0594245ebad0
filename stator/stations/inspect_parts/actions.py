"""Actions of Inspect parts: measure again what is too close to call, continue with the next part, sign."""

from __future__ import annotations

from stator.stations.framework import Action, BoundStation
from stator.stations.framework.messages import format_message
from stator.stations.inspect_parts import messages
from stator.stations.inspect_parts.analysis import TAB, InspectionAnalysis
from stator.stations.inspect_parts.questions import is_open, next_tab, of_tab, tab_name


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: InspectionAnalysis = bound.analysis
    if not bound.entry:
        return ()
    offered, settle, onward = [], found.settling, next_tab(found)
    done = not any(is_open(found, question) for question in of_tab(found, found.tab))
    if done and settle:
        name = format_message(messages.MORE, {"figure": messages.FIGURE[settle[0].code], "readings": settle[1]})
        offered.append(Action("more", name, "more", True, do=measure_again))
    if onward:
        name = format_message(messages.ON, {"part": tab_name(found, onward)})
        offered.append(Action("next", name, "next", done and not settle, do=take_up_next))
    return (*offered, bound.sign_action(main=not onward and not settle))


def measure_again(bound: BoundStation) -> None:
    """Ask for as many readings of a value that is too close to call as decide its verdict."""
    settle = bound.analysis.settling
    if settle:
        value, readings = settle
        times = {**bound.answers.choices.get("times", {}), **{fact_key.key: readings for fact_key in value.slots}}
        bound.choose(times=times)


def take_up_next(bound: BoundStation) -> None:
    onward = next_tab(bound.analysis)
    if onward:
        bound.choose(**{TAB: onward})
