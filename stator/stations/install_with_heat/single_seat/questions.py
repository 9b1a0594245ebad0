"""Questions at each phase of one seat's heat, and the choices between methods."""

from __future__ import annotations

from functools import partial
from typing import Any

from shopmath.amounts import celsius, kelvin, mm
from shopmath.validation import BadInput
from shopmath.verdict import WARM_K
from stator.engines.fact_keys import Location
from stator.engines.properties import Property
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import OptionRow, capital, format_message
from stator.stations.framework.question_factory import options, question
from stator.stations.framework.registry import station_name
from stator.stations.install_with_heat import messages as shared
from stator.stations.install_with_heat import shared_messages
from stator.stations.install_with_heat.single_seat import messages
from stator.stations.install_with_heat.single_seat.analysis import CLOCKS, Phase, SingleSeatAnalysis

ask = partial(question, messages)
FAR_MM = 0.5  # from the nominal: another bearing


def names(found: SingleSeatAnalysis) -> dict[str, Any]:
    """Return the names of the two parts and of what they go into and come out of, also with a capital letter."""
    outer, partner = str(shared.NAMES[found.outer]), str(shared.NAMES[found.partner])
    chiller = found.chiller.get_method_display() if found.chiller else str(shared.COOLED_BY)
    heater = found.heater.name if found.heater else str(shared.HEATED_BY)
    first = {"Outer": capital(outer), "Partner": capital(partner), "heater": capital(heater)}
    return {"outer": outer, "partner": partner, **first, "chiller": chiller}


def stop_name(found: SingleSeatAnalysis) -> str:
    return str(found.seat.get_stop_display())


def questions(found: SingleSeatAnalysis) -> list[Question]:
    """All questions of the moment; those of steps gone by stay, but are not asked in turn."""
    later, named = found.phase != Phase.PLAN, names(found)
    asked = [shared_messages.air(messages, found, later), *_sizes(found, later)]
    if found.is_set:
        heats = partial(shared_messages.heats, found.outer, found.room_c, found.slot(Property.HEATER_SETTING).key)
        more: dict[str, Any] = {"resolution": 1.0, "example": "120", "check": heats}
        asked.append(
            ask(
                found.slot(Property.HEATER_SETTING),
                named,
                optional=True,
                quiet=later or found.is_as_before(Property.HEATER_SETTING),
                **more,
            )
        )
    asked.append(ask(found.slot(Property.HEAT_TARGET), named, optional=True, quiet=True, resolution=1.0))
    stay: dict[str, Any] = {"limits": (1.0, 48 * 3600.0), "refusal": str(shared.TOO_SHORT), "resolution": 1.0}
    asked.append(ask(found.slot(Property.CHILL_STAY), named, optional=True, quiet=True, **stay))
    if later:
        asked += _temperatures(found, named)
    if found.phase in (Phase.WINDOW, Phase.AFTER):
        asked.append(ask(found.slot(Property.FIT_OUTCOME)))
    if found.phase == Phase.AFTER:
        asked += _seated(found, named) if found.went_in else []
        asked.append(ask(found.slot(Property.NOTE), optional=True))
    return asked


def _sizes(found: SingleSeatAnalysis, quiet: bool) -> list[Question]:
    table = messages.OF_A_SHAFT if found.onto_shaft else messages.OF_A_CASE
    skip = format_message(messages.MEASURED_AT, {"station": station_name(found.measured_at)}) if found.measured_at else ""
    nominal = None if found.trouble else found.planned.fit.nominal_mm
    asked = []
    for what in (Property.SEAT_SIZE, Property.RING_SIZE):
        fact_key = found.slot(what)
        more: dict[str, Any] = {"optional": True, "quiet": quiet, "measure_again": True, "text": table[what]}
        more["gauges"] = ("bore",) if what == Property.SEAT_SIZE else ("micrometer",)
        if nominal:
            more |= {"example": f"{nominal:.3f}", "check": partial(_near, fact_key.key, nominal)}
        if what == Property.SEAT_SIZE and skip:
            more["skip_means"] = skip
        asked.append(ask(fact_key, **more))
    return asked


