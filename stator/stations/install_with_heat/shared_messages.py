"""Messages of one seat and a case half from codes and values: limits, remedies, thermometers, warnings and times."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from dataclasses import replace
from typing import Any

from shopmath import materials
from shopmath.amounts import DOWN, NEAREST, UP, Amount, celsius, duration, known_exactly, mm
from shopmath.estimate import Estimate
from shopmath.thermal.expansion import WANTED
from shopmath.thermal.limits import Limit
from shopmath.thermal.plan import Widener
from shopmath.validation import BadInput
from shopmath.verdict import Conformity
from stator.engines.models import EngineCard
from stator.engines.properties import Property
from stator.jobs.facts import MeasuredReading
from stator.shop.models import Chiller, Heater
from stator.stations.framework import Alternative, MessageRef, Method, Question, SafetyWarning, Source
from stator.stations.framework.messages import OptionRow, format_message, lazily, render_message
from stator.stations.framework.question_factory import options, question
from stator.stations.install_with_heat import messages
from stator.stations.install_with_heat.heat import HeatState
from stator.stations.install_with_heat.setup import ROOM_C
from stator.stations.install_with_heat.thermometers import CONTACT, DROP, Means, means_of
from stator.ui.number_format import band, plain, show
from stator.ui.table_texts import from_table

INFRARED_STEP_C = 5.0  # of a temperature that an infrared thermometer read on bare metal, or a drop of water showed

NOT_BY_HEAT = (Alternative(station="fit-cold"), Alternative(page="card"))  # on from a part that heat is not for
OTHER_HEAT = (
    Alternative(choice="heater"),
    Alternative(choice="chiller"),
    Alternative(page="card"),
    Alternative(page="shop"),
)  # on from a plan that cannot be


def ways_on(trouble: BadInput) -> tuple[Alternative, ...]:
    """On from what keeps a plan from being made."""
    return NOT_BY_HEAT if trouble.code == "drawn_cup" else OTHER_HEAT


def gates(heater: Heater | None, chilled_by: Iterable[str]) -> list[SafetyWarning]:
    """Return the checks before anything is hot or cold."""
    needed = ["dry"]
    if heater and heater.cooks_food:
        needed.append("food")
    if heater and heater.method == Heater.Method.TORCH:
        needed.append("flame")
    if Chiller.Method.DRY_ICE in chilled_by:
        needed.append("ice")
    if Chiller.Method.SPRAY in chilled_by:
        needed.append("spray")
    return [SafetyWarning(key, str(messages.CHECKS[key][0]), messages.CHECKS[key][1]) for key in needed]


def of_limit(limit: Limit) -> dict[str, Any]:
    """Return what sets a limit, at what, and why; a metal's own words stand in its table."""
    return {
        "what": lazily(messages.LIMIT_WHAT, limit.code, {}, from_table(limit.what)),
        "why": lazily(messages.LIMIT_WHY, limit.code, {}, from_table(limit.reason)),
        "limit": celsius(limit.limit_c),
    }


def of_call(call: Conformity) -> dict[str, Any]:
    """Return the values of a plan's verdict for its sentence."""
    values = dict(call.values)
    limit = values.pop("by", None)
    return {**values, **(of_limit(limit) if limit else {})}


def helps(found: Iterable[Widener], names: Mapping[str, Any]) -> list[Any]:
    """Return what would widen it, each with what it gains."""
    return [lazily(messages.HELPS, each.code, {**names, **each.values, "gain": mm(each.gain_mm)}, each.what) for each in found]


def soon(time_s: float) -> Amount:
    """Return how long one has once it touches: a promise, so rounded down."""
    return duration(max(time_s, 5.0), toward=DOWN)


def half(found: Estimate) -> float:
    """Return half of the width of an estimate; infinity if it has no end."""
    return math.inf if math.isinf(found.high) else (found.high - found.low) / 2


def promised(time_s: float, found: Estimate) -> Amount:
    """Return a time that is certain, as uncertain as the window that it is part of, rounded down."""
    return duration(time_s, half(found), DOWN)


def lasts(found: Estimate, name: str) -> dict[str, Amount]:
    """Return an estimated time as values of a sentence: likely, and from least to most."""
    wide = half(found)
    return {name: duration(found.likely, wide), f"{name}_low": duration(found.low, wide), f"{name}_high": duration(found.high, wide)}


