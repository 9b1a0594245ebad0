"""The verdict on a crank between its supports and the next move, also used for a crank with several throws."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath.amounts import DOWN, Amount, count, degrees, estimate, mm, mounted_clearance, plus_minus, share
from stator.engines.properties import Property
from stator.jobs.facts import Finding
from stator.stations.framework import DerivedValue, MessageRef, Question, SafetyWarning, Scale, Source, State, Verdict, question_factory
from stator.stations.framework.limits import limit_values
from stator.stations.framework.messages import format_message
from stator.stations.true_crank import messages
from stator.stations.true_crank.analysis import CLOSING, SIDES, Code, RunoutRoundAnalysis, crank
from stator.stations.true_crank.questions import setup_of
from stator.stations.true_crank.single_analysis import CURES, SingleThrowAnalysis
from stator.ui.number_format import band, show

source = partial(question_factory.source, messages)
SOFT, HARD = 0.7, 1.15  # share of a fault that a blow took: under it a harder one is wanted, over it a softer
TOOK_HALF_WIDTH = 0.25  # of the share that a blow took
FINE = 0.001


def single(found: SingleThrowAnalysis, questions: list[Question]) -> Verdict:
    """Of a crank of one throw; `asked` is what is still to be answered."""
    if found.geometry is None:
        return Verdict(State.WAIT, Code.SET_UP, reason="places", next="ask" if questions else "give_places")
    if found.mis is None:
        return turn_it(found, questions)
    if found.suspect:
        return disagree(found)
    return welded(found) if found.is_welded_since else _judged(found, questions)


def welded(found: RunoutRoundAnalysis) -> Verdict:
    """Return what was true before a weld may not be after it."""
    return Verdict(State.WAIT, Code.WELDED, {"runout": runout_said(found)}, "weld_pulls", "round_after_weld", scale=scale(found))


def turn_it(found: RunoutRoundAnalysis, questions: list[Question]) -> Verdict:
    return Verdict(State.WAIT, Code.TURN_IT, {"round": found.attempt}, next="ask" if questions else "read_the_rest")


def disagree(found: RunoutRoundAnalysis) -> Verdict:
    """Two rigid halves cannot read so: no blow."""
    assert found.suspect is not None
    reason, values = suspect_said(found)
    again = found.suspect[1].again
    said = {"angles": tuple(degrees(each) for each in again)} if len(again) > 1 else {}
    next_step = "few_again" if len(again) > 1 else "one_again" if again else "round_again"
    return Verdict(State.TOO_CLOSE, Code.DISAGREE, {**values, **said}, reason, next_step)


def suspect_said(found: RunoutRoundAnalysis) -> tuple[str, dict[str, Any]]:
    """Return why a turn's numbers cannot be: code and values."""
    assert found.suspect is not None
    side, suspect = found.suspect
    name = found.card.side(side)
    values: dict[str, Any] = {"side": f"{name[:1].upper()}{name[1:]}"}
    if suspect.code == "slipped":
        off = suspect.values["off"]
        return ("slipped_high" if off > 0 else "slipped_low"), {**values, "off": mm(abs(off))}
    if suspect.code == "one_reading":
        return suspect.code, {**values, "angle": degrees(suspect.values["angle"])}
    return suspect.code, {**values, "scatter": mm(suspect.values["scatter"])}


def runout_said(found: RunoutRoundAnalysis) -> str:
    """Return what the runout is against, as a sentence."""
    runout = {"runout": mm(found.raw_mm or 0.0)}
    if found.call and found.allowed and found.limit:
        band = {"low": mm(found.allowed.low), "high": mm(found.allowed.high), "limit": mm(found.limit.high or 0.0)}
        return format_message(messages.RUNOUT[f"converted_{found.call.state}"], {**runout, **band, "setup": setup_of(found)})
    if found.call:
        return format_message(messages.REASON[found.call.code], limit_values(found.call))
    if found.limit and found.limit_is_elsewhere:
        return format_message(messages.RUNOUT["other_setup"], {**runout, "setup": setup_of(found)})
    return format_message(messages.RUNOUT["no_limit"], runout)


def scale(found: RunoutRoundAnalysis) -> Scale | None:
    if found.raw_mm is None or not found.limit_mm:
        return None
    return Scale(found.raw_mm, found.tir_u_mm, None, found.limit_mm, "mm", 3)


