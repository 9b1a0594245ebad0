"""The call on a crank between its supports, and the one next move in trade words."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from stations.base import Plate, Trace

if TYPE_CHECKING:
    from stations.true.station import CrankTruing

WAIT = "wait"
WORDS = {
    "strike": "Twisted",
    "squeeze": "Pinched",
    "wedge": "Spread",
    "leave": "As good as it gets",
    "remeasure": "Cannot tell yet",
    "replace": "Not by truing",
}
STILL = {
    "leave": "Leave it. Lock the joint as planned, then sign.",
    "remeasure": "No blow yet.",
    "replace": "Apart again: no blow cures this.",
}


def plate(work: CrankTruing) -> Plate:
    if work.signed:
        return work.signed_plate()
    ask = work.next_ask
    if work.geometry is None:
        line = "Where supports and gauges stand decides what a reading means."
        return Plate(WAIT, "Set it up", line, f"{ask.words}." if ask else "Give the places of supports and gauges.")
    if work.mis is None:
        line = f"Round {work.attempt}. Zero the gauge anywhere; turn it counter-clockwise seen from the right end."
        return Plate(WAIT, "Turn it", line, f"{ask.words}." if ask else "Read the rest.")
    if work.doubt[0]:
        return Plate("too_close", "Numbers disagree", f"{work.doubt[0]} Two rigid halves cannot read so: no blow.", work.reread())
    return _judged(work)


def _judged(work: CrankTruing) -> Plate:
    move, verdict = work.move, work.verdict_on_swing
    assert move is not None
    best, line, scale = work.best_mm or 0.0, work.swing_line(), work.swing_scale()
    reach = f"{best:.3f} mm is the best that truing can reach. {work.against_clearance()}".strip()
    state = verdict.state if verdict else {"leave": "in", "replace": "out"}.get(move.kind, "too_close")
    if verdict and verdict.state == "in":
        return Plate("in", "True enough", line, "Leave it, or go on for less: it is within its limit.", f"{_reason(work)} {reach}", scale)
    needles = f"Needles should then read {move.expect_left.tir_mm:.3f} and {move.expect_right.tir_mm:.3f}."
    detail = f"{needles} {_softer(work)}{reach}" if move.kind in ("strike", "squeeze", "wedge") else reach
    if work.settled_by and not work.open_asks():
        more = f"{work.settled_by} turns in all at each end settle it; or a finer gauge."
        return Plate("too_close", "Too close to call", line, more, f"{_reason(work)} {detail}", scale)
    return Plate(state, WORDS[move.kind], f"{line} {_reason(work)}", _moved(work), detail, scale)


def _reason(work: CrankTruing) -> str:
    """The core's reason with the sides in this engine's own words."""
    assert work.move is not None
    return work.move.reason.replace("right web", f"{work.job.card.side('right')} web")


def _softer(work: CrankTruing) -> str:
    """What the last blow teaches the next one."""
    found = work.response()
    if found is None:
        return ""
    took, part = found
    if took > 1.15:
        return f"The last blow went {took:.1f} times as far as the {part} it was for: softer. "
    if took < 0.7:
        return f"The last blow took {max(took, 0):.0%} of the {part} it was for: a little harder. "
    return f"The last blow took {took:.0%} of the {part}: as hard again. "


def _moved(work: CrankTruing) -> str:
    """The move as it is said at the bench."""
    move = work.move
    assert move is not None
    half = ", half the usual blow" if move.share < 1 else ""
    if move.kind == "strike":
        return f"Strike the rim of the {work.job.card.side(move.web)} web at {move.at_deg:.0f}°, toward the axis{half}."
    if move.kind in ("squeeze", "wedge"):
        return f"{'Squeeze the rims together' if move.kind == 'squeeze' else 'Wedge the rims apart'} opposite the pin{half}."
    return STILL[move.kind]


def as_written(work: CrankTruing) -> dict[str, Any]:
    """A move as the log keeps it: what was measured, what was done, what was expected."""
    move, mis = work.move, work.mis
    assert mis is not None
    kept = {"round": work.attempt, "twist_deg": round(mis.twist_deg, 4), "pinch_deg": round(mis.pinch_deg, 4)}
    if move is None:  # the numbers disagreed: nothing was prescribed
        return {**kept, "kind": "again", "web": "", "at_deg": 0.0, "share": 0.0, "expected_mm": []}
    expected = [round(move.expect_left.tir_mm, 4), round(move.expect_right.tir_mm, 4)]
    return {**kept, "kind": move.kind, "web": move.web, "at_deg": move.at_deg, "share": move.share, "expected_mm": expected}


def traces(work: CrankTruing) -> list[Trace]:
    rows = work.swing_traces()
    mis = work.mis
    if mis:
        unsure = mis.uncertainty
        rows.append(Trace("Twist", f"{mis.twist_deg:+.3f}°", f"± {2 * unsure.twist_deg:.3f}; right web ahead is +"))
        rows.append(Trace("Pinch", f"{mis.pinch_deg:+.4f}°", f"± {2 * unsure.pinch_deg:.4f}; closed at the pin is +"))
        rows.append(Trace("Offset", f"{mis.offset_mm:+.3f} mm", f"± {2 * unsure.offset_mm:.3f}; not curable by truing"))
        rows.append(Trace("Skew", f"{mis.skew_deg:+.4f}°", f"± {2 * unsure.skew_deg:.4f}; not curable by truing"))
    for done in reversed(work.choices.get("moves", [])):
        where = f"{done['web']} web at {done['at_deg']:.0f}°" if done["kind"] == "strike" else "opposite the pin"
        got = [swing.tir_mm for key in ("l", "r") if (swing := work.swing(key, done["round"] + 1))]
        expected = " and ".join(f"{value:.3f}" for value in done["expected_mm"])
        after = f"{' and '.join(f'{value:.3f}' for value in got)} got" if len(got) == 2 else "not measured since"
        source = f"{where}; {expected} expected, {after}" if done["expected_mm"] else "numbers disagreed"
        rows.append(Trace(f"Round {done['round']}: {done['kind']}", f"{done['twist_deg']:+.3f}°", source))
    return rows