def _near(key: str, nominal: float, value: float) -> None:
    if abs(value - nominal) > FAR_MM:
        raise BadInput(
            key, format_message(messages.TOO_FAR, {"value": mm(value, 0.01), "nominal": mm(nominal, 1.0), "far": mm(FAR_MM, 0.1)})
        )


def _temperatures(found: SingleSeatAnalysis, named: dict[str, Any]) -> list[Question]:
    quiet = found.phase != Phase.HEATING
    where = {key: format_message(said, {"side": found.seat.side_name}) for key, said in messages.WHERE_HOT.items()}
    if found.by_drop:
        first = ask(found.slot(Property.WATER_DROP), named, where=where[found.outer], repeats=True, quiet=quiet)
    else:
        more: dict[str, Any] = {"repeats": True, "quiet": quiet, "resolution": 1.0, "example": "112"}
        values = {**named, "means": shared_messages.with_what(found.means)}
        first = ask(found.slot(Property.HOT_TEMPERATURE), values, where=where[found.outer], **more)
    fact_key = found.slot(Property.COLD_TEMPERATURE)
    return [first, ask(fact_key, named, where=where[found.partner], quiet=True, optional=True, resolution=1.0, example="-12")]


def _seated(found: SingleSeatAnalysis, named: dict[str, Any]) -> list[Question]:
    what = Property.SEATING_DEPTH if found.is_through else Property.SEATING_GAP
    with_gauge = ("calliper",) if found.is_through else ("feeler",)
    asked = []
    for clock in CLOCKS:
        values = {"stop": stop_name(found), "clock": clock}
        asked.append(ask(found.slot(what, Location(clock=clock)), values, example="0", gauges=with_gauge))
    if found.has_circlip:
        asked.append(ask(found.slot(Property.CIRCLIP)))
    if not found.is_through:
        fact_key = found.slot(Property.SEATING_GAP_COLD)
        more: dict[str, Any] = {"optional": True, "example": "0", "gauges": ("feeler",), "check": partial(_is_cold, found, fact_key.key)}
        asked.append(ask(fact_key, {**named, "warm": kelvin(WARM_K)}, **more))
    return asked


def _is_cold(found: SingleSeatAnalysis, key: str, value: float) -> None:
    if found.trouble is None and abs(found.run.outer().c - found.plan.setup.room_c) > WARM_K:
        values = {**names(found), "here": celsius(found.run.outer().c), "warm": kelvin(WARM_K)}
        raise BadInput(key, format_message(messages.TOO_WARM, values))


def methods(found: SingleSeatAnalysis) -> tuple[Method, ...]:
    """Ways to heat, to chill, to measure; fewer of them the further the heat is."""
    means = Method("means", str(shared.METHOD_LABEL["means"]), options(shared_messages.means_rows(found)), found.means.key)
    if found.phase == Phase.WINDOW:
        return (means,)
    if found.phase == Phase.AFTER:
        return ()
    named = names(found)
    heaters: list[OptionRow] = [(str(each.pk), each.name, each.get_method_display()) for each in found.heaters]
    chillers: list[OptionRow] = [(str(each.pk), each.name, each.get_method_display()) for each in found.chillers]
    heat = options([*heaters, ("none", messages.NO_HEAT)])
    cold = options([*chillers, ("none", messages.NO_CHILL)])
    return (
        Method("heater", format_message(messages.METHOD_HEAT, named), heat, str(found.heater.pk) if found.heater else "none"),
        Method("chiller", format_message(messages.METHOD_COLD, named), cold, str(found.chiller.pk) if found.chiller else "none"),
        shared_messages.wanted_method(found.wanted),
        means,
    )
