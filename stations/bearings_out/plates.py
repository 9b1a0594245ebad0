"""The call at a seat: what to do first, how hot, with which driver; what the seal and the bearing tell when they are out."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shopmath.seals import DEPTH_MM
from stations.base import Plate, Scale, Trace

if TYPE_CHECKING:
    from stations.bearings_out.station import BearingsOut

WAIT = "wait"


def plate(work: BearingsOut) -> Plate:
    if work.signed:
        return work.signed_plate()
    if work.said("outcome") == "stuck":
        kinder = [way for way in work.ways if way.state != "stop" and way.key != work.way.key]
        move = f"{kinder[0].words}: {kinder[0].reasons[0]}." if kinder else "Let it cool, think, ask."
        return Plate(
            "out", "Still in", f"{work.way.words} did not do it.", move, "Choose the next way below; then say again how it came out."
        )
    if work.said("outcome"):
        return _out(work)
    if work.seal and not work.said("seal_out"):
        return _seal(work)
    if work.retained:
        return Plate(
            "stop",
            "Held",
            f"A {work.retained} holds it; force now breaks the groove or the case.",
            f"Take the {work.retained} out, into the tray, then say so.",
        )
    return _way(work)


def _seal(work: BearingsOut) -> Plate:
    """The seal as found, before it is destroyed."""
    sat, ask = work.seal_seat, work.next_ask
    if sat is None:
        return Plate(WAIT, "Seal first", "What it tells now is gone once it is pulled.", f"{ask.words}." if ask else "Pull the seal.")
    depth = f"{sat.depth_mm:.2f} mm deep, {sat.lean_mm:.2f} out of square, deepest at {sat.deepest}"
    worst = next((state for state in ("out", "too_close") if state in (sat.depth.state, sat.square.state)), "in")
    words = {"out": "It sat wrong", "too_close": "Too close to call", "in": "It sat well"}[worst]
    reason = sat.square.reason if sat.square.state == worst and worst != "in" else sat.depth.reason
    wanted = work.seal.depth_mm if work.seal else 0.0
    scale = Scale(sat.depth_mm, work.doubt_mm / 2, wanted - DEPTH_MM, wanted + DEPTH_MM, "mm", 2)
    return Plate(worst, words, f"{depth}. {reason}", f"{ask.words}" if ask else "Pull the seal.", scale=scale)


def _way(work: BearingsOut) -> Plate:
    way, freed = work.way, work.freeing
    reasons = "; ".join(way.reasons)
    if way.state == "stop":
        return Plate("stop", "Not that way", f"{way.words}: {reasons}.", f"{work.ways[0].words}: {work.ways[0].reasons[0]}.")
    ask = work.next_ask
    open_facts = ask is not None and ask.key in ("retained", "bottom", "shields", "keep")
    heat = ""
    if freed and way.key in ("drop", "drive") and freed.together:
        heat = f"Case to {freed.together.likely:.0f} °C, {freed.together.high:.0f} for the tightest; "
    if freed and way.key == "spray":
        heat = f"Case to {freed.sprayed.high:.0f} °C, then spray the ring through its bore; "
    driver = (
        f"driver {work.fitting[0].name}"
        if work.fitting
        else f"a driver {work.window.outside_low_mm:.0f} to {work.window.outside_high_mm:.0f} mm over {work.window.inside_low_mm:.0f}"
    )
    side = "outside" if work.seat.loads_from == "outside" else "inside"
    does = {
        "drop": f"{heat}mouth down over a soft pad, a tap on the case.",
        "spray": f"{heat}mouth down.",
        "drive": f"{heat}{driver}, toward the {side}.",
    }.get(way.key, f"{way.words}, toward the {side}.")
    state = WAIT if open_facts else way.state
    words = (
        "Look first"
        if open_facts
        else {"drop": "Heat, it drops", "spray": "Heat and spray", "drive": "Heat and drive", "cut": "Last resort"}.get(way.key, way.words)
    )
    line = f"{way.words}: {reasons}."
    return Plate(
        state, words, line, f"{ask.words}" if open_facts and ask else does, "" if not open_facts else f"So far: {does[0].lower()}{does[1:]}"
    )


def _out(work: BearingsOut) -> Plate:
    bad: list[str] = []
    if work.said("hit") == "yes":
        bad.append("driven through its balls: the races are brinelled, replace it")
    if work.said("outcome") == "broke":
        bad.append("in pieces: replace it")
    if work.said("look") == "spun":
        bad.append("the ring has turned in its seat: Inspect measures the bore")
    if work.said("look") == "scored":
        bad.append("the seat is scored or cracked: Inspect decides it")
    sat = work.seal_seat
    if sat and sat.clear and sat.clear.state == "out":
        bad.append("the seal pressed on the bearing")
    otherwise = work.contradictions()
    ask = next((each for each in work.open_asks() if not each.optional), None)
    move = f"{ask.words}" if ask else "Sign it."
    if ask:
        return Plate(WAIT, "Out", "; ".join(bad) or "Now look before it is wiped clean.", move)
    if bad:
        line = "; ".join(bad)
        return Plate("out", "Out, not well", f"{line[0].upper()}{line[1:]}.", move)
    if otherwise:
        return Plate("too_close", "Out, not as the card says", f"{otherwise[0]['what'].capitalize()}: found {otherwise[0]['found']}.", move)
    return Plate("in", "Out", f"{work.way.words}; the seat is sound.", move)


def traces(work: BearingsOut) -> list[Trace]:
    rows: list[Trace] = []
    freed = work.freeing
    if freed:
        if freed.together:
            rows.append(
                Trace(
                    "Lets go, ring hot too",
                    f"{max(20.0, freed.together.low):.0f} to {freed.together.high:.0f} °C",
                    f"{freed.together.basis}; case grows more than the ring",
                )
            )
        rows.append(
            Trace(
                "Lets go, ring sprayed", f"{max(20.0, freed.sprayed.low):.0f} to {freed.sprayed.high:.0f} °C", "ring held near 0 °C", True
            )
        )
        if freed.limit:
            rows.append(Trace("Limit", f"{freed.limit.limit_c:.0f} °C", f"{freed.limit.what}: {freed.limit.reason}"))
    window = work.window
    rows.append(
        Trace(
            "Driver, outside",
            f"{window.outside_low_mm:.1f} to {window.outside_high_mm:.1f}",
            f"on the {window.presses_on}; {window.basis}",
            True,
        )
    )
    rows.append(Trace("Driver, inside", f"{window.inside_low_mm:.1f} or more", "clear of the other ring", True))
    names = ", ".join(f"{each.name} {each.outside_mm:g}/{each.inside_mm:g}" for each in work.fitting[:3])
    rows.append(Trace("On the shelf", f"{len(work.fitting)} fit" + ("s" if len(work.fitting) == 1 else ""), names or "none in this window"))
    sat = work.seal_seat
    if sat:
        rows.append(Trace("Seal out of square", f"{sat.lean_mm:.2f} mm", f"{sat.square.reason} Shop rule."))
        if sat.gap_mm is not None and sat.clear:
            rows.append(Trace("Seal to bearing", f"{sat.gap_mm:.2f} mm", f"deepest place; {sat.clear.reason}"))
    rows += [
        Trace(f"{index}. {way.words}", {"in": "good", "too_close": "maybe", "stop": "no"}[way.state], "; ".join(way.reasons))
        for index, way in enumerate(work.ways, 1)
    ]
    return rows
