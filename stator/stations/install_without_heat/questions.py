"""Questions of Install without heat: sizes, the screw, squareness at the start, force, and final position."""

from __future__ import annotations

from functools import partial
from typing import Any

from shopmath.amounts import Amount, count, mm
from shopmath.validation import BadInput
from stator.engines.fact_keys import Location
from stator.engines.properties import Property
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import OptionRow, format_message
from stator.stations.framework.question_factory import method, question
from stator.stations.framework.registry import station_name
from stator.stations.install_without_heat import messages
from stator.stations.install_without_heat.analysis import CLOCKS, DRAW, PRESS, STARTING, ColdFitAnalysis

ask = partial(question, messages)
FAR_MM = 0.5  # from the nominal: another bearing


def whole_turns(turns: float) -> Amount:
    """Turns to the half, without a half where there is none."""
    halves = round(2 * turns) / 2
    return count(halves, 1.0 if halves.is_integer() else 0.1)


def questions(found: ColdFitAnalysis) -> list[Question]:
    """All of them; those of steps gone by stay, but are not asked in turn."""
    begun = found.starts is not None or bool(found.outcome)
    asked = [*_sizes(found, begun), *(_screw(found, begun) if found.way == DRAW else [])]
    if found.trouble or found.holds_nothing:
        return asked
    for clock in CLOCKS:
        fact_key = found.slot(Property.SEATING_DEPTH, Location(clock=clock, stage=STARTING))
        more: dict[str, Any] = {"optional": True, "quiet": bool(found.outcome), "example": "9.6", "gauges": ("calliper",)}
        asked.append(ask(fact_key, {"clock": clock}, text=messages.STANDS[0], where=messages.STANDS[1], **more))
    asked += _what_it_took(found)
    asked.append(ask(found.slot(Property.FIT_OUTCOME), quiet=bool(found.unchecked)))
    if found.outcome:
        asked += _home(found) if found.went_in else []
        asked.append(ask(found.slot(Property.NOTE), optional=True))
    return asked


def _sizes(found: ColdFitAnalysis, quiet: bool) -> list[Question]:
    named = messages.OF_A_SHAFT if found.onto_shaft else messages.OF_A_PART if found.is_plain else messages.OF_A_CASE
    known = found.seat_known
    skip = known.measured_at if known.measured_here is None and known.is_measured_before else ""
    asked = []
    for what in (Property.SEAT_SIZE, Property.RING_SIZE):
        fact_key = found.slot(what)
        more: dict[str, Any] = {"optional": True, "quiet": quiet, "measure_again": True, "text": named[what]}
        more["gauges"] = ("bore",) if what == Property.SEAT_SIZE else ("micrometer",)
        more |= {"example": f"{found.nominal_mm:.3f}", "check": partial(_near, fact_key.key, found.nominal_mm)}
        if what == Property.SEAT_SIZE and skip:
            more["skip_means"] = format_message(messages.MEASURED_AT, {"station": station_name(skip)})
        if what == Property.RING_SIZE and found.bearing.is_drawn_cup:
            more |= {"where": messages.CUP_FREE, "skip_means": str(messages.CUP_UNKNOWN)}
        asked.append(ask(fact_key, **more))
    if not found.onto_shaft and not found.given.facts.best(found.seat.part, Property.WALL_THICKNESS):
        fact_key = found.slot(Property.WALL_THICKNESS)
        skip_means = format_message(messages.WALL_TYPICAL, {"wall": mm(found.wall_mm, 0.1)})
        asked.append(ask(fact_key, optional=True, quiet=quiet, example="8", resolution=0.1, gauges=("calliper",), skip_means=skip_means))
    return asked


def _near(key: str, nominal: float, value: float) -> None:
    if abs(value - nominal) > FAR_MM:
        raise BadInput(
            key, format_message(messages.TOO_FAR, {"value": mm(value, 0.01), "nominal": mm(nominal, 1.0), "far": mm(FAR_MM, 0.1)})
        )


def _screw(found: ColdFitAnalysis, quiet: bool) -> list[Question]:
    width = found.bearing.width_mm
    return [
        ask(found.slot(Property.CENTRE_SCREW_DIAMETER), quiet=quiet, example="M12x1.75", resolution=0.1, gauges=("calliper",)),
        ask(found.slot(Property.CENTRE_SCREW_PITCH), quiet=quiet, example="1.75", resolution=0.01),
        ask(
            found.slot(Property.TRAVEL),
            optional=True,
            quiet=quiet,
            example=f"{width:.0f}",
            resolution=0.1,
            skip_means=format_message(messages.TRAVEL_TYPICAL, {"width": mm(width, 0.1)}),
        ),
    ]


def _what_it_took(found: ColdFitAnalysis) -> list[Question]:
    """Return what hands or press read on the way, as evidence of the fit."""
    quiet = bool(found.unchecked) or bool(found.outcome)
    more: dict[str, Any] = {"optional": True, "quiet": quiet}
    if found.way == PRESS:
        return [ask(found.slot(Property.PRESS_PEAK), example="1200", resolution=100.0, **more)]
    if found.way != DRAW:
        return []
    needed = (
        format_message(messages.TURNS_WANTED, {"turns": whole_turns(found.draw.turns)})
        if found.draw
        else messages.WHERE[Property.SCREW_TURNS_DONE]
    )
    return [
        ask(found.slot(Property.SCREW_TURNS_DONE), where=needed, example="8", resolution=0.5, **more),
        ask(found.slot(Property.SCREW_TORQUE), example="12", resolution=1.0, **more),
    ]


def _home(found: ColdFitAnalysis) -> list[Question]:
    asked = []
    what = Property.SEATING_DEPTH if found.is_through else Property.SEATING_GAP
    with_gauge = ("calliper",) if found.is_through else ("feeler",)
    for clock in CLOCKS:
        values = {"stop": found.seat.get_stop_display(), "clock": clock}
        asked.append(ask(found.slot(what, Location(clock=clock)), values, example="0", gauges=with_gauge))
    if found.has_circlip:
        asked.append(ask(found.slot(Property.CIRCLIP)))
    return asked


def methods(found: ColdFitAnalysis) -> tuple[Method, ...]:
    """Return how it is pushed, with what, and whether the seat is oiled."""
    if found.outcome:
        return ()
    chosen = [method(messages, "way", found.way)]
    if found.way == PRESS and len(found.presses) > 1 and found.press:
        rows: list[OptionRow] = [(str(each.pk), each.name, each.capacity_text) for each in found.presses]
        chosen.append(method(messages, "press", str(found.press.pk), rows))
    return (*chosen, method(messages, "oil", "oiled" if found.is_oiled else "dry"))