def clearance_said(found: RunoutRoundAnalysis) -> str:
    """Return what the runout means in the bearing; empty when nothing is known."""
    if found.clearance is None or found.raw_mm is None:
        return ""
    low, high = found.clearance[1].low_um / 1000, found.clearance[1].high_um / 1000
    values = {"runout": mm(found.raw_mm), "low": mounted_clearance(max(low, 0.0), DOWN), "high": mounted_clearance(high)}
    code = "within_clearance"
    if high <= 0:
        code = "no_clearance"
    elif found.raw_mm > high:
        code = "over_clearance"
    elif found.raw_mm > max(low, 0.0):
        code = "near_clearance"
    return format_message(messages.TOLD[code], values)


def told(*sentences: str) -> dict[str, str]:
    """Several whole sentences as one detail."""
    return {"told": " ".join(filter(None, sentences))}


def _why(found: SingleThrowAnalysis) -> str:
    """Return what the two runouts show about the halves."""
    move = found.move
    assert move is not None
    angles = ("twist", "turned")
    values: dict[str, Any] = {name: Amount(value, "angle", FINE) if name in angles else mm(value) for name, value in move.values.items()}
    texts = [format_message(messages.WHY[move.code], {**values, "web": found.card.side(move.web)})]
    if move.kind in ("squeeze", "wedge") and found.mis and abs(found.mis.skew_deg) > abs(found.mis.pinch_deg):
        texts.append(format_message(messages.WHY["across"], {"skew": Amount(abs(found.mis.skew_deg), "angle", FINE)}))
    return " ".join([*texts, str(messages.HALF)] if move.share < 1 else texts)


def _judged(found: SingleThrowAnalysis, questions: list[Question]) -> Verdict:
    move = found.move
    assert move is not None
    values: dict[str, Any] = {"runout": runout_said(found), "why": _why(found)}
    reach = format_message(messages.TOLD["reach"], {"best": mm(found.best_mm or 0.0)})
    bearing = clearance_said(found)
    if found.call and found.call.state == State.IN:
        values |= told(_why(found), reach, bearing)
        return Verdict(State.IN, Code.WITHIN, values, "runout", Code.WITHIN, "told", scale=scale(found))
    needles = {"left": mm(move.expect_left.tir_mm), "right": mm(move.expect_right.tir_mm)}
    expected = format_message(messages.TOLD["expected"], needles) if move.kind in CURES else ""
    taught = _taught(found) if move.kind in CURES else ""
    if found.settled_by and not questions:
        values |= {"turns": count(found.settled_by), **told(_why(found), expected, taught, reach, bearing)}
        return Verdict(State.TOO_CLOSE, Code.TOO_CLOSE, values, "runout", "turns_settle", "told", scale=scale(found))
    state = found.call.state if found.call else {"leave": State.IN, "replace": State.OUT}.get(move.kind, State.TOO_CLOSE)
    values |= {
        "web": found.card.side(move.web),
        "at": degrees(move.at_deg),
        "share": share(move.share),
        **told(expected, taught, reach, bearing),
    }
    how = f"{move.kind}_half" if move.share < 1 and move.kind in CURES else Code(move.kind)
    return Verdict(state, Code(move.kind), values, "runout_why", how, "told", scale=scale(found))


def _taught(found: SingleThrowAnalysis) -> str:
    """Return what the last blow teaches the next one."""
    if found.response is None:
        return ""
    took, part = found.response
    values: dict[str, Any] = {"part": messages.PART[part], "took": estimate(share(max(took, 0.0)), TOOK_HALF_WIDTH)}
    if took > HARD:
        return format_message(messages.TOLD["softer"], {**values, "took": count(took, 0.1)})
    return format_message(messages.TOLD["harder" if took < SOFT else "as_hard"], values)


def checks(found: RunoutRoundAnalysis) -> tuple[SafetyWarning, ...]:
    clean = "clean_centres" if found.held == "centres" else "clean"
    return (SafetyWarning("clean", str(messages.CHECKS[clean])), SafetyWarning("lifted", str(messages.CHECKS["lifted"]), required=True))


def warnings(found: RunoutRoundAnalysis) -> tuple[SafetyWarning, ...]:
    return question_factory.warnings(messages)


def results(found: RunoutRoundAnalysis) -> Iterator[DerivedValue]:
    """Yield the total indicator reading of each end in the first and the last round."""
    for side in SIDES:
        rounds = [tir for attempt in range(1, found.attempt + 1) if (tir := found.needle_mm(side, attempt)) is not None]
        if not rounds:
            continue
        judged = found.judge(rounds[-1])
        limit, origin = (found.limit_mm, found.limit) if found.limit_mm else (None, None)
        limit_from = MessageRef("card", {"origin": origin.source}) if origin else None
        high = mm(limit) if limit else None
        fact_key = crank(Property.CRANK_RUNOUT, side)
        yield DerivedValue(
            fact_key, Property.CRANK_RUNOUT, mm(rounds[0]), mm(rounds[-1]), None, high, limit_from, judged.state if judged else ""
        )


