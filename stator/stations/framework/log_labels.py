"""Labels of logged readings and actions, by the station that recorded them; used by exchange, search and the log."""

from __future__ import annotations

from stator.engines.models import EngineCard
from stator.engines.properties import Property
from stator.jobs.fact_loader import slot_of
from stator.jobs.models import Entry, Reading, Timer
from stator.stations.framework import next_step
from stator.stations.framework.question_factory import answer, label
from stator.stations.framework.registry import registry


def words_of(timer: Timer) -> str:
    """Return what a clock counts; in the words of its time where it was started before clocks had codes."""
    station = registry.get(timer.entry.station.key)
    return (next_step.render_next_step(station, timer.said, "TIMER", first_large=False) if station and timer.said else "") or timer.label


def called(reading: Reading, entry: Entry, card: EngineCard) -> str:
    """Return what a reading is of; in the words of its time where it has no address."""
    fact_key, station = slot_of(reading), registry.get(entry.station.key)
    if fact_key is None or station is None:
        return str(reading.extra.get("asked", "")) or reading.ask
    definition = station.whole if station.whole and entry.seat_id is None else station
    side = card.side(fact_key.at.end) if fact_key.at.end else ""
    return (label(definition.words, fact_key, side=side) if definition.words else "") or fact_key.what.value.replace("-", " ")


def answered(reading: Reading, entry: Entry) -> str:
    """Return what was typed; of a choice between answers the words of the one that was chosen."""
    station = registry.get(entry.station.key)
    if reading.canonical is not None or not reading.property or station is None:
        return reading.text
    definition = station.whole if station.whole and entry.seat_id is None else station
    return answer(definition.words, Property(reading.property), reading.text) if definition.words else reading.text
