"""Check lists, cautions and the origin of each number, for a heat."""

from __future__ import annotations

import math
from collections.abc import Iterable
from typing import TYPE_CHECKING

from engines.models import Seat
from jobs.models import Reading
from shop.models import Chiller, Heater
from shopmath.bearings import Bearing
from shopmath.iso286 import fit
from shopmath.thermal.limits import Limit
from stations.base import Caution, Trace

if TYPE_CHECKING:
    from stations.heat_and_drop.station import HeatAndDrop


def cap(text: str) -> str:
    return text[:1].upper() + text[1:]


def degrees(c: float) -> str:
    """A temperature with a real minus sign."""
    return f"{c:.0f} °C".replace("-", "−")


def minutes(seconds: float | None) -> str:
    """A time as 6:52 or 1:04:10."""
    if seconds is None:
        return "an unknown time"
    if math.isinf(seconds):
        return "as long as you like"
    whole = max(0, round(seconds))
    hours, rest = divmod(whole, 3600)
    return f"{hours}:{rest // 60:02d}:{rest % 60:02d}" if hours else f"{rest // 60}:{rest % 60:02d}"


def gates(heater: Heater | None, chilled_by: Iterable[str]) -> list[Caution]:
    """What must be so before anything is hot or cold."""
    dry = "Washed, dry, no oil or fuel left. Residue burns, and chlorinated cleaner turns to poison gas when hot."
    found = [Caution("dry", dry, gate=True)]
    if heater and heater.cooks_food:
        found.append(Caution("food", "This oven cooks food: bare washed metal only, air the kitchen, wipe it out after.", gate=True))
    if heater and heater.method == Heater.Method.TORCH:
        found.append(Caution("flame", "No spray cans, thinner or duster near the flame. Keep it moving.", gate=True))
    if Chiller.Method.DRY_ICE in chilled_by:
        found.append(Caution("ice", "Dry ice: gloves, open window, never a closed box. It burns skin and drives out the air.", gate=True))
    if Chiller.Method.SPRAY in chilled_by:
        found.append(Caution("spray", "Freeze spray burns: heat source off and away before you spray.", gate=True))
    return found


def checks(work: HeatAndDrop) -> tuple[Caution, ...]:
    found = gates(work.heater, [work.chiller.method] if work.chiller else [])
    tools = ["driver", "gloves", "support behind the seat"] + (["circlip and pliers"] if work.seat.stop == Seat.Stop.CIRCLIP else [])
    found.append(Caution("tools", f"Laid out: {', '.join(tools)}."))
    found.append(Caution("bagged", "Bearing bagged against frost, oil at hand for after."))
    return tuple(found)


def cautions(work: HeatAndDrop) -> tuple[Caution, ...]:
    if work.phase == "signed":
        return ()
    outer, partner = work.names()
    found = []
    if work.heater and work.phase != "after":
        found.append(Caution("hot", f"{cap(outer)} and tray burn at a touch: gloves, eyes covered, a clear path to the bench."))
    if work.chiller and work.phase in ("heating", "window"):
        found.append(Caution("frost", f"Wipe the frost off the {partner} before it goes in; oil it at once after."))
    if not work.trouble and work.planned.fit.outer_material.flammable:
        found.append(Caution("magnesium", "Magnesium: no flame, no chips about; sand at hand, never water."))
    if work.phase in ("plan", "heating"):
        found.append(Caution("jam", "If it jams or cocks: stop, no hammer. Lift it off or pull it, heat again, start square."))
    if work.phase == "plan":
        found.append(Caution("manual", "The engine's manual and the bearing maker's limits come before these numbers."))
    return tuple(found)


def _band(low: float, high: float, digits: int = 3) -> str:
    return f"{low:.{digits}f} to {high:.{digits}f}"


def _limit(limit: Limit) -> Trace:
    return Trace(f"Limit, {limit.what}", f"{limit.limit_c:.0f} °C", f"{limit.reason} ({limit.source})", limit.estimated)


