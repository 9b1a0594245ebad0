"""The call on a wheel in trade words, and where its numbers come from."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shopmath import materials
from shopmath.balance import stops_wanted
from stations.base import Plate, Scale, Trace

if TYPE_CHECKING:
    from stations.balance.station import Balance

G = 9.81


def felt(work: Balance, gmm: float) -> str:
    """What an unbalance does at speed, as a mechanic feels it."""
    newton = work.force(gmm)
    if newton is None or work.rpm is None:
        return ""
    weight = newton / G
    shown = f"{weight:.0f} kg" if weight >= 2 else f"{weight:.1f} kg"
    return f"{newton:.0f} N at {work.rpm:.0f}, as if {shown} swung round {work.rpm / 60:.0f} times a second"


def plate(work: Balance) -> Plate:
    if work.signed:
        return work.signed_plate()
    if work.leave == "out":
        words = {"cracked": "Out of use", "repaired": "Send it out"}[work.worded("sound")]
        line = {
            "cracked": "A cracked wheel bursts: it is never balanced, drilled or run.",
            "repaired": "Mended rims and glued magnets are for a shop that can spin and prove them.",
        }[work.worded("sound")]
        return Plate("stop", words, line, "Sign it; the wheel goes no further here.")
    if work.leave == "leave":
        line = "It did not shake. A small error here may balance something else on the shaft."
        return Plate("in", "Leave it", line, "Sign it as left.", "Balance only what shook the engine.")
    if work.speed and work.speed.state == "out" and work.phase != "done":
        return Plate("stop", "Send it out", f"Rim speed {work.speed.reason}", "A rim this fast for its metal is for a balancing shop.")
    return {"ask": _ask, "roll": _roll, "weigh": _weigh, "drill": _drill, "done": _done}[work.phase](work)


def _ask(work: Balance) -> Plate:
    ask = work.next_ask
    line = "Most wheels are best left alone. First: should this one be touched?"
    return Plate("wait", "Touch it at all?", line, f"{ask.words}" if ask else "Go on.")


def _roll(work: Balance) -> Plate:
    found = work.stops
    missing = next((ask for ask in work.open_asks() if ask.key in ("mass", "rpm", "rim")), None)
    if missing:
        return Plate("wait", "Its figures first", "Mass and speed decide how much it may have.", f"{missing.words}?")
    if found is None:
        return Plate(
            "wait", "Roll it", "Let it roll and settle by itself, then mark the lowest point.", "A gentle push, now this way, now that."
        )
    if found.telling:
        return Plate("wait", "Heavy about there", f"{found.mean_deg:.0f}° so far.", f"Another roll: {4 - len(work.marks)} more at least.")
    more = stops_wanted(found)
    chance = f"{100 * found.p_value:.0f} in 100 by chance alone"
    if more is None:
        return Plate(
            "too_close",
            "Tells nothing",
            f"The marks lie all round: {chance}.",
            "Roll on to eight; then it is as good as the stand can tell.",
        )
    return Plate("too_close", "Not telling yet", f"About {found.mean_deg:.0f}°, but {chance}.", f"Roll {more} more.")


def _weigh(work: Balance) -> Plate:
    found = work.stops
    assert found is not None
    where = f"Heavy at {found.mean_deg:.0f}° ± {found.unsure_deg:.0f}, {100 * found.p_value:.2g} in 100 by chance."
    if work.amount is None:
        opposite = (found.mean_deg + 180) % 360
        return Plate(
            "wait",
            "How much?",
            where,
            f"Putty at {opposite:.0f}°, a little more each time, weighed.",
            "The roll gives the direction, not the amount.",
        )
    if work.plan is not None and not work.plan.holes:
        return Plate(
            "out",
            "No hole can do it",
            work.plan.reason.capitalize() + ".",
            "Another radius or drill; or a balancing shop.",
            felt(work, work.amount.gmm),
        )
    ask = work.next_ask
    line = f"{work.amount.gmm:.0f} ± {work.amount.uncertainty_gmm:.0f} g·mm at {work.heavy_deg:.0f}°; {_permitted(work)}."
    return Plate(
        "out",
        "Too heavy there",
        line,
        f"{ask.words}." if ask else "Say where it may be drilled.",
        felt(work, work.amount.gmm),
        _scale(work),
    )


def _permitted(work: Balance) -> str:
    return f"{work.permitted_gmm:.0f} permitted" if work.permitted_gmm else "nothing known of what is permitted"


def _scale(work: Balance) -> Scale | None:
    rest = work.rest
    return Scale(rest.gmm, rest.uncertainty_gmm, None, work.permitted_gmm, "g·mm", 0) if rest and work.permitted_gmm else None


def _drill(work: Balance) -> Plate:
    plan, rest = work.plan, work.rest
    assert plan is not None and rest is not None
    if work.removed_much:
        line = f"{work.removed_g:.1f} g are off, over two in a hundred of the wheel."
        return Plate("stop", "Enough off it", line, "No more holes: a balancing shop, or another wheel.", scale=_scale(work))
    wall = [work.wall_at(index, hole["depth_mm"]) for index, hole in enumerate(work.made)]
    if wall and min(wall) < 1.0:
        return Plate(
            "stop",
            "Thin below the hole",
            f"{min(wall):.1f} mm are left under its tip.",
            "No deeper; look from behind for a bulge or crack.",
        )
    if work.past:
        line = f"Gone past: {rest.gmm:.0f} g·mm now lie at {rest.deg:.0f}°."
        return Plate(
            "out", "Over-drilled", line, f"Take the rest off at {rest.deg:.0f}°: roll it again first.", felt(work, rest.gmm), _scale(work)
        )
    done, total = len(work.made), len(plan.holes)
    if done < total:
        hole = plan.holes[done]
        line = f"{rest.gmm:.0f} g·mm to take; {plan.rest.gmm:.0f} expected after {'it' if total == 1 else f'all {total}'}."
        move = f"{hole.diameter_mm:g} mm drill at {hole.angle_deg:.0f}°, {hole.radius_mm:g} out, {hole.depth_mm:.1f} deep at full width."
        return Plate(
            "wait", f"Drill hole {done + 1} of {total}", line, move, plan.reason.capitalize() + "." if plan.reason else "", _scale(work)
        )
    line = f"{rest.gmm:.0f} g·mm expected to be left; {_permitted(work)}."
    return Plate("wait", "Check it", line, f"Roll it again: it should stop near {rest.deg:.0f}°, or anywhere.", scale=_scale(work))


def _done(work: Balance) -> Plate:
    if work.amount is None:
        line = f"{len(work.marks)} stops lie all round: within what this stand can tell."
        return Plate("in", "Balanced", line, "Sign it.", f"Off it in all: {work.removed_g:.1f} g.")
    verdict = work.judged(work.amount.gmm, work.amount.uncertainty_gmm)
    assert verdict is not None
    return Plate("in", "Balanced", f"{verdict.reason}", "Sign it.", felt(work, work.amount.gmm), _scale(work))


def traces(work: Balance) -> tuple[Trace, ...]:
    found = []
    if work.permitted_gmm and work.mass_kg and work.rpm:
        how = f"ISO 21940-11: 9549·G·m/n, G {work.grade:g}, {work.mass_kg:g} kg, {work.rpm:.0f} 1/min"
        found.append(Trace("Permitted", f"{work.permitted_gmm:.1f} g·mm", how))
    if work.stops:
        spread = f"circular mean of {len(work.marks)}, one stop ± {work.stops.spread_deg:.0f}°; Rayleigh's test p {work.stops.p_value:.2g}"
        found.append(Trace("Heavy at", f"{work.stops.mean_deg:.0f}°", spread))
    if work.amount:
        found.append(
            Trace(
                "Unbalance",
                f"{work.amount.gmm:.0f} ± {work.amount.uncertainty_gmm:.0f} g·mm",
                "mean of both trial masses, times their radius",
            )
        )
        found.append(Trace("Pulls", f"{work.force(work.amount.gmm) or 0:.0f} N", "U·ω² at working speed"))
    if work.speed:
        found.append(Trace("Rim speed", "in" if work.speed.state == "in" else work.speed.state.replace("_", " "), work.speed.reason, True))
    if work.earlier or work.made:
        found.append(Trace("Off it so far", f"{work.removed_g:.2f} g", f"{materials.get(work.metal).name}, holes with their cones"))
    return tuple(found)
