"""Truing a pressed crank, as an exercise: its engine, its dial, its blows, and what it came to."""

from __future__ import annotations

import random
from dataclasses import asdict
from typing import Any

from engines.models import EngineCard, Spec
from engines.properties import Property
from shopmath.truing import Misalignment, next_move, runout_from
from simulators.crank import GEOMETRY, Crank, Fault, Truth, drawn

KEY = "true-crank"
STATION = "true"
LIMIT_MM = 0.03
STROKE_MM = 2 * GEOMETRY.throw_mm
BLOWS = {"ahead": "strike", "behind": "strike", "squeeze": "squeeze", "wedge": "squeeze"}  # lever: what it does to the crank
SHARES = {"tap": 0.25, "half": 0.5, "whole": 1.0}
TURNS = {"on-30": 30, "on-45": 45, "back-30": -30, "back-45": -45, "other": 0}  # lever: how far the crank is turned, °
FAULTS = {  # what may be wrong, by level: the harder, the more hides it
    "easy": (Fault.PRESSED,),
    "middle": (Fault.PRESSED, Fault.PRESSED, Fault.OVAL),
    "hard": (Fault.PRESSED, Fault.OVAL, Fault.SLIPPED, Fault.LOOSE, Fault.NOT_CURABLE),
}


def card() -> EngineCard:
    """An engine that does not exist, with its stroke and its limit."""
    made = EngineCard.objects.create(name="Practice crank", crank=EngineCard.Crank.BUILT_UP, stroke_mm=STROKE_MM)
    limit = {"property": Property.CRANK_RUNOUT, "high": LIMIT_MM, "held": Spec.Held.CENTRES, "setup": "between centres"}
    Spec.objects.create(card=made, name="Crank runout", source_kind=Spec.From.RULE, source="practice", **limit)
    return made


def fault_of(seed: int, level: str) -> Fault:
    """What is wrong with the crank of a seed at a level."""
    return random.Random(f"{seed}-{level}-fault").choice(FAULTS[level])  # noqa: S311  a made-up truth


def begin(seed: int, level: str) -> dict[str, Any]:
    """The state of a crank nobody has touched."""
    return _state(Crank(seed, drawn(seed, level, fault_of(seed, level))), 0)


def _halves(bent: Misalignment) -> dict[str, float]:
    return {name: getattr(bent, name) for name in ("twist_deg", "pinch_deg", "offset_mm", "skew_deg")}


def _state(crank: Crank, count: int) -> dict[str, Any]:
    hides = {name: value for name, value in asdict(crank.truth).items() if name != "bent"}
    return {
        "bent": _halves(crank.truth.bent),
        "hides": hides,
        "end": crank.end,
        "angle": crank.angle,
        "readings": crank.readings,
        "count": count,
    }


def standing(seed: int, state: dict[str, Any]) -> Crank:
    """The crank as a state has it; what falls by chance falls the same way for the same state."""
    crank = Crank(seed, Truth(Misalignment(**state["bent"]), **state["hides"]))
    crank.end, crank.angle, crank.readings = state["end"], state["angle"], state["readings"]
    crank.dice = random.Random(f"{seed}-{state['count']}")  # noqa: S311  a made-up chance
    return crank


def pull(seed: int, state: dict[str, Any], lever: str, share: float) -> tuple[dict[str, Any], dict[str, Any] | None]:
    """What hands do: the state after it, and the move to be written down where it was a blow."""
    crank = standing(seed, state)
    if lever in TURNS:
        crank.angle = (crank.angle + TURNS[lever]) % 360
        if lever == "other":
            crank.pull(lever)
        crank.readings += 1
        return _state(crank, state["count"] + 1), None
    before, wanted = crank.truth, next_move(crank.truth.bent, GEOMETRY, limit_mm=LIMIT_MM)
    way = -1.0 if lever in ("ahead", "squeeze") else 1.0
    getattr(crank, BLOWS[lever])(way * share)
    move = {"lever": lever, "share": share, "before_mm": before.worst_mm, "after_mm": crank.truth.worst_mm, "best": best_lever(wanted)}
    return _state(crank, state["count"] + 1), move


def best_lever(wanted: Any) -> str:
    """What would have been best, as a lever; empty where nothing was worth a blow."""
    if wanted.kind == "strike":
        return "ahead" if wanted.at_deg == 270.0 else "behind"
    return str(wanted.kind) if wanted.kind in BLOWS else ""


def came_to(seed: int, level: str, state: dict[str, Any], moves: list[dict[str, Any]]) -> dict[str, Any]:
    """The truth opened: what was bent, what is left, the best that could be, which blows helped."""
    first, crank = standing(seed, begin(seed, level)).truth, standing(seed, state)
    now = crank.truth
    right = sum(move["lever"] == move["best"] for move in moves)
    return {
        "fault": str(fault_of(seed, level)),
        "began": {**_halves(first.bent), "swing_mm": first.worst_mm},
        "ended": {**_halves(now.bent), "swing_mm": now.worst_mm},
        "best_mm": first.best_mm,
        "limit_mm": LIMIT_MM,
        "reached": now.worst_mm <= LIMIT_MM,
        "beyond": first.best_mm > LIMIT_MM,
        "right": right,
        "blows": len(moves),
        "moves": moves,
        "advice": advice(first, now, moves),
    }


def advice(first: Truth, now: Truth, moves: list[dict[str, Any]]) -> str:
    """The largest loss, as a code."""
    if first.best_mm > LIMIT_MM:
        return "beaten" if moves else "given_up_rightly"
    wrong = sum(move["lever"] != move["best"] for move in moves)
    worse = sum(move["after_mm"] > move["before_mm"] for move in moves)
    if not moves and now.worst_mm > LIMIT_MM:
        return "not_begun"
    if 2 * wrong > len(moves):
        return "wrong_way"
    if now.worst_mm > LIMIT_MM:
        return "stopped_early"
    return "overshot" if worse > 1 else "well_done"


def swings(state: dict[str, Any], seed: int) -> tuple[float, float]:
    """True swings of both ends now, mm."""
    left, right = runout_from(standing(seed, state).truth.bent, GEOMETRY)
    return left.tir_mm, right.tir_mm