def _bearing(bearing: Bearing) -> Trace:
    unknown = f"; not understood: {', '.join(bearing.not_understood)}" if bearing.not_understood else ""
    return Trace("Bearing", bearing.designation, "; ".join(bearing.understood) + unknown)


def reading_note(reading: Reading) -> str:
    extra = reading.extra
    if "true_c" not in extra:
        return ""
    band = f"{extra['low_c']:.0f} to {extra['high_c']:.0f}"
    if extra["means"] == "contact":
        return f"{band} °C by contact"
    doubt = "" if extra["trusted"] else ", too coarse for a call"
    shown = f"{reading.canonical:.0f} shown → " if reading.canonical is not None else ""
    return f"{shown}{extra['true_c']:.0f} °C true ({band}) by {extra['means']}{doubt}"


def traces(work: HeatAndDrop) -> tuple[Trace, ...]:
    """Where the numbers come from, in the order they build up."""
    planned, plan = work.planned, work.plan
    outer, partner = work.names()
    seat_fit, setup = planned.fit, plan.setup
    grip = fit(seat_fit.inner.limits, seat_fit.outer.limits)
    source = f"{seat_fit.outer.words}; {seat_fit.inner.words}"
    found = [
        Trace("Grip when cold", _band(grip.min_interference_mm, grip.max_interference_mm), source),
        Trace(
            f"{cap(outer)} opens",
            f"{setup.nominal_mm * setup.opening_alpha * (plan.target_c - 20):+.3f}",
            f"{seat_fit.outer_material.name}, {1e6 * setup.outer_alpha:.1f} µm/m·K"
            + (f", boss alone opens {setup.heating.opening:.0%}" if setup.heating and setup.heating.opening < 1 else ""),
            bool(setup.heating and setup.heating.opening < 1),
        ),
        Trace(
            f"{cap(partner)} shrinks",
            f"{setup.nominal_mm * setup.inner_alpha * (20 - plan.chill_c):+.3f}",
            f"{seat_fit.inner_material.name}",
        ),
        Trace("Wanted", f"{setup.wanted_mm:.3f}", f"{setup.wanted}, after DIN 7190-1"),
        Trace(
            "Doubt, two sigma",
            f"± {2 * plan.offering.spread_mm:.3f}",
            f"sizes; {outer} ± {setup.outer_u_k:.0f} K, {partner} ± {setup.inner_u_k:.0f} K",
        ),
    ]
    latest = work.last("case")
    if latest and "true_c" in latest.extra:
        found.append(Trace("Last temperature", work.shown(latest), reading_note(latest), latest.extra["means"] != "contact"))
    if work.phase in ("heating", "window"):
        drift = work.run.outer_out or work.run.outer_in
        if drift and drift.tau.likely < 1e5:
            rate = drift.rate()
            found.append(Trace(f"{cap(outer)}'s own rate", minutes(rate.likely), rate.basis, rate.estimated))
    else:
        if plan.soak:
            found.append(Trace("Soak", f"{minutes(plan.soak.low)} to {minutes(plan.soak.high)}", plan.soak.basis, True))
        if plan.chill:
            found.append(Trace("Chill", f"{minutes(plan.chill.low)} to {minutes(plan.chill.high)}", plan.chill.basis, plan.chill.estimated))
    found.append(Trace("Window", f"{minutes(plan.window.low)} to {minutes(plan.window.high)}", plan.window.basis, True))
    found.append(Trace("Home once touching", f"{minutes(plan.seating.low)} to {minutes(plan.seating.high)}", plan.seating.basis, True))
    if plan.binding_limit:
        found.append(_limit(plan.binding_limit))
    if setup.cold_limits and setup.chilling:
        found.append(_limit(setup.cold_limits[0]))
    found.append(_bearing(seat_fit.bearing))
    if "room" in work.skipped() or work.value("room") is None:
        found.append(Trace("Shop air", f"{setup.room_c:.0f} °C", "assumed, not measured", True))
    return tuple(found)
