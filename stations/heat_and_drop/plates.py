"""The call of each phase in trade words."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from engines.models import Seat
from shopmath.verdict import IN, OUT, STOP, TOO_CLOSE
from stations.base import Plate, Scale
from stations.heat_and_drop.words import cap, degrees, minutes

if TYPE_CHECKING:
    from stations.heat_and_drop.station import HeatAndDrop

TITLES = {IN: "It drops in", TOO_CLOSE: "Too close to call", OUT: "It will not go in", STOP: "Stop"}
ONTO_SHAFT = {IN: "It slides on", OUT: "It will not go on"}
WAIT = "wait"
JAM = "If it jams or cocks: stop, do not hammer. Lift it off or back it out with the puller, heat again, start square."
READY_K = 1.5


CONDEMNED = "Inspect signed this seat as out; it has not been measured since."
TURNS = "As measured, the seat is too large for any interference with the ring."


def sureness(confidence: float) -> str:
    """A chance as a mechanic says it, never rounded up to certain."""
    if confidence > 0.999:
        return "better than 999 in 1000"
    if confidence >= 0.99:
        return "99 in 100"
    if confidence < 0.01:
        return "less than 1 in 100"
    return f"{math.floor(100 * confidence)} in 100"


def title(work: HeatAndDrop, state: str) -> str:
    """The call in one or two words; a bearing slides onto a shaft and drops into a case."""
    return (ONTO_SHAFT.get(state) if work.seat.on == Seat.On.SHAFT else None) or TITLES[state]


def plate(work: HeatAndDrop) -> Plate:
    if work.signed:
        return work.signed_plate()
    if work.trouble:
        return Plate(STOP, "No plan", work.trouble.message, "Correct that reading or the engine card.")
    return {"plan": _plan, "heating": _heating, "window": _window, "after": _after}[work.phase](work)


def _scale(work: HeatAndDrop, value: float, spread: float) -> Scale:
    return Scale(value, 2 * spread, work.plan.setup.wanted_mm, None, "mm")


def _plan(work: HeatAndDrop) -> Plate:
    plan = work.plan
    state = plan.call.state
    outer, partner = work.names()
    if work.seat_known.is_condemned:
        return Plate(STOP, "Seat is out", CONDEMNED, "Mend it, then measure the seat here, cold.")
    if work.seat_known.holds_nothing(work.planned.fit):
        return Plate(OUT, "Nothing holds the ring", TURNS, "Mend the seat first; Inspect lists the ways.", "It would drop in, and turn.")
    if state == STOP:
        return Plate(STOP, TITLES[STOP], plan.call.reason, "Change the method, or take out what sets the limit.")
    scale = _scale(work, plan.offering.clearance_mm, plan.offering.spread_mm)
    line = f"{sureness(plan.confidence)}, at least {max(plan.offering.low_mm, 0):.3f} mm to spare"
    if state == OUT:
        line = f"{sureness(plan.confidence)}: {plan.call.reason}"
    if state == TOO_CLOSE:
        line = f"{sureness(plan.confidence)}. {plan.call.reason}"
    if state != IN:
        gains = [f"{each.what}: +{each.gain_mm:.3f} mm" for each in plan.wideners[:4]]
        return Plate(
            state, title(work, state), line, "Widen it first.", "What would help: " + "; ".join(gains) + "." if gains else JAM, scale
        )
    parts = []
    if work.heater:
        where = f"{cap(work.heater_words())} at {degrees(work.planned.heat_c)}, {outer}" if work.planned.heat_c else cap(outer)
        parts.append(f"{where} to {degrees(plan.target_c)}" + (f" in {minutes(plan.soak.likely)}" if plan.soak else ", by thermometer"))
    if plan.chill:
        parts.append(f"{cap(partner)} in the {work.chiller_words()} to {degrees(plan.chill_c)} in {minutes(plan.chill.likely)}")
    detail = f"Sure for {minutes(plan.sure_for_s)} once out; when it touches you have {seconds(plan.seating.low)}."
    if plan.soak and plan.chill and plan.chill.likely > plan.soak.likely + 60:
        detail = f"Cold first: the {outer} goes in {minutes(plan.chill.likely - plan.soak.likely)} later. " + detail
    return Plate(IN, title(work, IN), line, ". ".join(parts) + "." if parts else "Nothing to heat or chill: push it home.", detail, scale)


def seconds(value: float) -> str:
    """How long one has once it touches, said as one acts on it."""
    if value > 120:
        return "a minute or two"
    return f"about {max(5 * round(value / 5), 5)} seconds"


def _heating(work: HeatAndDrop) -> Plate:
    run, plan = work.run, work.plan
    outer, partner = work.names()
    here, outer_now, inner_now = run.here(), run.outer(), run.inner()
    scale = _scale(work, here.clearance_mm, here.spread_mm)
    for limit in plan.setup.hot_limits:
        if outer_now.c > limit.limit_c:
            words = f"The {outer} is at {degrees(outer_now.c)}; {limit.what} allows {degrees(limit.limit_c)}: {limit.reason}."
            return Plate(STOP, TITLES[STOP], words, f"Take the {outer} out of the heat now.", scale=scale)
    for limit in plan.setup.cold_limits:
        if inner_now.c < limit.limit_c:
            words = f"The {partner} is at {degrees(inner_now.c)}; {limit.what} allows {degrees(limit.limit_c)}: {limit.reason}."
            return Plate(STOP, TITLES[STOP], words, f"Take the {partner} out of the cold now.", scale=scale)
    latest = work.last("case")
    if latest and latest.extra.get("trusted") is False:
        low, high = latest.extra["low_c"], latest.extra["high_c"]
        line = f"{cap(latest.extra['means'])} says only {low:.0f} to {degrees(high)}."
        return Plate(
            TOO_CLOSE, TITLES[TOO_CLOSE], line, "Put a dot of matt paint or tape on the boss, or hold a contact probe to it.", scale=scale
        )
    waits = []
    if work.heater and not work.timer("heat"):
        waits.append(f"the {outer} is not in the heat yet")
    elif outer_now.c < plan.target_c - READY_K:
        left = run.ready_in_s()
        waits.append(f"the {outer} for another {minutes(left)}" if left else f"the {outer} to read {degrees(plan.target_c)}")
    if plan.chill and not work.timer("chill"):
        waits.append(f"the {partner} is not in the cold yet")
    elif plan.chill and inner_now.c > plan.chill_c + READY_K and run.inner_in:
        left = run.inner_in.reaches_in_s(plan.chill_c, work.now)
        waits.append(f"the {partner} for another {minutes(left)}")
    verdict = run.call()
    lay_out = f"Lay out driver, gloves{', circlip pliers' if work.seat.stop == Seat.Stop.CIRCLIP else ''} and a support behind the seat."
    if waits:
        move = cap(" and ".join(waits)) + "." if "is not in" in " ".join(waits) else "Wait for " + " and ".join(waits) + "."
        if verdict.state == IN:
            sure = run.sure_for_s()
            line = f"already: {sureness(here.confidence)}, at least {here.low_mm:.3f} mm to spare"
            now_or_later = f"Out now and it is sure for {minutes(sure)}. {move.removesuffix('.')} and it lasts {minutes(plan.sure_for_s)}."
            return Plate(IN, title(work, IN), line, now_or_later, lay_out, scale, standing=lay_out)
        line = f"{here.clearance_mm:+.3f} mm now, {plan.setup.wanted_mm:.3f} wanted".replace("-", "−")
        return Plate(WAIT, "Not yet", line, move, lay_out, scale, standing=lay_out)
    if verdict.state != IN:
        return Plate(
            verdict.state, title(work, verdict.state), verdict.reason, "Leave it in longer, or widen it as below.", _helps(work), scale
        )
    line = f"{sureness(here.confidence)}, at least {here.low_mm:.3f} mm to spare"
    move = f"Oven off, out, in square, push home. Hold it down {minutes(30)}." if work.heater else "Out, in square, push home."
    detail = f"Offer it up within {minutes(run.sure_for_s())}; once it touches, {seconds(plan.seating.low)}."
    return Plate(IN, title(work, IN), line, move, detail, scale)


def _helps(work: HeatAndDrop) -> str:
    return "; ".join(f"{each.what}: +{each.gain_mm:.3f} mm" for each in work.plan.wideners[:3])


def _window(work: HeatAndDrop) -> Plate:
    run = work.run
    here, left, verdict = run.here(), run.sure_for_s(), run.call()
    scale = _scale(work, here.clearance_mm, here.spread_mm)
    if verdict.state == IN:
        line = f"{sureness(here.confidence)}, at least {here.low_mm:.3f} mm to spare"
        return Plate(IN, title(work, IN), line, f"In square, push home. Sure for {minutes(left)}.", f"Then say what happened. {JAM}", scale)
    if verdict.state == TOO_CLOSE:
        return Plate(
            TOO_CLOSE, TITLES[TOO_CLOSE], verdict.reason, "One try, by hand, square. If it does not fall, back into the heat.", JAM, scale
        )
    return Plate(OUT, "The window is shut", verdict.reason, "Back into the heat. Do not drive it.", JAM, scale)


def _after(work: HeatAndDrop) -> Plate:
    if work.outcome not in ("dropped", "tapped"):
        word = {"jammed": "It jammed", "crooked": "It went in crooked"}[work.outcome]
        move = "Stop. Back it out with the puller or lift it off, clean the bore, then back into the heat."
        return Plate(
            OUT,
            word,
            f"{work.run.here().clearance_mm:.3f} mm of clearance was expected.",
            move,
            "Never drive a cocked ring: it peels the bore.",
        )
    circlip = work.last("circlip")
    if circlip and circlip.text == "loose":
        return Plate(
            OUT,
            "Circlip not home",
            "A circlip that is not in its groove means the bearing is not seated.",
            "Press the ring home, then seat the circlip.",
        )
    seated = work.seated()
    waiting = [ask.words.lower() for ask in work.open_asks() if ask.key != "note"]
    if seated is None:
        stop = "circlip" if work.seat.stop == Seat.Stop.CIRCLIP else work.seat.get_stop_display()
        return Plate(
            WAIT,
            "Is it home?",
            "In, not checked yet",
            f"Hold it against the {stop} until the heat has gone across, then feel at four places.",
        )
    scale = None
    if seated.state != IN:
        title = "Not home" if seated.state == OUT else TITLES[TOO_CLOSE]
        move = "Back into the heat and press it home all round." if seated.state == OUT else "Measure again with a thinner blade."
        return Plate(seated.state, title, seated.reason, move, scale=scale)
    rest = f"Still to do: {', '.join(waiting)}." if waiting else "Sign it."
    tapped = " It needed the driver: turn it by hand and feel for a rough spot." if work.outcome == "tapped" else ""
    return Plate(IN, "Seated", seated.reason, rest, f"All four places agree.{tapped}", scale)
