"""The call at each point of a split, in trade words."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from stations.base import Plate, Scale, Trace

if TYPE_CHECKING:
    from stations.split.station import Split

WAIT = "wait"


def plate(work: Split) -> Plate:
    if work.signed:
        return work.signed_plate()
    if work.apart:
        return _apart(work)
    found = work.census
    if work.value("counted") is not None and found.call.state == "stop":
        return _still_in(work)
    if not work.begun:
        return _before(work)
    if work.plane is None:
        taken = sum(bool(work.last(key)) for key, _ in work.places)
        ask = work.next_ask
        line = f"{taken} of at least three places measured." if taken else "Just enough load that it moves, then measure round the joint."
        return Plate(WAIT, f"Round {work.attempt}", line, f"{ask.words}." if ask else "Measure a place to the side: these lie in line.")
    return _led(work)


def _still_in(work: Split) -> Plate:
    found = work.census
    likely = found.likely[:3]
    where = f"Look at {' and '.join(likely)} first" if likely else "Look again, places with dirt in the head first"
    why = ": it lags there." if work.plane and likely else ": not in your hand yet." if likely else "."
    return Plate("stop", "One is still in" if found.missing or likely else "Count again", found.call.reason, where + why)


def _before(work: Split) -> Plate:
    found, fasteners = work.census, work.fasteners
    ask = work.next_ask
    if fasteners and len(work.out) < len(fasteners):
        line = f"{len(work.out)} of {len(fasteners)} ticked out. A length, or a bare Enter, ticks a place."
        return Plate(WAIT, "Fasteners out", line, f"{ask.words}." if ask else "Tick every place.")
    if work.value("counted") is None:
        line = "No bolt stands on the card: count by the parts list." if not fasteners else found.call.reason
        return Plate(WAIT, "Count them", line, f"{ask.words}." if ask else "Count the pieces on the tray.")
    screws = work.screws
    if screws and screws.call.state == "stop":
        return Plate(
            "stop", "More thread first", screws.call.reason, f"Get the screws {screws.turns_wanted} whole turns in, or use longer ones."
        )
    lift = f"The {work.lifting_half} lifts."
    if screws and screws.call.state == "too_close":
        move = f"Go up slowly; stop at {screws.stop_nm:.0f} N·m a screw. {lift}"
        return Plate("too_close", "Too close to call", screws.call.reason, move)
    if screws:
        move = f"{lift} Tick the lines below, then load on. Stop at {screws.stop_nm:.0f} N·m a screw."
        return Plate("in", "Ready to part", screws.call.reason, move)
    if ask and ask.key in ("screw_d", "screw_pitch", "turns", "lifts"):
        return Plate(WAIT, "All out", found.call.reason, f"{ask.words}.")
    return Plate(
        "too_close",
        "Hold not weighed",
        f"{found.call.reason} What the splitter's screws stand is unknown.",
        f"{lift} Go up slowly, a quarter turn at a time.",
    )


def _led(work: Split) -> Plate:
    plane, lead, move = work.plane, work.lead, work.move
    assert plane is not None
    assert lead is not None
    assert move is not None
    scale = None if math.isinf(work.allowed_mm) else Scale(plane.lead_mm, work.doubt_mm, None, work.allowed_mm, "mm", 2)
    worst = max((abs(value) for value in plane.residuals), default=0.0)
    detail = f"One place stands {worst:.2f} mm off the plane: measure it again." if worst > max(0.15, 3 * work.doubt_mm) else ""
    words = {"go_on": "Level enough", "tap": "Level it first", "back": "It binds", "lift": "Free"}[move.kind]
    state = "too_close" if move.kind == "tap" and lead.state == "in" else lead.state
    return Plate(state, words, lead.reason, move.words, detail, scale)


def _apart(work: Split) -> Plate:
    ask = work.next_ask
    loose = list(work.result()["loose"])
    if ask and ask.key.startswith("loose"):
        line = "Oil holds washers and shims to either half; what falls now has no place any more."
        return Plate(WAIT, "Apart: look at both", line, ask.words, f"{len(loose)} in the tray so far." if loose else "")
    said = f"{len(loose)} loose part{'s' if len(loose) != 1 else ''} in the tray" if loose else "nothing hung loose"
    return Plate("in", "Apart", f"In {work.attempt} round{'s' if work.attempt != 1 else ''} of gaps, {said}.", "Sign it.")


def traces(work: Split) -> list[Trace]:
    rows: list[Trace] = []
    if work.screws:
        strength, wanted = work.screws.strength, work.wanted_n
        rows.append(
            Trace(
                "Screws stand",
                f"{strength.low / 1000:.1f} to {strength.high / 1000:.1f} kN",
                f"{work.screws.turns} whole turns; {strength.basis}",
                True,
            )
        )
        rows.append(Trace("Halves hold with", f"{wanted.low / 1000:.1f} to {wanted.high / 1000:.1f} kN", wanted.basis, True))
    if work.plane:
        if math.isinf(work.allowed_mm):
            rows.append(Trace("Lead allowed", "any", "every dowel is out of its hole"))
        else:
            tight = min(work.dowels, key=lambda each: each.clearance_mm / each.engaged_mm)
            source = f"clearance {tight.clearance_mm:g} over {tight.engaged_mm:g} engaged, less the gap, across {work.span_mm:.0f} mm"
            rows.append(Trace("Lead allowed", f"{work.allowed_mm:.2f} mm", source, work.dowels_assumed))
        rows.append(Trace("Mean gap", f"{work.plane.mean_mm:.2f} mm", "plane by least squares"))
    for attempt in range(work.attempt - 1, 0, -1):
        plane = work.plane_of(attempt)
        if plane:
            rows.append(
                Trace(
                    f"Round {attempt}", f"{plane.mean_mm:.2f} mm", f"{plane.leading_name} led {plane.lagging_name} by {plane.lead_mm:.2f}"
                )
            )
    if work.places_taken and work.begun:
        rows.append(Trace("Places", "taken", "four round the face; put the engine's own on its card", True))
    return rows
