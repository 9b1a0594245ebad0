"""The call on a crank between its supports, and the one next move in trade words."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from stations.base import Plate, Scale, Trace

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
    if work.mis is None or work.move is None:
        line = f"Round {work.heat}. Zero the gauge anywhere; turn it counter-clockwise seen from the right end."
        return Plate(WAIT, "Turn it", line, f"{ask.words}." if ask else "Read the rest.")
    return _judged(work)


def _judged(work: CrankTruing) -> Plate:
    move, verdict = work.move, work.verdict_on_swing
    assert move is not None
    raw, best = work.raw_mm or 0.0, work.best_mm or 0.0
    scale = Scale(raw, work.reading_u_mm * 1.414, None, work.limit_mm, "mm", 3) if work.limit_mm else None
    reach = f"{best:.3f} mm is the best that truing can reach."
    state = verdict.state if verdict else {"leave": "in", "replace": "out"}.get(move.kind, "too_close")
    line = verdict.reason if verdict else f"{raw:.3f} mm swing; no limit on the card, so no verdict."
    needles = f"Needles should then read {move.expect_left.tir_mm:.3f} and {move.expect_right.tir_mm:.3f}."
    if verdict and verdict.state == "in":
        return Plate("in", "True enough", line, "Leave it, or go on for less: it is within its limit.", f"{move.reason} {reach}", scale)
    detail = f"{needles} {reach}" if move.kind in ("strike", "squeeze", "wedge") else reach
    return Plate(state, WORDS[move.kind], f"{line} {move.reason}", _moved(work), detail, scale)


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
    assert move is not None
    assert mis is not None
    return {
        "round": work.heat,
        "kind": move.kind,
        "web": move.web,
        "at_deg": move.at_deg,
        "share": move.share,
        "twist_deg": round(mis.twist_deg, 4),
        "pinch_deg": round(mis.pinch_deg, 4),
        "expected_mm": [round(move.expect_left.tir_mm, 4), round(move.expect_right.tir_mm, 4)],
    }


def traces(work: CrankTruing) -> list[Trace]:
    rows: list[Trace] = []
    for side, key in (("left", "l"), ("right", "r")):
        found, swing = work.fitted(key), work.swing(key)
        if found:
            rest = f"oval {found.ovality_mm:.3f}, scatter {found.residual_mm:.4f}"
            source = f"high at {found.high_spot_deg:.0f}°; raw {found.raw_swing_mm:.3f}, {rest}"
            rows.append(Trace(f"Swing, {work.job.card.side(side)}", f"{found.tir_mm:.3f} mm", source))
        elif swing:
            rows.append(Trace(f"Swing, {work.job.card.side(side)}", f"{swing.tir_mm:.3f} mm", f"high at {swing.high_spot_deg:.0f}°"))
    mis = work.mis
    if mis:
        unsure = mis.uncertainty
        rows.append(Trace("Twist", f"{mis.twist_deg:+.3f}°", f"± {2 * unsure.twist_deg:.3f}; right web ahead is +"))
        rows.append(Trace("Pinch", f"{mis.pinch_deg:+.4f}°", f"± {2 * unsure.pinch_deg:.4f}; closed at the pin is +"))
        rows.append(Trace("Offset", f"{mis.offset_mm:+.3f} mm", f"± {2 * unsure.offset_mm:.3f}; not curable by truing"))
        rows.append(Trace("Skew", f"{mis.skew_deg:+.4f}°", f"± {2 * unsure.skew_deg:.4f}; not curable by truing"))
    if work.spec:
        rows.append(
            Trace("Limit", f"{work.limit_mm:g} mm", f"{work.spec.get_source_kind_display()} {work.spec.source} {work.spec.setup}".strip())
        )
    for done in reversed(work.choices.get("moves", [])):
        expected = " and ".join(f"{value:.3f}" for value in done["expected_mm"])
        where = f"{done['web']} web at {done['at_deg']:.0f}°" if done["kind"] == "strike" else "opposite the pin"
        rows.append(Trace(f"Round {done['round']}: {done['kind']}", f"{done['twist_deg']:+.3f}°", f"{where}; {expected} was expected"))
    return rows
