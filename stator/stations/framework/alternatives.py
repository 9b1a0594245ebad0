"""Alternatives to a verdict that is not OK, shown as buttons, so that every stop offers a way to continue."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.urls import reverse

from stator.jobs.fact_loader import slot_of
from stator.stations.framework import messages as shared
from stator.stations.framework.messages import format_message, render_message
from stator.stations.framework.page_components import Method, RenderedAlternative
from stator.stations.framework.registry import station_name
from stator.stations.framework.verdict import Alternative, State
from stator.ui.url_values import station_address

NOT_OK = (State.STOP, State.OUT, State.TOO_CLOSE)
PAGES = ("card", "tray", "run")

if TYPE_CHECKING:
    from stator.stations.framework.bound_station import BoundStation


def alternatives_for(bound: BoundStation) -> tuple[RenderedAlternative, ...]:
    """Return the alternatives that the verdict names.

    If nothing is asked and nothing can be done, return the last reading and the work plan.
    """
    judged = bound.computed_verdict
    alternatives = judged.ways or (_usual(bound) if judged.state in NOT_OK and _is_stuck(bound) else ())
    found = (_said(bound, alternative) for alternative in alternatives)
    return tuple(each for each in found if each)


def _is_stuck(bound: BoundStation) -> bool:
    asked = any(not question.optional for question in bound.open_questions())
    return not asked and not any(action.main and not action.refused for action in bound.actions())


def _usual(bound: BoundStation) -> tuple[Alternative, ...]:
    standing = [slot_of(each) for each in bound.readings if not each.withdrawn_at]
    last = next(
        (
            fact_key
            for fact_key in reversed(standing)
            if fact_key and any(question.key == fact_key.key for question in bound.current_questions)
        ),
        None,
    )
    return (*((Alternative(last),) if last else ()), Alternative(page="run"))


def _said(bound: BoundStation, way: Alternative) -> RenderedAlternative | None:
    values = dict(way.values)
    own = render_message(getattr(bound.words, "WAYS", {}), way.code, values) if way.code else ""
    if way.slot:
        return RenderedAlternative(
            own or format_message(shared.ALTERNATIVE["again"], {"label": bound.label(way.slot)}), f"{bound.address}?ask={way.slot.key}"
        )
    if way.choice:
        return _choice(bound, way, own)
    if way.station:
        run = {stage.key for stage in bound.job.run.all()}
        named = {"station": station_name(way.station)}
        if way.station not in run:
            return RenderedAlternative(format_message(shared.ALTERNATIVE["add"], named), reverse("run", args=[bound.job.tag]))
        return RenderedAlternative(own or format_message(shared.ALTERNATIVE["station"], named), station_address(bound.job.tag, way.station))
    address = reverse(way.page, args=[bound.job.tag]) if way.page in PAGES else reverse(way.page)
    return RenderedAlternative(own or str(shared.ALTERNATIVE[way.page]), address)


def _choice(bound: BoundStation, way: Alternative, own: str) -> RenderedAlternative | None:
    """Return a choice of the station as a button: applied directly if it names one option, otherwise a link to the choice."""
    method: Method | None = next((each for each in bound.methods() if each.key == way.choice), None)
    option = next((each for each in method.options if each.key == way.option), None) if method and way.option else None
    if method is None or (way.option and (option is None or method.chosen == way.option)):
        return None
    if option is None:
        return RenderedAlternative(own or format_message(shared.ALTERNATIVE["choice"], {"choice": method.words}), f"#method-{method.key}")
    return RenderedAlternative(
        own or format_message(shared.ALTERNATIVE["option"], {"choice": method.words, "option": option.words}), "", method.key, option.key
    )
