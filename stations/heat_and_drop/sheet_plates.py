"""The call of each phase of one heat for a whole half, in trade words."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shopmath.verdict import IN, OUT, STOP, TOO_CLOSE
from stations.base import Plate
from stations.heat_and_drop.plates import sureness
from stations.heat_and_drop.words import cap, degrees, minutes

if TYPE_CHECKING:
    from stations.heat_and_drop.parts import HotPart
    from stations.heat_and_drop.sheet import HeatSheet

WAIT = "wait"
NUMBERS = ("None", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten", "Eleven", "Twelve")
STUCK_WORDS = {"jammed": "jammed", "crooked": "went in crooked", "loose": "is not in its groove"}


def number(count: int) -> str:
    return NUMBERS[count] if count < len(NUMBERS) else str(count)


def names(parts: list[HotPart]) -> str:
    return ", ".join(part.name for part in parts)


def plate(work: HeatSheet) -> Plate:
    if work.signed:
        return work.signed_plate()
    if work.trouble:
        if not work.trouble.message:
            return _nothing(work)
        return Plate(STOP, "No plan", work.trouble.message, "Correct that reading, the method or the engine card.")
    return {"plan": _plan, "warming": _warming, "hot": _hot, "after": _after}[work.phase](work)


def _nothing(work: HeatSheet) -> Plate:
    if work.everything or work.attempt > 1:
        return Plate(IN, "All home", f"Every part of the {work.job.card.side(work.half)} half is in.", "Check each at its seat.")
    return Plate(
        WAIT, "Nothing to heat", "No bearing, pin or bush of this half is on the card.", "Put them on the card, or take another half."
    )


def _plan(work: HeatSheet) -> Plate:
    if work.stopped:
        unsettled = work.unsettled()
        if unsettled:
            part = unsettled[0]
            assert part.seat is not None
            found = part.seat.Faces(work.contradicted(part)).label
            line = f"{part.name}: found with {found}, the card says {part.seat.get_faces_display()}."
            return Plate(STOP, "Which way round?", line, "Settle it before anything is hot: a page or the drawing decides.")
        return Plate(STOP, "Stop", work.stopped, "Change the method, or take out what sets the limit.")
    sheet, plan = work.core_sheet, work.plan
    fits = [work.part(key) for key in sheet.order]
    left = [work.part(key) for key in sheet.left_out]
    crowded = [work.part(key) for key in sheet.crowded]
    total = len(plan.parts)
    first = (
        f"{number(len(fits))} of {total} in one heat" if left else f"{number(total)} in one heat" if total > 1 else "It goes in one heat"
    )
    start = _start_words(work)
    if crowded:
        chiller = crowded[0].chiller
        line = f"The {chiller} holds {chiller.places if chiller else 0}; no place for {names(crowded)}."
        return Plate(OUT, "Too many for the cold", line, "Choose another chiller for it, or leave it for a reheat.", first)
    weakest = min((part.planned.confidence for part in fits if part.planned), default=1.0)
    line = f"Each at least {sureness(weakest)}." if fits else "No part keeps its clearance long enough."
    if left:
        return Plate(TOO_CLOSE if fits else OUT, first, f"{line} Waits for a reheat: {names(left)}.", start, _widen(work, left))
    return Plate(IN, first, line, start, f"All home {minutes(_last_s(work))} after the door; the first window closes at {_first(work)}.")


def _last_s(work: HeatSheet) -> float:
    return max((step.to_s for step in work.core_sheet.steps if step.where == "in"), default=0.0)


def _first(work: HeatSheet) -> str:
    closes = [(work.closes_s(part, work.plan.target_c), part) for part in work.plan.parts if part.planned]
    soonest, part = min(closes, key=lambda pair: pair[0])
    return f"{minutes(soonest)} ({part.name})"


def _start_words(work: HeatSheet) -> str:
    """What goes in first, and how much later the rest."""
    plan, begins = work.plan, -work.core_sheet.begins_s
    oven = f"{work.heater} at {degrees(plan.heat_c)}, case to {degrees(plan.target_c)}"
    soak = plan.soak.likely if plan.soak else 0.0
    cold = sorted({part.chiller.name for part in plan.parts if part.chiller})
    if cold and begins > soak + 60:
        return f"{cap(' and '.join(cold))} first. {oven}; the case goes in {minutes(begins - soak)} later, {minutes(soak)} before the door."
    return f"{oven}, {minutes(soak)} before the door." + (f" {cap(' and '.join(cold))} meanwhile." if cold else "")


def _widen(work: HeatSheet, left: list[HotPart]) -> str:
    hotter = work.plan.ceiling_c - work.plan.target_c
    more = f"{min(hotter, 20):.0f} K hotter gives every part longer" if hotter >= 5 else "a hotter case is not allowed here"
    return f"{cap(more)}; more cold, or a second pair of hands, too."


def _warming(work: HeatSheet) -> Plate:
    waits = {key: seconds for key, seconds in work.ready_in.items() if seconds > 1.0}
    latest = work.last("case")
    if latest and latest.extra.get("trusted") is False:
        low, high = latest.extra["low_c"], latest.extra["high_c"]
        line = f"{cap(latest.extra['means'])} says only {low:.0f} to {degrees(high)}."
        return Plate(TOO_CLOSE, "Too close to call", line, "Put a dot of matt paint or tape on the boss, or hold a contact probe to it.")
    outer_c = work.run.outer().c
    if work.timer("heat") and outer_c > work.plan.ceiling_c:
        line = f"The case is at {degrees(outer_c)}; {work.plan.ceiling_why} allows {degrees(work.plan.ceiling_c)}."
        return Plate(STOP, "Stop", line, "Take it out of the heat now.")
    order = [work.part(key) for key in work.core_sheet.order]
    sequence = f"Order: {names(order)}."
    if not waits:
        return Plate(
            IN,
            "Open the door",
            f"Case at {degrees(outer_c)}, everything cold.",
            "Out, and one by one as drawn.",
            sequence,
            standing="Open the door.",
        )
    standing = "Lay the bench out in the order drawn."
    if not work.timer("heat") and waits.get("case", 0.0) >= max(waits.values()) - 60:
        return Plate(
            WAIT, "Case in now", "The cold has a start on it.", "Put the half into the oven.", sequence, standing="Half into the oven."
        )
    door = max(waits.values())
    what = "the case" if waits.get("case") == door else work.part(max(waits, key=lambda key: waits[key])).name
    later = f"The half goes into the oven in {minutes(door - waits['case'])}. " if not work.timer("heat") and "case" in waits else ""
    return Plate(
        WAIT, "Not yet", f"The door opens in {minutes(door)}; it waits for {what}.", f"{later}{standing}", sequence, standing=standing
    )


def _hot(work: HeatSheet) -> Plate:
    live = work.live_heat
    part = live.here
    assert part is not None
    left = live.left_s(part)
    way, _ = work.way(part)
    line = f"{cap(part.from_words)}{f', {way}' if way else ''}."
    jam = _jam_words(work)
    lost = [each for each in work.plan.parts if each.key in live.remaining.left_out and each.key != part.key]
    rest = f" Waits for a reheat now: {names(lost)}." if lost else ""
    if part.is_circlip:
        return Plate(IN, part.name, "Turn it in its groove all round.", "Enter when it is in.", jam + rest, standing="Parts go in.")
    if left <= 0:
        line = "It closed while it waited: it would not drop in now."
        return Plate(OUT, f"{part.name}: shut", line, "Lay it by. Do not drive it.", jam + rest, standing="Parts go in.")
    state = TOO_CLOSE if left < work.shop.handling_s else IN
    move = f"Square, push home within {minutes(left)}. Enter when it is in."
    return Plate(state, part.name, line, move, jam + rest, standing="Parts go in.")


def _jam_words(work: HeatSheet) -> str:
    """What to do with what stuck: later, cold hands off the hammer."""
    stuck = work.live_heat.jammed
    if not stuck:
        return ""
    said = "; ".join(f"{part.name} {STUCK_WORDS[work.fate(part)]}" for part in stuck)
    return f"{said}: leave it, no hammer. It is lifted off or pulled after the rest, and reheated."


def _after(work: HeatSheet) -> Plate:
    waiting = work.waiting
    unsaid = work.unsaid
    if unsaid:
        return Plate(WAIT, "What of the last?", f"Its window closed: {names(unsaid)}.", "Say whether it went in.")
    home = len([part for part in work.parts if work.fate(part) in ("dropped", "tapped", "in")])
    if waiting:
        stuck = [part for part in waiting if work.fate(part) in STUCK_WORDS]
        first = f"Stop. Back {names(stuck)} out with the puller or lift it off, clean the bore. " if stuck else ""
        line = f"{number(home)} home. Still to go: {names(waiting)}."
        return Plate(
            OUT,
            f"{number(len(waiting))} for a reheat",
            line,
            f"{first}Then reheat for the rest.",
            "Never drive a cocked ring: it peels the bore.",
        )
    move = "Hold each down until the heat has gone across, then feel for a gap at its seat." if not work.open_asks() else "Note or sign."
    return Plate(IN, "All home", f"{number(home)} in one heat.", move, "Each seat's own page asks for the gaps, cold.")