def assumed(heated: HeatState, card: EngineCard, *, of_the_case: bool = True) -> list[MessageRef]:
    """Return the assumptions of every heat: the metal of the case and the air temperature."""
    found = []
    if of_the_case and card.case_material_assumed:
        found.append(MessageRef("metal", {"metal": from_table(materials.get(card.case_material).name)}))
    if heated.value(Property.AIR_TEMPERATURE) is None:
        found.append(MessageRef("air", {"air": celsius(ROOM_C)}))
    return found


def times(found: Estimate) -> str:
    """A time that is only known within bounds."""
    wide = half(found)
    return band(duration(found.low, wide), duration(found.high, wide))


# thermometers


def means_values(means: Means) -> dict[str, Any]:
    gauge = means.gauge
    return {"gauge": gauge.name if gauge else "", "setting": plain(gauge.emissivity or 0) if gauge else ""}


def means_rows(heated: HeatState) -> list[OptionRow]:
    """Ways to take a temperature, for the list."""
    rows: list[OptionRow] = []
    for means in means_of(heated.gauges):
        name, hint, _ = messages.MEANS[means.surface]
        values = means_values(means)
        rows.append((means.key, format_message(name, values), format_message(hint, values)))
    return rows


def with_what(means: Means) -> str:
    """Return what a temperature is read with, inside a sentence."""
    return format_message(messages.MEANS[means.surface][2], means_values(means))


def coarse(reading: MeasuredReading) -> dict[str, Any]:
    """A temperature that is too coarse to judge by."""
    told = reading.corrected
    by = str(told["means"])
    low, high = (_read(told[end], INFRARED_STEP_C, toward) for end, toward in (("low_c", DOWN), ("high_c", UP)))
    return {"by": lazily(messages.COARSE_BY, by, {}, by), "low": low, "high": high}


def _read(temperature_c: float, step: float, toward: str = NEAREST) -> Amount:
    """Return a temperature as read by a thermometer with the resolution `step`."""
    return replace(celsius(temperature_c, step), toward=toward)


def temperature_read(reading: MeasuredReading, temperature_c: float) -> Amount:
    """Return a temperature with the step of what it was read with."""
    return _read(temperature_c, 1.0 if reading.corrected.get("trusted") else INFRARED_STEP_C)


def note(reading: MeasuredReading) -> str:
    """Return the true value of a temperature reading with its range, for the readings table."""
    told = reading.corrected
    if "true_c" not in told:
        return ""
    by = str(told["means"])
    step = 1.0 if told["trusted"] else INFRARED_STEP_C
    values = {
        "range": band(_read(told["low_c"], step, DOWN), _read(told["high_c"], step, UP)),
        "true": temperature_read(reading, told["true_c"]),
        "shown": show(celsius(reading.value)) if reading.value is not None else "",
        "by": render_message(messages.READ_BY, by, {}, by),
    }
    code = CONTACT if by == CONTACT else DROP if reading.value is None else "sure" if told["trusted"] else "unsure"
    return format_message(messages.TEMPERATURE_NOTE[code], values)


# questions and choices of the heat itself


def wanted_method(chosen: str) -> Method:
    """Return the choice of the desired clearance."""
    rows: list[OptionRow] = [(key, key, format_message(messages.WANTED_HINT, {"part": plain(value)})) for key, value in WANTED.items()]
    return Method("wanted", str(messages.METHOD_LABEL["wanted"]), options(rows), chosen)


def air(table: Any, heated: HeatState, quiet: bool) -> Question:
    fact_key = heated.slot(Property.AIR_TEMPERATURE)
    return question(table, fact_key, optional=True, quiet=quiet, resolution=1.0, example="21")


def heats(outer: str, room_c: float, key: str, value: float) -> None:
    """Refuse a heater that is colder than what it should heat."""
    if value <= room_c:
        raise BadInput(key, format_message(messages.COLDER, {"value": celsius(value), "outer": messages.NAMES[outer]}))


def limit_trace(limit: Limit) -> Source:
    values = of_limit(limit)
    label = format_message(messages.LIMIT_LABEL, {"what": values["what"]})
    return Source(
        label,
        show(known_exactly(values["limit"])),
        format_message(messages.LIMIT_SOURCE, {**values, "source": limit.source}),
        limit.estimated,
    )
