"""The call at each point of a pull, in trade words."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shopmath.pulling import Pull
from shopmath.taper import key_shift_deg
from stations.base import Plate, Trace

if TYPE_CHECKING:
    from stations.flywheel_off.station import FlywheelOff

WAIT = "wait"


def kilonewtons(low: float, high: float) -> str:
    return f"{low / 1000:.0f} to {high / 1000:.0f} kN"


def plate(work: FlywheelOff) -> Plate:
    if work.signed:
        return work.signed_plate()
    if work.free:
        return _off(work)
    if work.same and work.same.state == "stop":
        move = "Do not turn it further. Find the puller of this thread; clean the boss with a thread file, take off no metal."
        turns = work.value("turns")
        if "mm too" in work.same.reason:
            move = "Find the puller of this size. A thread held by its crests strips at a fraction of the pull."
        bound = f" It bound at {turns / 360:g}." if turns else ""
        return Plate("stop", "Not its puller", work.same.reason + bound, move)
    found = work.found
    if found is None:
        nearest = work.match("puller")
        line = f"Puller: {nearest.designation}." if nearest else "Puller and boss are not measured yet."
        ask = work.next_ask
        return Plate(WAIT, "Which thread?", line, f"{ask.words}." if ask else "Measure puller and boss.")
    if work.dirty and work.now_nm is None and work.depth_turns:
        turns = (work.value("turns") or 0) / 360
        line = f"Same pitch, same hand, yet it bound at {turns:g} of {work.depth_turns:.0f} turns: coating or damage, no wrong thread."
        return Plate(
            "too_close",
            "Clean it first",
            line,
            "Out again. Clean the boss with a thread file, take off no metal; then count anew.",
            _more(found),
        )
    now = work.torque_now()
    if now and now.state == "stop":
        return Plate("stop", "Stop", now.reason, "Off with the load. More turns in, or another puller.")
    if now and now.state == "out":
        return Plate("too_close", "It holds hard", now.reason, "Leave it loaded, warm the boss by hand heat, try again. No blows.")
    if now:
        return Plate("in", "Pulling", now.reason, "Leave it loaded, stand clear, then a quarter turn more.", _scale_words(found))
    if found.call.state == "stop":
        return Plate("stop", "More thread first", found.call.reason, _more(found))
    if found.call.state == "too_close":
        move = _more(found) if found.turns_wanted else f"Go up slowly and stop at {found.stop_nm:.0f} N·m."
        return Plate("too_close", "Too close to call", found.call.reason, move, _scale_words(found))
    move = f"Load it in steps. It should let go by {found.frees_nm.high:.0f} N·m; stop at {found.stop_nm:.0f}." if found.frees_nm else ""
    return Plate("in", "The thread holds", found.call.reason, move, _scale_words(found))


def _more(found: Pull) -> str:
    """What more turns would buy."""
    buys = f"each whole turn buys {found.per_turn_n / 1000:.1f} kN"
    if found.turns_wanted and found.turns_wanted > found.turns:
        more = found.turns_wanted - found.turns
        return f"Get {more} more turn{'s' if more > 1 else ''} in, {found.turns_wanted} whole ones; {buys}."
    return f"Get it further in: {buys}."


def _scale_words(found: Pull) -> str:
    if not found.frees_nm:
        return f"Stop at {found.stop_nm:.0f} N·m on the centre screw."
    return f"It may let go from {found.frees_nm.low:.0f}, likely {found.frees_nm.likely:.0f}; stop at {found.stop_nm:.0f} N·m."


def _off(work: FlywheelOff) -> Plate:
    bad = []
    if work.said("taper") == "red":
        bad.append("the taper has picked up: blue it and lap before it goes back")
    if work.said("key") == "sheared":
        bad.append("the key is sheared: find out why before a new one goes in")
    if work.said("coils") == "rubbed":
        bad.append("the coils are rubbed: look for the rim's run-out and a worn main")
    if work.said("magnets") == "cracked":
        bad.append("a cracked magnet ends the wheel's life")
    if bad:
        return Plate(
            "out", "Off, and not well", f"{bad[0][0].upper()}{bad[0][1:]}.", "Write it down, raise it with the owner.", "; ".join(bad[1:])
        )
    step, shaft = work.value("step"), work.job.card.shaft_d_mm
    if step and shaft:
        shift = key_shift_deg(step, shaft)
        return Plate(
            "in", "Off", f"The stepped key shifts the timing {abs(shift):.1f}°.", "Keep that key with this engine; note which way it stood."
        )
    asks = [ask for ask in work.open_asks() if not ask.optional]
    if asks:
        return Plate(WAIT, "It is off", "Now look before it is wiped clean.", f"{asks[0].words}.")
    return Plate("in", "Off", "Taper, key and magnets looked at.", "Nut and washer into the tray. Sign it.")


def traces(found: Pull, source: str) -> list[Trace]:
    rows = [
        Trace(
            "Thread stands",
            kilonewtons(found.strength.low, found.strength.high),
            f"{found.turns} whole turns; {found.strength.basis}",
            True,
        ),
        Trace("Stop torque", f"{found.stop_nm:.0f} N·m", "0.8 of the least strength, least friction", True),
    ]
    if found.wanted:
        rows.insert(
            1, Trace("Taper wants", kilonewtons(found.wanted.low, found.wanted.high), f"{found.wanted.basis}; {source or 'card'}", True)
        )
    return rows
