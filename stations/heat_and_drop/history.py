"""What was predicted and what happened: kept with each signed heat, shown at the next plan on the same oven, and learned from."""

from __future__ import annotations

import statistics
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from jobs.models import Entry
from shop.models import Heater

if TYPE_CHECKING:
    from stations.heat_and_drop.station import HeatAndDrop

SHOWN = 5
ENOUGH = 2  # heats before the shop's own rate is believed
OUTCOME_WORDS = {"dropped": "dropped in", "tapped": "tapped home", "jammed": "jammed", "crooked": "crooked"}


@dataclass(frozen=True)
class Heat:
    """One signed heat on this oven."""

    entry: Entry
    confidence: float
    outcome: str
    tau_ratio: float | None

    def row(self) -> dict[str, str]:
        speed = ""
        if self.tau_ratio:
            speed = f"{abs(self.tau_ratio - 1):.0%} {'slower' if self.tau_ratio > 1 else 'quicker'} than the tables"
        return {
            "when": f"{self.entry.signed_at:%d %b}" if self.entry.signed_at else "",
            "tag": self.entry.job.tag,
            "entry": str(self.entry.pk),
            "seat": str(self.entry.seat),
            "predicted": f"{100 * self.confidence:.0f} in 100",
            "happened": OUTCOME_WORDS.get(self.outcome, self.outcome),
            "speed": speed,
        }


def heats(heater: Heater | None, on: str, before: Entry | None) -> list[Heat]:
    """The latest signed heats with this heater, newest first; superseded ones left out."""
    if heater is None:
        return []
    entries = (
        Entry.objects.filter(signed_at__isnull=False, superseded_by__isnull=True, result__heater_id=heater.pk, result__on=on)
        .exclude(pk=before.pk if before else 0)
        .select_related("job", "seat")
        .order_by("-signed_at")[:SHOWN]
    )
    return [
        Heat(entry, entry.result.get("confidence") or 0.0, entry.result.get("outcome", ""), entry.result.get("soak_tau_ratio"))
        for entry in entries
    ]


def slower(past: list[Heat]) -> float:
    """How much slower this oven is than the tables: the median of the heats that measured it, once there are enough."""
    ratios = [heat.tau_ratio for heat in past if heat.tau_ratio]
    return statistics.median(ratios) if len(ratios) >= ENOUGH else 1.0


def result(work: HeatAndDrop, core_version: str) -> dict[str, Any]:
    """Everything the plan stood on and what came of it, units in the names."""
    plan, fit, run = work.plan, work.planned.fit, work.run
    setup = plan.setup
    soak_ratio = None
    if run.outer_in and run.outer_in.fitted and setup.heating and setup.heating.time_constant:
        soak_ratio = round(run.outer_in.rate().likely / setup.heating.time_constant.likely * slower(work.past), 3)
    seated = work.seated()
    window = work.timer("window")
    return {
        "schema": "heat-and-drop/1",
        "core_version": core_version,
        "on": work.seat.on,
        "bearing": fit.bearing.designation,
        "nominal_mm": fit.nominal_mm,
        "outer_um": [fit.outer.limits.lower_um, fit.outer.limits.upper_um],
        "outer_source": fit.outer.words,
        "inner_um": [fit.inner.limits.lower_um, fit.inner.limits.upper_um],
        "inner_source": fit.inner.words,
        "outer_material": fit.outer_material.key,
        "inner_material": fit.inner_material.key,
        "heater_id": work.heater.pk if work.heater else None,
        "heater": work.heater.name if work.heater else "none",
        "heater_set_c": work.planned.heat_c,
        "chiller": work.chiller.name if work.chiller else "none",
        "room_c": setup.room_c,
        "target_c": plan.target_c,
        "chill_c": round(plan.chill_c, 1),
        "wanted_mm": setup.wanted_mm,
        "confidence": round(plan.confidence, 4),
        "plan_state": plan.call.state,
        "plan_reason": plan.call.reason,
        "soak_predicted_s": round(plan.soak.likely) if plan.soak else None,
        "soak_tau_ratio": soak_ratio,
        "cool_time_constant_s": round(run.outer_out.rate().likely) if run.outer_out and run.outer_out.fitted else None,
        "offered_outer_c": round(run.outer().c, 1),
        "offered_clearance_mm": round(run.here().clearance_mm, 4),
        "window_predicted_s": round(plan.sure_for_s) if plan.sure_for_s < 1e6 else None,
        "window_used_s": round(window.ran_s(work.now)) if window else None,
        "outcome": work.outcome,
        "heats": work.attempt,
        "seated_state": seated.state if seated else "not_checked",
        "seated_reason": seated.reason if seated else "",
    }