def derived(found: RunoutRoundAnalysis) -> Iterator[Finding]:
    """The runout that is left at each end."""
    for side in SIDES:
        tir = found.needle_mm(side)
        if tir is not None:
            yield Finding(crank(Property.CRANK_RUNOUT, side), tir, uncertainty=found.tir_u_mm, resolution=FINE)


def shared_sources(found: RunoutRoundAnalysis) -> Iterator[Source]:
    """Both runouts, the limit, the bearing's clearance, the gauge."""
    for side in SIDES:
        turn, runout, name = found.fitted(side), found.swing(side), {"side": found.card.side(side)}
        if turn:
            rest = {"raw": mm(turn.raw_swing_mm), "oval": mm(turn.ovality_mm), "scatter": mm(turn.residual_mm, 0.0001)}
            yield source("fitted", show(mm(turn.tir_mm)), {**name, **rest, "high": degrees(turn.high_spot_deg)})
        elif runout:
            yield source("swing", show(mm(runout.tir_mm)), {**name, "high": degrees(runout.high_spot_deg)})
    if found.limit and found.limit.high is not None:
        values = {"origin": found.limit.source, "setup": found.limit.setup}
        yield source("limit" if found.limit.setup else "limit_bare", show(mm(found.limit.high)), values)
    if found.allowed and found.limit:
        meant = {"likely": mm(found.allowed.likely), "limit": mm(found.limit.high or 0.0), "setup": setup_of(found)}
        yield source("converted", band(mm(found.allowed.low), mm(found.allowed.high)), meant)
    if found.clearance:
        seat, left = found.clearance
        warm = band(mounted_clearance(left.low_um / 1000, DOWN), mounted_clearance(left.high_um / 1000))
        yield source("clearance", warm, {"seat": seat.name}, estimated=True)
    if found.gauge:
        tried = {"gauge": found.gauge.name, "turns": found.turns}
        by_kind = found.gauge.repeatability is None  # what its kind usually repeats to, nobody having tried
        yield source("gauge", f"± {show(mm(found.reading_u_mm, 0.0001))}", tried, estimated=by_kind)


def single_sources(found: SingleThrowAnalysis) -> Iterator[Source]:
    yield from shared_sources(found)
    mis = found.mis
    if mis:
        uncertainty = mis.uncertainty
        for code, value, sigma in (("twist", mis.twist_deg, uncertainty.twist_deg), ("pinch", mis.pinch_deg, uncertainty.pinch_deg)):
            yield source(code, _signed(value, "angle"), {"uncertainty": plus_minus(Amount(2 * sigma, "angle", FINE))})
        yield source("offset", _signed(mis.offset_mm, "length"), {"uncertainty": plus_minus(mm(2 * uncertainty.offset_mm))})
        yield source("skew", _signed(mis.skew_deg, "angle"), {"uncertainty": plus_minus(Amount(2 * uncertainty.skew_deg, "angle", FINE))})
    for done in reversed(found.moves):
        yield _move(found, done)


def _signed(value: float, kind: str) -> str:
    """A number with its sign, also where it is positive."""
    text = show(Amount(value, kind, FINE))
    return f"+{text}" if value > 0 else text


def _move(found: SingleThrowAnalysis, done: dict[str, Any]) -> Source:
    """A move of an earlier round: what was expected of it and what was measured after."""
    if not done["expected_mm"]:
        return source("move_none", _signed(done["twist_deg"], "angle"), {"round": done["round"]})
    web = {"web": found.card.side(done["web"]), "at": degrees(done["at_deg"])}
    left, right = (mm(each) for each in done["expected_mm"])
    after = [runout.tir_mm for side in SIDES if (runout := found.swing(side, done["round"] + 1))]
    got = (
        format_message(messages.GOT_TWO, {"left": mm(after[0]), "right": mm(after[1])})
        if len(after) == len(SIDES)
        else str(messages.NOT_SINCE)
    )
    values = {
        "round": done["round"],
        "kind": messages.KIND[done["kind"]],
        "where": format_message(messages.AT_WEB, web) if done["kind"] == "strike" else messages.OPPOSITE_PIN,
        "expected": format_message(messages.AND, {"left": left, "right": right}),
        "got": got,
    }
    return source("move", _signed(done["twist_deg"], "angle"), values)


def left_for_the_next(found: RunoutRoundAnalysis) -> list[str]:
    """Return the skipped questions that remain skipped in the next round, without those of the round itself."""
    own = {crank(Property.SHAFT_READING, side, CLOSING).key for side in SIDES}
    return [key for key in found.own.skipped if key not in own and not key.startswith(Property.SHAFT_READING)]
