"""The call on a press joint before it moves: too hot, too small a press, or how it will go."""

from __future__ import annotations

from typing import TYPE_CHECKING

from stations.base import Plate, Scale

if TYPE_CHECKING:
    from stations.pressing.work import PressWork

WAIT = "wait"


def before(work: PressWork) -> Plate | None:
    """The plate until the peak is in; None then."""
    ask = work.next_ask
    if work.plan is None:
        return Plate(WAIT, "Size it", work.sizing, f"{ask.words}." if ask else "Give the sizes.")
    hot = work.heat_verdict
    if hot and hot.state == "stop":
        less = "Less heat, or write the parts down as scrap." if work.chosen("scrap") != "scrap" else "Less heat."
        return Plate("stop", "Too hot", hot.reason, less)
    if work.press is None:
        line = f"It takes {work.in_unit(work.plan.force_n.low)} to {work.in_unit(work.plan.force_n.high)}."
        return Plate("stop", "No press", f"{line} No press on the shelf.", "Put the press and its capacity on the shelf first.")
    verdict = work.press_verdict
    assert verdict is not None
    if verdict.state == "stop":
        return Plate("stop", "Press too small", verdict.reason, f"Not on this press. It would take {work.enough}.", scale=scale(work))
    return None


def scale(work: PressWork) -> Scale | None:
    """Likely force and its band against the press."""
    if work.plan is None or work.press is None:
        return None
    unit, per = work.press_unit
    band = work.plan.force_n
    doubt = max(band.high - band.likely, band.likely - band.low)
    return Scale(band.likely / per, doubt / per, None, work.press.capacity_n / per, unit, 1)


def strain(work: PressWork) -> str:
    """What the web bears, in a sentence; empty while it is elastic."""
    plan = work.plan
    if plan is None or not plan.past_yield:
        return ""
    return f"The web's hole is at {plan.hub_stress_mpa:.0f} MPa, past its yield: the force is an upper bound, and the hole has stretched."
