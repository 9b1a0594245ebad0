"""Results of a heat for a case half in the entry of each seat, so that its own page continues with the check of seating."""

from __future__ import annotations

from shopmath.quantity import Quantity
from stator.engines.fact_keys import FactKey
from stator.engines.parts import ENGINE
from stator.engines.properties import Property
from stator.jobs import log
from stator.jobs.log import LinkedReading
from stator.jobs.models import Reading
from stator.stations.framework import BoundStation
from stator.stations.install_with_heat.case_half.analysis import CaseHalfAnalysis
from stator.stations.install_with_heat.case_half.parts import HotPart


def _copy(reading: Reading, slot: FactKey) -> LinkedReading:
    size = reading.canonical or 0.0
    quantity = Quantity(size, reading.unit, size, reading.text, reading.kind)
    return LinkedReading(slot, quantity, reading.taken_at, reading.pk, reading.gauge, reading.extra)


def _of_the_heat(found: CaseHalfAnalysis, part: HotPart, readings: list[Reading]) -> list[LinkedReading]:
    """Return the air, the oven's setting and the case temperatures of this heat, as readings of the seat's own page."""
    carried = []
    for what in (Property.AIR_TEMPERATURE, Property.HEATER_SETTING, Property.HOT_TEMPERATURE, Property.WATER_DROP):
        mine = [each for each in readings if each.ask == found.slot(what).key and not each.withdrawn_at]
        temperatures = what in (Property.HOT_TEMPERATURE, Property.WATER_DROP)
        saved = [each for each in mine if each.attempt == found.attempt] if what != Property.AIR_TEMPERATURE else mine
        target = FactKey(part.thing.part if temperatures else ENGINE, what)
        carried += [_copy(each, target) for each in (saved if temperatures else saved[-1:])]
    return carried


def write(bound: BoundStation, part: HotPart, reading: Reading) -> None:
    """Save what happened to a part in the entry of its seat: timers, temperatures and result."""
    found: CaseHalfAnalysis = bound.analysis
    if part.seat is None or reading.text == "later":
        return
    try:
        entry = log.open_entry(bound.stage, part.seat, bound.person)
    except log.Signed:
        return  # its own page was signed meanwhile: that stands
    attempt = entry.attempt
    outcome = _copy(reading, part.slot)
    if part.is_circlip:
        log.carry(entry, bound.person, attempt, [outcome])
        return
    if entry.readings.filter(ask=part.slot.key, attempt=attempt, withdrawn_at=None).exists():
        attempt += 1
    target_c = found.plan.target_c
    target = Quantity(target_c, "degC", target_c, f"{round(target_c)} °C", "temperature")
    planned = LinkedReading(FactKey(ENGINE, Property.HEAT_TARGET), target, reading.taken_at, reading.pk)
    carried = [planned, *_of_the_heat(found, part, bound.readings), outcome]
    heat, cold, opened = found.timer("heat"), found.cold_since.get(part.key), found.door_at
    ran = [("window", "window", opened, reading.taken_at)]
    ran += [("heat", "heat", heat.started_at, opened)] if heat else []
    ran += [("chill", "cold", cold, opened)] if cold else []
    log.carry(
        entry,
        bound.person,
        attempt,
        carried,
        ran,
        heater=str(found.heater.pk) if found.heater else "none",
        chiller=str(part.chiller.pk) if part.chiller and cold else "none",
        means=found.means.key,
        wanted=found.wanted,
    )
