"""What one heat for a whole half writes into the entry of each seat, so that its own page goes on with the check: is it home?"""

from __future__ import annotations

from typing import TYPE_CHECKING

from jobs import log
from jobs.log import Carried
from jobs.models import Reading
from shopmath.quantity import Quantity

if TYPE_CHECKING:
    from stations.heat_and_drop.parts import HotPart
    from stations.heat_and_drop.sheet import HeatSheet


def _copy(reading: Reading) -> Carried:
    size = reading.canonical or 0.0
    quantity = Quantity(size, reading.unit, size, reading.text, reading.kind)
    return Carried(reading.ask, quantity, reading.taken_at, reading.gauge, {**reading.extra, "sheet": reading.pk})


def _said(ask: str, quantity: Quantity, source: Reading) -> Carried:
    asked = f"{source.extra.get('asked', '')} (one heat)"
    return Carried(ask, quantity, source.taken_at, None, {"sheet": source.pk, "asked": asked})


def write(work: HeatSheet, part: HotPart, reading: Reading) -> None:
    """Carry what happened to a part into its seat: the clocks as they ran, the temperatures read, the outcome."""
    if part.seat is None or reading.text == "later":
        return
    try:
        entry = log.open_entry(work.stage, part.seat, work.person)
    except log.Signed:
        return  # its own page was signed meanwhile: that stands
    attempt = entry.attempt
    if part.is_circlip:
        log.carry(entry, work.person, attempt, [_said("circlip", log.words(reading.text), reading)])
        return
    if entry.readings.filter(ask="outcome", attempt=attempt, withdrawn_at=None).exists():
        attempt += 1
    target = Quantity(work.plan.target_c, "degC", work.plan.target_c, f"{work.plan.target_c:.0f} °C", "temperature")
    carried = [_copy(found) for ask in ("room", "heat") if (found := work.last(ask))]
    carried += [_said("target", target, reading), *(_copy(found) for found in work.live("case"))]
    carried.append(_said("outcome", log.words(reading.text), reading))
    heat, cold, opened = work.timer("heat"), work.cold_since.get(part.key), work.door_at
    ran = [("window", "window", opened, reading.taken_at)]
    ran += [("heat", "heat", heat.started_at, opened)] if heat else []
    ran += [("chill", "cold", cold, opened)] if cold else []
    log.carry(
        entry,
        work.person,
        attempt,
        carried,
        ran,
        heater=str(work.heater.pk) if work.heater else "none",
        chiller=str(part.chiller.pk) if part.chiller and cold else "none",
        means=work.means,
        wanted=str(work.choices.get("wanted", "usual")),
    )


def reconcile(work: HeatSheet) -> None:
    """Strike out in the seats what was struck out on the sheet; a signed seat stands."""
    gone = [reading.pk for reading in work.readings if reading.withdrawn_at and reading.ask.startswith("home-")]
    if not gone:
        return
    carried = Reading.objects.filter(
        entry__station=work.stage, entry__signed_at=None, extra__sheet__in=gone, ask__in=("outcome", "circlip"), withdrawn_at=None
    ).select_related("entry__job")
    for reading in carried:
        log.withdraw(reading, work.person)
